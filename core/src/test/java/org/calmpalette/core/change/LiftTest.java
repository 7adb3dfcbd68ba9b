package org.calmpalette.core.change;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.function.Predicate;
import java.util.stream.Collectors;
import org.calmpalette.core.BadInputException;
import org.calmpalette.core.cascade.ElementStyle;
import org.calmpalette.core.color.Color;
import org.calmpalette.core.css.selector.States;
import org.calmpalette.core.output.ThemeBuild;
import org.calmpalette.core.page.Page;
import org.calmpalette.core.render.Rendered;
import org.calmpalette.core.setting.Chosen;
import org.calmpalette.core.setting.ColorKey;
import org.calmpalette.core.setting.ColorKind;
import org.calmpalette.core.setting.Kind;
import org.calmpalette.core.setting.Place;
import org.calmpalette.core.setting.Setting;
import org.calmpalette.core.setting.Value;
import org.calmpalette.core.survey.Proposal;
import org.calmpalette.core.survey.Suggestion;
import org.calmpalette.core.theme.Theme;
import org.calmpalette.core.theme.Themes;
import org.calmpalette.core.usage.ColorRow;
import org.calmpalette.core.usage.ColorUsage;
import org.calmpalette.core.usage.ColorUse;
import org.calmpalette.core.usage.Painted;
import org.calmpalette.core.value.ComponentValue;
import org.calmpalette.core.value.Viewport;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import org.junit.jupiter.params.provider.ValueSource;

class LiftTest {
    private static Setting setting(String key, String value) {
        return Setting.of(key, "Label", "", "everywhere", ColorKind.ANY, Value.of(value));
    }

    private static Set<String> uses(Theme theme, Predicate<ColorUse> which) {
        return ColorUsage.of(theme).rows().stream()
                .flatMap(r -> r.uses().stream())
                .filter(which)
                .map(ColorUse::id)
                .collect(Collectors.toSet());
    }

    private static Theme lifted(Theme theme, String key, String value, Predicate<ColorUse> which) {
        Change change = Lift.lift(theme, uses(theme, which), setting(key, value), Place.EVERYWHERE);
        return change.applied(theme);
    }

    @Test
    void oneColourInManySpellingsIsOneRow() {
        Theme theme = Themes.of(
                "a.css",
                """
        a { color: #FFF; border: 1px solid white }
        b { background: rgb(255 255 255) linear-gradient(hsl(0 0% 100%), rgba(255,255,255,1)) }
        c { --x: oklch(1 0 0); animation: white 2s; font-family: white }
        d { color: #fffe }
        """);
        List<ColorRow> rows = ColorUsage.of(theme).rows();
        assertThat(rows.get(0).value()).isEqualTo("#ffffff");
        assertThat(rows.get(0).spellings())
                .containsExactly(
                        "#FFF", "white", "rgb(255 255 255)", "hsl(0 0% 100%)", "rgba(255,255,255,1)", "oklch(1 0 0)");
        assertThat(rows).extracting(ColorRow::value).containsExactly("#ffffff", "#ffffffee");
    }

    @Test
    void onlyTheCharactersOfTheChosenValuesChange() {
        String css = "/* head */\r\n.a{color :RED;/*x*/}\r\n\r\n@media print{ .b { background:red url(red.png) } }";
        Theme after = lifted(Themes.of("a.css", css), "alarm", "red", u -> true);
        assertThat(Themes.text(after.files(), "a.css"))
                .isEqualTo(
                        "/* head */\r\n.a{color :var(--alarm, RED);/*x*/}\r\n\r\n@media print{ .b { background:var(--alarm, red) url(red.png) } }");
        assertThat(after.palette().setting("alarm")).isPresent();
        assertThat(ColorUsage.of(after).boundTo("alarm")).hasSize(2);
        assertThat(ColorUsage.of(after).rows()).isEmpty();
    }

    @Test
    void removingASettingGivesTheStylesheetBackItsOwnWordsOrTheNewDefault() {
        String css = "a { color: Red } b { color: #f00 }";
        Theme after = lifted(Themes.of("a.css", css), "alarm", "red", u -> true);
        assertThat(new String(PaletteChange.remove(after, List.of("alarm"))
                        .files(after)
                        .get("a.css")))
                .isEqualTo(css);
        Change edit = PaletteChange.edit(after, setting("alarm", "#00ff00"), Place.EVERYWHERE);
        assertThat(edit.files(after)).containsOnlyKeys("palette.json");
        Theme green = edit.applied(after);
        assertThat(new String(PaletteChange.remove(green, List.of("alarm"))
                        .files(green)
                        .get("a.css")))
                .isEqualTo("a { color: #00ff00 } b { color: #00ff00 }");
    }

    @Test
    void numbersThatFeedRgbFollowAColourSettingAsNumbers() {
        Theme theme = Themes.of("a.css", ":root{--l-rgb:13,110,253;--n:1,2,3} a{color:rgba(var(--l-rgb),var(--o,1))}");
        Theme after = lifted(theme, "link", "#0d6efd", ColorUse::triple);
        assertThat(Themes.text(after.files(), "a.css")).contains("--l-rgb:var(--link-rgb, 13,110,253);--n:1,2,3");
        assertThat(ThemeBuild.paletteCss(after, Map.of("link", Chosen.of("#ff8000"))))
                .isEqualTo(":root {\n  --link: #ff8000;\n  --link-rgb: 255, 128, 0;\n}\n");
        assertThat(ColorUsage.of(after).boundTo("link").get(0).paints()).containsExactly(new Painted("a", "color", ""));
    }

    /** A small sheet as a preprocessor writes it: hover, text, focus ring, alert ground. */
    private static final String COMPILED =
            ":root{--l-rgb: 176, 58, 46}\n.b{background:#b03a2e;color:#fff;outline-color:rgba(176, 58, 46, .5)}\n"
                    + ".b:hover{background:#8d2e25;color:#fff}\n.a{background:#efd8d5;color:rgba(var(--l-rgb),.8)}\n.g{color:#808080}";

    private static Change family(Theme theme, String... derivations) {
        return Lift.lift(
                theme,
                uses(theme, u -> u.color().isOpaque() && u.color().hex().equals("#b03a2e")),
                setting("brand", "#b03a2e"),
                Place.EVERYWHERE,
                new java.util.LinkedHashSet<>(java.util.List.of(derivations)));
    }

    @Test
    void whatWasComputedFromAColourFollowsIt() {
        Theme theme = Themes.of("a.css", COMPILED);
        Theme after = family(
                        theme, "20% black", "80% white", "opacity 50%", "readable on same", "readable on 20% black")
                .applied(theme);
        assertThat(Themes.text(after.files(), "a.css"))
                .contains("background:var(--brand-20-black, #8d2e25);color:var(--brand-readable-on-20-black, #fff)")
                .contains("outline-color:var(--brand-opacity-50, rgba(176, 58, 46, .5))")
                .contains("background:var(--brand-80-white, #efd8d5)")
                .contains(".g{color:#808080}");
        assertThat(after.palette().known("brand-20-black").shown()).isEqualTo(Setting.Shown.NEVER);
        // A pale brand: the rest moves with it, and texts turn dark.
        assertThat(ThemeBuild.paletteCss(after, Map.of("brand", Chosen.of("#ffd43b"))))
                .contains("--brand: #ffd43b;", "--brand-rgb: 255, 212, 59;")
                .contains("--brand-20-black: #ccaa2f;", "--brand-80-white: #fff6d8;")
                .contains("--brand-opacity-50: #ffd43b80;")
                .contains("--brand-text: #1c1e20;", "--brand-readable-on-20-black: #1c1e20;");
        // What is written again is read as the same.
        assertThat(Theme.read(after.files(), "T").palette().settings())
                .isEqualTo(after.palette().settings());
    }

    @Test
    void aRelativeThatIsNotThereOrStandsOnNoneIsRefused() {
        Theme theme = Themes.of("a.css", COMPILED);
        assertThatThrownBy(() -> family(theme, "35% black")).hasMessageContaining("no longer there");
        assertThatThrownBy(() -> family(theme, "readable on 20% black"))
                .hasMessageContaining("follows a relative that is not chosen");
        assertThat(Themes.text(family(theme).applied(theme).files(), "a.css")).contains("background:#8d2e25");
    }

    @Test
    void coloursInsideStyleElementsAreLiftedWhereTheyStand() {
        String html = "<!doctype html>\n<style>\n h1 { color: #123456 }\n</style>\n<h1 title='#123456'>\u00fc</h1>";
        Theme theme = Themes.of("index.html", html);
        ColorUse use = ColorUsage.of(theme).rows().get(0).uses().get(0);
        assertThat(use.line()).isEqualTo(3);
        assertThat(Themes.text(lifted(theme, "ink", "#123456", u -> true).files(), "index.html"))
                .isEqualTo(html.replace("color: #123456", "color: var(--ink, #123456)"));
    }

    @Test
    void whatCannotBecomeASettingIsRefusedWithTheReason() {
        Theme theme = Themes.of(
                "a.css",
                "@property --p { syntax: '<color>'; inherits: true; initial-value: red }\n"
                        + ":root { --brand: red } a { color: red }");
        assertThatThrownBy(() -> lifted(theme, "p2", "red", u -> u.line() == 1))
                .isInstanceOf(BadInputException.class)
                .hasMessageContaining("a.css, line 1")
                .hasMessageContaining("var()");
        assertThatThrownBy(() -> lifted(theme, "brand", "red", u -> u.selector().equals("a")))
                .hasMessageContaining("--brand")
                .hasMessageContaining("a.css, line 2");
        assertThatThrownBy(() -> Lift.lift(theme, Set.of("1-2@a.css"), setting("k", "red"), Place.EVERYWHERE))
                .hasMessageContaining("no longer where they were");
        Theme once = lifted(theme, "alarm", "red", u -> u.selector().equals("a"));
        assertThatThrownBy(() -> lifted(once, "alarm", "red", u -> u.line() == 2))
                .hasMessageContaining("Label");
        assertThatThrownBy(() -> setting("1st", "red")).hasMessageContaining("custom property");
        assertThatThrownBy(() -> setting("k", "blu")).hasMessageContaining("blu");
    }

    /** What a new setting reaches is known before it is made: all that reads it, or nothing where other rules decide. */
    @Test
    void aLiftIsTriedWithAnotherColour() {
        Theme theme = Themes.of(
                "index.html",
                "<link rel=stylesheet href=a.css><h2>1<b>2</b></h2><p>3",
                "a.css",
                "h2 { color: #112233 } p { color: #112233 } p { color: #445566 } i { color: #778899 } p:hover { color: #abcdef }");
        Rendered before = new Rendered(theme);
        for (String[] c : new String[][] {
            {"#112233", "Tried with #2b8a3e: 2 parts of index.html look different: text colour."},
            {"#445566", "Tried with #2b8a3e: 1 part of index.html looks different: text colour."},
            {
                "#778899",
                "Tried with #2b8a3e: nothing looks different while nothing is pointed at; other rules decide there, or no page shows it."
            }
        }) {
            Set<String> uses = ColorUsage.of(theme).rows().stream()
                    .filter(r -> r.value().equals(c[0]))
                    .flatMap(r -> r.uses().stream())
                    .map(ColorUse::id)
                    .collect(java.util.stream.Collectors.toSet());
            Change change = Lift.lift(theme, uses, setting("k", c[0]), Place.EVERYWHERE);
            assertThat(Reach.of(before, change, "k").inWords()).isEqualTo(c[1]);
            // What an owner may choose has nothing to do with it.
            Setting narrow = setting("k", c[0]).withKind(new ColorKind(List.of(c[0]), null, List.of(), true));
            assertThat(Reach.of(before, Lift.lift(theme, uses, narrow, Place.EVERYWHERE), "k")
                            .inWords())
                    .isEqualTo(c[1]);
        }
    }

    @Test
    void keyAndPlaceAreSuggestedFromWhatIsPainted() {
        Theme theme = Themes.of(
                "index.html",
                "<header><a class='notice-badge'>3</a></header><main><section class='pier-cards'><h2>x</h2></section></main>",
                "a.css",
                ".notice-badge { background: #d8a13c } .pier-cards h2 { color: #123 } a:hover { color: #456 }");
        List<ColorUse> all = ColorUsage.of(theme).rows().stream()
                .flatMap(r -> r.uses().stream())
                .toList();
        List<Suggestion> suggested = all.stream()
                .map(u -> Suggestion.of(List.of(u), new Rendered(theme), Set.of("--link-hover-text")))
                .toList();
        assertThat(suggested)
                .containsExactly(
                        new Suggestion("notice-badge-fill", "Background of the link", "Header"),
                        new Suggestion("heading-2-text", "Text of the heading", "Pier cards"),
                        new Suggestion("link-hover-text-2", "Text of the link, pointed at", "Header"));
    }

    private static Kind proposed(Theme theme, String selector, String property) {
        Rendered rendered = new Rendered(theme);
        ColorUsage.Result colors = ColorUsage.of(theme);
        ColorUse use = colors.rows().stream()
                .flatMap(r -> r.uses().stream())
                .filter(u -> u.selector().equals(selector) && u.property().equals(property))
                .findFirst()
                .orElseThrow();
        return Proposal.of(
                ColorKind.ANY, Value.of(ColorKind.canonical(use.written())), rendered, colors.rows(), use.paints());
    }

    @Test
    void whatIsProposedForAColourKeepsTheContrastOfTheTextsOnItAndUsesTheThemesOwnColours() {
        Theme theme = Themes.of(
                "index.html",
                "<link rel=stylesheet href=a.css><div class=box><p class=note>Words</p></div>",
                "a.css",
                ".box { background: #ffffff } .note { color: #202020; background: #f4f4f4 } i { color: #c0c0c0 } b { color: #003366 } u { color: #eeeeee }");
        ColorKind text = (ColorKind) proposed(theme, ".note", "color");
        assertThat(text.contrasts()).containsExactly(new ColorKind.Needed("#f4f4f4", new java.math.BigDecimal("4.5")));
        assertThat(text.swatches()).containsExactly("#202020", "#003366");
        ColorKind ground = (ColorKind) proposed(theme, ".note", "background");
        assertThat(ground.contrasts()).extracting(ColorKind.Needed::with).containsExactly("#202020");
        assertThat(ground.swatches())
                .startsWith("#f4f4f4")
                .contains("#ffffff", "#c0c0c0", "#eeeeee")
                .doesNotContain("#003366");
    }

    @Test
    void theWholeValueOfADeclarationIsLiftedAndItsAddressKeepsMeaningTheSameFile() {
        String css = ".x{background : URL( ../img/a.png ) no-repeat/*k*/;padding:4px\t8px}";
        Theme theme = Themes.of("css/a.css", css, "img/a.png", "");
        LiftedValue background = LiftedValue.of("background", "URL( ../img/a.png ) no-repeat", "css/a.css")
                .get(0);
        assertThat(((Value.Parts) background.value()).text("picture")).isEqualTo("img/a.png");
        Setting s = Setting.of("ground", "Ground", "", "everywhere", background.kind(), background.value());
        Theme after = LiftedValue.lift(theme, "css/a.css", css.indexOf("background"), s, Place.EVERYWHERE)
                .applied(theme);
        assertThat(Themes.text(after.files(), "css/a.css"))
                .startsWith(".x{background : var(--ground, URL( ../img/a.png ) no-repeat")
                .endsWith("padding:4px\t8px}");
        assertThat(new String(PaletteChange.remove(after, List.of("ground"))
                        .files(after)
                        .get("css/a.css")))
                .isEqualTo(css);
        assertThat(LiftedValue.of("padding", "4px\t8px", "css/a.css")
                        .get(0)
                        .kind()
                        .name())
                .isEqualTo("spacing");
        assertThat(LiftedValue.of("width", "calc(1px + 2%)", "css/a.css")).isEmpty();
        assertThat(LiftedValue.of("text-align", "center", "css/a.css")
                        .get(0)
                        .kind()
                        .inWords())
                .contains("options");
    }

    @ParameterizedTest
    @CsvSource(
            delimiter = '|',
            quoteCharacter = '`',
            value = {
                "linear-gradient(rgba(0,0,0,.4), rgba(0,0,0,.4)), url(a.png) center/cover no-repeat | #000000 | 40",
                "linear-gradient(to right, #1f334780 0%, #1f334780 100%), url('a.png') fixed | #1f3347 | 50",
                "linear-gradient(90deg,rgb(10 20 30 / .333),rgb(10 20 30 / 33.3%)) , url(a.png) | #0a141e55 | 100",
                "linear-gradient(#123, #112233), url(a.png) | #112233 | 100",
                "linear-gradient(#0000007c, #0000007c), url(a.png) | #0000007c | 100",
            })
    void anEvenShadeOverAPictureIsABackgroundWithAnOverlay(String css, String overlay, int strength) {
        LiftedValue background = LiftedValue.of("background", css, "a.css").get(0);
        Value.Parts value = (Value.Parts) background.value();
        assertThat(background.kind().name()).isEqualTo("background");
        assertThat(value.text("overlay")).isEqualTo(overlay);
        assertThat(value.number("strength")).isEqualByComparingTo(String.valueOf(strength));
        assertThat(value.text("picture")).isEqualTo("a.png");
        // What is built paints the same shade: the colour of its gradient comes to the same bytes.
        String built = background.kind().css(value, path -> path).get("");
        Color written = Color.parse(
                        ComponentValue.read(ComponentValue.read(css).get(0).inside()).stream()
                                .map(ComponentValue::text)
                                .filter(t -> Color.parse(t).isPresent())
                                .findFirst()
                                .orElseThrow())
                .orElseThrow();
        assertThat(built).startsWith("linear-gradient(" + ColorKey.of(written) + ", ");
    }

    @ParameterizedTest
    @ValueSource(
            strings = {
                "linear-gradient(#0008, #0000), url(a.png)",
                "radial-gradient(#0008, #0008), url(a.png)",
                "linear-gradient(#0008), url(a.png)",
                "linear-gradient(#0008, #0008), #fff",
                "url(a.png), linear-gradient(#0008, #0008)",
                "linear-gradient(#0008, #0008) 0 0 / 40px, url(a.png)",
                "linear-gradient(#0008, #0008), url(a.png), url(b.png)"
            })
    void whatIsNoEvenShadeOverAPictureIsNoOverlay(String css) {
        assertThat(LiftedValue.of("background", css, "a.css"))
                .filteredOn(l -> l.layer() == 0)
                .extracting(l -> l.kind().name())
                .doesNotContain("background");
    }

    @Test
    void ofSeveralLayersThePictureOfOneBecomesASettingAndAllElseStaysToTheByte() {
        String css =
                ".x{background:linear-gradient( #0008 , #000 0 )/*k*/,\n  URL( img/a.png )  0 0/cover , url(\"img/b.png\")}";
        Theme theme = Themes.of("a.css", css, "img/a.png", "", "img/b.png", "");
        List<LiftedValue> all =
                LiftedValue.of("background", css.substring(css.indexOf("linear"), css.length() - 1), "a.css");
        assertThat(all)
                .extracting(LiftedValue::label)
                .containsExactly("the background from layer 3 on", "the picture of layer 2", "the picture of layer 3");
        assertThat(all.subList(1, 3))
                .extracting(LiftedValue::value)
                .containsExactly(Value.of("img/a.png"), Value.of("img/b.png"));
        Setting s = Setting.of(
                "sky", "Sky", "", "everywhere", all.get(1).kind(), all.get(1).value());
        Theme after = LiftedValue.lift(theme, "a.css", css.indexOf("background"), 2, s, Place.EVERYWHERE)
                .applied(theme);
        assertThat(Themes.text(after.files(), "a.css"))
                .isEqualTo(css.replace("URL( img/a.png )", "var(--sky, URL( img/a.png ))"));
        assertThat(new String(
                        PaletteChange.remove(after, List.of("sky")).files(after).get("a.css")))
                .isEqualTo(css);
        assertThatThrownBy(() -> LiftedValue.lift(theme, "a.css", css.indexOf("background"), 1, s, Place.EVERYWHERE))
                .isInstanceOf(BadInputException.class)
                .hasMessageContaining("no picture in layer 1");
    }

    /** A gradient over a hero's picture stays as it is written; picture, colour, repeat, position and size below it are one background. */
    @Test
    void theLowestLayersOfAHeroStayABackground() {
        String layers =
                "linear-gradient(90deg, #0009, #0000), linear-gradient(#0003, #0003), url(img/a.png) right top / cover no-repeat #123";
        Theme theme = Themes.of(
                "a.css",
                ".x{background:" + layers + "}",
                "img/a.png",
                "",
                "index.html",
                "<link rel=stylesheet href=a.css><p class=x>x");
        LiftedValue whole = LiftedValue.of("background", layers, "a.css").get(0);
        assertThat(whole.label()).isEqualTo("the background from layer 2 on");
        assertThat(((Value.Parts) whole.value()).text("picture")).isEqualTo("img/a.png");
        assertThat(((Value.Parts) whole.value()).text("position")).isEqualTo("right top");
        assertThat(((Value.Parts) whole.value()).number("strength")).isEqualByComparingTo("20");
        Setting s = Setting.of("hero", "Hero", "", "everywhere", whole.kind(), whole.value());
        Theme after = LiftedValue.lift(theme, "a.css", ".x{".length(), whole.layer(), s, Place.EVERYWHERE)
                .applied(theme);
        assertThat(Themes.text(after.files(), "a.css"))
                .isEqualTo(".x{background:linear-gradient(90deg, #0009, #0000), var(--hero, "
                        + layers.substring(layers.indexOf("linear-gradient(#0003")) + ")}");
        String before = background(theme, Map.of());
        assertThat(background(after, Map.of())).isEqualTo(before);
        Value other = ((Value.Parts) whole.value())
                .with("color", Value.of("#ff0000"))
                .with("position", Value.of("left bottom"));
        assertThat(background(after, Map.of("hero", Chosen.of(other))))
                .startsWith("rgb(255, 0, 0)")
                .contains("linear-gradient(90deg, rgba(0, 0, 0, 0.6), rgba(0, 0, 0, 0))")
                .contains("0%, 0%, 0% 0%, 0%, 100%");
    }

    private static String background(Theme theme, Map<String, Chosen> choices) {
        Page page = theme.pages().get(0);
        ElementStyle style = new Rendered(theme, choices)
                .styles(page, Viewport.of(1440, 900), States.NONE)
                .of(page.document().selectFirst(".x"));
        return style.computed("background-color") + " " + style.computed("background-image") + " "
                + style.computed("background-position-x") + " " + style.computed("background-position-y") + " "
                + style.computed("background-size") + " "
                + style.computed("background-repeat");
    }
}
