package org.calmpalette.core.chromium;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.IOException;
import java.io.UncheckedIOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.TreeMap;
import java.util.stream.Stream;
import org.calmpalette.core.cascade.ElementStyle;
import org.calmpalette.core.cascade.PageStyles;
import org.calmpalette.core.css.Stylesheet;
import org.calmpalette.core.css.selector.States;
import org.calmpalette.core.intake.Specimen;
import org.calmpalette.core.page.Page;
import org.calmpalette.core.value.Viewport;
import org.jsoup.nodes.Element;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.MethodSource;

/**
 * Computed paint of every element as Chromium computes it: pages under the published sheets of four frameworks, our demo, and a
 * sheet that uses everything, at three window widths.
 */
public class ComputedStyleTest {
    private static final int[] WIDTHS = {390, 820, 1440};
    public static final int HEIGHT = 800;
    public static final List<String> PROPERTIES = new ArrayList<>(List.of(
            "color",
            "opacity",
            "fill",
            "stroke",
            "display",
            "visibility",
            "font-size",
            "font-weight",
            "position",
            "background-color",
            "background-image",
            "background-position-x",
            "background-position-y",
            "background-size",
            "background-repeat",
            "background-attachment",
            "background-origin",
            "background-clip"));

    static {
        for (String side : List.of("top", "right", "bottom", "left")) {
            PROPERTIES.addAll(List.of("border-" + side + "-color", "padding-" + side, "margin-" + side));
        }
    }

    /** @param files of the page, {@code index.html} among them */
    public record Case(String name, Map<String, byte[]> files, int width) {
        /** Names the case in the recorded file. */
        public String question() {
            return name + " " + width + " "
                    + Answers.hash(files.entrySet().stream()
                            .filter(f -> f.getKey().matches(".*\\.(html|css)"))
                            .map(Map.Entry::getValue)
                            .toArray(byte[][]::new))
                    + " " + Answers.hash(PROPERTIES.toArray(String[]::new));
        }

        @Override
        public String toString() {
            return name + " " + width;
        }
    }

    public static Stream<Case> cases() {
        Map<String, Map<String, byte[]>> pages = new LinkedHashMap<>();
        for (String[] s : new String[][] {
            {"bootstrap", "bootstrap 5.3.8"},
            {"bulma", "bulma 1.0.4"},
            {"foundation", "foundation-sites 6.9.0"},
            {"pure", "purecss 2.1.0"}
        }) {
            byte[] sheet = OutsideSheets.get(s[1]);
            pages.put(
                    s[0],
                    new TreeMap<>(Map.of(
                            "index.html", OutsideSheets.resource("/agreement/" + s[0] + ".html"), "sheet.css", sheet)));
            pages.put(
                    s[0] + " specimen",
                    new TreeMap<>(Map.of(
                            "index.html", Specimen.page(Stylesheet.read("sheet.css", sheet)), "sheet.css", sheet)));
        }
        pages.put(
                "everything",
                new TreeMap<>(Map.of(
                        "index.html",
                        OutsideSheets.resource("/agreement/everything.html"),
                        "everything.css",
                        OutsideSheets.resource("/agreement/everything.css"),
                        "imported.css",
                        OutsideSheets.resource("/agreement/imported.css"))));
        pages.put(
                "ticks",
                new TreeMap<>(Map.of(
                        "index.html", OutsideSheets.resource("/agreement/ticks.html"),
                        "ticks.css", OutsideSheets.resource("/agreement/ticks.css"))));
        Map<String, byte[]> demo = demo();
        for (String page : List.of("index.html", "timetable.html", "piers.html", "notices.html")) {
            Map<String, byte[]> files = new TreeMap<>(demo);
            files.put("index.html", demo.get(page));
            pages.put("demo " + page, files);
        }
        return pages.entrySet().stream()
                .flatMap(p -> java.util.Arrays.stream(WIDTHS).mapToObj(w -> new Case(p.getKey(), p.getValue(), w)));
    }

    /** The demo's theme as the application ships it, without the pictures that it draws. */
    private static Map<String, byte[]> demo() {
        Path folder = Path.of("../app/src/main/resources/own/towpath");
        Map<String, byte[]> files = new TreeMap<>();
        try (Stream<Path> all = Files.walk(folder)) {
            for (Path p : (Iterable<Path>) all.filter(Files::isRegularFile)::iterator) {
                files.put(folder.relativize(p).toString(), Files.readAllBytes(p));
            }
        } catch (IOException e) {
            throw new UncheckedIOException(e);
        }
        return files;
    }

    /**
     * Where ours is not Chromium's, with the reason: whole values, so that nothing else hides behind them. None today.
     */
    private static final Map<String, String> NAMED = Map.of();

    @ParameterizedTest
    @MethodSource("cases")
    void computedPaintIsChromiums(Case c) {
        Page page = Page.read("index.html", c.files().get("index.html"));
        PageStyles styles = PageStyles.sheets(
                        page, path -> Optional.ofNullable(c.files().get(path)))
                .in(Viewport.of(c.width(), HEIGHT), States.NONE);
        List<Element> shown = page.document().getAllElements().stream()
                .filter(e -> e != page.document()
                        && e.parents().stream().noneMatch(p -> p.normalName().equals("template")))
                .toList();
        List<String> theirs = ANSWERS.to(c.question());
        assertThat(shown.stream().map(Element::tagName).toList())
                .isEqualTo(theirs.stream().map(t -> t.split("\t", 2)[0]).toList());
        List<String> wrong = new ArrayList<>();
        int compared = 0;
        for (int i = 0; i < shown.size(); i++) {
            Element element = shown.get(i);
            List<ElementStyle> three =
                    List.of(styles.of(element), styles.of(element, "before"), styles.of(element, "after"));
            String[] values = theirs.get(i).split("\t", -1);
            for (int p = 0; p < 3 * PROPERTIES.size(); p++) {
                String property = PROPERTIES.get(p % PROPERTIES.size());
                String mine = three.get(p / PROPERTIES.size()).computed(property);
                String other = values[p + 1];
                compared++;
                boolean used = needsLayout(property, mine) && other.matches("-?[\\d.]+px");
                if (!used && !Answers.same(mine, other) && !other.equals(NAMED.get(property + ": " + mine))) {
                    wrong.add(element.cssSelector() + " { " + property + " } ours " + mine + " | Chromium " + other);
                }
            }
        }
        assertThat(compared).isGreaterThan(1_000);
        assertThat(wrong).isEmpty();
    }

    /** Browsers give used values of margins and padding, which depend on layout. */
    private static boolean needsLayout(String property, String value) {
        return (property.startsWith("margin-") || property.startsWith("padding-"))
                && (value.contains("%") || value.equals("auto") || value.contains("("));
    }

    private static final Answers ANSWERS = Answers.read("computed-style");
}
