package org.calmpalette.core.setting;

import java.math.BigDecimal;
import org.calmpalette.core.BadInputException;

/**
 * How much a theme promises, where its maker may say so.
 *
 * @param level of the contrast of texts
 * @param kept whether owners may choose only what makes no text hard to read; else they are told, and may
 * @param whatever whether owners are shown the colours that are safe whatever else they choose; else those that are as all else is now
 * @param pictures what those of a page weigh together at most, in kB of 1,000 bytes, {@value #LEAST} to {@value #MOST}
 * @param seam distance in OKLab, times 100, from which the end of a picture is seen as a seam, {@link #SEAMS}
 * @param larger how many times as large as it is a picture may be drawn, {@link #LARGER}; 0.5 keeps it sharp on screens of two pixels a CSS
 *     pixel
 */
public record Thresholds(
        Level level, boolean kept, boolean whatever, int pictures, BigDecimal seam, BigDecimal larger) {
    public static final int LEAST = 50;
    public static final int MOST = 20_000;
    /** Two is the just noticeable distance; the usual one is two and a half times that. */
    public static final Range SEAMS = new Range(new BigDecimal("1"), new BigDecimal("30"), null);

    public static final Range LARGER = new Range(new BigDecimal("0.25"), new BigDecimal("4"), null);

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
        this(level, false, false, pictures, new BigDecimal("5"), new BigDecimal("1.25"));
    }

    /** The same of pictures, and something else of texts. */
    public Thresholds withTexts(Level other, boolean onlyKept, boolean whateverElse) {
        return new Thresholds(other, onlyKept, whateverElse, pictures, seam, larger);
    }

    /** With another weight of the pictures of a page. */
    public Thresholds withPictures(int kilobytes) {
        return new Thresholds(level, kept, whatever, kilobytes, seam, larger);
    }

    /** With another distance at the end of pictures. */
    public Thresholds withSeam(BigDecimal distance) {
        return new Thresholds(level, kept, whatever, pictures, distance, larger);
    }

    /** With another size in which pictures may be drawn. */
    public Thresholds withLarger(BigDecimal times) {
        return new Thresholds(level, kept, whatever, pictures, seam, times);
    }

    /** @throws BadInputException if something of it is none that can be promised */
    public Thresholds {
        // Written as numbers of values are: without zeros behind, and ten as 10.
        seam = new Value.Number(seam).number();
        larger = new Value.Number(larger).number();
        if (!isIn(seam, SEAMS)) {
            throw new BadInputException(
                    "The end of a picture cannot be promised to be no farther than " + seam.toPlainString()
                            + " from what goes on there.",
                    "Write a number from " + SEAMS.lower() + " to " + SEAMS.upper() + ".");
        }
        if (!isIn(larger, LARGER)) {
            throw new BadInputException(
                    "Pictures cannot be promised to be drawn at most " + larger.toPlainString()
                            + " times as large as they are.",
                    "Write a number from " + LARGER.lower() + " to " + LARGER.upper() + ".");
        }
        if (pictures < LEAST || pictures > MOST) {
            throw new BadInputException(
                    "The pictures of a page cannot be promised to weigh at most " + pictures + " kB.",
                    "Write a number from " + LEAST + " to " + MOST + ".");
        }
    }

    private static boolean isIn(BigDecimal n, Range range) {
        return n.compareTo(range.lower()) >= 0 && n.compareTo(range.upper()) <= 0;
    }
}
