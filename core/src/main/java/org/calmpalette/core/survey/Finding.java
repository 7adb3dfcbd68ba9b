package org.calmpalette.core.survey;

/**
 * Something the survey found that is wrong or wants a look.
 *
 * @param kind a short name that stays the same, such as {@code missing-picture}
 * @param line from 1
 * @param column from 1, in UTF-16 code units; 0 if the whole line is meant
 */
public record Finding(String kind, String file, int line, int column, String message, String mend) {}
