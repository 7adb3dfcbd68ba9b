package org.calmpalette.core.change;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.nio.charset.StandardCharsets;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.Random;
import java.util.Set;
import java.util.TreeMap;
import java.util.TreeSet;
import java.util.function.Consumer;
import java.util.stream.Collectors;
import java.util.stream.IntStream;
import org.calmpalette.core.setting.PaletteMerge;
import org.calmpalette.core.theme.Theme;
import org.calmpalette.core.theme.ThemeFiles;
import org.calmpalette.core.theme.Themes;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

class MergeTest {
    private static final String CSS =
            """
      /* A */
      .a { color: red; margin: 0 }
      .b, .c { color: var(--ink, #123); top: 1px }
      @media (min-width: 600px) { .d { left: 2px } }
      .e { right: 3px }
      """;
    private static final String PAGE =
            """
      <!doctype html>
      <link rel="stylesheet" href="a.css">
      <style>p { color: blue; width: 1px }</style>
      <h1 class="x" id="y">One</h1>
      <p style="top: 0; left: 0">Two <b>three</b></p>
      <p data-setting-text="words">Four</p>
      """;
    private static final String PALETTE =
            """
      {"format": "calm-palette/1", "name": "T", "mine": {"a": 1},
       "settings": [
        {"key": "ink", "label": "Ink", "kind": "color", "place": "page", "default": "#112233"},
        {"key": "paper", "label": "Paper", "kind": "color", "place": "page", "default": "#ffffff"},
        {"key": "words", "label": "Words", "kind": "text", "place": "page", "default": "Four"}],
       "places": [{"key": "page", "label": "Page"}],
       "schemes": [{"key": "dusk", "label": "Dusk", "values": {"ink": "#000000"}}]}
      """;
    private static final Theme BASE = Themes.of(
            "a.css",
            CSS,
            "index.html",
            PAGE,
            "palette.json",
            PALETTE,
            "s.js",
            "one();\ntwo();\nthree();\n",
            "p.png",
            "\0at");

    private static Theme changed(String file, String what, String to) {
        TreeMap<String, byte[]> all = all(BASE);
        String text = new String(all.get(file), StandardCharsets.UTF_8);
        assertThat(text).contains(what);
        all.put(file, text.replace(what, to).getBytes(StandardCharsets.UTF_8));
        return Theme.read(ThemeFiles.of(all), "T");
    }

    private static TreeMap<String, byte[]> all(Theme t) {
        TreeMap<String, byte[]> all = new TreeMap<>();
        t.files().paths().forEach(p -> all.put(p, t.files().read(p)));
        return all;
    }

    private static Map<String, String> made(Theme ours, Merge merge) {
        ThemeFiles files = ThemeFiles.overlaid(ours.files(), merge.files(), merge.removed());
        return files.paths().stream().collect(Collectors.toMap(p -> p, p -> Themes.text(files, p)));
    }

    /** Both ways, which must give the same. */
    private static Merge both(Theme ours, Theme theirs) {
        Merge one = Merge.of(BASE, ours, theirs);
        Merge other = Merge.of(BASE, theirs, ours);
        assertThat(other.clashes())
                .containsExactlyInAnyOrderElementsOf(one.clashes().stream()
                        .map(c -> new Clash(c.file(), c.line(), turned(c.what()), c.base(), c.theirs(), c.ours()))
                        .toList());
        if (one.clashes().isEmpty()) {
            assertThat(made(theirs, other)).isEqualTo(made(ours, one));
        }
        return one;
    }

    private static String turned(String what) {
        return what.equals("it is gone")
                ? "it was changed, and would go"
                : what.equals("it was changed, and would go") ? "it is gone" : what;
    }

    @ParameterizedTest
    @CsvSource(
            delimiter = '|',
            textBlock =
                    """
            a.css        | color: red          | color: pink          | a.css        | margin: 0         | margin: 9px
            a.css        | .a {                | .aa {                | a.css        | color: red        | color: pink
            a.css        | .b, .c              | .b                   | a.css        | top: 1px          | top: 2px
            a.css        | .e { right: 3px }   | ''                   | a.css        | left: 2px         | left: 4px
            a.css        | .e { right: 3px }   | .e { right: 3px } f {}| a.css       | color: red        | color: pink
            a.css        | /* A */             | /* B */              | a.css        | .a {              | .aa {
            index.html   | class="x"           | class="z"            | index.html   | One               | Eins
            index.html   | color: blue         | color: red           | index.html   | width: 1px        | width: 2px
            index.html   | top: 0              | top: 1px             | index.html   | left: 0           | left: 1px
            index.html   | <b>                 | <b id="n">           | index.html   | Two               | Zwei
            s.js         | one                 | uno                  | s.js         | three             | tre
            palette.json | "Ink"               | "Tinte"              | palette.json | #ffffff           | #eeeeee
            palette.json | "Ink"               | "Tinte"              | palette.json | #112233           | #445566
            palette.json | "a": 1              | "a": 2               | palette.json | "Dusk"            | "Night"
            a.css        | color: red          | color: pink          | a.css        | color: red        | color: pink
            """)
    void whatLiesApartStandsTogether(String file, String what, String to, String file2, String what2, String to2) {
        Theme ours = changed(file, what, to);
        Theme theirs = changed(file2, what2, to2);
        Merge merge = both(ours, theirs);
        assertThat(merge.clashes()).isEmpty();
        TreeMap<String, byte[]> all = all(BASE);
        for (List<String> one : List.of(List.of(file, what, to), List.of(file2, what2, to2))) {
            all.computeIfPresent(one.get(0), (f, b) -> new String(b, StandardCharsets.UTF_8)
                    .replace(one.get(1), one.get(2))
                    .getBytes(StandardCharsets.UTF_8));
        }
        Map<String, String> made = made(ours, merge);
        if (file.equals("palette.json")) {
            assertThat(made.get(file)).contains(to.replaceAll("^\"a\"", "\"a\""), to2);
        } else {
            all.forEach((f, b) -> assertThat(made.get(f)).isEqualTo(new String(b, StandardCharsets.UTF_8)));
        }
    }

    @ParameterizedTest
    @CsvSource(
            delimiter = '|',
            textBlock =
                    """
            a.css        | color: red        | color: pink    | color: red       | color: green         | a.css, line 2: “color: red” is now “color: pink”
            a.css        | .b, .c            | .b             | .b, .c           | .c                   | a.css, line 3: “.b, .c” is now “.b”
            a.css        | .e { right: 3px } | ''             | 3px              | 4px                  | a.css, line 5: “.e { right: 3px }” is now “”
            index.html   | class="x"         | class="z"      | id="y"           | id="w"               | index.html, line 4: “<h1 class="x" id="y">” is now “<h1 class="z" id="y">”
            index.html   | One               | Eins           | One              | Uno                  | index.html, line 4: “One” is now “Eins”
            index.html   | top: 0            | top: 1px       | <p style         | <p id="q" style      | index.html, line 5: “<p style="top: 0; left: 0">” is now “<p style="top: 1px; left: 0">”
            s.js         | one               | uno            | one()            | one(1)               | s.js, line 1: “one();” is now “uno();”
            p.png        | at                | as             | at               | an                   | p.png: it was replaced
            palette.json | "Ink"             | "Tinte"        | "Ink"            | "Encre"              | palette.json: the setting "ink", label, now "Tinte"
            palette.json | "ink": "#000000"  | "ink": "#0000ff" | "ink": "#000000" | "ink": "#00ff00"   | palette.json: the scheme "dusk", values, ink, now "#0000ff"
            """)
    void whereBothChangeTheSameNothingIsDecided(
            String file, String what, String to, String what2, String to2, String message) {
        Merge merge = both(changed(file, what, to), changed(file, what2, to2));
        assertThat(merge.clashes()).extracting(Clash::message).containsExactly(message);
        assertThatThrownBy(() -> merge.change("x")).hasMessage(message + ".");
    }

    @Test
    void filesComeAndGo() {
        TreeMap<String, byte[]> with = all(BASE);
        with.put("new.css", new byte[] {'x'});
        with.remove("s.js");
        Theme ours = Theme.read(ThemeFiles.of(with), "T");
        Merge merge = both(ours, changed("a.css", "red", "pink"));
        assertThat(made(ours, merge)).containsKey("new.css").doesNotContainKey("s.js");
        assertThat(both(ours, changed("s.js", "two", "due")).clashes())
                .extracting(Clash::message)
                .containsExactly("s.js: it is gone");
        // What is there already changes no byte.
        assertThat(Merge.of(BASE, ours, BASE).files()).isEmpty();
        Theme other = changed("palette.json", "Ink", "Tinte");
        assertThat(Merge.of(BASE, other, other).files()).isEmpty();
        // Of a change what it does is told by lines, and its bytes are those that were put together.
        Theme theirs = changed("a.css", "red", "pink");
        Change change = Merge.of(BASE, theirs, ours).change("Both");
        assertThat(change.removed()).containsExactly("s.js");
        assertThat(all(change.applied(theirs)).keySet()).isEqualTo(with.keySet());
    }

    /** Of pictures that nobody touches no byte is read, where the files have a mark of their own. */
    @Test
    void whatStaysIsNotRead() {
        Set<String> read = new TreeSet<>();
        class Marked implements ThemeFiles {
            private final ThemeFiles of;

            Marked(ThemeFiles of) {
                this.of = of;
            }

            @Override
            public java.util.SortedSet<String> paths() {
                return of.paths();
            }

            @Override
            public byte[] read(String path) {
                read.add(path);
                return of.read(path);
            }

            @Override
            public Object mark(String path) {
                return new String(of.read(path), StandardCharsets.ISO_8859_1);
            }
        }
        Theme base = Theme.read(new Marked(BASE.files()), "T");
        Theme ours = Theme.read(new Marked(changed("a.css", "red", "pink").files()), "T");
        Theme overlay = Change.of("x").withFile("n.png", new byte[] {1}).applied(base);
        read.clear();
        Merge merge = Merge.of(base, ours, overlay);
        assertThat(merge.files()).containsOnlyKeys("n.png");
        assertThat(read).doesNotContain("p.png", "s.js");
        // Marks of two kinds are not taken for different contents.
        assertThat(ThemeFiles.isSame(new Marked(BASE.files()), BASE.files(), "p.png"))
                .isTrue();
        assertThat(ThemeFiles.isSame(new Marked(BASE.files()), ours.files(), "a.css"))
                .isFalse();
    }

    /** What one side reads and the other takes away is nothing that the texts tell. */
    @Test
    void aSettingThatIsReadCannotGo() {
        String ink = PALETTE.lines()
                .filter(l -> l.contains("\"ink\", \"label\""))
                .findFirst()
                .orElseThrow();
        TreeMap<String, byte[]> all = all(changed("palette.json", ink, ""));
        all.computeIfPresent("palette.json", (f, b) -> new String(b, StandardCharsets.UTF_8)
                .replace("\"ink\": \"#000000\"", "")
                .getBytes(StandardCharsets.UTF_8));
        Theme without = Theme.read(ThemeFiles.of(all), "T");
        // Nobody touches the declaration; the base has it already.
        assertThat(both(changed("a.css", "margin: 0", "color: var(--ink, #123)"), without)
                        .clashes())
                .extracting(Clash::message)
                .contains("a.css, line 2: it reads the setting “Ink”, which would be gone");
    }

    @Test
    void entriesKeepTheirOrderAndWhatCameItsPlace() {
        String base = "{\"settings\": [{\"key\": \"a\"}, {\"key\": \"b\"}, {\"key\": \"c\"}]}";
        String ours = "{\"settings\": [{\"key\": \"a\"}, {\"key\": \"n\"}, {\"key\": \"b\"}, {\"key\": \"c\"}]}";
        String theirs = "{\"settings\": [{\"key\": \"c\"}, {\"key\": \"m\"}, {\"key\": \"a\"}, {\"key\": \"b\"}]}";
        assertThat(order(base, ours, theirs)).isEqualTo("cmanb");
        assertThat(order(base, theirs, ours)).isEqualTo("cmanb");
        // Both put something in one place: by name, so that it is the same whoever is first.
        String also = ours.replace("\"n\"", "\"k\"");
        assertThat(order(base, ours, also)).isEqualTo("aknbc").isEqualTo(order(base, also, ours));
        String other = "{\"settings\": [{\"key\": \"b\"}, {\"key\": \"a\"}, {\"key\": \"c\"}]}";
        PaletteMerge.Merged clash = merged(base, theirs, other);
        assertThat(clash.clashes()).extracting(PaletteMerge.Clash::at).containsExactly("the order of settings");
    }

    private static PaletteMerge.Merged merged(String base, String ours, String theirs) {
        return PaletteMerge.of(
                base.getBytes(StandardCharsets.UTF_8),
                ours.getBytes(StandardCharsets.UTF_8),
                theirs.getBytes(StandardCharsets.UTF_8));
    }

    private static String order(String base, String ours, String theirs) {
        PaletteMerge.Merged merged = merged(base, ours, theirs);
        assertThat(merged.clashes()).isEmpty();
        return new String(merged.bytes(), StandardCharsets.UTF_8)
                .replaceAll("(?s)[^\"]*\"settings\"|\"key\"|[^a-z]", "");
    }

    /** One thing that a side may do; two that touch one thing clash, all others stand together. */
    private record Deed(String touches, Consumer<Map<String, String>> does) {}

    private static Deed replaced(String file, String what, String to, String touches) {
        return new Deed(touches, all -> all.computeIfPresent(file, (f, t) -> t.replace(what, to)));
    }

    private static Deed deed(Random random, String who) {
        int i = random.nextInt(12);
        return switch (random.nextInt(6)) {
            case 0 -> replaced("a.css", "p" + i + ": 1px", "p" + i + ": " + who, "p" + i);
            case 1 -> replaced("a.css", ".s" + i + " {", ".s" + i + "." + who + " {", "s" + i);
            case 2 -> replaced("index.html", "id=\"i" + i + "\"", "id=\"i" + i + "\" class=\"" + who + "\"", "i" + i);
            case 3 -> replaced("index.html", "Text " + i + ".", "Text of " + who + ".", "t" + i);
            case 4 -> replaced("s.js", "line" + i + "();\n", "line" + i + "(" + who + ");\n", "l" + i);
            default -> replaced("palette.json", "\"K" + i + "\"", "\"K" + i + " " + who + "\"", "k" + i);
        };
    }

    @Test
    void ofMadePairsNothingIsLost() {
        Map<String, String> start = new TreeMap<>();
        start.put("a.css", numbered(12, "  .s%d { p%d: 1px; top: 0 }\n"));
        start.put("index.html", "<!doctype html>\n" + numbered(12, "<p id=\"i%d\">Text %d.</p>\n"));
        start.put("s.js", numbered(12, "line%d();\n"));
        start.put(
                "palette.json",
                "{\"name\": \"T\", \"settings\": ["
                        + IntStream.range(0, 12)
                                .mapToObj(i -> "{\"key\": \"k" + i + "\", \"label\": \"K" + i
                                        + "\", \"kind\": \"color\", \"place\": \"page\", \"default\": \"#fff\"}")
                                .collect(Collectors.joining(",\n"))
                        + "]}");
        Random random = new Random(26);
        int clashed = 0;
        int together = 0;
        for (int round = 0; round < 300; round++) {
            List<Deed> mine = IntStream.range(0, 1 + random.nextInt(4))
                    .mapToObj(k -> deed(random, "ours"))
                    .toList();
            List<Deed> yours = IntStream.range(0, 1 + random.nextInt(4))
                    .mapToObj(k -> deed(random, "theirs"))
                    .toList();
            Theme base = theme(start);
            Theme ours = theme(after(start, mine));
            Theme theirs = theme(after(start, yours));
            Set<String> met = new TreeSet<>(mine.stream().map(Deed::touches).toList());
            met.retainAll(yours.stream().map(Deed::touches).toList());
            Merge one = Merge.of(base, ours, theirs);
            Merge other = Merge.of(base, theirs, ours);
            assertThat(one.clashes()).as("round " + round).hasSize(met.size());
            assertThat(other.clashes()).hasSize(met.size());
            if (met.isEmpty()) {
                together++;
                assertThat(made(ours, one)).isEqualTo(made(theirs, other));
                Map<String, String> all = after(after(start, mine), yours);
                made(ours, one).forEach((f, t) -> {
                    if (!f.equals("palette.json")) {
                        assertThat(t).isEqualTo(all.get(f));
                    }
                });
                assertThat(theme(made(ours, one)).palette().settings())
                        .isEqualTo(theme(all).palette().settings());
            } else {
                clashed++;
                assertThat(one.clashes()).allSatisfy(c -> {
                    assertThat(c.ours()).contains("ours");
                    assertThat(c.theirs()).contains("theirs");
                });
            }
        }
        assertThat(clashed).isGreaterThan(20);
        assertThat(together).isGreaterThan(100);
    }

    private static String numbered(int n, String pattern) {
        return IntStream.range(0, n)
                .mapToObj(i -> pattern.replace("%d", String.valueOf(i)))
                .collect(Collectors.joining());
    }

    private static Map<String, String> after(Map<String, String> start, List<Deed> deeds) {
        Map<String, String> all = new TreeMap<>(start);
        deeds.forEach(d -> d.does().accept(all));
        return all;
    }

    private static Theme theme(Map<String, String> texts) {
        List<String> all = new ArrayList<>();
        texts.forEach((f, t) -> all.addAll(List.of(f, t)));
        return Themes.of(all.toArray(String[]::new));
    }

    @Test
    void inAVeryLongFileChangesFarDownStandTogether() {
        String css = numbered(200_000, ".r%d { top: 1px }\n");
        Theme base = Themes.of("long.txt", css);
        Theme ours = Themes.of("long.txt", css.replace(".r69000 { top: 1px }", ".r69000 { top: 2px }"));
        Theme theirs = Themes.of("long.txt", css.replace(".r199000 { top: 1px }\n", ""));
        Merge merge = Merge.of(base, ours, theirs);
        assertThat(merge.clashes()).isEmpty();
        assertThat(new String(merge.files().get("long.txt"), StandardCharsets.UTF_8))
                .isEqualTo(css.replace(".r69000 { top: 1px }", ".r69000 { top: 2px }")
                        .replace(".r199000 { top: 1px }\n", ""));
    }
}
