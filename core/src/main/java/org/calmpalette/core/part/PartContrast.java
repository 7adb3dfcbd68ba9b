package org.calmpalette.core.part;

import java.util.ArrayList;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Optional;
import java.util.Set;
import java.util.TreeSet;
import org.calmpalette.core.Budget;
import org.calmpalette.core.background.Sweep;
import org.calmpalette.core.cascade.ElementStyle;
import org.calmpalette.core.cascade.LetterPaint;
import org.calmpalette.core.cascade.PageStyles;
import org.calmpalette.core.color.Color;
import org.calmpalette.core.color.Contrast;
import org.calmpalette.core.css.selector.Inactive;
import org.calmpalette.core.css.selector.States;
import org.calmpalette.core.page.Page;
import org.calmpalette.core.render.Backdrop;
import org.calmpalette.core.render.Breakpoint;
import org.calmpalette.core.render.Gallery;
import org.calmpalette.core.render.Ground;
import org.calmpalette.core.render.Measures;
import org.calmpalette.core.render.Rendered;
import org.calmpalette.core.render.Scenes;
import org.calmpalette.core.setting.ColorKey;
import org.calmpalette.core.value.Image;
import org.calmpalette.core.value.Viewport;
import org.jsoup.nodes.Element;

/**
 * What the text of a part stands on, and how well it reads there: the worst of all window widths, or why that cannot be told. A part
 * without words of its own answers for the texts in it.
 *
 * @param worst empty where nothing of it can be told
 * @param untold why it cannot be told at some width; empty where all of it is told
 * @param untoldAt window widths in CSS px at which it cannot be told, the narrowest first
 * @param asked widths that were asked for
 * @param failing those at which it has less than is needed
 */
public record PartContrast(
        Optional<Worst> worst, Optional<Why> untold, List<Integer> untoldAt, int asked, List<Integer> failing) {
    /** Windows in which pictures and gradients lie otherwise, besides those where media queries turn. */
    private static final List<Integer> WIDTHS = List.of(320, 390, 480, 600, 768, 900, 1200, 1440, 1920, 2560);

    private static final int MOST_TEXTS = 24;
    private static final int HEIGHT = 800;

    /**
     * @param at index of the element that holds the words
     * @param words their beginning
     * @param ratio contrast ratio as WCAG 2.2 defines it, 1 to 21; of a ground in pixels the one that 95 of 100 reach
     * @param pixel the ratio at the worst pixel; the same as {@code ratio} on plain colours
     * @param needed 4.5, or 3 for large text (WCAG 2.2, 1.4.3)
     * @param width of the window there, CSS px
     * @param text colour of the letters as one sees it
     * @param ground what lies behind them there
     * @param holder what paints that
     * @param pictures whose pixels were read
     * @param shadowed whether the letters have a shadow, which is not reckoned with
     */
    public record Worst(
            int at,
            String words,
            double ratio,
            double pixel,
            double needed,
            int width,
            String text,
            String ground,
            String holder,
            List<String> pictures,
            boolean shadowed) {
        public boolean reads() {
            return ratio >= needed;
        }

        /** Whether one would say the same of both. */
        public boolean isSameAs(Worst other) {
            return width == other.width && text.equals(other.text) && ground.equals(other.ground);
        }

        public boolean isInPixels() {
            return pixel < ratio;
        }
    }

    /** Why it cannot be told. */
    public enum Why {
        /** What lies behind it is told by boxes, and none were measured. */
        NOT_MEASURED,
        /** The page was measured, but not this part of it, or not at this width: there are too many of them. */
        BEYOND_MEASURES,
        PICTURE_NOT_READ,
        UNREAD_BACKGROUND,
        BLEND_MODE,
        FILTER,
        /** It was moved over something else, or something else lies over it. */
        OVERLAP
    }

    /** One text at one width. */
    private record Reading(
            double ratio,
            double pixel,
            double needed,
            String text,
            String ground,
            String holder,
            List<String> pictures,
            boolean shadowed,
            Why why) {
        static Reading not(Why why) {
            return new Reading(0, 0, 0, "", "", "", List.of(), false, why);
        }
    }

    /** @param measured the boxes of the page, if somebody measured them; @param states which are switched on */
    public static PartContrast of(
            Rendered rendered,
            Gallery gallery,
            Page original,
            int index,
            Optional<Measures> measured,
            Set<String> states) {
        Page page = states.contains("current") ? original.withCurrent(index) : original;
        Element part = page.elements().get(index);
        Reader reader = new Reader(rendered, gallery, page, measured, PartLook.states(states, part));
        List<Element> texts = part.ownText().isBlank()
                ? part.getAllElements().stream()
                        .filter(e -> e != part && !e.ownText().isBlank())
                        .limit(MOST_TEXTS)
                        .toList()
                : List.of(part);
        Set<Integer> widths = new TreeSet<>(measured.isPresent() ? WIDTHS : List.of(Sweep.FROM, 1440));
        widths.addAll(Breakpoint.firsts(rendered.theme(), Sweep.FROM, Sweep.TO));
        Worst worst = null;
        Why untold = null;
        Set<Integer> untoldAt = new TreeSet<>();
        Set<Integer> failing = new TreeSet<>();
        Set<Integer> asked = new TreeSet<>();
        for (int width : widths) {
            for (Element text : texts) {
                Budget.step();
                Optional<Reading> there = reader.at(text, width);
                if (there.isEmpty()) {
                    continue;
                }
                asked.add(width);
                Reading r = there.get();
                if (r.why() != null) {
                    untold = untold == null ? r.why() : untold;
                    untoldAt.add(width);
                    continue;
                }
                if (r.ratio() < r.needed()) {
                    failing.add(width);
                }
                if (worst == null || r.ratio() / r.needed() < worst.ratio() / worst.needed() - 1e-9) {
                    String words = text.ownText().strip();
                    worst = new Worst(
                            page.elements().indexOf(text),
                            words.length() > 40 ? words.substring(0, 40) + "…" : words,
                            r.ratio(),
                            r.pixel(),
                            r.needed(),
                            width,
                            r.text(),
                            r.ground(),
                            r.holder(),
                            r.pictures(),
                            r.shadowed());
                }
            }
        }
        return new PartContrast(
                Optional.ofNullable(worst),
                Optional.ofNullable(untold),
                List.copyOf(untoldAt),
                asked.size(),
                List.copyOf(failing));
    }

    /** Whether the part has no words that show. */
    public boolean isEmpty() {
        return asked == 0;
    }

    /** Asks texts at one width after the other. */
    private static final class Reader {
        private final Rendered rendered;
        private final Page page;
        private final States states;
        private final Optional<Measures> measured;
        private final Optional<Ground> pixels;
        private int width = -1;
        private PageStyles styles;
        private Backdrop.Reader backdrops;

        Reader(Rendered rendered, Gallery gallery, Page page, Optional<Measures> measured, States states) {
            this.rendered = rendered;
            this.page = page;
            this.states = states;
            this.measured = measured;
            this.pixels = measured.map(m -> new Ground(new Scenes(rendered, page, m), gallery, true));
        }

        /** Empty where the text is not shown. */
        Optional<Reading> at(Element text, int window) {
            if (width != window) {
                width = window;
                styles = rendered.styles(page, Viewport.of(window, HEIGHT), states);
                backdrops = new Backdrop.Reader(styles, rendered.theme().files()::has);
            }
            ElementStyle style = styles.of(text);
            Optional<Color> color = style.colorOf("color");
            if (color.isEmpty() || color.get().alpha() == 0 || Inactive.holds(text) || styles.isHidden(text)) {
                return Optional.empty();
            }
            Backdrop backdrop = backdrops.of(text);
            if (backdrop.isInvisible()) {
                return Optional.empty();
            }
            double needed = Contrast.needed(style.fontSizePx(), style.fontWeight());
            boolean shadowed = LetterPaint.isShadowed(style);
            if (backdrop.unknown() == null) {
                Backdrop.Seen seen = backdrop.under(color.get());
                return Optional.of(
                        reading(seen.ratio(), seen.ratio(), needed, seen.text(), seen.ground(), backdrop, shadowed));
            }
            // On a page that changes below it a text stands on each colour that comes; pixels are those of one moment.
            Optional<Backdrop.Range> range = backdrop.range(color.get());
            boolean changes = backdrop.unknown() == Backdrop.Unknown.CHANGES;
            if (range.isPresent() && (changes || pixels.isEmpty())) {
                Backdrop.Range r = range.get();
                return Optional.of(reading(r.least(), r.least(), needed, color.get(), r.worst(), backdrop, shadowed));
            }
            if (pixels.isEmpty()) {
                return Optional.of(Reading.not(why(backdrop.unknown())));
            }
            int index = page.elements().indexOf(text);
            if (!measured.orElseThrow().boxes().containsKey(index)) {
                return Optional.of(Reading.not(Why.BEYOND_MEASURES));
            }
            Ground.Answer answer = pixels.get().under(index, window, color.get());
            if (answer.missing().isPresent()) {
                return answer.missing().get() == Ground.Missing.NOT_SHOWN
                        ? Optional.empty()
                        : Optional.of(Reading.not(why(answer.missing().get())));
            }
            return answer.reading()
                    .map(r -> reading(r.low(), r.worst(), needed, r.text(), r.ground(), backdrop, shadowed));
        }

        private Reading reading(
                double ratio,
                double pixel,
                double needed,
                Color text,
                Color ground,
                Backdrop backdrop,
                boolean shadowed) {
            Set<String> pictures = new LinkedHashSet<>();
            backdrop.layers().stream().flatMap(l -> l.images().stream()).forEach(i -> {
                if (i.image() instanceof Image.Url url) {
                    pictures.add(url.address());
                }
            });
            return new Reading(
                    ratio,
                    pixel,
                    needed,
                    ColorKey.of(text),
                    ColorKey.of(ground),
                    PartSelector.name(backdrop.holder()),
                    backdrop.unknown() == null ? List.of() : new ArrayList<>(pictures),
                    shadowed,
                    null);
        }

        private static Why why(Backdrop.Unknown unknown) {
            return switch (unknown) {
                case PICTURE, GRADIENT, MOVED, CHANGES -> Why.NOT_MEASURED;
                case UNREAD_BACKGROUND -> Why.UNREAD_BACKGROUND;
                case BLEND_MODE -> Why.BLEND_MODE;
                case FILTER -> Why.FILTER;
            };
        }

        private static Why why(Ground.Missing missing) {
            return switch (missing) {
                case NOT_MEASURED, NOT_SHOWN -> Why.BEYOND_MEASURES;
                case PICTURE_NOT_READ -> Why.PICTURE_NOT_READ;
                case UNREAD_BACKGROUND -> Why.UNREAD_BACKGROUND;
                case BLEND_MODE -> Why.BLEND_MODE;
                case FILTER -> Why.FILTER;
                case OVERLAP, CHANGES -> Why.OVERLAP;
            };
        }
    }
}
