package org.calmpalette.core.chromium;

import static org.assertj.core.api.Assertions.assertThat;

import java.nio.charset.StandardCharsets;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.stream.Collectors;
import org.calmpalette.core.change.Change;
import org.calmpalette.core.change.SheetRole;
import org.calmpalette.core.change.Trial;
import org.calmpalette.core.output.ThemeBuild;
import org.calmpalette.core.page.Page;
import org.calmpalette.core.recipe.Offer;
import org.calmpalette.core.recipe.PartGroup;
import org.calmpalette.core.render.Measures;
import org.calmpalette.core.render.Rendered;
import org.calmpalette.core.setting.AnotherValue;
import org.calmpalette.core.setting.Chosen;
import org.calmpalette.core.setting.Effective;
import org.calmpalette.core.setting.Given;
import org.calmpalette.core.setting.Setting;
import org.calmpalette.core.setting.Value;
import org.calmpalette.core.survey.PageParts;
import org.calmpalette.core.theme.Theme;
import org.calmpalette.core.theme.Themes;
import org.junit.jupiter.api.Test;

/**
 * Header, hero and content column on pages of ours in the markup of ten published sheets, with the boxes that Chromium gave them. What
 * a person sees there is marked in the pages by {@code data-is}; the parts are found without it.
 */
public class PagePartsTest {
    /** Our page and its sheet. */
    public record Site(String name, String html, byte[] css) {
        public String question() {
            return "parts " + name + " " + Answers.hash(html, new String(css, StandardCharsets.UTF_8));
        }
    }

    private static final String WORDS =
            "<p>The first boat leaves Harrow Pier at twenty to seven, and from then on one goes every half hour until dusk.</p>";

    private static String page(String body) {
        return "<!doctype html><html lang=en><head><meta charset=utf-8><title>Ferries</title><link rel=stylesheet href=lib.css><link rel=stylesheet href=own.css></head><body>"
                + body.replace("WORDS", WORDS.repeat(4)) + "</body></html>";
    }

    /** What a maker adds to a library's sheet for a hero. */
    private static final String OWN =
            ".lead-in { min-height: 420px; padding: 80px 24px; background: #1f3347; color: #fff }";

    private static String links(String before, String after) {
        StringBuilder out = new StringBuilder();
        for (String l : List.of("Times", "Piers", "Notices")) {
            out.append(before)
                    .append("<a href=")
                    .append(l.toLowerCase(java.util.Locale.ROOT))
                    .append(".html>")
                    .append(l)
                    .append("</a>")
                    .append(after);
        }
        return out.toString();
    }

    public static List<Site> sites() {
        List<Site> all = new ArrayList<>();
        all.add(new Site(
                "bootstrap",
                page(
                        "<nav data-is=header class='navbar navbar-expand navbar-dark bg-dark'><div class=container><a class=navbar-brand href=/>Ferries</a><ul class=navbar-nav>"
                                + links("<li class=nav-item>", "</li>").replace("<a ", "<a class=nav-link ")
                                + "</ul></div></nav><section data-is=hero class='lead-in text-center'><h1>Cross the mere</h1><p>Four piers.</p></section><main data-is=column class='container py-5'><h2>Today</h2>WORDS</main><footer class=bg-light><div class=container>WORDS</div></footer>"),
                OutsideSheets.get("bootstrap 5.3.8")));
        all.add(new Site(
                "bulma",
                page(
                        "<nav data-is=header class='navbar is-dark'><div class=navbar-menu><div class=navbar-start>"
                                + links("", "").replace("<a ", "<a class=navbar-item ")
                                + "</div></div></nav><section data-is=hero class='hero is-medium is-link'><div class=hero-body><p class=title>x</p><h1 class=title>Cross the mere</h1></div></section><section class=section><div data-is=column class=container><h2 class=title>Today</h2>WORDS</div></section>"),
                OutsideSheets.get("bulma 1.0.4")));
        all.add(new Site(
                "foundation",
                page(
                        "<header data-is=header class=top-bar><div class=top-bar-left><ul class=menu>"
                                + links("<li>", "</li>")
                                + "</ul></div></header><div data-is=hero class=lead-in><h1>Cross the mere</h1></div><div data-is=column class=grid-container><h2>Today</h2>WORDS</div>"),
                OutsideSheets.get("foundation-sites 6.9.0")));
        all.add(new Site(
                "materialize",
                page(
                        "<nav data-is=header><div class=nav-wrapper><ul class=right>" + links("<li>", "</li>")
                                + "</ul></div></nav><div data-is=hero class=lead-in><h1>Cross the mere</h1></div><div data-is=column class=container><h2>Today</h2>WORDS</div>"),
                OutsideSheets.get("materialize-css 1.0.0")));
        all.add(new Site(
                "pico",
                page(
                        "<header data-is=header class=container><nav><ul><li><strong>Ferries</strong></li></ul><ul>"
                                + links("<li>", "</li>")
                                + "</ul></nav></header><section data-is=hero class=lead-in><h1>Cross the mere</h1></section><main data-is=column class=container><h2>Today</h2>WORDS</main>"),
                OutsideSheets.get("picocss 2.1.1")));
        all.add(new Site(
                "purecss",
                page(
                        "<div data-is=header class='pure-menu pure-menu-horizontal'><ul class=pure-menu-list>"
                                + links("<li class=pure-menu-item>", "</li>").replace("<a ", "<a class=pure-menu-link ")
                                + "</ul></div><div data-is=hero class=lead-in><h1>Cross the mere</h1></div><div data-is=column style='max-width:900px;margin:0 auto;padding:24px'><h2>Today</h2>WORDS</div>"),
                OutsideSheets.get("purecss 2.1.0")));
        all.add(new Site(
                "milligram",
                page(
                        "<header data-is=header style='padding:16px'><nav>" + links(" ", "")
                                + "</nav></header><section data-is=hero class=lead-in><h1>Cross the mere</h1></section><div data-is=column class=container><h2>Today</h2>WORDS</div>"),
                OutsideSheets.get("milligram 1.4.1")));
        all.add(new Site(
                "tachyons",
                page(
                        "<header data-is=header class='bg-black-90 w-100 ph3 pv3'><nav class='f6 fw6 ttu'>"
                                + links("", "").replace("<a ", "<a class='link dim white dib mr3' ")
                                + "</nav></header><section data-is=hero class='lead-in tc'><h1 class='f1'>Cross the mere</h1></section><article data-is=column class='mw7 center ph3'><h2>Today</h2>WORDS</article>"),
                OutsideSheets.get("tachyons 4.12.0")));
        all.add(new Site(
                "uikit",
                page(
                        "<nav data-is=header class='uk-navbar-container'><div class='uk-container'><div class=uk-navbar><div class=uk-navbar-left><ul class=uk-navbar-nav>"
                                + links("<li>", "</li>")
                                + "</ul></div></div></div></nav><div data-is=hero class='uk-section uk-section-primary lead-in'><div class=uk-container><h1>Cross the mere</h1></div></div><div class=uk-section><div data-is=column class=uk-container><h2>Today</h2>WORDS</div></div>"),
                OutsideSheets.resource("/outside/families/uikit.css.gz")));
        all.add(new Site(
                "spectre",
                page(
                        "<header data-is=header class='navbar p-2'><section class=navbar-section>"
                                + links("", "").replace("<a ", "<a class='btn btn-link' ")
                                + "</section></header><div data-is=hero class='hero bg-gray lead-in'><div class=hero-body><h1>Cross the mere</h1></div></div><div data-is=column class='container grid-lg'><h2>Today</h2>WORDS</div>"),
                OutsideSheets.resource("/outside/families/spectre.css.gz")));
        return all;
    }

    public static String own() {
        return OWN;
    }

    static Theme theme(Site site) {
        return Theme.read(
                Themes.files(
                        "index.html",
                        site.html(),
                        "lib.css",
                        new String(site.css(), StandardCharsets.UTF_8),
                        "own.css",
                        OWN),
                "T");
    }

    static Measures measures(Site site) {
        return Measures.read(
                "measures", Answers.read("parts").to(site.question()).get(0).getBytes(StandardCharsets.UTF_8));
    }

    @Test
    void partsAreFoundWhereAPersonSeesThemInNineOfTen() {
        Map<PageParts.Kind, List<String>> wrong = new LinkedHashMap<>();
        for (Site site : sites()) {
            Theme theme = theme(site);
            Page page = theme.pages().get(0);
            Map<PageParts.Kind, Integer> found = PageParts.of(new Rendered(theme), page, measures(site));
            for (PageParts.Kind kind : PageParts.Kind.values()) {
                int at = found.getOrDefault(kind, -1);
                String is = at < 0 ? "nothing" : page.elements().get(at).attr("data-is");
                if (!is.equals(kind.name().toLowerCase(java.util.Locale.ROOT))) {
                    wrong.computeIfAbsent(kind, k -> new ArrayList<>())
                            .add(site.name() + ": "
                                    + (at < 0 ? is : page.elements().get(at).cssSelector()));
                }
            }
        }
        assertThat(wrong.values()).as(wrong.toString()).allSatisfy(w -> assertThat(w)
                .hasSizeLessThanOrEqualTo(1));
    }

    /** Whatever is taken, nothing looks otherwise but where one jumps to, and no file loses more than the characters that change. */
    /** Those that differ most in how they write; all ten take three times as long. */
    private static final List<String> TAKEN = List.of("foundation", "pico", "milligram", "tachyons", "spectre");

    @Test
    void nothingLooksOtherwiseOnceAPartIsTaken() {
        int settings = 0;
        for (Site site : sites()) {
            Theme theme = theme(site);
            if (!TAKEN.contains(site.name())) {
                continue;
            }
            Rendered rendered = new Rendered(theme);
            Page page = theme.pages().get(0);
            Measures measures = measures(site);
            for (Map.Entry<PageParts.Kind, Integer> part :
                    PageParts.of(rendered, page, measures).entrySet()) {
                PartGroup group = new PartGroup(rendered, page, measures, part.getKey(), part.getValue());
                List<Offer> offers = group.offers();
                if (offers.isEmpty()) {
                    continue;
                }
                Change change =
                        group.take(offers.stream().map(Offer::id).collect(java.util.stream.Collectors.toSet()), "");
                settings += offers.size();
                Trial trial = Trial.of(rendered, change);
                assertThat(trial.properties())
                        .as(site.name() + " " + part.getKey() + " " + trial.byPage())
                        .isSubsetOf("scroll-padding-top", "top", "z-index");
                if (!SheetRole.of(theme).get("lib.css").lasts()) {
                    assertThat(change.edits())
                            .as("a library's sheet is not edited")
                            .doesNotContainKey("lib.css");
                }
                Theme after = change.applied(theme);
                assertThat(after.palette().settings()).hasSameSizeAs(offers);
                assertThat(after.palette().faults()).isEmpty();
            }
        }
        assertThat(settings).isGreaterThan(30);
    }

    /** What an owner chose of a part. @param at index of the element in the built page @param css by window width */
    public record Chose(String setting, int at, String property, Map<Integer, String> css) {}

    /** A site whose parts were all taken, built with an owner's choices: another value for every setting that allows one. */
    public record Changed(String name, Map<String, byte[]> before, Map<String, byte[]> after, List<Chose> choices) {}

    /** @param most sites that are looked at: what is taken of all of them is asked here in each run */
    public static List<Changed> changedByOwners(int most) {
        return sites().stream().limit(most).map(PagePartsTest::changed).toList();
    }

    private static Changed changed(Site site) {
        Theme first = theme(site);
        Map<PageParts.Kind, Integer> parts =
                PageParts.of(new Rendered(first), first.pages().get(0), measures(site));
        Theme now = first;
        Map<String, Offer> offers = new LinkedHashMap<>();
        Map<String, Integer> at = new LinkedHashMap<>();
        for (Map.Entry<PageParts.Kind, Integer> part : parts.entrySet()) {
            Page page = now.pages().get(0);
            int more = page.elements().size() - first.pages().get(0).elements().size();
            PartGroup group =
                    new PartGroup(new Rendered(now), page, measures(site), part.getKey(), part.getValue() + more);
            List<Offer> all = group.offers();
            if (all.isEmpty()) {
                continue;
            }
            List<Setting> were = now.palette().settings();
            now = group.take(all.stream().map(Offer::id).collect(Collectors.toSet()), "")
                    .applied(now);
            List<Setting> made = now.palette()
                    .settings()
                    .subList(were.size(), now.palette().settings().size());
            List<Offer> own = all.stream().filter(o -> !o.follows()).toList();
            for (int i = 0; i < made.size(); i++) {
                Offer o = own.get(i);
                offers.put(made.get(i).key(), o);
                at.put(made.get(i).key(), o.element() - more);
            }
        }
        Map<String, Chosen> choices = new LinkedHashMap<>();
        for (Setting s : now.palette().settings()) {
            if (s.shown() == null) {
                AnotherValue.of(s.kind(), ((Given.Fixed) s.given()).value()).ifPresent(v -> {
                    Chosen c = Chosen.of(v);
                    for (Map.Entry<String, Given> band : s.bands().entrySet()) {
                        Value in = AnotherValue.of(s.kind(), ((Given.Fixed) band.getValue()).value())
                                .orElse(v);
                        c = c.with(band.getKey(), in);
                    }
                    choices.put(s.key(), c);
                });
            }
        }
        Effective values = ThemeBuild.chosen(now, choices);
        assertThat(values.leftOut()).as(site.name()).isEmpty();
        Map<String, byte[]> before = files(now, Map.of());
        Map<String, byte[]> after = files(now, choices);
        int built = Page.read("index.html", after.get("index.html")).elements().size()
                - first.pages().get(0).elements().size();
        List<Chose> rows = new ArrayList<>();
        Theme taken = now;
        choices.keySet().forEach(key -> {
            Map<Integer, String> css = new LinkedHashMap<>();
            Offer o = offers.get(key);
            if (o.isOfState()) {
                // At rest it is not what is seen.
                return;
            }
            for (int width : o.note().isEmpty() ? new int[] {390, 820, 1440} : new int[] {1440}) {
                Setting s = taken.palette().known(key);
                css.put(
                        width,
                        s.kind()
                                .css(values.value(s, taken.palette().bands().at(width)), a -> a)
                                .get(""));
            }
            rows.add(new Chose(key, at.get(key) + built, o.property(), css));
        });
        return new Changed(site.name(), before, after, rows);
    }

    private static Map<String, byte[]> files(Theme theme, Map<String, Chosen> choices) {
        Map<String, byte[]> files = new LinkedHashMap<>();
        theme.files().paths().forEach(p -> files.put(p, theme.files().read(p)));
        files.putAll(ThemeBuild.build(theme, choices).files());
        return files;
    }
}
