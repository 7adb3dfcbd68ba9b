package org.calmpalette.core.setting;

/**
 * A value that does not count, and why.
 *
 * @param value in words
 */
public record LeftOut(String key, String value, Refusal why) {}
