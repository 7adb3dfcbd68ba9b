package org.calmpalette.core.survey;

/**
 * Something the survey found that is wrong or wants a look.
 *
 * @param kind a short name that stays the same, such as {@code missing-picture}
 * @param line from 1
 */
public record Finding(String kind, String file, int line, String message, String mend) {}
