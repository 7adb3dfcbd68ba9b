package org.calmpalette.core.promise;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import java.util.ArrayList;
import java.util.EnumMap;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Random;
import org.calmpalette.core.Generated;
import org.calmpalette.core.cascade.ElementStyle;
import org.calmpalette.core.cascade.PageStyles;
import org.calmpalette.core.color.Color;
import org.calmpalette.core.color.ColorSpace;
import org.calmpalette.core.color.Contrast;
import org.calmpalette.core.page.Page;
import org.calmpalette.core.render.Rendered;
import org.calmpalette.core.setting.Chosen;
import org.calmpalette.core.setting.Effective;
import org.calmpalette.core.theme.Theme;
import org.calmpalette.core.theme.Themes;
import org.calmpalette.core.value.Viewport;
import org.jsoup.nodes.Element;
import org.junit.jupiter.api.Tag;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

/** What has to be seen besides words: WCAG 2.2, 1.4.11, and what stylesheets write. */
class PerceivableTest {
    private static Theme theme(String body, String css, String settings) {
        return Themes.of(
                "index.html",
                "<!doctype html><html lang=en><head><title>T</title><link rel=stylesheet href=a.css></head><body>"
                        + body + "</body></html>",
                "a.css",
                css,
                "palette.json",
                "{\"name\": \"T\", \"places\": [{\"key\": \"all\", \"label\": \"All\"}], \"settings\": [" + settings
                        + "]}");
    }

    private static List<Answer> asked(String body, String css, Perceivable what) {
        String accent = ReadableTest.color("accent", "#1f5a3c", "\"swatches\": [\"#1f5a3c\", \"#0b3d91\"]");
        String pale = ReadableTest.color("pale", "#1f5a3c", "\"swatches\": [\"#1f5a3c\", \"#ffe680\"]");
        String soft = ReadableTest.color("soft", "#000000", "\"opaque\": false");
        String line =
                "{\"key\": \"line\", \"label\": \"Line\", \"place\": \"all\", \"kind\": \"length\", \"default\": {\"value\": 2, \"unit\": \"px\"}, \"allowed\": {\"units\": [{\"unit\": \"px\", \"least\": 0, \"most\": 4}]}}";
        String veil =
                "{\"key\": \"veil\", \"label\": \"Veil\", \"place\": \"all\", \"kind\": \"number\", \"default\": 1, \"allowed\": {\"least\": 0, \"most\": 1}}";
        return Readable.of(theme(body, css, String.join(",", accent, pale, soft, line, veil))).stream()
                .filter(a -> a.what() == what)
                .toList();
    }

    private static void holds(List<Answer> all, String expected) {
        if (expected == null) {
            assertThat(all).isEmpty();
            return;
        }
        String[] parts = expected.split(" ", 2);
        assertThat(all).hasSize(1);
        assertThat(all.get(0).state()).as(all.toString()).hasToString(parts[0]);
        if (all.get(0).state() == Answer.State.UNPROVEN) {
            assertThat(all.get(0).why()).isEqualTo(parts[1]);
        } else {
            assertThat(all.get(0).worst()).isCloseTo(Double.parseDouble(parts[1]), within(0.01));
        }
    }

    /** Ratios by WCAG's formula: #767676 on white is 4.54, #949494 3.03, #959595 2.99 (the borders that WebAIM's and others' tables give). */
    @ParameterizedTest
    @CsvSource(
            delimiter = '|',
            value = {
                // Words that a stylesheet writes are words: 4.5, in colours of their own, on a box of their own.
                "p::before { content: 'New'; color: #767676 } | BEFORE | KEPT 4.54",
                "p::before { content: 'New'; color: #949494 } | BEFORE | BROKEN 3.03",
                "p::before { content: 'New'; color: #949494; font-size: 24px } | BEFORE | KEPT 3.03",
                "p::after { content: attr(data-n); color: #fff; background: #767676 } | AFTER | KEPT 4.54",
                "p::after { content: attr(data-n); color: #fff; background: #949494; position: absolute } | AFTER | BROKEN 3.03",
                "p::before { content: counter(n) '.'; color: var(--pale) } | BEFORE | BROKEN 1.25",
                "p::before { content: counter(n) '.'; color: var(--accent) } | BEFORE | KEPT 8.12",
                "p::before { content: 'New'; color: var(--accent); background: var(--accent) } | BEFORE | BROKEN 1",
                // Nothing, a picture, ornament, or what nobody sees.
                "p::before { content: ''; color: #eee } | BEFORE |",
                "p::before { content: url(a.png); color: #eee } | BEFORE |",
                "p::before { content: '→ ' / 'to'; color: #eee } | BEFORE |",
                "p::before { content: 'New'; color: #eee; display: none } | BEFORE |",
                "p::before { content: 'New'; color: #eee } p { display: none } | BEFORE |",
                // Where it comes to stand nobody knows without layout; what it is not made of is told.
                "p::before { content: 'New'; position: absolute } | BEFORE | UNPROVEN where a stylesheet puts what it writes, layout tells",
                "p::before { content: 'New'; color: #000; opacity: .5 } | BEFORE | BROKEN 3.97",
                "p::before { content: 'New'; color: #000; background: #fff; opacity: .54 } body { background: #555 } | BEFORE | KEPT 6.94",
                "p::before { content: 'New'; background: linear-gradient(red, blue) } | BEFORE | UNPROVEN a picture lies behind what a stylesheet writes there",
                "p::before { content: 'New'; text-shadow: 0 0 2px red } | BEFORE | UNPROVEN a shadow or a fill of the letters takes part",
            })
    void whatStylesheetsWrite(String css, Perceivable what, String expected) {
        holds(asked("<p data-n=7>Words</p>", css, what), expected);
    }

    @ParameterizedTest
    @CsvSource(
            delimiter = '|',
            value = {
                // A sign in a button without words has to be seen; beside words it is ornament.
                "<button></button> | button::before { content: '\\2715'; color: #949494 } button { background: #fff } | BEFORE | KEPT 3.03",
                "<button></button> | button::before { content: '\\f101'; color: #959595 } button { background: #fff } | BEFORE | BROKEN 2.99",
                "<button>Close</button> | button::before { content: '\\2715'; color: #959595 } button { background: #fff } | BEFORE |",
                "<button><span class=hide>Close</span></button> | button::before { content: '\\2715'; color: #959595 } button { background: #fff } .hide { position: absolute; clip-path: inset(50%) } | BEFORE | BROKEN 2.99",
                "<button><span class=hide>Close</span></button> | button::before { content: '\\2715'; color: #949494 } button { background: #fff } .hide { position: absolute; width: 1px; overflow: hidden } | BEFORE | KEPT 3.03",
                // Drawings.
                "<a href=#><svg><path d='M0 0'/></svg></a> | a { color: #949494 } svg { fill: currentColor } | ICON | KEPT 3.03",
                "<a href=#><svg><path d='M0 0' fill=currentColor /></svg></a> | a { color: #959595 } | ICON | BROKEN 2.99",
                "<a href=#><svg fill=none stroke=currentColor><path d='M0 0'/></svg></a> | a { color: var(--pale) } | ICON | BROKEN 1.25",
                "<a href=#><svg fill=none stroke=currentColor><path d='M0 0'/></svg></a> | a { color: var(--accent); background: #eee } | ICON | KEPT 7",
                "<a href=#><svg><path d='M0 0'/></svg></a> | svg { fill: #767676; background: #949494 } | ICON | BROKEN 1.49",
                // One colour that is seen is enough; with none it is broken.
                "<a href=#><svg><rect fill='#fff'/><path d='M0 0' fill='#767676'/></svg></a> | a {} | ICON | KEPT 4.54",
                "<a href=#><svg><rect fill='#fff'/><path d='M0 0' fill='#ccc'/></svg></a> | a {} | ICON | BROKEN 1.6",
                "<a href=#><svg><rect fill='#fff'/><path d='M0 0' fill='url(#g)'/></svg></a> | a {} | ICON | UNPROVEN url(#g)",
                // What is not painted where it stands is not painted.
                "<a href=#><svg><defs><path d='M0 0' fill='#000'/></defs><path d='M0 0' fill='#ccc'/></svg></a> | a {} | ICON | BROKEN 1.6",
                "<svg hidden><symbol id=x><path d='M0 0'/></symbol></svg><a href=#><svg><use href='#x'/></svg></a> | a { fill: #949494 } | ICON | KEPT 3.03",
                "<svg hidden><symbol id=x stroke=currentColor fill=none><path d='M0 0'/></symbol></svg><a href=#><svg><use href='#x'/></svg></a> | a { color: #959595 } | ICON | BROKEN 2.99",
                "<svg hidden><symbol id=x><path class=q d='M0 0'/></symbol></svg><a href=#><svg><use href='#x'/></svg></a> | a {} | ICON | UNPROVEN the drawing has rules of its own where it stands",
                "<a href=#><svg><use href='i.svg#x'/></svg></a> | a {} | ICON | UNPROVEN the drawing stands in another file",
                "<a href=#><svg><path d='M0 0' fill='#fff' opacity=.5 /></svg></a> | a {} | ICON | UNPROVEN parts of the drawing let through what is behind them",
                "<a href=#><svg><path d='M0 0'/></svg></a> | path { opacity: var(--veil) } | ICON | UNPROVEN how it is drawn follows a choice",
                "<a href=#><svg><path d='M0 0'/></svg></a> | svg { fill-opacity: .2 } | ICON | UNPROVEN parts of the drawing let through what is behind them",
                // Beside words, in a logo and by itself without a name it may be as pale as it likes.
                "<a href=#><svg><path d='M0 0' fill='#eee'/></svg> Words</a> | a {} | ICON |",
                "<a href=# class=site-logo><svg><path d='M0 0' fill='#eee'/></svg></a> | a {} | ICON |",
                "<a href=# rel=home><svg><path d='M0 0' fill='#eee'/></svg></a> | a {} | ICON |",
                "<p><svg><path d='M0 0' fill='#eee'/></svg></p> | a {} | ICON |",
                "<p><svg role=img aria-label=Open><path d='M0 0' fill='#ccc'/></svg></p> | a {} | ICON | BROKEN 1.6",
                "<button disabled><svg><path d='M0 0' fill='#ccc'/></svg></button> | button { background: #fff } | ICON |",
            })
    void drawings(String body, String css, Perceivable what, String expected) {
        holds(asked(body, css, what), expected);
    }

    @ParameterizedTest
    @CsvSource(
            delimiter = '|',
            value = {
                "input { border: 1px solid #949494 } | KEPT 3.03",
                "input { border: 1px solid #959595 } | BROKEN 2.99",
                // A line below is an edge, and so is a ground that is another one than what is around.
                "input { border: 0; border-bottom: 2px solid #767676 } | KEPT 4.54",
                "input { border: 1px solid #eee; background: #949494 } | KEPT 3.03",
                "body { background: #949494 } input { border: 1px solid #959595 } | KEPT 3.03",
                "input { border: 1px solid var(--pale) } | BROKEN 1.25",
                "input { border: 1px solid var(--accent) } | KEPT 8.12",
                // Either of two that are chosen.
                "input { border: 1px solid var(--pale); background: var(--accent) } | KEPT 8.12",
                "input { border: 1px solid var(--pale); background: var(--pale) } | BROKEN 1.25",
                // As browsers draw it, or not at all: what is around it tells then that it is there.
                "input { padding: 1em } |",
                "input { border: 0; background: none } |",
                "input { border: 1px solid #eee; box-shadow: 0 0 0 1px #000 } | UNPROVEN a shadow or a picture takes part in its edge",
                "input { border: 1px solid #767676; box-shadow: 0 0 0 1px #000 } | KEPT 4.54",
                // What decides besides its colour whether it is seen may be chosen; a picture may hide the ground.
                "input { border: var(--line) solid #000000 } | UNPROVEN how it is drawn follows a choice",
                "input { border: var(--line) solid #000000; background: #767676 } | KEPT 4.54",
                "input { border: 1px solid #eee; background: #000 linear-gradient(#fff, #fff) } | UNPROVEN a shadow or a picture takes part in its edge",
                "input { border: 1px solid var(--soft); background: #fff } body { background: #fff } | UNPROVEN what it is drawn in may let through what is behind it",
                "input { border: 1px solid rgb(0 0 0 / 20%); background: #fff } | UNPROVEN its border lets through what is behind it",
            })
    void edgesOfFields(String css, String expected) {
        holds(asked("<form><label>Name <input></label></form>", css, Perceivable.EDGE), expected);
    }

    @ParameterizedTest
    @CsvSource(
            delimiter = '|',
            value = {
                "a:focus-visible { outline: 2px solid #949494 } | KEPT 3.03",
                "a:focus-visible { outline: 2px solid #959595 } | BROKEN 2.99",
                "a:focus { outline: 2px solid } a { color: #767676 } | KEPT 4.54",
                "a:focus { outline-style: dotted; outline-width: thin; outline-color: var(--pale) } | BROKEN 1.25",
                "a:focus { outline: 2px solid var(--accent) } nav { background: #eee } | KEPT 7",
                // On what is around the part, not on the part itself.
                "a { background: #949494 } a:focus { outline: 2px solid #949494 } | KEPT 3.03",
                "a:focus { outline: 2px solid #949494; outline-offset: -4px } | UNPROVEN its outline lies on the part itself",
                "a { opacity: .5 } a:focus { outline: 2px solid #000 } | KEPT 3.97",
                "a { opacity: .4 } a:focus { outline: 2px solid var(--accent) } | BROKEN 1.99",
                "a:focus { outline: 2px solid #fff; box-shadow: 0 0 0 4px #000 } | UNPROVEN a shadow takes part in its outline",
                "a:focus { outline: auto #fff } |",
                "a:focus { outline: var(--line) solid #000000 } | UNPROVEN how it is drawn follows a choice",
                "a:focus { outline: none } |",
                "a:hover { outline: 2px solid #fff } |",
            })
    void outlinesOfWhatTheKeyboardHasComeTo(String css, String expected) {
        List<Answer> all = asked("<nav><a href=#>Words</a></nav>", css, Perceivable.OUTLINE);
        holds(all, expected);
        all.forEach(a -> assertThat(a.pseudoClass()).isEqualTo("focus"));
    }

    /** Every choice that is tried, put together by the rule for layers one over the other and by nothing of what proves it. */
    @Tag("generated")
    @Test
    void noAllowedChoiceContradictsWhatIsKept() {
        Random random = Generated.random(171);
        Map<Perceivable, int[]> met = new EnumMap<>(Perceivable.class);
        for (int n = 0; n < Generated.times(20); n++) {
            Theme theme = MadeThemes.parts(random);
            String css = Themes.text(theme.files(), "a.css");
            List<Answer> answers = Readable.of(theme).stream()
                    .filter(a -> a.what() != Perceivable.TEXT)
                    .toList();
            for (Answer a : answers) {
                met.computeIfAbsent(a.what(), k -> new int[3])[a.state().ordinal()]++;
                if (a.state() == Answer.State.BROKEN) {
                    Map<String, Chosen> chosen = new LinkedHashMap<>();
                    a.values().forEach((k, v) -> chosen.put(k, Chosen.of(v)));
                    assertThat(Effective.of(theme.palette(), chosen, theme.media())
                                    .leftOut())
                            .isEmpty();
                    assertThat(seen(theme, chosen, a))
                            .as("%s %s", css, a)
                            .isLessThan(a.needed())
                            .isCloseTo(a.worst(), within(1e-6));
                }
            }
            for (int i = 0; i < 25; i++) {
                Map<String, Chosen> chosen = MadeThemes.choices(random, theme);
                for (Answer a : answers) {
                    if (a.state() == Answer.State.KEPT) {
                        assertThat(seen(theme, chosen, a))
                                .as("%s %s %s", css, chosen, a)
                                .isGreaterThanOrEqualTo(a.needed());
                    }
                }
            }
        }
        assertThat(met.keySet())
                .containsExactly(Perceivable.BEFORE, Perceivable.ICON, Perceivable.EDGE, Perceivable.OUTLINE);
        met.forEach((what, counts) -> {
            assertThat(counts[Answer.State.KEPT.ordinal()]).as("kept: %s", what).isPositive();
            assertThat(counts[Answer.State.BROKEN.ordinal()])
                    .as("broken: %s", what)
                    .isPositive();
        });
    }

    /** The greatest contrast of what it is painted in with what lies behind it. */
    private static double seen(Theme theme, Map<String, Chosen> chosen, Answer a) {
        Rendered rendered = new Rendered(theme, chosen);
        Page page = rendered.page(a.page()).orElseThrow();
        Element e = page.elements().get(a.element());
        PageStyles styles = rendered.styles(
                page,
                Viewport.of(a.width(), 900),
                (x, state) -> !a.pseudoClass().isEmpty() && state.startsWith("focus") && x == e);
        ElementStyle own = styles.of(e);
        Element from = a.what() == Perceivable.EDGE || a.what() == Perceivable.OUTLINE ? e.parent() : e;
        List<Color> inks = new ArrayList<>();
        Color box = Color.TRANSPARENT;
        double opacity = from == e ? 1 : own.opacity();
        switch (a.what()) {
            case BEFORE -> {
                ElementStyle before = styles.of(e, "before");
                inks.add(before.colorOf("color").orElseThrow());
                box = before.colorOf("background-color").orElseThrow();
                opacity = before.opacity();
            }
            case ICON -> {
                ElementStyle shape = styles.of(e.selectFirst("rect"));
                inks.add(shape.colorOf("fill").orElseThrow());
                shape.colorOf("stroke").ifPresent(inks::add);
            }
            case EDGE -> {
                // What refers to nothing is as if it were unset: then there is no border.
                if (own.computed("border-left-style").equals("solid")) {
                    inks.add(own.colorOf("border-left-color").orElseThrow());
                }
                inks.add(own.colorOf("background-color").orElseThrow());
            }
            default -> inks.add(Color.parse(own.computed("outline-color")).orElseThrow());
        }
        double best = 0;
        for (Color ink : inks) {
            Color front = faded(over(ink, box), opacity);
            Color back = faded(box, opacity);
            for (Element x = from; x != null && x.parent() != null; x = x.parent()) {
                Color ground = styles.of(x).colorOf("background-color").orElseThrow();
                front = faded(over(front, ground), styles.of(x).opacity());
                back = faded(over(back, ground), styles.of(x).opacity());
            }
            double one = luminance(over(front, Color.WHITE));
            double other = luminance(over(back, Color.WHITE));
            best = Math.max(best, (Math.max(one, other) + 0.05) / (Math.min(one, other) + 0.05));
        }
        return best;
    }

    private static Color faded(Color c, double opacity) {
        return c.withAlpha(c.alpha() * opacity);
    }

    /** Compositing and Blending 1, section 9.1.4: source over, of colours that are not premultiplied. */
    private static Color over(Color a, Color b) {
        Color x = painted(a);
        Color y = painted(b);
        double alpha = x.alpha() + y.alpha() * (1 - x.alpha());
        double share = alpha == 0 ? 0 : x.alpha() / alpha;
        return new Color(
                ColorSpace.SRGB,
                x.c0() * share + y.c0() * (1 - share),
                x.c1() * share + y.c1() * (1 - share),
                x.c2() * share + y.c2() * (1 - share),
                alpha);
    }

    /** Browsers paint what is out of the gamut of sRGB with its channels clipped. */
    private static Color painted(Color c) {
        Color s = c.to(ColorSpace.SRGB);
        return new Color(ColorSpace.SRGB, clipped(s.c0()), clipped(s.c1()), clipped(s.c2()), s.alpha());
    }

    private static double clipped(double channel) {
        return Math.max(0, Math.min(1, channel));
    }

    private static double luminance(Color c) {
        return Contrast.relativeLuminance(c);
    }

    @Test
    void itIsSaidWhatIsMeant() {
        Answer a = asked(
                        "<button aria-label=Close></button>",
                        "button::before { content: '\\2715'; color: #959595 } button { background: #fff }",
                        Perceivable.BEFORE)
                .get(0);
        assertThat(a.inWords())
                .isEqualTo("2.99 to 1 at 320 px, what the stylesheet writes before it, 3 is needed, as made");
        assertThat(a.id()).isEqualTo("readable index.html button::before at 320");
    }
}
