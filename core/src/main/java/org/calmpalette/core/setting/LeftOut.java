package org.calmpalette.core.setting;

/**
 * A value that does not count, and why, in plain words.
 *
 * @param value in words
 */
public record LeftOut(String key, String value, String why) {}
