package org.calmpalette.app.survey;

import java.util.List;
import java.util.Locale;
import org.calmpalette.core.part.PartContrast;

/** What a part's text stands on, in sentences. */
final class ContrastWords {
    private ContrastWords() {}

    /** Never rounded up to what is needed. */
    static String ratio(double ratio) {
        return String.format(Locale.ROOT, "%.2f", Math.floor(ratio * 100 + 1e-6) / 100);
    }

    /** Where its worst is, and what it stands on there. */
    static String worst(PartContrast c) {
        PartContrast.Worst w = c.worst().orElseThrow();
        StringBuilder said =
                new StringBuilder("at worst, in a window of ").append(w.width()).append(" px: ");
        said.append(w.text()).append(" on ").append(w.ground());
        said.append(
                w.pictures().isEmpty()
                        ? " of " + w.holder()
                        : " in "
                                + String.join(
                                        " and ",
                                        w.pictures()
                                                .subList(
                                                        0,
                                                        Math.min(2, w.pictures().size()))));
        if (w.isInPixels()) {
            said.append("; 95 of 100 points behind it reach that, the worst ").append(ratio(w.pixel()));
        }
        said.append("; ").append(w.needed() == 3 ? "3" : "4.5").append(" is needed.");
        if (!c.failing().isEmpty() && c.failing().size() < c.asked()) {
            said.append(" Too little at ").append(widths(c.failing())).append('.');
        }
        if (w.shadowed()) {
            said.append(" The shadow of the letters is not reckoned with.");
        }
        return said.toString();
    }

    private static String widths(List<Integer> all) {
        List<String> some = all.stream().limit(6).map(String::valueOf).toList();
        return String.join(", ", some)
                + (all.size() > some.size() ? " and " + (all.size() - some.size()) + " more" : "") + " px";
    }

    /** Why it cannot be told, and where; empty if all of it is told. */
    static String untold(PartContrast c) {
        if (c.untold().isEmpty()) {
            return "";
        }
        String why =
                switch (c.untold().get()) {
                    case NOT_MEASURED ->
                        "a picture, a gradient or something that was moved lies behind it, and where is told by boxes that nobody has measured.";
                    case BEYOND_MEASURES ->
                        "where it and what lies behind it are was not measured there; of a page the first 800 elements are, at as many widths as fit into memory.";
                    case PICTURE_NOT_READ -> "the picture behind it cannot be read here.";
                    case UNREAD_BACKGROUND -> "a background of a kind that is not read lies behind it.";
                    case BLEND_MODE -> "it is blended with what is behind it.";
                    case FILTER -> "a filter changes its colours.";
                    case OVERLAP -> "something that is not around it lies in the same place.";
                };
        boolean everywhere = c.untoldAt().size() == c.asked();
        return "How it reads" + (everywhere ? "" : " at " + widths(c.untoldAt())) + " cannot be told: " + why;
    }
}
