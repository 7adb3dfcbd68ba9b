package org.calmpalette.bench;

import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.nio.file.Path;
import java.util.List;
import java.util.Map;
import java.util.TreeMap;
import java.util.concurrent.TimeUnit;
import java.util.function.UnaryOperator;
import org.calmpalette.core.intake.ThemeFolder;
import org.calmpalette.core.promise.Answer;
import org.calmpalette.core.promise.Promises;
import org.calmpalette.core.promise.Proved;
import org.calmpalette.core.setting.ColorKind;
import org.calmpalette.core.setting.Kind;
import org.calmpalette.core.setting.Setting;
import org.calmpalette.core.survey.Survey;
import org.calmpalette.core.theme.Theme;
import org.calmpalette.core.theme.ThemeFiles;
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

/** All promises of a theme: of the demo's files, and of one page with so many texts, each in two colours that are chosen, for every five texts two settings. */
@BenchmarkMode(Mode.AverageTime)
@OutputTimeUnit(TimeUnit.MILLISECONDS)
@Warmup(iterations = 4, time = 2)
@Measurement(iterations = 5, time = 2)
@Fork(1)
public class PromiseBench {
    @State(Scope.Benchmark)
    public static class Demo {
        Theme theme;

        @Setup
        public void read() throws IOException {
            theme = ThemeFolder.read(Path.of("app/src/main/resources/own/towpath"));
        }
    }

    @State(Scope.Benchmark)
    public static class Many {
        @Param({"125", "250", "500"})
        int texts;

        Theme theme;

        @Setup
        public void read() {
            StringBuilder html =
                    new StringBuilder("<!doctype html><title>x</title><link rel=stylesheet href=a.css><main>");
            StringBuilder css = new StringBuilder();
            StringBuilder settings = new StringBuilder();
            for (int i = 0; i < texts; i++) {
                int s = i / 5;
                html.append("<p class=c").append(i).append(">Text ").append(i).append("</p>");
                css.append(String.format(".c%d { color: var(--ink-%d); background: var(--paper-%d) }%n", i, s, s));
                if (i % 5 == 0) {
                    settings.append(i == 0 ? "" : ",")
                            .append(setting("ink-" + s, "#101820", "\"opaque\": true, \"contrast\": [{\"with\": \"paper-" + s + "\", \"atLeast\": 4.5}]"))
                            .append(",")
                            .append(setting("paper-" + s, "#ffffff", "\"swatches\": [\"#ffffff\", \"#f3efe6\", \"#e9f1f4\"]"));
                }
            }
            TreeMap<String, byte[]> files = new TreeMap<>();
            files.put("index.html", bytes(html.toString()));
            files.put("a.css", bytes(css.toString()));
            files.put(
                    "palette.json",
                    bytes("{\"places\": [{\"key\": \"p\", \"label\": \"P\"}], \"settings\": [" + settings + "]}"));
            theme = Theme.read(ThemeFiles.of(files), "x");
        }

        private static String setting(String key, String made, String allowed) {
            return String.format(
                    "{\"key\": \"%s\", \"label\": \"%s\", \"place\": \"p\", \"kind\": \"color\", \"default\": \"%s\", \"allowed\": {%s}}",
                    key, key, made, allowed);
        }

        private static byte[] bytes(String text) {
            return text.getBytes(StandardCharsets.UTF_8);
        }
    }

    /** Once a setting's limits were changed, with what was proved before; every other time back again. */
    @Benchmark
    public List<Answer> ofManyTextsAfterAChangeOfLimits(Many many, Changing changing) {
        return changing.next(many.theme, "paper-0", k -> new ColorKind(List.of("#ffffff", "#e8e8e8"), null, List.of(), true));
    }

    /** As above, of the example with settings. */
    @Benchmark
    public List<Answer> ofTheExampleAfterAChangeOfLimits(Example example, Changing changing) {
        return changing.next(example.theme, example.key, k -> new ColorKind(List.of("#101820", "#ffffff"), null, List.of(), true));
    }

    @Benchmark
    public List<Answer> ofTheExample(Example example) {
        return Promises.of(example.theme);
    }

    @State(Scope.Benchmark)
    public static class Example {
        Theme theme;
        String key;

        @Setup
        public void read() throws IOException {
            theme = ThemeFolder.read(Path.of("app/src/main/resources/own/landing-stage"));
            key = theme.palette().settings().stream()
                    .filter(s -> s.kind() instanceof ColorKind)
                    .findFirst()
                    .orElseThrow()
                    .key();
        }
    }

    @State(Scope.Benchmark)
    public static class Changing {
        private Proved before = Proved.NOTHING;
        private boolean changed;

        List<Answer> next(Theme theme, String key, UnaryOperator<Kind> limits) {
            changed = !changed;
            Setting s = theme.palette().known(key);
            Theme now = changed
                    ? theme.with(theme.palette()
                            .replacing(
                                    s.withKind(limits.apply(s.kind())),
                                    theme.palette().place(s.place()).orElseThrow()))
                    : theme;
            Promises.Checked checked = Promises.of(
                    now, before, Map.of(), Map.of(), Survey.of(now).findings(), (done, total, what) -> {});
            before = checked.proved();
            return checked.answers();
        }
    }

    @Benchmark
    public List<Answer> ofTheDemo(Demo demo) {
        return Promises.of(demo.theme);
    }

    @Benchmark
    public List<Answer> ofManyTexts(Many many) {
        return Promises.of(many.theme);
    }
}
