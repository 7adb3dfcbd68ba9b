package org.calmpalette.core.setting;

import java.math.BigDecimal;
import java.util.List;
import org.calmpalette.core.color.Color;

/**
 * Why a value does not count, as data: which limit it is beyond and with what. {@link MakerWords} and {@link OwnerWords} say it;
 * nothing else puts a refusal into words.
 */
public sealed interface Refusal {

    /** Says a refusal: one method for each, so that nobody who says them can forget one. */
    interface Words {
        String outOfRange(OutOfRange r);

        String offStep(OffStep r);

        String notAmong(NotAmong r);

        String missing(Missing r);

        String stays(Stays r);

        String inPart(InPart r);

        String colorBeyond(ColorBeyond r);

        String translucent(Translucent r);

        String lowContrast(LowContrast r);

        String tooMany(TooMany r);

        String length(Length r);

        String notLinked(NotLinked r);

        String noPage(NoPage r);

        String noFile(NoFile r);

        String format(Format r);

        String tooHeavy(TooHeavy r);

        String noSize(NoSize r);

        String tooSmall(TooSmall r);

        String wrongShape(WrongShape r);

        String noSetting(NoSetting r);

        String noBand(NoBand r);

        String notByBand(NotByBand r);

        String unreadable(Unreadable r);

        String itemCount(ItemCount r);
    }

    String said(Words words);

    /** As the maker reads it. */
    default String words() {
        return said(MakerWords.PLAIN);
    }

    /** The limit as answers of the command line name it: {@code low-contrast}. */
    default String limit() {
        return getClass().getSimpleName().replaceAll("(?<=[a-z])(?=[A-Z])", "-").toLowerCase(java.util.Locale.ROOT);
    }

    /** @param unit with the gap before it, as it is shown after a number */
    record OutOfRange(BigDecimal value, String unit, Range range) implements Refusal {
        @Override
        public String said(Words words) {
            return words.outOfRange(this);
        }
    }

    record OffStep(BigDecimal value, String unit, BigDecimal step, BigDecimal first) implements Refusal {
        @Override
        public String said(Words words) {
            return words.offStep(this);
        }
    }

    /** Too few or too many items. */
    record ItemCount(int count, int least, int most) implements Refusal {
        @Override
        public String said(Words words) {
            return words.itemCount(this);
        }
    }

    /** What a closed list holds. */
    enum Listed {
        OPTIONS,
        SWATCHES,
        STEPS,
        UNITS,
        SHAPES
    }

    /**
     * @param allowed as the theme's files write it
     * @param labels as owners read it, in the same order
     */
    record NotAmong(Listed what, String value, List<String> allowed, List<String> labels) implements Refusal {
        public NotAmong {
            allowed = List.copyOf(allowed);
            labels = List.copyOf(labels);
        }

        NotAmong(Listed what, String value, List<String> allowed) {
            this(what, value, allowed, allowed);
        }

        @Override
        public String said(Words words) {
            return words.notAmong(this);
        }
    }

    /** @param what that has to be there, such as “border”; empty for the value itself */
    record Missing(String what) implements Refusal {
        @Override
        public String said(Words words) {
            return words.missing(this);
        }
    }

    /** A part of a value that the maker fixed. @param value in words */
    record Stays(String part, String value) implements Refusal {
        @Override
        public String said(Words words) {
            return words.stays(this);
        }
    }

    /** What is wrong with one part of a value. */
    record InPart(String part, Refusal why) implements Refusal {
        @Override
        public String said(Words words) {
            return words.inPart(this);
        }

        @Override
        public String limit() {
            return why.limit();
        }
    }

    /** Components of OKLCH, CSS Color Level 4, section 9.4. */
    enum Component {
        LIGHTNESS,
        CHROMA,
        HUE
    }

    /** @param value in percent for lightness, degrees for hue; chroma has no unit */
    record ColorBeyond(Component component, double value, ColorKind.Span allowed) implements Refusal {
        @Override
        public String said(Words words) {
            return words.colorBeyond(this);
        }
    }

    record Translucent() implements Refusal {
        @Override
        public String said(Words words) {
            return words.translucent(this);
        }
    }

    /**
     * A contrast ratio of WCAG 2.2 that is not reached.
     *
     * @param with the key of the other setting, or the colour as it is written
     * @param isSetting whether it is a key
     */
    record LowContrast(String with, boolean isSetting, Color other, double ratio, BigDecimal needed)
            implements Refusal {
        @Override
        public String said(Words words) {
            return words.lowContrast(this);
        }
    }

    /** More colours in a gradient than may be chosen. */
    record TooMany(int count, int most) implements Refusal {
        @Override
        public String said(Words words) {
            return words.tooMany(this);
        }
    }

    /** A text that is too short or too long, in characters (code points of Unicode). */
    record Length(int characters, int least, int most) implements Refusal {
        @Override
        public String said(Words words) {
            return words.length(this);
        }
    }

    /** @param allowed what may be linked, in words */
    record NotLinked(String target, String allowed) implements Refusal {
        @Override
        public String said(Words words) {
            return words.notLinked(this);
        }
    }

    record NoPage(String path) implements Refusal {
        @Override
        public String said(Words words) {
            return words.noPage(this);
        }
    }

    record NoFile(String path) implements Refusal {
        @Override
        public String said(Words words) {
            return words.noFile(this);
        }
    }

    record Format(String path, String format, List<String> allowed) implements Refusal {
        public Format {
            allowed = List.copyOf(allowed);
        }

        @Override
        public String said(Words words) {
            return words.format(this);
        }
    }

    record TooHeavy(String path, long bytes, long most) implements Refusal {
        @Override
        public String said(Words words) {
            return words.tooHeavy(this);
        }
    }

    record NoSize(String path) implements Refusal {
        @Override
        public String said(Words words) {
            return words.noSize(this);
        }
    }

    /** In pixels of the picture; a least of 0 asks for nothing. */
    record TooSmall(String path, int width, int height, int leastWidth, int leastHeight) implements Refusal {
        @Override
        public String said(Words words) {
            return words.tooSmall(this);
        }
    }

    /** @param bound width divided by height that is not kept: the least if it is too high, else the most */
    record WrongShape(String path, int width, int height, boolean tooHigh, BigDecimal bound) implements Refusal {
        @Override
        public String said(Words words) {
            return words.wrongShape(this);
        }
    }

    record NoSetting(String key) implements Refusal {
        @Override
        public String said(Words words) {
            return words.noSetting(this);
        }
    }

    record NoBand(String key) implements Refusal {
        @Override
        public String said(Words words) {
            return words.noBand(this);
        }
    }

    record NotByBand() implements Refusal {
        @Override
        public String said(Words words) {
            return words.notByBand(this);
        }
    }

    /** No value of the setting's kind at all. @param why what its reader said */
    record Unreadable(String why) implements Refusal {
        @Override
        public String said(Words words) {
            return words.unreadable(this);
        }
    }
}
