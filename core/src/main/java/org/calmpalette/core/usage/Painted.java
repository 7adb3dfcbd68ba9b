package org.calmpalette.core.usage;

/**
 * Elements that a declaration paints, for finding them in a page.
 *
 * @param selector as {@code querySelectorAll} takes it: without pseudo-elements and states
 * @param property the property that shows the colour
 * @param whenever the state or pseudo-element the selector names beyond the element, such as {@code :hover}; may be
 *     empty
 */
public record Painted(String selector, String property, String whenever) {}
