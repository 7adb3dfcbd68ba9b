package org.calmpalette.core.theme;

/**
 * A file of a theme that is kept, byte for byte, but not looked at: it is beyond what can be read here, or in an encoding that
 * browsers do not read.
 *
 * @param unreadable whether browsers read something else, or nothing
 * @param why what is beyond which limit, as a sentence
 * @param mend what to do about it
 */
public record SetAside(String path, boolean unreadable, String why, String mend) {}
