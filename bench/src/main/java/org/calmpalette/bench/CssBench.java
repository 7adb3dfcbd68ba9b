package org.calmpalette.bench;

import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.util.List;
import java.util.Optional;
import java.util.Set;
import java.util.TreeMap;
import java.util.concurrent.TimeUnit;
import org.calmpalette.core.cascade.ElementStyle;
import org.calmpalette.core.cascade.Explanation;
import org.calmpalette.core.cascade.PageStyles;
import org.calmpalette.core.change.Trial;
import org.calmpalette.core.css.Stylesheet;
import org.calmpalette.core.css.selector.States;
import org.calmpalette.core.intake.Specimen;
import org.calmpalette.core.page.Page;
import org.calmpalette.core.part.PartChange;
import org.calmpalette.core.part.PartIndex;
import org.calmpalette.core.part.PartLook;
import org.calmpalette.core.render.Rendered;
import org.calmpalette.core.survey.Survey;
import org.calmpalette.core.theme.Theme;
import org.calmpalette.core.theme.ThemeFiles;
import org.calmpalette.core.usage.Readers;
import org.calmpalette.core.value.Viewport;
import org.jsoup.nodes.Element;
import org.openjdk.jmh.annotations.Benchmark;
import org.openjdk.jmh.annotations.BenchmarkMode;
import org.openjdk.jmh.annotations.Fork;
import org.openjdk.jmh.annotations.Measurement;
import org.openjdk.jmh.annotations.Mode;
import org.openjdk.jmh.annotations.OutputTimeUnit;
import org.openjdk.jmh.annotations.Param;
import org.openjdk.jmh.annotations.Scope;
import org.openjdk.jmh.annotations.Setup;
import org.openjdk.jmh.annotations.State;
import org.openjdk.jmh.annotations.Warmup;

/** Reading stylesheets, computing paint, and how both grow; milliseconds, warm. */
@BenchmarkMode(Mode.AverageTime)
@OutputTimeUnit(TimeUnit.MILLISECONDS)
@Warmup(iterations = 4, time = 1)
@Measurement(iterations = 5, time = 1)
@Fork(1)
public class CssBench {
    private static final List<String> PAINT = List.of(
            "color",
            "opacity",
            "fill",
            "stroke",
            "display",
            "visibility",
            "background-color",
            "background-image",
            "background-position-x",
            "background-position-y",
            "background-size",
            "background-repeat",
            "border-top-color",
            "border-right-color",
            "border-bottom-color",
            "border-left-color");

    @State(Scope.Benchmark)
    public static class Published {
        byte[] bootstrap;
        byte[] bulma;
        Page page;
        PageStyles.Sheets sheets;
        List<Element> elements;
        Theme theme;
        Rendered rendered;
        Readers readers;
        PartIndex parts;
        int at;

        @Setup
        public void read() throws IOException {
            bootstrap = Sheets.get(Sheets.BOOTSTRAP);
            bulma = Sheets.get(Sheets.BULMA);
            byte[] html = Specimen.page(Stylesheet.read("sheet.css", bootstrap));
            page = Page.read("index.html", html);
            sheets = PageStyles.sheets(page, path -> Optional.of(bootstrap));
            elements =
                    page.document().body().getAllElements().stream().limit(300).toList();
            if (elements.size() < 300) {
                throw new IllegalStateException("the page has too few elements");
            }
            TreeMap<String, byte[]> files = new TreeMap<>();
            files.put("sheet.css", bootstrap);
            for (int i = 0; i < 12; i++) {
                files.put("page" + i + ".html", html);
            }
            theme = Theme.read(ThemeFiles.of(files), "Bench");
            rendered = new Rendered(theme);
            readers = Readers.of(theme);
            parts = new PartIndex(theme.pages());
        }
    }

    @State(Scope.Benchmark)
    public static class Growing {
        @Param({"1000", "5000", "20000"})
        int rules;

        byte[] css;

        @Setup
        public void write() {
            StringBuilder out = new StringBuilder();
            for (int i = 0; i < rules; i++) {
                out.append(".part-")
                        .append(i % 997)
                        .append(" > .item:not(.x")
                        .append(i % 13)
                        .append(") { color: #")
                        .append(String.format("%06x", i * 31))
                        .append("; margin: 0 ")
                        .append(i % 9)
                        .append("px; background: url(\"img/")
                        .append(i)
                        .append(".png\") no-repeat }\n");
            }
            css = out.toString().getBytes(StandardCharsets.UTF_8);
        }
    }

    @Benchmark
    public Stylesheet readBootstrap(Published p) {
        return Stylesheet.read("bootstrap.css", p.bootstrap);
    }

    @Benchmark
    public Stylesheet readBulma(Published p) {
        return Stylesheet.read("bulma.css", p.bulma);
    }

    @Benchmark
    public Stylesheet readGrowing(Growing g) {
        return Stylesheet.read("g.css", g.css);
    }

    /** All paint properties of 300 elements under Bootstrap's sheet, from a sheet that is read to the last value. */
    @Benchmark
    public int paint300Elements(Published p) {
        PageStyles styles = p.sheets.in(Viewport.of(1280, 800), States.NONE);
        int length = 0;
        for (Element e : p.elements) {
            ElementStyle style = styles.of(e);
            for (String property : PAINT) {
                length += style.computed(property).length();
            }
        }
        return length;
    }

    @Benchmark
    public int paintGrowing(Growing g) {
        StringBuilder html = new StringBuilder("<link rel=stylesheet href=g.css>");
        for (int i = 0; i < 100; i++) {
            html.append("<div class=part-").append(i).append("><p class=item>x</p></div>");
        }
        Page page = Page.read("index.html", html.toString().getBytes(StandardCharsets.UTF_8));
        PageStyles styles = PageStyles.sheets(page, path -> Optional.of(g.css)).in(Viewport.of(1280, 800), States.NONE);
        return page.document().select("p").stream()
                .mapToInt(e -> styles.of(e).computed("color").length())
                .sum();
    }

    @Benchmark
    public Explanation explainOneElement(Published p) {
        PageStyles styles = p.sheets.in(Viewport.of(1280, 800), States.NONE);
        return Explanation.of(styles.of(p.elements.get(40)), "color");
    }

    @Benchmark
    public Survey survey12Pages(Published p) {
        return Survey.of(p.theme);
    }

    /** Everything that a click on a part of a page asks. */
    @Benchmark
    public PartLook lookAtOnePart(Published p) {
        p.at = (p.at + 37) % 280;
        return PartLook.of(
                p.rendered,
                p.readers,
                p.parts,
                p.theme.pages().get(p.at % 12),
                20 + p.at,
                Viewport.of(1440, 900),
                Set.of());
    }

    /** What giving one class another colour changes on all pages. */
    @Benchmark
    public Trial tryOneChange(Published p) {
        PartChange change = new PartChange(
                p.rendered, p.theme.pages().get(0), 60, null, "color", Viewport.of(1440, 900), Set.of(), null);
        return Trial.of(p.rendered, change.fix("only", new PartChange.What.Value("#123456")));
    }
}
