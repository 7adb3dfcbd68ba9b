package org.calmpalette.core;

import static org.assertj.core.api.Assertions.assertThat;

import java.nio.charset.StandardCharsets;
import java.util.ArrayList;
import java.util.Collections;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Random;
import java.util.TreeMap;
import net.jqwik.api.Arbitraries;
import net.jqwik.api.Arbitrary;
import net.jqwik.api.Combinators;
import net.jqwik.api.ForAll;
import net.jqwik.api.Property;
import net.jqwik.api.Provide;
import org.calmpalette.core.cascade.PageStyles;
import org.calmpalette.core.change.Change;
import org.calmpalette.core.color.Color;
import org.calmpalette.core.css.Edit;
import org.calmpalette.core.css.Stylesheet;
import org.calmpalette.core.css.selector.SelectorList;
import org.calmpalette.core.css.selector.States;
import org.calmpalette.core.output.ThemeBuild;
import org.calmpalette.core.page.Page;
import org.calmpalette.core.page.Srcset;
import org.calmpalette.core.setting.Band;
import org.calmpalette.core.setting.Chosen;
import org.calmpalette.core.setting.Effective;
import org.calmpalette.core.setting.Media;
import org.calmpalette.core.setting.MediaFacts;
import org.calmpalette.core.setting.Palette;
import org.calmpalette.core.setting.PaletteJson;
import org.calmpalette.core.setting.Setting;
import org.calmpalette.core.setting.Specimens;
import org.calmpalette.core.setting.Value;
import org.calmpalette.core.survey.Survey;
import org.calmpalette.core.theme.Theme;
import org.calmpalette.core.theme.ThemeFiles;
import org.calmpalette.core.value.ComponentValue;
import org.calmpalette.core.value.Viewport;

/** What holds for any input, tried on generated ones: the same in each run, so that a failure is a failure of a change. */
class PropertiesTest {
    private static final String SEED = "20261126";

    /** Pieces of stylesheets, whole and broken, that meet each other in every order. */
    @Provide
    Arbitrary<String> css() {
        Arbitrary<String> pieces = Arbitraries.of(
                "a",
                ".b",
                "#c",
                "{",
                "}",
                "color",
                ":",
                ";",
                "red",
                "#12f",
                "url(x.png)",
                "url( 'y",
                "\"",
                "'",
                "/* k */",
                "/*",
                "*/",
                "(",
                ")",
                "[",
                "]",
                "@media",
                "@import",
                "@layer x",
                "@property --p",
                "(min-width: 3px)",
                "--x",
                "var(--x, 1)",
                "var(",
                "calc(1px + ",
                "!important",
                "!",
                "\\",
                "\\66 ",
                "\n",
                "\r\n",
                "\f",
                " ",
                ",",
                ">",
                "+",
                "~",
                "&",
                "::before",
                ":is(",
                ":not(.z)",
                ":nth-child(2n+1)",
                "1px",
                "50%",
                "1e9",
                "-",
                "<!--",
                "-->",
                "\u00e9",
                "\ud83d\udea2",
                "\u0000",
                "rgb(1 2 3)",
                "background",
                "padding",
                "linear-gradient(red, blue)",
                "@charset \"utf-8\";",
                "width",
                "=",
                "|");
        return pieces.list().ofMaxSize(60).map(l -> String.join("", l));
    }

    @Provide
    Arbitrary<String> html() {
        Arbitrary<String> pieces = Arbitraries.of(
                "<p>",
                "</p>",
                "<div class=b>",
                "</div>",
                "<style>",
                "</style>",
                "p{color:red}",
                "<link rel=stylesheet href=a.css>",
                "<img src=x.png srcset='a 1x, b 2x'>",
                "<",
                ">",
                "<!--",
                "-->",
                "<script>",
                "</script>",
                "text",
                "&amp;",
                "&",
                "<title>",
                "</title>",
                "<textarea>",
                "<svg>",
                "</svg>",
                "<a href='#x'>",
                "<b id=x>",
                "</b>",
                "<table><tr><td>",
                "<template>",
                "</template>",
                "\u00e9",
                "\u0000",
                " style='color: red'",
                "<h1 data-setting-text=it>",
                "</h1>",
                "<body>",
                "<base href=x>");
        return pieces.list().ofMaxSize(40).map(l -> String.join("", l));
    }

    @Property(tries = 400, seed = SEED)
    void writingWhatWasReadGivesTheSameBytes(@ForAll("css") String css) {
        byte[] bytes = css.getBytes(StandardCharsets.UTF_8);
        Stylesheet sheet = Stylesheet.read("s.css", bytes);
        assertThat(sheet.source().withEdits(List.of())).isEqualTo(bytes);
        StringBuilder tokens = new StringBuilder();
        for (int i = 0; i < sheet.tokens().size(); i++) {
            tokens.append(sheet.tokens().raw(i));
        }
        assertThat(tokens.toString()).isEqualTo(sheet.source().text());
    }

    @Property(tries = 400, seed = SEED)
    void bytesThatAreNoTextComeBackToo(@ForAll byte[] bytes, @ForAll Random random) {
        Stylesheet sheet = Stylesheet.read("s.css", bytes);
        assertThat(sheet.source().withEdits(List.of())).isEqualTo(bytes);
        int length = sheet.source().text().length();
        int at = length == 0 ? 0 : random.nextInt(length + 1);
        if (at == length || !Character.isLowSurrogate(sheet.source().text().charAt(at))) {
            byte[] longer = sheet.source().withEdits(List.of(new Edit(at, at, "zz")));
            assertThat(longer).hasSizeBetween(bytes.length + 2, bytes.length + 4);
        }
    }

    @Property(tries = 150, seed = SEED)
    void noThemeThrowsAnythingButOurOwnError(@ForAll("css") String css, @ForAll("html") String html) {
        TreeMap<String, byte[]> files = new TreeMap<>(Map.of(
                "a.css", css.getBytes(StandardCharsets.UTF_8), "index.html", html.getBytes(StandardCharsets.UTF_8)));
        try {
            Theme theme = Theme.read(ThemeFiles.of(files), "T");
            Survey survey = Survey.of(theme);
            survey.findings().stream().filter(f -> f.canBeMended()).limit(3).forEach(f -> {
                Change change = f.fix().get();
                if (!change.isEmpty()) {
                    Theme after = change.applied(theme);
                    // A file that no edit names stays, to the byte.
                    theme.files().paths().stream()
                            .filter(p -> !change.edits().containsKey(p)
                                    && !change.written().containsKey(p))
                            .forEach(p -> assertThat(after.files().read(p))
                                    .isEqualTo(theme.files().read(p)));
                }
            });
            ThemeBuild.build(theme, Map.of());
        } catch (BadInputException told) {
            assertThat(told.getMessage()).isNotBlank();
        }
    }

    @Property(tries = 300, seed = SEED)
    void readersOfValuesTakeAnyText(@ForAll("css") String text) {
        ComponentValue.read(text).forEach(c -> assertThat(c.text()).isNotNull());
        Color.parse(text)
                .ifPresent(c -> assertThat(Color.parse(c.css())).as(c.css()).isPresent());
        Optional<SelectorList> selector = SelectorList.parse(text);
        selector.ifPresent(s -> assertThat(SelectorList.parse(s.toString()).map(SelectorList::toString))
                .as(text)
                .hasValue(s.toString()));
        Srcset.read(text)
                .forEach(c -> assertThat(text.substring(c.start(), c.end())).isEqualTo(c.url()));
    }

    /** Rules of which no two set the same property mean the same in any order. */
    @Property(tries = 60, seed = SEED)
    void theOrderOfRulesThatDoNotMeetDoesNotMatter(@ForAll Random random) {
        List<String> rules = new ArrayList<>(List.of(
                "p{color:#123}",
                ".b{background-color:red}",
                "b{opacity:.5}",
                "p b{font-weight:700}",
                ".b{padding-top:3px}",
                "p{margin-left:1em}",
                "#x{font-size:20px}",
                "@media (min-width:1px){.b{border-top-color:blue}}",
                "@supports (display:grid){p{display:grid}}",
                "div .b{visibility:hidden}"));
        String html = "<!doctype html><link rel=stylesheet href=a.css><div><p class=b>x<b id=x>y</b></div>";
        List<String> first = computed(String.join("", rules), html);
        Collections.shuffle(rules, random);
        assertThat(computed(String.join("\n", rules), html))
                .as(rules.toString())
                .isEqualTo(first);
    }

    private static List<String> computed(String css, String html) {
        Page page = Page.read("index.html", html.getBytes(StandardCharsets.UTF_8));
        PageStyles styles = PageStyles.sheets(page, p -> Optional.of(css.getBytes(StandardCharsets.UTF_8)))
                .in(Viewport.of(900, 700), States.NONE);
        List<String> all = new ArrayList<>();
        for (var e : page.elements().subList(1, page.elements().size())) {
            for (String p : List.of(
                    "color",
                    "background-color",
                    "opacity",
                    "font-weight",
                    "padding-top",
                    "margin-left",
                    "font-size",
                    "border-top-color",
                    "display",
                    "visibility")) {
                all.add(e.normalName() + " " + p + " " + styles.of(e).computed(p));
            }
        }
        return all;
    }

    /** A change and then its reverse give the bytes of before. */
    @Property(tries = 200, seed = SEED)
    void aChangeAndItsUndoGiveTheSameBytes(@ForAll("css") String css, @ForAll Random random) {
        String text = Stylesheet.read("a.css", css.getBytes(StandardCharsets.UTF_8))
                .source()
                .text();
        if (text.length() < 4) {
            return;
        }
        int start = random.nextInt(text.length() - 1);
        int end = start + random.nextInt(Math.min(10, text.length() - start));
        if (Character.isLowSurrogate(text.charAt(start))
                || end < text.length() && Character.isLowSurrogate(text.charAt(end))) {
            return;
        }
        Theme theme =
                Theme.read(ThemeFiles.of(new TreeMap<>(Map.of("a.css", css.getBytes(StandardCharsets.UTF_8)))), "T");
        String there = text.substring(start, end);
        Theme changed =
                Change.edit("there", "a.css", new Edit(start, end, "/*zz*/")).applied(theme);
        Theme back =
                Change.edit("back", "a.css", new Edit(start, start + 6, there)).applied(changed);
        assertThat(back.files().read("a.css")).isEqualTo(theme.files().read("a.css"));
    }

    /** Whatever an owner's file says, the values that hold are allowed or told, and what is left out is told. */
    @Property(tries = 150, seed = SEED)
    void effectiveValuesSatisfyTheirLimits(@ForAll Random random) {
        Palette palette = Specimens.palette();
        Map<String, Chosen> choices = new TreeMap<>();
        List<Value> values = new ArrayList<>(List.of(
                Value.of("red"),
                Value.of("#0000"),
                Value.of(12),
                Value.of(-3),
                Value.of(true),
                Value.of(""),
                Value.parts("value", 5, "unit", "px"),
                Value.parts(),
                new Value.Many(List.of()),
                Value.of("nonsense")));
        palette.settings().forEach(s -> values.add(s.kind().initial()));
        for (Setting s : palette.settings()) {
            if (random.nextInt(3) == 0) {
                choices.put(s.key(), Chosen.of(values.get(random.nextInt(values.size()))));
            }
        }
        choices.put("nobody-knows", Chosen.of("x"));
        Effective effective = Effective.of(palette, choices, FILES);
        assertThat(effective.leftOut()).anyMatch(l -> l.key().equals("nobody-knows"));
        for (Setting s : palette.settings()) {
            for (Band band : palette.bands().list()) {
                // A choice may leave another setting's default beyond its limits; that is told, and nothing else is.
                boolean told = effective.problems().stream()
                        .anyMatch(p -> p.setting().key().equals(s.key())
                                && p.band().key().equals(band.key()));
                boolean beyond = s.kind()
                        .refusal(effective.value(s, band), effective.around(band))
                        .isPresent();
                assertThat(told)
                        .as(() -> s.key() + " in " + band.key() + " of " + choices)
                        .isEqualTo(beyond);
                boolean own = effective.source(s, band) == Effective.Source.OWNER
                        || effective.source(s, band) == Effective.Source.OWNER_BAND;
                assertThat(own && beyond)
                        .as("what an owner chose and is not allowed does not count")
                        .isFalse();
            }
        }
    }

    /** The files that the specimens name. */
    private static final Media FILES = new Media() {
        @Override
        public Optional<MediaFacts> facts(String path) {
            return paths().contains(path)
                    ? Optional.of(new MediaFacts(1600, 900, 90_000, path.substring(path.lastIndexOf('.') + 1)))
                    : Optional.empty();
        }

        @Override
        public List<String> paths() {
            return List.of("img/a.png", "img/b.png", "film/a.mp4");
        }
    };

    @Property(tries = 200, seed = SEED)
    void anyJsonIsReadOrRefusedInWords(@ForAll("json") String json) {
        try {
            Palette palette = PaletteJson.read(json.getBytes(StandardCharsets.UTF_8), "T");
            Palette again = PaletteJson.read(PaletteJson.write(palette, json.getBytes(StandardCharsets.UTF_8)), "T");
            assertThat(again.settings()).isEqualTo(palette.settings());
        } catch (BadInputException told) {
            assertThat(told.getMessage()).isNotBlank();
        }
    }

    @Provide
    Arbitrary<String> json() {
        Arbitrary<String> scalar = Arbitraries.of(
                "null",
                "true",
                "0",
                "-1",
                "1e400",
                "\"\"",
                "\"color\"",
                "\"ink\"",
                "\"#123456\"",
                "[]",
                "{}",
                "\"page\"",
                "\"length\"",
                "{\"unit\":\"px\"}");
        Arbitrary<String> setting = Combinators.combine(scalar, scalar, scalar, scalar, scalar)
                .as((k, l, kind, d, a) -> "{\"key\":" + k + ",\"label\":" + l + ",\"kind\":" + kind + ",\"default\":"
                        + d + ",\"allowed\":" + a + ",\"place\":\"page\"}");
        return Combinators.combine(setting.list().ofMaxSize(3), scalar, scalar)
                .as((s, bands, places) -> "{\"format\":\"calm-palette/1\",\"settings\":[" + String.join(",", s)
                        + "],\"bands\":" + bands + ",\"places\":" + places + "}");
    }
}
