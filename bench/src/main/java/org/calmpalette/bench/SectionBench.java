package org.calmpalette.bench;

import java.nio.charset.StandardCharsets;
import java.util.Collections;
import java.util.List;
import java.util.Map;
import java.util.TreeMap;
import java.util.concurrent.TimeUnit;
import org.calmpalette.core.change.Change;
import org.calmpalette.core.output.ThemeBuild;
import org.calmpalette.core.section.SectionKit;
import org.calmpalette.core.section.Sections;
import org.calmpalette.core.section.Shelf;
import org.calmpalette.core.setting.Chosen;
import org.calmpalette.core.setting.ItemsKind;
import org.calmpalette.core.setting.Value;
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

/** A page of forty sections of the shelf, and a section of sixty items. */
@State(Scope.Benchmark)
@BenchmarkMode(Mode.AverageTime)
@OutputTimeUnit(TimeUnit.MILLISECONDS)
@Warmup(iterations = 4, time = 1)
@Measurement(iterations = 5, time = 1)
@Fork(1)
public class SectionBench {
    private Theme forty;
    private Theme sixty;
    private Map<String, Chosen> items;
    private SectionKit notice;

    @Setup
    public void put() {
        Theme empty = Theme.read(
                ThemeFiles.of(new TreeMap<>(Map.of(
                        "index.html",
                        "<!doctype html><html lang=en><head><title>T</title></head><body><main></main></body></html>"
                                .getBytes(StandardCharsets.UTF_8)))),
                "T");
        List<SectionKit> shelf = Shelf.kits();
        forty = empty;
        for (int i = 0; i < 40; i++) {
            forty = Sections.put(forty, shelf.get(i % shelf.size()), forty.pages().get(0), "S" + i, 0)
                    .applied(forty);
        }
        notice = shelf.stream().filter(k -> k.key().equals("notice")).findFirst().orElseThrow();
        SectionKit cards = shelf.stream().filter(k -> k.key().equals("cards")).findFirst().orElseThrow();
        SectionKit more = SectionKit.read(
                "cards", cards.json("Cards").replaceAll("\"most\": *24", "\"most\": 60"), cards.html(), cards.css(), cards.pictures());
        sixty = Sections.put(empty, more, empty.pages().get(0), "Piers", 0).applied(empty);
        ItemsKind kind = (ItemsKind) sixty.palette().known("piers-cards").kind();
        Value item = kind.item().with("heading", Value.of("Sedge & Reed"));
        items = Map.of("piers-cards", Chosen.of(new Value.Many(Collections.nCopies(60, item))));
        if (new String(aSectionOfSixtyItems(), StandardCharsets.UTF_8).split("Sedge &amp; Reed", -1).length != 61) {
            throw new IllegalStateException("there are not sixty items on the page");
        }
    }

    @Benchmark
    public byte[] aPageOfFortySections() {
        return ThemeBuild.finished(
                forty.pages().get(0), ThemeBuild.chosen(forty, Map.of("s9-heading", Chosen.of("Other words"))));
    }

    @Benchmark
    public String theirStylesheet() {
        return ThemeBuild.settingsCss(forty);
    }

    @Benchmark
    public byte[] aSectionOfSixtyItems() {
        return ThemeBuild.finished(sixty.pages().get(0), ThemeBuild.chosen(sixty, items));
    }

    @Benchmark
    public Change oneMoreOnThatPage() {
        return Sections.put(forty, notice, forty.pages().get(0), "Fog", 0);
    }
}
