package org.calmpalette.core.usage;

import java.util.List;

/**
 * A place in a stylesheet that reads a setting.
 *
 * @param name the custom property that is read: the setting's own, or one of its parts
 * @param start offset of {@code var(} in the file's text
 * @param end offset after its closing parenthesis
 * @param fallback the text of the fallback, empty if there is none
 */
public record BoundUse(
        String key,
        String name,
        String file,
        int start,
        int end,
        int line,
        String selector,
        String property,
        String fallback,
        List<Painted> paints) {}
