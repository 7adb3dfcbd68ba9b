package org.calmpalette.core.promise;

import java.util.Locale;
import org.calmpalette.core.setting.Thresholds;

/** What a theme promises its owners: it holds for every choice that is allowed, at every window width from 320 to 2560 px. */
public enum Promise {
    READABLE(
            "Readable",
            "Every text keeps its contrast with what lies behind it: %s to 1, or %s to 1 where it is large; icons, edges of fields and outlines keep 3 to 1."),
    APART("Apart", "Two colours of which the maker asks it keep their contrast."),
    DISTINCT(
            "Told apart",
            "Two colours of which the maker asks it stay different to everybody, with whatever colour vision."),
    WHOLE(
            "Whole",
            "Nothing that is chosen leaves a link or a picture without words, a second first heading, or a link to nowhere."),
    COVERED(
            "Covered",
            "No background ends in a seam: the picture goes on, or what goes on there is less than %s from its edge (in OKLab, times 100)."),
    SHARP("Sharp", "No picture is drawn more than %s times as large as its pixels."),
    IN_SIGHT("In sight", "What must be seen of a picture is in view, and not under the text."),
    UNDISTORTED("Undistorted", "Pictures keep their shape."),
    CLEAR("Clear of the header", "A header that stays in view hides nothing that one jumps to, and no beginning."),
    FITS("Fits", "No page is wider than its window, and no text is cut off or pushed out of it."),
    LIGHT("Light", "The pictures of a page weigh at most %,d kB together."),
    STILL("Still", "Every movement stops for visitors who ask for less of it, and every video has a poster."),
    EFFECTIVE("Effective", "Each setting changes something on some page."),
    SOUND("Sound", "Defaults and schemes are allowed, and what follows another setting finds it.");

    private final String label;
    private final String holds;

    Promise(String label, String holds) {
        this.label = label;
        this.holds = holds;
    }

    /** As answers name it, such as {@code readable}. */
    public String key() {
        return name().toLowerCase(Locale.ROOT).replace('_', '-');
    }

    public String label() {
        return label;
    }

    /** When it holds, in a sentence. @param thresholds of the theme */
    public String holds(Thresholds thresholds) {
        return switch (this) {
            case READABLE ->
                String.format(
                        Locale.ROOT,
                        holds,
                        Answer.plain(thresholds.level().usual()),
                        Answer.plain(thresholds.level().large()));
            case COVERED -> String.format(Locale.ROOT, holds, thresholds.seam().toPlainString());
            case SHARP -> String.format(Locale.ROOT, holds, thresholds.larger().toPlainString());
            case LIGHT -> String.format(Locale.ROOT, holds, thresholds.pictures());
            default -> holds;
        };
    }
}
