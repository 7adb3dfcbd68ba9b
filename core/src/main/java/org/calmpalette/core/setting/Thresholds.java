package org.calmpalette.core.setting;

import org.calmpalette.core.BadInputException;

/**
 * How much a theme promises, where its maker may say so.
 *
 * @param level of the contrast of texts
 * @param kept whether owners may choose only what makes no text hard to read; else they are told, and may
 * @param whatever whether owners are shown the colours that are safe whatever else they choose; else those that are as all else is now
 * @param pictures what those of a page weigh together at most, in kB of 1,000 bytes, {@value #LEAST} to {@value #MOST}
 */
public record Thresholds(Level level, boolean kept, boolean whatever, int pictures) {
    public static final int LEAST = 50;
    public static final int MOST = 20_000;
    /** 1.5 MB: the middle page of the web asks for about 1 MB of pictures (HTTP Archive, from memory); the figure is our own. */
    public static final Thresholds USUAL = new Thresholds(Level.AA, 1_500);

    /** Conformance levels of WCAG 2.2: AA asks for a contrast of 4.5 (1.4.3), AAA for 7 (1.4.6); of large texts for 3 and 4.5. */
    public enum Level {
        AA(4.5, 3),
        AAA(7, 4.5);

        private final double usual;
        private final double large;

        Level(double usual, double large) {
            this.usual = usual;
            this.large = large;
        }

        /** Of a text of usual size. */
        public double usual() {
            return usual;
        }

        /** Of a large one. */
        public double large() {
            return large;
        }

        /** @param aa what level AA asks of the same text */
        public double insteadOf(double aa) {
            return aa < AA.usual ? large : usual;
        }
    }

    public Thresholds(Level level, int pictures) {
        this(level, false, false, pictures);
    }

    /** @throws BadInputException if the weight is none that can be promised */
    public Thresholds {
        if (pictures < LEAST || pictures > MOST) {
            throw new BadInputException(
                    "The pictures of a page cannot be promised to weigh at most " + pictures + " kB.",
                    "Write a number from " + LEAST + " to " + MOST + ".");
        }
    }
}
