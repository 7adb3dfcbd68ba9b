package org.calmpalette.app;

import static org.assertj.core.api.Assertions.assertThat;

import com.microsoft.playwright.Page;
import java.nio.charset.StandardCharsets;
import java.util.ArrayList;
import java.util.Collections;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Random;
import java.util.Set;
import java.util.TreeMap;
import java.util.TreeSet;
import org.calmpalette.core.BadInputException;
import org.calmpalette.core.Generated;
import org.calmpalette.core.cascade.Understanding;
import org.calmpalette.core.change.LiftedValue;
import org.calmpalette.core.change.Trial;
import org.calmpalette.core.chromium.ComputedStyleTest;
import org.calmpalette.core.chromium.PagePartsTest;
import org.calmpalette.core.css.Node;
import org.calmpalette.core.css.selector.SelectorMatcher;
import org.calmpalette.core.css.selector.States;
import org.calmpalette.core.output.ThemeBuild;
import org.calmpalette.core.render.Rendered;
import org.calmpalette.core.setting.AnotherValue;
import org.calmpalette.core.setting.Chosen;
import org.calmpalette.core.setting.Place;
import org.calmpalette.core.setting.Setting;
import org.calmpalette.core.setting.Value;
import org.calmpalette.core.theme.Theme;
import org.calmpalette.core.theme.ThemeFiles;
import org.calmpalette.core.theme.ThemeSheet;
import org.calmpalette.core.usage.Readers;
import org.junit.jupiter.api.AfterEach;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.condition.EnabledIfSystemProperty;

/** Values lifted into settings on pages under published sheets, then set to another value: what changes in Chromium is what was said. */
class LiftsReachTest {
    private static final List<Integer> WIDTHS = List.of(390, 1440);
    private static final String LOOK =
            """
      properties => [...document.querySelectorAll('html, body, body *')].map(e => { const s = getComputedStyle(e); return properties.map(p => s.getPropertyValue(p)).join('|') })""";

    @AfterEach
    void close() {
        Browsers.closeAll();
    }

    private record Declared(ThemeSheet sheet, Node.Declaration declaration) {
        int start() {
            return sheet.sheet().tokens().start(declaration.first());
        }
    }

    /** Ten on each of six pages, which takes minutes; {@code PagePartsTest} asks the same of parts in each run, without a browser. */
    @Test
    @EnabledIfSystemProperty(named = "calm.long", matches = "true")
    void anotherValueChangesInChromiumWhatItIsSaidToChange() {
        Random random = Generated.random(61);
        List<PagePartsTest.Site> sites = PagePartsTest.sites();
        List<String> wrong = new ArrayList<>();
        Set<String> kinds = new TreeSet<>();
        int tried = 0;
        for (PagePartsTest.Site site : sites.subList(0, 6)) {
            Theme theme = theme(site);
            List<Declared> all = declared(theme);
            Collections.shuffle(all, random);
            int lifts = 0;
            for (Declared d : all) {
                if (lifts == 10) {
                    break;
                }
                Map<String, Theme> looks = looks(theme, d);
                if (looks.isEmpty()) {
                    continue;
                }
                Theme now = looks.get("now");
                Set<Integer> said = new TreeSet<>(Trial.between(new Rendered(now), new Rendered(looks.get("then")))
                        .changed()
                        .getOrDefault("index.html", List.of()));
                if (said.isEmpty()) {
                    continue;
                }
                lifts++;
                kinds.add(now.palette().settings().get(0).kind().name());
                Map<Integer, Set<String>> seen = seen(now, looks.get("then"));
                if (!d.declaration().property().startsWith("margin")) {
                    // Of margins a browser tells what layout makes of auto (CSSOM 1, section 9): not what is computed.
                    seen.values().forEach(s -> s.removeIf(x -> x.startsWith("margin-")));
                    seen.values().removeIf(Set::isEmpty);
                }
                if (!seen.keySet().equals(said)) {
                    wrong.add(site.name() + ", " + d.sheet().sheet().value(d.declaration()) + " of "
                            + d.declaration().property() + " at " + d.start() + ": said " + said + ", seen " + seen);
                }
            }
            tried += lifts;
        }
        assertThat(tried).as("values that were lifted").isGreaterThanOrEqualTo(50);
        assertThat(kinds.size()).as("kinds of settings: %s", kinds).isGreaterThanOrEqualTo(4);
        assertThat(wrong).isEmpty();
    }

    private static Theme theme(PagePartsTest.Site site) {
        return Theme.read(
                ThemeFiles.of(new TreeMap<>(
                        Map.of("index.html", site.html().getBytes(StandardCharsets.UTF_8), "lib.css", site.css()))),
                site.name());
    }

    /** Declarations of what is computed here, that paint something on the page at rest. */
    private static List<Declared> declared(Theme theme) {
        List<Declared> all = new ArrayList<>();
        SelectorMatcher matcher = new SelectorMatcher(theme.pages().get(0).document(), States.NONE);
        List<org.jsoup.nodes.Element> elements =
                theme.pages().get(0).document().body().getAllElements();
        for (ThemeSheet sheet : theme.sheets()) {
            sheet.sheet().eachDeclaration((d, around) -> {
                boolean finds = !around.isEmpty()
                        && Readers.selector(sheet.sheet(), around)
                                .filter(list -> elements.stream().anyMatch(e -> matcher.matches(list, e)))
                                .isPresent();
                if (finds && ComputedStyleTest.PROPERTIES.containsAll(Understanding.longhands(d.property()))) {
                    all.add(new Declared(sheet, d));
                }
            });
        }
        return all;
    }

    /** The theme with the value as a setting, at today's value and at another one; empty where it cannot be lifted. */
    private static Map<String, Theme> looks(Theme theme, Declared d) {
        List<LiftedValue> values = LiftedValue.of(
                d.declaration().property(),
                d.sheet().sheet().value(d.declaration()),
                d.sheet().path());
        if (values.isEmpty()) {
            return Map.of();
        }
        LiftedValue value = values.get(0);
        Value other = AnotherValue.of(value.kind(), value.value()).orElse(null);
        if (other == null) {
            return Map.of();
        }
        Place place = new Place("all", "All");
        Setting setting = Setting.of("all-one", "One", "", "all", value.kind(), value.value());
        try {
            Theme lifted = LiftedValue.lift(theme, d.sheet().path(), d.start(), value.layer(), setting, place)
                    .applied(theme);
            Map<String, Theme> both = new LinkedHashMap<>();
            both.put("now", built(lifted, Map.of()));
            both.put("then", built(lifted, Map.of("all-one", Chosen.of(other))));
            return both;
        } catch (BadInputException refused) {
            return Map.of();
        }
    }

    private static Theme built(Theme lifted, Map<String, Chosen> chosen) {
        TreeMap<String, byte[]> files = new TreeMap<>();
        lifted.files().paths().forEach(p -> files.put(p, lifted.files().read(p)));
        String css = ThemeBuild.settingsCss(lifted) + "\n" + ThemeBuild.paletteCss(lifted, chosen);
        files.put(
                "lib.css",
                (css + "\n" + new String(files.get("lib.css"), StandardCharsets.UTF_8))
                        .getBytes(StandardCharsets.UTF_8));
        return Theme.read(ThemeFiles.of(files), "T");
    }

    /** Elements of which Chromium computes something otherwise, as indices among all of the page, with what. */
    @SuppressWarnings("unchecked")
    private static Map<Integer, Set<String>> seen(Theme now, Theme then) {
        org.calmpalette.core.page.Page page = now.pages().get(0);
        List<org.jsoup.nodes.Element> elements =
                new ArrayList<>(List.of(page.elements().get(1)));
        elements.addAll(page.document().body().getAllElements());
        Map<Integer, Set<String>> all = new TreeMap<>();
        for (int width : WIDTHS) {
            Page browser = Browsers.page(width, 900);
            List<List<String>> looks = new ArrayList<>();
            for (Theme theme : List.of(now, then)) {
                browser.setContent(new String(theme.files().read("index.html"), StandardCharsets.UTF_8)
                        .replaceAll("<link [^>]*stylesheet[^>]*>", ""));
                browser.addStyleTag(new Page.AddStyleTagOptions()
                        .setContent(new String(theme.files().read("lib.css"), StandardCharsets.UTF_8)
                                + "\n* { transition: none !important; animation: none !important }"));
                looks.add((List<String>) browser.evaluate(LOOK, ComputedStyleTest.PROPERTIES));
            }
            assertThat(looks.get(0)).hasSameSizeAs(elements).hasSameSizeAs(looks.get(1));
            for (int i = 0; i < elements.size(); i++) {
                String[] was = looks.get(0).get(i).split("\\|", -1);
                String[] is = looks.get(1).get(i).split("\\|", -1);
                for (int n = 0; n < was.length; n++) {
                    if (!was[n].equals(is[n])) {
                        all.computeIfAbsent(page.elements().indexOf(elements.get(i)), k -> new TreeSet<>())
                                .add(ComputedStyleTest.PROPERTIES.get(n) + " " + was[n] + " → " + is[n]);
                    }
                }
            }
            browser.close();
        }
        return all;
    }
}
