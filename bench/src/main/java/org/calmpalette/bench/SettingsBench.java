package org.calmpalette.bench;

import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.TreeMap;
import java.util.concurrent.TimeUnit;
import org.calmpalette.core.output.ThemeBuild;
import org.calmpalette.core.setting.Chosen;
import org.calmpalette.core.setting.Palette;
import org.calmpalette.core.setting.PaletteJson;
import org.calmpalette.core.setting.Setting;
import org.calmpalette.core.theme.Theme;
import org.calmpalette.core.theme.ThemeFiles;
import org.openjdk.jmh.annotations.Benchmark;
import org.openjdk.jmh.annotations.BenchmarkMode;
import org.openjdk.jmh.annotations.Fork;
import org.openjdk.jmh.annotations.Measurement;
import org.openjdk.jmh.annotations.Mode;
import org.openjdk.jmh.annotations.OutputTimeUnit;
import org.openjdk.jmh.annotations.Scope;
import org.openjdk.jmh.annotations.Setup;
import org.openjdk.jmh.annotations.State;
import org.openjdk.jmh.annotations.Warmup;

/** Settings of every kind, 240 of them: reading them, putting choices together with them, filling a page. */
@BenchmarkMode(Mode.AverageTime)
@OutputTimeUnit(TimeUnit.MILLISECONDS)
@Warmup(iterations = 4, time = 1)
@Measurement(iterations = 5, time = 1)
@Fork(1)
public class SettingsBench {
    @State(Scope.Benchmark)
    public static class Many {
        byte[] json;
        Theme theme;
        Map<String, Chosen> choices;

        @Setup
        public void read() throws IOException {
            Palette one = PaletteJson.read(
                    java.nio.file.Files.readAllBytes(Path.of("docs/formats/example.palette.json")), "x");
            List<Setting> all = new ArrayList<>();
            StringBuilder html = new StringBuilder("<!doctype html><title>x</title>");
            for (int i = 0; i < 10; i++) {
                String end = "-" + i;
                Palette copy = one.withSchemes(List.of());
                for (Setting s : one.settings()) {
                    copy = copy.renamed(s.key(), s.key() + end);
                }
                all.addAll(copy.settings());
                html.append("<h2 data-setting-text=\"heading")
                        .append(end)
                        .append("\" data-setting-level=\"level")
                        .append(end)
                        .append("\">x</h2>");
            }
            json = PaletteJson.write(one.withSchemes(List.of()).withSettings(all), null);
            TreeMap<String, byte[]> files = new TreeMap<>();
            files.put("palette.json", json);
            files.put("index.html", html.toString().getBytes(StandardCharsets.UTF_8));
            List.of("img/a.png", "img/b.png", "film/a.mp4").forEach(f -> files.put(f, new byte[0]));
            theme = Theme.read(ThemeFiles.of(files), "x");
            choices = Map.of("ink-3", Chosen.of("#123456"), "heading-4", Chosen.of("Other words"));
        }
    }

    @Benchmark
    public Palette readThePalette(Many many) {
        return PaletteJson.read(many.json, "x");
    }

    @Benchmark
    public String choicesAsAStylesheet(Many many) {
        return ThemeBuild.paletteCss(many.theme, many.choices);
    }

    @Benchmark
    public byte[] aPageWithItsParts(Many many) {
        return ThemeBuild.finished(many.theme.pages().get(0), ThemeBuild.chosen(many.theme, many.choices));
    }
}
