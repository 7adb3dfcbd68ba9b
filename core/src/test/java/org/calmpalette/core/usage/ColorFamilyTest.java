package org.calmpalette.core.usage;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.nio.charset.StandardCharsets;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.TreeSet;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import java.util.stream.Collectors;
import java.util.stream.Stream;
import org.calmpalette.core.cascade.PageStyles;
import org.calmpalette.core.cascade.Painting;
import org.calmpalette.core.change.Lift;
import org.calmpalette.core.change.PaletteChange;
import org.calmpalette.core.chromium.OutsideSheets;
import org.calmpalette.core.color.Color;
import org.calmpalette.core.color.ColorSpace;
import org.calmpalette.core.css.selector.States;
import org.calmpalette.core.output.ThemeBuild;
import org.calmpalette.core.render.Rendered;
import org.calmpalette.core.setting.Chosen;
import org.calmpalette.core.setting.ColorKind;
import org.calmpalette.core.setting.Drawing;
import org.calmpalette.core.setting.Place;
import org.calmpalette.core.setting.Setting;
import org.calmpalette.core.setting.Value;
import org.calmpalette.core.theme.Theme;
import org.calmpalette.core.theme.Themes;
import org.calmpalette.core.value.Viewport;
import org.jsoup.nodes.Element;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.Arguments;
import org.junit.jupiter.params.provider.MethodSource;
import org.junit.jupiter.params.provider.ValueSource;

/**
 * Families of colours against the published SCSS of five frameworks (all MIT), compiled with {@code sass} for two brand colours: what
 * differs was computed from the brand. The script beside the recorded sheets made both.
 */
public class ColorFamilyTest {
    private static final Pattern FRACTIONS = Pattern.compile("rgb(\\(|%28)([\\d.]+%), ([\\d.]+%), ([\\d.]+%)(\\)|%29)");

    private record Truth(String name, Color brand, Color other, Map<String, String> becomes) {}

    private static String sheet(String name) {
        return new String(
                OutsideSheets.resource("/outside/families/" + name.replace(".css", "") + ".css.gz"),
                StandardCharsets.UTF_8);
    }

    /** As preprocessors of some years ago wrote it, and as many published sheets have it: whole levels of 255. */
    private static String inWholeLevels(String text) {
        return FRACTIONS.matcher(text).replaceAll(m -> {
            String hex = Color.parse("rgb(" + m.group(2) + "," + m.group(3) + "," + m.group(4) + ")")
                    .orElseThrow()
                    .hex();
            return m.group(1).equals("(") ? hex : hex.replace("#", "%23");
        });
    }

    private static List<Truth> truths() {
        List<Truth> all = new ArrayList<>();
        String text = new String(OutsideSheets.resource("/outside/families/families.txt"), StandardCharsets.UTF_8);
        for (String line : text.lines().toList()) {
            if (line.startsWith("# ")) {
                String[] p = line.split(" ");
                all.add(new Truth(
                        p[1], Color.parse(p[3]).orElseThrow(), Color.parse(p[4]).orElseThrow(), new LinkedHashMap<>()));
            } else {
                String[] p = line.split("\t");
                all.get(all.size() - 1).becomes().put(p[0] + " " + p[1], p[2]);
            }
        }
        return all;
    }

    static Stream<Arguments> sheets() {
        return truths().stream()
                .flatMap(t -> Stream.of(Arguments.of(t.name(), t, false), Arguments.of(t.name(), t, true)));
    }

    @ParameterizedTest(name = "{0}, whole levels: {2}")
    @MethodSource("sheets")
    void relativesAreThoseThatThePreprocessorComputed(String name, Truth truth, boolean whole) {
        String css = whole ? inWholeLevels(sheet(name)) : sheet(name);
        Map<String, String> left = new LinkedHashMap<>();
        truth.becomes().forEach((k, v) -> left.put(whole ? inWholeLevels(k) : k, v));
        Set<String> known = Set.copyOf(left.keySet());
        List<String> wrong = new ArrayList<>();
        List<String> off = new ArrayList<>();
        for (ColorFamily.Relative r : ColorFamily.of(theme(css), truth.brand())) {
            String key = r.use().line() + " " + r.use().written();
            boolean own = r.words().equals("same");
            if (r.ground() != null || own && !known.contains(key)) {
                // A text that is chosen for its ground, and the same colour that has a name of its own in the source.
                continue;
            }
            if (!known.contains(key)) {
                wrong.add(key + " " + r.words());
            } else if (left.containsKey(key)) {
                Color to = Color.parse(left.remove(key)
                                .replace("%28", "(")
                                .replace("%29", ")")
                                .replaceAll("^(\\d+, \\d+, \\d+)$", "rgb($1)"))
                        .orElseThrow();
                if (to.distance(r.of(truth.other())) > 0.01) {
                    off.add(key + " " + r.words() + ": " + to.hex() + " and not "
                            + r.of(truth.other()).hex());
                }
            }
        }
        assertThat(wrong).as("what was not computed from it").isEmpty();
        assertThat(left.size()).as("missed: " + left.keySet()).isLessThanOrEqualTo(known.size() / 20);
        // Sources that decide by the luminance of the brand how they compute: nobody sees that in one colour.
        assertThat(off).as("what it becomes").hasSizeLessThanOrEqualTo(name.equals("bulma") ? 9 : 1);
    }

    private static Theme theme(String css) {
        return Theme.read(Themes.files("index.html", "<link rel=stylesheet href=a.css>", "a.css", css), "T");
    }

    /** Greens, reds, blues that none of the sheets was made with. */
    @ParameterizedTest
    @ValueSource(strings = {"#2f9e44", "#8a3ffc", "#b5462f", "#0a6c74", "#d6336c", "#7a5800", "#1d5c50", "#4263eb"})
    void whatASheetWasNotMadeWithHasNoRelatives(String color) {
        for (Truth t : truths()) {
            assertThat(ColorFamily.of(
                            theme(inWholeLevels(sheet(t.name()))),
                            Color.parse(color).orElseThrow()))
                    .as(t.name())
                    .extracting(r -> r.use().written() + " " + r.words())
                    .isEmpty();
        }
    }

    private static final String COMPONENTS =
            """
            <!doctype html><html><head><link rel=stylesheet href=a.css></head><body>
            <nav class="navbar bg-primary text-bg-primary"><a class=navbar-brand href=a>A</a></nav><h1>H</h1><p><a href=b>B</a></p>
            <button class="btn btn-primary">C</button><button class="btn btn-outline-primary">D</button><button class="btn btn-primary" disabled>E</button>
            <button class="btn btn-link">F</button><div class="alert alert-primary"><a class=alert-link href=c>G</a></div>
            <input class=form-control><select class=form-select></select><input class=form-check-input type=checkbox checked><input class=form-range type=range>
            <ul class=pagination><li class="page-item active"><a class=page-link href=d>1</a></li><li class=page-item><a class=page-link href=e>2</a></li></ul>
            <div class=progress><div class=progress-bar></div></div><ul class="nav nav-pills"><li><a class="nav-link active" href=f>I</a></li></ul>
            <div class=list-group><a class="list-group-item list-group-item-action active" href=g>J</a><a class="list-group-item list-group-item-primary list-group-item-action" href=h>K</a></div>
            <table class="table table-primary table-hover table-striped"><tbody><tr><td>L</td></tr></tbody></table>
            <div class="dropdown-menu show"><a class="dropdown-item active" href=i>M</a></div><a class=link-primary href=j>N</a><span class="badge text-bg-primary">O</span>
            <div class=accordion><button class=accordion-button>P</button></div><div class="form-check form-switch"><input class=form-check-input type=checkbox></div><div class="card border-primary"></div><p class=text-primary>Q</p>
            </body></html>""";

    /** Bootstrap's own sheet as it is published: the hue of its blue is 260 degrees in OKLCH, that of no other of its colours. */
    public static final Color BLUE = Color.parse("#0d6efd").orElseThrow();

    private static final Map<String, Chosen> GREEN = Map.of("brand", Chosen.of("#2b8a3e"));

    private static Theme published() {
        return Theme.read(
                Themes.files(
                        "index.html",
                        COMPONENTS,
                        "a.css",
                        new String(OutsideSheets.get("bootstrap 5.3.8"), StandardCharsets.UTF_8)),
                "T");
    }

    private static Theme lifted(Theme theme) {
        List<ColorFamily.Relative> all = ColorFamily.of(theme, BLUE);
        Set<String> own = all.stream()
                .filter(r -> r.words().equals("same") && !r.drawn() && r.use().isLiftable())
                .map(r -> r.use().id())
                .collect(Collectors.toSet());
        Set<String> others = all.stream()
                .filter(r -> (r.drawn() || !r.words().equals("same")) && r.use().isLiftable())
                .map(ColorFamily.Relative::words)
                .collect(Collectors.toSet());
        Setting brand = Setting.of("brand", "Brand", "", "everywhere", ColorKind.ANY, Value.of("#0d6efd"));
        return Lift.lift(theme, own, brand, Place.EVERYWHERE, others).applied(theme);
    }

    /** The published sheet, its blue lifted with all relatives, and an owner who chose green. */
    public static Map<String, byte[]> turnedGreen() {
        Theme theme = lifted(published());
        Map<String, byte[]> files = new LinkedHashMap<>();
        theme.files().paths().forEach(p -> files.put(p, theme.files().read(p)));
        files.putAll(ThemeBuild.build(theme, GREEN).files());
        return files;
    }

    /** Whether a text of CSS has a colour in the hue of another. */
    public static boolean isInTheHueOf(Color brand, String css) {
        double hue = brand.to(ColorSpace.OKLCH).c2();
        Matcher m = Pattern.compile("(?:rgba?\\([^)]*\\)|color\\([^)]*\\)|(?:#|%23)[0-9a-f]{3,8})")
                .matcher(css);
        while (m.find()) {
            Color lch = Color.parse(m.group().replace("%23", "#"))
                    .orElse(Color.BLACK)
                    .to(ColorSpace.OKLCH);
            if (lch.c1() > 0.02 && lch.alpha() > 0 && Math.abs(lch.c2() - hue) < 8) {
                return true;
            }
        }
        return false;
    }

    @Test
    void aBrandThatIsTurnedGreenLeavesNothingInItsOldHueInAnyState() {
        Theme theme = published();
        Set<String> before = inTheHueOf(BLUE, theme, Map.of());
        assertThat(before).anyMatch(f -> f.endsWith(":focus background-image")).hasSizeGreaterThan(60);
        Theme lifted = lifted(theme);
        assertThat(inTheHueOf(BLUE, lifted, Map.of())).isEqualTo(before);
        assertThat(inTheHueOf(BLUE, lifted, GREEN)).isEmpty();
    }

    /** Elements and states that show a colour of the hue, with the property. */
    private static Set<String> inTheHueOf(Color brand, Theme theme, Map<String, Chosen> chosen) {
        Rendered rendered = new Rendered(theme, chosen);
        Set<String> found = new TreeSet<>();
        for (String state : List.of("", "hover", "focus", "active")) {
            States states = (e, s) -> s.equals(state) || state.equals("focus") && s.equals("focus-visible");
            PageStyles styles = rendered.styles(rendered.theme().pages().get(0), Viewport.of(1280, 800), states);
            for (Element e : rendered.theme().pages().get(0).elements()) {
                for (String property : List.of(
                        "color",
                        "background-color",
                        "border-top-color",
                        "outline-color",
                        "box-shadow",
                        "text-decoration-color",
                        "background-image")) {
                    String value = Painting.isComputed(property)
                            ? styles.of(e).computed(property)
                            : Painting.declared(styles.of(e), property).orElse("");
                    if (isInTheHueOf(brand, value)) {
                        found.add(e.cssSelector() + ":" + state + " " + property);
                    }
                }
            }
        }
        return found;
    }

    @Test
    void aDrawingInAnAddressFollowsAsAWholeAndIsGivenBackAsItWas() {
        String css =
                """
                a { color: #b03a2e; background: url("data:image/svg+xml,%3csvg fill='%23b03a2e' stroke='rgb%28176, 58, 46%29'%3e%3cpath d='M0 0'/%3e%3c/svg%3e") no-repeat }
                b { --mark: url(data:image/svg+xml,%3csvg%20fill=%22%23c06158%22/%3e) } i { color: #c06158 }
                """;
        Theme theme = theme(css);
        Setting brand = Setting.of("brand", "Brand", "", "everywhere", ColorKind.ANY, Value.of("#b03a2e"));
        String id = ColorFamily.of(theme, Color.parse("#b03a2e").orElseThrow())
                .get(0)
                .use()
                .id();
        Theme lifted = Lift.lift(theme, Set.of(id), brand, Place.EVERYWHERE, Set.of("same", "20% white"))
                .applied(theme);
        assertThat(Themes.text(lifted.files(), "a.css"))
                .contains("var(--brand-drawing-1, url(\"data:image/svg+xml,%3csvg fill='%23b03a2e' stroke='rgb")
                .contains(
                        "--mark: var(--brand-20-white-drawing-1, url(data:image/svg+xml,%3csvg%20fill=%22%23c06158%22/%3e))");
        Theme again = Theme.read(lifted.files(), "T");
        assertThat(ThemeBuild.paletteCss(again, Map.of("brand", Chosen.of("#2e7d3280"))))
                .contains(
                        "--brand-drawing-1: url(\"data:image/svg+xml,%3csvg fill='%232e7d3280' stroke='%232e7d3280'%3e%3cpath d='M0 0'/%3e%3c/svg%3e\");")
                .contains("--brand-20-white-drawing-1: url(\"data:image/svg+xml,%3csvg%20fill=%22%23");
        Theme renamed = PaletteChange.rename(again, "brand", "line").applied(again);
        assertThat(Themes.text(renamed.files(), "a.css")).contains("var(--line-drawing-1, url(");
        Theme without = renamed;
        for (String key : List.of("brand-20-white", "line")) {
            without = PaletteChange.remove(without, List.of(key)).applied(without);
        }
        assertThat(Themes.text(without.files(), "a.css")).isEqualTo(css);
    }

    @Test
    void aDrawingWithTwoRelativesFollowsOneOfThem() {
        Theme theme = theme(
                "a { color: #b03a2e; background: url(\"data:image/svg+xml,%3csvg fill='%23b03a2e' stroke='%23c06158'/%3e\") }");
        Setting brand = Setting.of("brand", "Brand", "", "everywhere", ColorKind.ANY, Value.of("#b03a2e"));
        String id = ColorFamily.of(theme, Color.parse("#b03a2e").orElseThrow())
                .get(0)
                .use()
                .id();
        assertThatThrownBy(() -> Lift.lift(theme, Set.of(id), brand, Place.EVERYWHERE, Set.of("same", "20% white")))
                .hasMessageContaining("a.css, line 1")
                .hasMessageContaining("two colours that follow differently");
        assertThat(Lift.lift(theme, Set.of(id), brand, Place.EVERYWHERE, Set.of("20% white"))
                        .applied(theme)
                        .palette()
                        .known("brand-20-white")
                        .drawings())
                .containsExactly(new Drawing(List.of("data:image/svg+xml,%3csvg fill='%23b03a2e' stroke='", "'/%3e")));
    }

    @Test
    void aGreyHasNoRelativesButItself() {
        assertThat(ColorFamily.of(
                        theme(
                                "a{color:#777} b{color:#bbbbbb} i{color:rgb(119 119 119/50%)} p{color:#999} q{color:rgb(119 119 119/0)}"),
                        Color.parse("#777777").orElseThrow()))
                .extracting(r -> r.use().written() + ": " + r.words())
                .containsExactlyInAnyOrder("#777: same", "rgb(119 119 119/50%): opacity 50%");
    }

    @Test
    void whatIsReadOffOneColour() {
        List<ColorFamily.Relative> all = ColorFamily.of(
                theme(
                        """
                :root { --brand-rgb: 176, 58, 46; --more-rgb: 192, 97, 88; --step: var(--more-rgb) }
                a { background: #b03a2e; color: #fff }
                b { background: url("data:image/svg+xml,%3csvg fill='%23b03a2e' stroke='rgb%28141, 46, 37%29'/%3e") }
                i { color: rgba(176, 58, 46, .25); border-color: rgba(176, 58, 46, var(--o)); outline-color: rgb(var(--brand-rgb)) }
                p { color: rgba(var(--step), .5) } u { color: #808080 } s { color: #b03b2f }"""),
                Color.parse("#b03a2e").orElseThrow());
        assertThat(all)
                .extracting(r -> r.use().line() + " " + r.use().written() + ": " + r.words() + " -> "
                        + r.of(Color.parse("#2e7d32").orElseThrow()).hex())
                .containsExactlyInAnyOrder(
                        "1 176, 58, 46: same -> #2e7d32",
                        "1 192, 97, 88: 20% white -> #58975b",
                        "2 #b03a2e: same -> #2e7d32",
                        "2 #fff: readable on same -> #ffffff",
                        "3 %23b03a2e: same -> #2e7d32",
                        "3 rgb%28141, 46, 37%29: 20% black -> #256428",
                        "4 rgba(176, 58, 46, .25): opacity 25% -> #2e7d3240",
                        "4 176, 58, 46: same -> #2e7d32");
    }
}
