package org.calmpalette.core.setting;

import java.math.BigDecimal;
import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import java.util.Optional;
import java.util.Set;
import org.calmpalette.core.BadInputException;
import org.calmpalette.core.language.Language;
import org.calmpalette.core.picture.Lighter;
import org.calmpalette.core.picture.PictureEdit;
import org.calmpalette.core.picture.PictureFile;
import org.calmpalette.core.picture.PictureSize;

/**
 * A picture that an owner brings for a setting, made what the setting asks for: upright, cut to the shape, no larger and no heavier than
 * is of use, and without what the camera wrote of place and device. What is too small stays out, since larger than it is it would look
 * soft.
 *
 * @param format ending of its name, such as {@code webp}
 * @param told what was done to it, in words
 */
public record OwnPicture(byte[] bytes, String format, int width, int height, List<String> told) {
    /** What is wider than this is seen as no sharper on any screen that is common. */
    private static final int WIDE_ENOUGH = 2_560;
    /** Steps by which a picture that is too heavy at every quality becomes smaller. */
    private static final double SMALLER = 0.8;

    private static final int LEAST = 16;
    private static final Set<String> READ = Set.of("jpg", "png", "webp");

    /**
     * What is cut out of a picture so that it has a shape that may be chosen.
     *
     * @param width of what is kept, in pixels of the picture
     * @param height likewise
     */
    public record Cut(int width, int height) {
        /** All of it where its shape may be chosen. */
        static Cut of(PictureKind kind, int width, int height) {
            BigDecimal narrowest = kind.narrowest();
            BigDecimal widest = kind.widest();
            double shape = (double) width / height;
            if (narrowest != null && shape < narrowest.doubleValue()) {
                return new Cut(width, Math.max(1, (int) Math.round(width / narrowest.doubleValue())));
            }
            if (widest != null && shape > widest.doubleValue()) {
                return new Cut(Math.max(1, (int) Math.round(height * widest.doubleValue())), height);
            }
            return new Cut(width, height);
        }
    }

    /**
     * Makes one of what was brought.
     *
     * @param name of the file, for messages
     * @param x where the middle of what must stay is, 0 to 1 of the width
     * @param y likewise of the height
     * @throws BadInputException if it is no picture that can be read, or too small, in words that say what is missing
     */
    public static OwnPicture of(String name, byte[] bytes, PictureKind kind, double x, double y) {
        String is = PictureFile.format(bytes).orElse("");
        if (!READ.contains(is)) {
            throw new BadInputException(
                    is.isEmpty()
                            ? Language.say("own.no-picture", name)
                            : Language.say("own.format", name, is.toUpperCase(Locale.ROOT)),
                    Language.say("own.no-picture.mend"));
        }
        PictureSize size = PictureFile.picture(name, bytes);
        if (size.width() < 1 || size.height() < 1) {
            throw new BadInputException(Language.say("own.no-size", name), Language.say("own.no-size.mend"));
        }
        Cut cut = Cut.of(kind, size.width(), size.height());
        checkLarge(name, size, cut, kind);
        String format = format(name, kind, is);
        for (int width = Math.min(cut.width(), Math.max(WIDE_ENOUGH, leastWidth(kind, cut)));
                width >= Math.max(LEAST, leastWidth(kind, cut));
                width = (int) (width * SMALLER)) {
            int height = Math.max(1, (int) Math.round(width * (double) cut.height() / cut.width()));
            Optional<byte[]> made = Lighter.fitted(
                    name,
                    bytes,
                    new PictureEdit.Fitted(width, height, bounded(x), bounded(y)),
                    format.replace("jpg", "jpeg"),
                    kind.mostBytes());
            if (made.isPresent()) {
                OwnPicture own = new OwnPicture(
                        made.get(), format, width, height, told(bytes, made.get(), size, cut, width, height));
                own.check(kind);
                return own;
            }
        }
        throw new BadInputException(
                Language.say("own.heavy", name, PictureKind.size(kind.mostBytes())), Language.say("own.heavy.mend"));
    }

    private static double bounded(double share) {
        return Double.isNaN(share) ? 0.5 : Math.max(0, Math.min(1, share));
    }

    private static void checkLarge(String name, PictureSize size, Cut cut, PictureKind kind) {
        if (cut.width() >= kind.leastWidth() && cut.height() >= kind.leastHeight()) {
            return;
        }
        boolean whole = cut.width() == size.width() && cut.height() == size.height();
        String needs = kind.leastWidth() > 0 && kind.leastHeight() > 0
                ? Language.say("own.needs.both", kind.leastWidth(), kind.leastHeight())
                : kind.leastWidth() > 0
                        ? Language.say("own.needs.wide", kind.leastWidth())
                        : Language.say("own.needs.high", kind.leastHeight());
        throw new BadInputException(
                whole
                        ? Language.say("own.small", name, size.width(), size.height(), needs)
                        : Language.say(
                                "own.small.cut", name, size.width(), size.height(), cut.width(), cut.height(), needs),
                Language.say("own.small.mend"));
    }

    /** What may be chosen and shows the same with the fewest bytes. */
    private static String format(String name, PictureKind kind, String is) {
        List<String> may = kind.formats().isEmpty() ? PictureKind.FORMATS : kind.formats();
        return List.of("webp", is, "jpg", "png").stream()
                .filter(may::contains)
                .filter(READ::contains)
                .findFirst()
                .orElseThrow(() -> new BadInputException(
                        Language.say("own.format.no", name, String.join(", ", may)),
                        Language.say("own.format.no.mend")));
    }

    private static int leastWidth(PictureKind kind, Cut cut) {
        return Math.max(kind.leastWidth(), (int) Math.ceil(kind.leastHeight() * (double) cut.width() / cut.height()));
    }

    private void check(PictureKind kind) {
        String path = "own." + format;
        MediaFacts facts = MediaFacts.of(path, bytes);
        kind.refusal(Value.of(path), new Effective.MediaOnly(Media.one(path, facts)))
                .ifPresent(why -> {
                    throw new BadInputException(why.words(), Language.say("own.other"));
                });
    }

    private static List<String> told(byte[] was, byte[] is, PictureSize size, Cut cut, int width, int height) {
        List<String> told = new ArrayList<>();
        if (cut.width() != size.width() || cut.height() != size.height()) {
            told.add(Language.say("own.cut"));
        }
        if (width < cut.width()) {
            told.add(Language.say("own.made", width, height));
        }
        if (is.length < was.length) {
            told.add(Language.say("own.lighter", PictureKind.size(was.length), PictureKind.size(is.length)));
        }
        told.add(Language.say("own.left-out"));
        return told;
    }
}
