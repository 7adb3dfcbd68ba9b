package org.calmpalette.core.setting;

/**
 * A named range of window widths.
 *
 * @param to the last whole width in CSS px that belongs to it, or null for the widest band. A window of 767.5 px still
 *     belongs to a band that ends at 767: the next one starts at 768.
 */
public record Band(String key, String label, Integer to) {
    public static final int NARROWEST_EDGE = 200;
    public static final int WIDEST_EDGE = 4_000;
}
