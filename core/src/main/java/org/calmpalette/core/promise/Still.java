package org.calmpalette.core.promise;

import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Set;
import java.util.TreeSet;
import org.calmpalette.core.Budget;
import org.calmpalette.core.cascade.ColorExpression;
import org.calmpalette.core.cascade.ElementStyle;
import org.calmpalette.core.cascade.PageStyles;
import org.calmpalette.core.cascade.Painting;
import org.calmpalette.core.css.selector.States;
import org.calmpalette.core.page.Page;
import org.calmpalette.core.render.Breakpoint;
import org.calmpalette.core.render.Rendered;
import org.calmpalette.core.setting.Binding;
import org.calmpalette.core.setting.Setting;
import org.calmpalette.core.setting.VideoKind;
import org.calmpalette.core.theme.Theme;
import org.calmpalette.core.value.ComponentValue;
import org.calmpalette.core.value.Viewport;
import org.jsoup.nodes.Element;

/**
 * That what moves by itself stops for visitors who ask for less of it: no animation runs there for longer than a moment, no page scrolls
 * smoothly, and no video plays by itself or stands without a poster (WCAG 2.2, 2.3.3 and technique C39; common practice for posters). Looked
 * for are declarations of the theme, not what scripts do.
 */
final class Still {
    /** A duration that nobody sees, as style sheets give it to stop a movement and keep its end (common practice). In seconds. */
    private static final double MOMENT = 0.02;

    private static final int HEIGHT = 900;

    private final Theme theme;
    private final Rendered rendered;
    private final ColorExpression.Choices choices;

    private Still(Theme theme) {
        this.theme = theme;
        this.rendered = new Rendered(theme, Map.of());
        this.choices = new ColorExpression.Choices(
                Set.of(),
                Set.of(),
                theme.palette().properties().keySet(),
                Set.of(Theme.SETTINGS_CSS, Theme.PALETTE_CSS));
    }

    static List<Answer> of(Theme theme) {
        Still still = new Still(theme);
        List<Answer> all = new ArrayList<>();
        theme.pages().forEach(p -> still.page(p, all));
        return all;
    }

    private void page(Page page, List<Answer> all) {
        int before = all.size();
        Set<Integer> told = new TreeSet<>();
        Set<Integer> widths = new TreeSet<>(Breakpoint.firsts(theme, Readable.FROM, Readable.TO));
        widths.add(Readable.FROM);
        for (int width : widths) {
            PageStyles styles = rendered.styles(page, Viewport.of(width, HEIGHT).withLessMotion(), States.NONE);
            List<Element> elements = page.elements();
            for (int i = 0; i < elements.size(); i++) {
                Budget.step();
                Element e = elements.get(i);
                for (String box : new String[] {null, "before", "after"}) {
                    ElementStyle style = box == null ? styles.of(e) : styles.of(e, box);
                    if (!told.contains(i)) {
                        moving(page, e, style, width).ifPresent(a -> {
                            told.add(page.elements().indexOf(e));
                            all.add(a);
                        });
                    }
                }
            }
        }
        page.document().select("video").forEach(v -> video(page, v, all));
        if (all.size() == before) {
            all.add(Answer.kept(Promise.STILL, Answer.Subject.page(page)));
        }
    }

    private java.util.Optional<Answer> moving(Page page, Element e, ElementStyle style, int width) {
        for (String longhand :
                List.of("animation-name", "animation-duration", "animation-play-state", "scroll-behavior")) {
            if (ColorExpression.follows(style, longhand, choices)) {
                return java.util.Optional.of(Answer.unproven(
                        Promise.STILL, Answer.Subject.part(page, e, width), longhand + " follows a choice"));
            }
        }
        String names = Painting.declared(style, "animation-name").orElse("none");
        boolean runs = !names.equalsIgnoreCase("none")
                && !names.isBlank()
                && longest(Painting.declared(style, "animation-duration").orElse("0s")) > MOMENT
                && !Painting.declared(style, "animation-play-state").orElse("").equals("paused");
        if (runs) {
            return java.util.Optional.of(Answer.broken(
                    Promise.STILL,
                    Answer.Subject.part(page, e, width),
                    Map.of(),
                    "The animation " + names + " goes on for visitors who ask for less movement."));
        }
        boolean smooth = Painting.declared(style, "scroll-behavior")
                .filter("smooth"::equalsIgnoreCase)
                .isPresent();
        return smooth
                ? java.util.Optional.of(Answer.broken(
                        Promise.STILL,
                        Answer.Subject.part(page, e, width),
                        Map.of(),
                        "It scrolls smoothly for visitors who ask for less movement."))
                : java.util.Optional.empty();
    }

    private void video(Page page, Element video, List<Answer> all) {
        Answer.Subject subject = Answer.Subject.part(page, video, 0);
        if (video.hasAttr("autoplay")) {
            all.add(Answer.unproven(
                    Promise.STILL,
                    subject,
                    "it starts by itself; whether a script stops it for those who ask is not read"));
        }
        Setting chosen =
                theme.palette().setting(video.attr(Binding.SRC.attribute())).orElse(null);
        if (chosen != null
                && chosen.kind() instanceof VideoKind kind
                && kind.poster().none()) {
            all.add(Answer.broken(
                    Promise.STILL,
                    subject,
                    Map.of(
                            chosen.key(),
                            kind.normal(org.calmpalette.core.setting.Value.parts("src", "", "poster", ""))),
                    "“" + chosen.label() + "” may be chosen without a poster."));
        } else if (chosen == null && video.attr("poster").isBlank()) {
            all.add(Answer.broken(Promise.STILL, subject, Map.of(), "The video has no poster."));
        }
    }

    /** The longest of a list of times, in seconds (CSS Values 4, section 7.2). */
    private static double longest(String times) {
        return ComponentValue.read(times).stream()
                .filter(v -> v.kind() == ComponentValue.Kind.DIMENSION)
                .mapToDouble(v -> v.name().toLowerCase(Locale.ROOT).equals("ms") ? v.number() / 1000 : v.number())
                .max()
                .orElse(0);
    }
}
