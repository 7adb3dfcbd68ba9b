package org.calmpalette.core.section;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.nio.charset.StandardCharsets;
import java.util.List;
import java.util.Map;
import java.util.TreeMap;
import org.calmpalette.core.change.Change;
import org.calmpalette.core.change.PaletteChange;
import org.calmpalette.core.change.PictureChange;
import org.calmpalette.core.output.ThemeBuild;
import org.calmpalette.core.page.Page;
import org.calmpalette.core.render.Rendered;
import org.calmpalette.core.setting.Chosen;
import org.calmpalette.core.setting.Given;
import org.calmpalette.core.setting.ItemsKind;
import org.calmpalette.core.setting.Place;
import org.calmpalette.core.setting.Setting;
import org.calmpalette.core.setting.Value;
import org.calmpalette.core.survey.Finding;
import org.calmpalette.core.survey.Survey;
import org.calmpalette.core.theme.Theme;
import org.calmpalette.core.theme.Themes;
import org.jsoup.nodes.Element;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import tools.jackson.databind.JsonNode;
import tools.jackson.databind.json.JsonMapper;
import tools.jackson.databind.node.ArrayNode;

class SectionsTest {
    private static final String PAGE =
            "<!doctype html>\n<html><head><title>T</title>\n  <link rel=stylesheet href=a.css>\n</head><body>\n<main>\n  <h1>One</h1>\n  <p>Two</p>\n</main>\n</body></html>\n";

    private static Theme theme() {
        return Themes.of(
                "index.html", PAGE, "a.css", "h1{color:red}", "more/two.html", PAGE.replace("a.css", "../a.css"));
    }

    static SectionKit kit(String key) {
        return Shelf.kits().stream()
                .filter(k -> k.key().equals(key))
                .findFirst()
                .orElseThrow();
    }

    private static Theme put(Theme theme, String kit, int page, String label, int before) {
        return Sections.put(theme, kit(kit), theme.pages().get(page), label, before)
                .applied(theme);
    }

    private static String built(Theme theme, Map<String, Chosen> choices) {
        return new String(ThemeBuild.build(theme, choices).files().get("index.html"), StandardCharsets.UTF_8);
    }

    @Test
    void everySectionOfTheShelfStandsOnAPageAndChangesNothingElseOfIt() {
        Theme theme = theme();
        for (SectionKit kit : Shelf.kits()) {
            Theme after = Sections.put(theme, kit, theme.pages().get(0), "", 0).applied(theme);
            assertThat(after.palette().faults()).as(kit.key()).isEmpty();
            assertThat(after.palette().settings()).as(kit.key()).hasSameSizeAs(kit.settings());
            String page = Themes.text(after.files(), "index.html");
            int start = page.indexOf("<section");
            start = start < 0 ? page.indexOf("<aside") : start;
            String without = page.substring(0, start).stripTrailing() + page.substring(page.indexOf("\n</main>"));
            assertThat(without.replace("\n  <link rel=\"stylesheet\" href=\"sections.css\">", ""))
                    .as(kit.key())
                    .isEqualTo(PAGE);
            assertThat(new String(
                            ThemeBuild.filled(after.pages().get(0), ThemeBuild.defaults(after)),
                            StandardCharsets.UTF_8))
                    .as(kit.key() + ": what it says is what its settings say")
                    .isEqualTo(page);
            assertThat(after.files().paths())
                    .as("no file of it but its pictures")
                    .noneMatch(p -> p.startsWith("sections/"));
            kit.pictures().keySet().forEach(p -> assertThat(after.files().has("img/" + kit.key() + "-" + p))
                    .isTrue());
            // And away again: what is left is as it was but for the link.
            Theme gone = Sections.removed(
                            after,
                            after.pages().get(0),
                            Sections.names(after).iterator().next())
                    .applied(after);
            assertThat(Themes.text(gone.files(), "index.html")
                            .replace("\n  <link rel=\"stylesheet\" href=\"sections.css\">", ""))
                    .isEqualTo(PAGE);
            assertThat(gone.files().has("sections.css")).isFalse();
            assertThat(gone.palette().settings()).isEmpty();
            assertThat(gone.palette().places()).isEmpty();
        }
    }

    /** As many as a long page has: each by itself, none lost, and all that an owner chooses of one reaches that one. */
    @Test
    void fortySectionsStandOnOnePage() {
        Theme theme = theme();
        int settings = 0;
        for (int i = 0; i < 40; i++) {
            SectionKit kit = Shelf.kits().get(i % Shelf.kits().size());
            theme = Sections.put(theme, kit, theme.pages().get(0), "S" + i, 0).applied(theme);
            settings += kit.settings().size();
        }
        assertThat(theme.palette().settings()).hasSize(settings);
        assertThat(theme.palette().faults()).isEmpty();
        assertThat(Blocks.of(theme, theme.pages().get(0)).stream()
                        .filter(Blocks.Block::isSection)
                        .map(Blocks.Block::name))
                .containsExactlyElementsOf(java.util.stream.IntStream.range(0, 40)
                        .mapToObj(i -> "s" + i)
                        .toList());
        String page = built(theme, Map.of("s39-heading", Chosen.of("The last of forty")));
        assertThat(page).containsOnlyOnce("The last of forty");
        assertThat(page.indexOf("The last of forty")).isGreaterThan(page.indexOf("data-section=\"s39\""));
        assertThat(page.split("data-section-kind", -1)).hasSize(41);
    }

    /** Words over a film are read on every picture of it, whatever shade and ink are taken. */
    @Test
    void aShadeThatWouldNotKeepTheWordsReadableIsRefused() {
        for (String kind : List.of("film", "drift")) {
            Theme theme = put(theme(), kind, 0, "Boat", 0);
            for (Map<String, Chosen> bad :
                    List.of(Map.of("boat-shade", Chosen.of("#10182040")), Map.of("boat-ink", Chosen.of("#203040")))) {
                assertThat(ThemeBuild.chosen(theme, bad).leftOut())
                        .as("%s of %s", bad, kind)
                        .isNotEmpty();
            }
            // Words that nobody chose a colour for turn with the shade.
            Map<String, Chosen> light = Map.of("boat-shade", Chosen.of("#ffffffcc"));
            assertThat(ThemeBuild.chosen(theme, light).leftOut()).isEmpty();
            assertThat(ThemeBuild.paletteCss(theme, light)).contains("--boat-ink: #101820;");
        }
    }

    /** A film at another place is a link and a picture: nothing of the page loads from there. */
    @Test
    void aFilmElsewhereLoadsNothingBeforeItIsAskedFor() {
        Theme theme = put(theme(), "player", 0, "Crossing", 0);
        String page = built(theme, Map.of("crossing-link", Chosen.of("https://films.example.org/crossing?a=1&b=2")));
        assertThat(page)
                .contains("href=\"https://films.example.org/crossing?a=1&amp;b=2\" rel=\"noreferrer\"")
                .doesNotContain("<iframe", "<script", "src=\"http");
        assertThat(page.split("films.example.org", -1)).hasSize(2);
    }

    /** A line that is told is the line that one sees, whatever stands before it. */
    @Test
    void linesAreCountedFromTheFirstOneEmptyOrNot() {
        String json = "{\"label\":\"L\",\"settings\":[]}";
        assertThatThrownBy(
                        () -> SectionKit.read("k", json, "<p>x</p>", "\n\n:scope + p { color: red }", new TreeMap<>()))
                .hasMessageStartingWith("section.css, line 3: ");
        assertThatThrownBy(() -> SectionKit.read(
                        "k", json, "\n<p>\n<b data-setting-text=none>x</b></p>", "p { color: red }", new TreeMap<>()))
                .hasMessageStartingWith("section.html, line 3: ");
    }

    @Test
    void anEntranceAndItsStillTwin() {
        Theme theme = put(theme(), "lead", 0, "Lake", 0);
        assertThat(ThemeBuild.paletteCss(
                        theme, Map.of("lake-rises", Chosen.of("left"), "lake-fades", Chosen.of("fades"))))
                .contains("--lake-rises: -2rem 0rem;", "--lake-fades: 0;");
        String css = Themes.text(theme.files(), "sections.css");
        int motion = css.indexOf("prefers-reduced-motion: no-preference");
        assertThat(css.indexOf("animation:"))
                .as("nothing moves where less movement is asked for")
                .isGreaterThan(motion);
        assertThat(css.substring(css.indexOf("@keyframes")))
                .contains("translate: var(--lake-rises", "opacity: var(--lake-fades");
        assertThat(built(theme, Map.of("lake-cue", Chosen.of(Value.of(true)))))
                .contains(
                        "href=\"#lake-below\" data-setting-href=\"lake-cue-link\" data-setting-show=\"lake-cue\">",
                        "id=\"lake-below\"");
        assertThat(built(theme, Map.of()))
                .contains("data-setting-show=\"lake-cue\" data-setting-hidden=\"phone tablet desktop\">");
    }

    /** A text that stands on the page is judged on every colour that the page takes on, and the setting of that colour is named. */
    @Test
    void aTextOutsideIsJudgedOnWhatThePageTurnsInto() {
        Theme theme = put(theme(), "plain", 0, "Dusk", 0);
        assertThat(unread(theme)).isEmpty();
        List<Setting> dark = theme.palette().settings().stream()
                .map(s -> s.key().equals("dusk-page") ? s.withGiven(new Given.Fixed(Value.of("#1d2a44"))) : s)
                .toList();
        Theme turned = Change.of("dark")
                .withPalette(theme, theme.palette().withSettings(dark))
                .applied(theme);
        assertThat(unread(turned)).anySatisfy(words -> assertThat(words)
                .contains(
                        "is on a page that turns #1d2a44 at times, which is 1.46 to 1",
                        "“The page while this is in view”"));
        assertThat(Themes.text(turned.files(), "sections.css"))
                .contains("view-timeline: --seen", "animation: dusk-page linear both")
                .doesNotContain("<script");
    }

    private static List<String> unread(Theme theme) {
        return Survey.of(theme).findings().stream()
                .filter(f -> f.kind() == Finding.Kind.UNREADABLE_TEXT)
                .map(Finding::message)
                .toList();
    }

    @Test
    void wordsAndTheButtonAreLeftOutInSingleBands() {
        Theme theme = put(theme(), "beside", 0, "Pier", 0);
        Value no = Value.of(false);
        String page = built(
                theme,
                Map.of(
                        "pier-text-shown", new Chosen(null, Map.of("phone", no)),
                        "pier-button-shown", new Chosen(null, Map.of("tablet", no))));
        assertThat(page)
                .containsPattern("<p [^>]*data-setting-hidden=\"phone\"[^>]*>Rebuilt")
                .containsPattern("<a [^>]*data-setting-hidden=\"tablet\"[^>]*>How to");
        assertThat(ThemeBuild.paletteCss(
                        theme,
                        Map.of("pier-gap", new Chosen(null, Map.of("phone", Value.parts("value", 1, "unit", "rem"))))))
                .contains("--pier-gap: 1rem");
    }

    /** An identifier is there once in a document: each copy has its own, and what points to it in the section finds it. */
    @Test
    void identifiersOfTwoCopiesDoNotMeet() {
        SectionKit kit = SectionKit.read(
                "ask",
                """
                {"label": "Ask", "settings": [
                  {"key": "to", "label": "To", "kind": "link", "default": "#end"},
                  {"key": "away", "label": "Away", "kind": "link", "default": "#elsewhere"}]}""",
                """
                <form id=all aria-labelledby="head end"><h2 id=head>Ask</h2><label for="who">Who</label><input id="who" name=who list=many>
                <datalist id=many></datalist><a href="#end" data-setting-href=to>Down</a><a href="#elsewhere" data-setting-href=away>Away</a>
                <details name=one><summary>1</summary></details><svg><linearGradient id=dusk /><rect fill="url(#dusk)"/><use href="#dusk"/></svg><b id=end></b></form>""",
                "#who, p:not(#head) { fill: url(#dusk); color: #end; background: url(\"#dusk\") } :scope { & #end, #other { top: 0 } }",
                new TreeMap<>());
        Theme one =
                Sections.put(theme(), kit, theme().pages().get(0), "First", 0).applied(theme());
        Theme two = Sections.put(one, kit, one.pages().get(0), "Second", 0).applied(one);
        Page page = two.pages().get(0);
        assertThat(page.document().select("[id]").stream().map(Element::id))
                .doesNotHaveDuplicates()
                .hasSize(12);
        Element second = page.document().selectFirst("[data-section=second]");
        assertThat(second.id()).isEqualTo("second-all");
        assertThat(second.attr("aria-labelledby")).isEqualTo("second-head second-end");
        assertThat(second.selectFirst("label").attr("for")).isEqualTo("second-who");
        assertThat(second.selectFirst("input").attr("name"))
                .as("what a form sends stays")
                .isEqualTo("who");
        assertThat(second.selectFirst("input").attr("list")).isEqualTo("second-many");
        assertThat(second.select("a").eachAttr("href")).containsExactly("#second-end", "#elsewhere");
        assertThat(second.selectFirst("details").attr("name")).isEqualTo("second-one");
        assertThat(second.selectFirst("rect").attr("fill")).isEqualTo("url(#second-dusk)");
        assertThat(second.selectFirst("use").attr("href")).isEqualTo("#second-dusk");
        assertThat(two.palette().known("second-to").given()).isEqualTo(new Given.Fixed(Value.of("#second-end")));
        assertThat(Themes.text(two.files(), "sections.css"))
                .contains(
                        "[data-section=\"second\"] #second-who, [data-section=\"second\"] p:not(#second-head) { fill: url(\"#second-dusk\"); color: #end; background: url(\"#second-dusk\") }",
                        "{ & #second-end, #other { top: 0 } }");
    }

    /** What is on our own shelf gives a maker nothing to mend. */
    @Test
    void theShelfLeavesNoFindings() {
        Theme theme = theme();
        for (SectionKit kit : Shelf.kits()) {
            theme = Sections.put(theme, kit, theme.pages().get(0), "", 0).applied(theme);
        }
        Theme bare = theme();
        List<String> before =
                Survey.of(bare).findings().stream().map(Finding::message).toList();
        assertThat(Survey.of(theme).findings())
                .filteredOn(f -> !before.contains(f.message()))
                .extracting(f -> f.file() + ":" + f.line() + " " + f.message())
                .isEmpty();
    }

    /** Many themes have 1rem of 10 px: a section is as large there as elsewhere, and so are the bounds and steps of its lengths. */
    @Test
    void aSectionIsAsLargeInAThemeOfAnotherRem() {
        Theme theme = Themes.of("index.html", PAGE, "a.css", "html{font-size:62.5%}");
        Theme put = put(theme, "lead", 0, "Dusk", 0);
        assertThat(put.palette().faults()).isEmpty();
        Setting size = put.palette().known("dusk-heading-size");
        assertThat(size.given())
                .isEqualTo(new Given.Fixed(Value.parts("value", new java.math.BigDecimal("4.4"), "unit", "rem")));
        assertThat(size.bands().get("phone"))
                .isEqualTo(new Given.Fixed(Value.parts("value", new java.math.BigDecimal("3.2"), "unit", "rem")));
        assertThat(size.kind().allowed().toString()).contains("2.4", "0.2");
        assertThat(Themes.text(put.files(), "sections.css"))
                .contains("font-size: var(--dusk-heading-size, 4.4rem);", "max-width: 67.2rem;")
                .doesNotContain("2.75rem");
        assertThat(ThemeBuild.paletteCss(
                        put, Map.of("dusk-width", Chosen.of("narrow"), "dusk-rises", Chosen.of("left"))))
                .contains("--dusk-width: 70.4rem", "--dusk-rises: -3.2rem 0rem");
        assertThat(Themes.text(put(theme(), "lead", 0, "Dusk", 0).files(), "sections.css"))
                .contains("2.75rem");
        // One that was made there is put there as it is, and elsewhere as large as it was.
        Theme small = Themes.of(
                "index.html",
                PAGE,
                "a.css",
                "html{font-size:62.5%} p{font-size:1.8rem} @media (min-width:40rem){p{padding:2rem}}");
        Page page = small.pages().get(0);
        Change made = OwnSections.from(
                new Rendered(small),
                page,
                page.elements().indexOf(page.document().selectFirst("p")),
                "Two");
        SectionKit kit = SectionKit.of(made.applied(small).files()).get(0);
        assertThat(kit.rem()).isEqualTo(10);
        assertThat(Themes.text(
                        Sections.put(small, kit, page, "", 0).applied(small).files(), "sections.css"))
                .contains("font-size: 1.8rem");
        assertThat(Themes.text(
                        Sections.put(theme(), kit, theme().pages().get(0), "", 0)
                                .applied(theme())
                                .files(),
                        "sections.css"))
                .contains("font-size: 1.125rem", "padding: 1.25rem")
                .containsPattern("@media .*40rem");
        assertThatThrownBy(
                        () -> SectionKit.read("k", "{\"rem\": 900, \"settings\": []}", "<p>x</p>", "", new TreeMap<>()))
                .hasMessageContaining("“rem” is 900");
    }

    /** A stylesheet that the maker wrote is the maker's, whatever it is called. */
    @Test
    void aSheetOfThatNameThatTheThemeHasIsLeftAlone() {
        Theme own =
                Themes.of("index.html", PAGE, "a.css", "", "sections.css", "/* section styles */ section{color:red}");
        Theme one = put(own, "notice", 0, "Fog", 0);
        assertThat(Themes.text(one.files(), "sections.css")).isEqualTo("/* section styles */ section{color:red}");
        assertThat(Themes.text(one.files(), "index.html"))
                .contains("href=\"sections-2.css\"")
                .doesNotContain("href=\"sections.css\"");
        Theme two = put(one, "notice", 0, "Wind", 0);
        assertThat(Themes.text(two.files(), "sections-2.css")).contains("/* section fog */", "/* section wind */");
        assertThat(two.files().has("sections-3.css")).isFalse();
        Theme none = Sections.removed(two, two.pages().get(0), "fog").applied(two);
        none = Sections.removed(none, none.pages().get(0), "wind").applied(none);
        assertThat(none.files().has("sections-2.css")).isFalse();
        assertThat(Themes.text(none.files(), "sections.css")).isEqualTo("/* section styles */ section{color:red}");
        assertThat(Themes.text(put(none, "notice", 0, "Rain", 0).files(), "sections-2.css"))
                .as("a sheet that is empty is used again")
                .contains("/* section rain */");
    }

    @Test
    void twoOfOneKindDoNotMeet() {
        Theme one = put(theme(), "notice", 0, "Fog", 0);
        Theme two = put(one, "notice", 0, "Fog", 0);
        assertThat(Sections.names(two)).containsExactlyInAnyOrder("fog", "fog-2");
        Theme other = put(two, "notice", 1, "Wind", 0);
        assertThat(Themes.text(other.files(), "more/two.html")).contains("href=\"../sections.css\"");
        Map<String, Chosen> choices =
                Map.of("fog-text", Chosen.of("None <today>."), "fog-2-ground", Chosen.of("#ff0000"));
        assertThat(built(other, choices))
                .containsOnlyOnce("None &lt;today&gt;.")
                .contains("data-setting-text=\"fog-2-text\">The 18:10");
        assertThat(ThemeBuild.paletteCss(other, choices))
                .contains("--fog-2-ground: #ff0000")
                .doesNotContain("--fog-ground");
        String css = Themes.text(other.files(), "sections.css");
        assertThat(css)
                .contains("[data-section=\"fog\"] {", "var(--fog-ground, #f6e3b4)", "[data-section=\"fog-2\"] a {")
                .contains("/* section wind */");
        Theme less = Sections.removed(other, other.pages().get(0), "fog").applied(other);
        assertThat(Themes.text(less.files(), "sections.css"))
                .isEqualTo(css.substring(css.indexOf("/* section fog-2 */")));
        assertThat(less.palette().settings()).noneMatch(s -> s.place().equals("fog"));
    }

    @Test
    void aListThatIsNoSettingAnyMoreKeepsItsItemsAndAKeyIsRenamedInIt() {
        Theme theme = put(theme(), "cards", 0, "Piers", 0);
        Theme renamed = PaletteChange.rename(theme, "piers-cards", "boats").applied(theme);
        assertThat(Themes.text(renamed.files(), "index.html")).contains("data-setting-items=\"boats\"");
        assertThat(built(renamed, Map.of())).contains("Candle Steps");
        Theme without = PaletteChange.remove(renamed, List.of("boats")).applied(renamed);
        assertThat(Themes.text(without.files(), "index.html"))
                .contains("Candle Steps")
                .doesNotContain("data-setting-items");
        assertThat(built(without, Map.of())).contains("Harrow Pier", "Candle Steps");
    }

    @Test
    void aPictureOfAnItemIsRenamedWithTheChoicesOfIt() {
        Theme theme = put(theme(), "cards", 0, "Piers", 0);
        Setting s = theme.palette().known("piers-cards");
        Value.Parts first =
                (Value.Parts) ((Value.Many) s.given().value()).items().get(0);
        Value chosen = new Value.Many(List.of(first.with("text", Value.of("img/cards-harrow.svg"))));
        Theme after = PictureChange.renamed(theme, "img/cards-harrow.svg", "north.svg")
                .applied(theme);
        assertThat(Themes.text(after.files(), "index.html"))
                .contains("src=\"img/north.svg\"")
                .doesNotContain("cards-harrow");
        String page = built(after, Map.of("piers-cards", Chosen.of(chosen)));
        assertThat(page).contains("src=\"img/north.svg\"", ">img/cards-harrow.svg</p>");
    }

    @Test
    void whatOwnersCallItIsTheirsAndKeysAreOurs() {
        Theme theme = put(put(theme(), "notice", 0, "Häfen & Brücken", 0), "notice", 0, "渡し船", 0);
        assertThat(Sections.names(theme)).containsExactlyInAnyOrder("hafen-brucken", "section");
        assertThat(theme.palette().placeLabel("section")).isEqualTo("渡し船");
        assertThat(theme.palette().setting("hafen-brucken-ground")).isPresent();
    }

    @Test
    void itemsAreAddedRemovedAndOrderedByTheOwner() {
        Theme theme = put(theme(), "cards", 0, "Piers", 0);
        Setting s = theme.palette().known("piers-cards");
        ItemsKind kind = (ItemsKind) s.kind();
        assertThat(built(theme, Map.of())).contains("Harrow Pier", "Withy Landing", "Candle Steps");
        List<Value> all = ((Value.Many) s.given().value()).items();
        Value fresh = kind.item().with("heading", Value.of("Sedge & Reed")).with("link-shown", Value.of(false));
        Value chosen = new Value.Many(List.of(all.get(2), fresh, all.get(0)));
        String page = built(theme, Map.of("piers-cards", Chosen.of(chosen)));
        assertThat(page).doesNotContain("Withy").contains("Sedge &amp; Reed");
        assertThat(page.indexOf("Candle Steps")).isLessThan(page.indexOf("Sedge"));
        assertThat(page.indexOf("Sedge")).isLessThan(page.indexOf("Harrow Pier"));
        assertThat(Page.read("p", page.getBytes(StandardCharsets.UTF_8))
                        .document()
                        .select("ul[data-setting-items] > li"))
                .hasSize(3)
                .allSatisfy(li -> assertThat(li.select("h3, p, a, img")).hasSize(4));
        assertThat(page).contains("data-item-show=\"link-shown\" data-setting-hidden=\"phone tablet desktop\"");
        // As a form sends it, in another order.
        Map<String, String> fields = new TreeMap<>(kind.fields(chosen));
        fields.put(".order", "2,0");
        assertThat(kind.read(n -> fields.getOrDefault(n, "")))
                .isEqualTo(new Value.Many(List.of(all.get(0), all.get(2))));
        // More than may be.
        assertThat(ThemeBuild.chosen(
                                theme,
                                Map.of(
                                        "piers-cards",
                                        Chosen.of(new Value.Many(java.util.Collections.nCopies(25, fresh)))))
                        .leftOut())
                .extracting(l -> l.why().words())
                .containsExactly("There may be 24 items, and there are 25.");
        assertThat(ThemeBuild.chosen(theme, Map.of("piers-cards", Chosen.of(new Value.Many(List.of()))))
                        .leftOut())
                .hasSize(1);
    }

    @Test
    void aSectionIsMovedCopiedAndSwitchedOff() {
        Theme theme = put(put(theme(), "notice", 0, "Fog", 0), "act", 0, "Tickets", 0);
        List<Blocks.Block> blocks = Blocks.of(theme, theme.pages().get(0));
        assertThat(blocks).extracting(Blocks.Block::words).containsExactly("One", "p", "Fog", "Tickets");
        Theme moved = Blocks.moved(theme, theme.pages().get(0), blocks.get(3).at(), -1)
                .applied(theme);
        assertThat(Blocks.of(moved, moved.pages().get(0)))
                .extracting(Blocks.Block::words)
                .containsExactly("One", "p", "Tickets", "Fog");
        Theme back =
                Blocks.moved(moved, moved.pages().get(0), blocks.get(2).at(), 1).applied(moved);
        assertThat(Themes.text(back.files(), "index.html")).isEqualTo(Themes.text(theme.files(), "index.html"));
        assertThatThrownBy(() ->
                        Blocks.moved(theme, theme.pages().get(0), blocks.get(0).at(), -1))
                .hasMessage("It cannot go further.");
        int heading = blocks.get(0).at();
        Theme first = Blocks.placed(theme, theme.pages().get(0), blocks.get(3).at(), heading)
                .applied(theme);
        assertThat(Blocks.of(first, first.pages().get(0)))
                .extracting(Blocks.Block::words)
                .containsExactly("Tickets", "One", "p", "Fog");
        assertThat(Themes.text(first.files(), "index.html").length())
                .isEqualTo(Themes.text(theme.files(), "index.html").length());
        assertThatThrownBy(() -> Blocks.placed(
                        theme, theme.pages().get(0), heading, blocks.get(1).at()))
                .hasMessage("It stands there already.");
        Theme copied = Sections.copied(theme, kit("notice"), theme.pages().get(0), "fog")
                .applied(theme);
        assertThat(Blocks.of(copied, copied.pages().get(0)))
                .extracting(Blocks.Block::words)
                .containsExactly("One", "p", "Fog", "Fog 2", "Tickets");
        assertThat(built(copied, Map.of("fog-shown", Chosen.of(Value.of(false)))))
                .contains(
                        "<aside class=\"notice-section\" data-setting-show=\"fog-shown\" data-section=\"fog\" data-section-kind=\"notice\" id=\"fog\" data-setting-hidden=\"phone tablet desktop\">");
    }

    private static final String COLUMN =
            "<!doctype html>\n<html><head><link rel=stylesheet href=a.css></head><body>\n  <header>H</header>\n  <section>\n    <h1>Hero</h1>\n  </section>\n"
                    + "  <main>\n    <p>One</p>\n    <p>Two</p>\n  </main>\n  <footer>F</footer>\n</body></html>\n";

    private static List<String> order(Theme theme) {
        return Blocks.of(theme, theme.pages().get(0)).stream()
                .filter(b -> b.sort() == Blocks.Sort.PART)
                .map(b -> (b.inside() ? "in " : "") + b.words())
                .toList();
    }

    private static int at(Theme theme, String words) {
        return Blocks.of(theme, theme.pages().get(0)).stream()
                .filter(b -> b.words().equals(words))
                .findFirst()
                .orElseThrow()
                .at();
    }

    private static Theme moved(Theme theme, String words, int by) {
        return Blocks.moved(theme, theme.pages().get(0), at(theme, words), by).applied(theme);
    }

    private static Theme placed(Theme theme, String words, String before) {
        return Blocks.placed(theme, theme.pages().get(0), at(theme, words), at(theme, before))
                .applied(theme);
    }

    /** Beside the column of a page a section is as wide as the window; it goes in and out, and what the maker wrote stays. */
    @Test
    void aSectionStandsInTheMainPartOfAPageOrBesideIt() {
        Theme theme = Themes.of("index.html", COLUMN, "a.css", "");
        assertThat(order(theme)).containsExactly("Hero", "in p", "in p");
        Theme after = put(theme, "notice", 0, "Fog", Blocks.AFTER_MAIN);
        assertThat(order(after)).containsExactly("Hero", "in p", "in p", "Fog");
        assertThat(Themes.text(after.files(), "index.html"))
                .contains("  </main>\n  <aside class=\"notice-section\"", "</aside>\n  <footer>");
        Theme up = moved(after, "Fog", -1);
        assertThat(order(up)).containsExactly("Hero", "in p", "in p", "in Fog");
        assertThat(Themes.text(up.files(), "index.html"))
                .contains("<p>Two</p>\n    <aside")
                .contains("</aside>\n  </main>");
        assertThat(Themes.text(moved(up, "Fog", 1).files(), "index.html"))
                .as("and out again")
                .isEqualTo(Themes.text(after.files(), "index.html"));
        Theme top = moved(moved(moved(up, "Fog", -1), "Fog", -1), "Fog", -1);
        assertThat(order(top)).as("out at the other end").containsExactly("Hero", "Fog", "in p", "in p");
        Theme first = moved(top, "Fog", -1);
        assertThat(order(first)).containsExactly("Fog", "Hero", "in p", "in p");
        assertThat(Themes.text(moved(first, "Fog", -1).files(), "index.html"))
                .as("above the header, which stays")
                .contains("</aside>\n  <header>H</header>\n  <section>");
        assertThatThrownBy(() -> moved(theme, "Hero", -1)).hasMessage("It cannot go further.");
        assertThat(order(moved(top, "Fog", 1))).containsExactly("Hero", "in Fog", "in p", "in p");
        assertThat(order(placed(after, "Fog", "Hero"))).containsExactly("Fog", "Hero", "in p", "in p");
        assertThat(order(placed(after, "Fog", "p"))).containsExactly("Hero", "in Fog", "in p", "in p");
        Theme copied = Sections.copied(after, kit("notice"), after.pages().get(0), "fog")
                .applied(after);
        assertThat(order(copied)).containsExactly("Hero", "in p", "in p", "Fog", "Fog 2");
        assertThat(order(placed(copied, "Fog 2", "Hero"))).containsExactly("Fog 2", "Hero", "in p", "in p", "Fog");
        assertThatThrownBy(() -> moved(theme, "Hero", 1)).hasMessage("It cannot go further.");
        assertThatThrownBy(() -> placed(theme, "Hero", "p")).hasMessageStartingWith("Only sections go in and out");
        assertThatThrownBy(() -> moved(moved(after, "Fog", 1), "Fog", 1)).hasMessage("It cannot go further.");
        for (Theme t : List.of(after, up, top, copied)) {
            Theme gone = t;
            for (String name : Sections.names(t)) {
                gone = Sections.removed(gone, gone.pages().get(0), name).applied(gone);
            }
            assertThat(Themes.text(gone.files(), "index.html")
                            .replace("\n<link rel=\"stylesheet\" href=\"sections.css\">", ""))
                    .isEqualTo(COLUMN);
        }
    }

    private static final String NESTED =
            "<!doctype html>\n<html><head><link rel=stylesheet href=a.css></head><body>\n<main>\n  <div class=cards>\n    <p>One</p>\n    <div class=side></div>\n  </div>\n"
                    + "  <table class=page><tr><td class=left>L</td><td><h2>Right</h2></td></tr></table>\n</main>\n</body></html>\n";

    private static List<String> inside(Theme theme, int asked) {
        return Blocks.of(theme, theme.pages().get(0), asked).stream()
                .map(b -> " ".repeat(b.depth()) + b.words() + (b.canBeFilled() ? " +" : ""))
                .toList();
    }

    /** Cards in a row, a column at the side, a cell of a table: whatever holds parts of a page may hold a section. */
    @Test
    void aSectionStandsInAnyContainer() {
        Theme theme = Themes.of("index.html", NESTED, "a.css", "");
        assertThat(inside(theme, 0)).containsExactly("div.cards +", "Right");
        int cards = at(theme, "div.cards");
        assertThat(inside(theme, cards)).containsExactly("div.cards +", " p", " div.side +", "Right");
        int table = at(theme, "Right");
        assertThat(inside(theme, table)).containsExactly("div.cards +", "Right", " td.left +", " Right +");
        int side = cards + 2;
        Theme after = put(theme, "notice", 0, "Fog", Blocks.endOf(side));
        assertThat(Themes.text(after.files(), "index.html"))
                .contains("    <div class=side>\n<aside class=\"notice-section\"", "</aside></div>\n  </div>");
        assertThat(inside(after, 0)).containsExactly("div.cards +", " p", " div.side +", "  Fog", "Right");
        Theme out = moved(after, "Fog", -1);
        assertThat(inside(out, 0)).containsExactly("div.cards +", " p", " Fog", " div.side +", "Right");
        assertThat(inside(moved(moved(out, "Fog", 1), "Fog", 1), 0))
                .as("past what holds parts of its own, and out of it")
                .containsExactly("div.cards +", "Fog", "Right");
        Theme cell = put(theme, "notice", 0, "Fog", Blocks.endOf(table + 3));
        assertThat(Themes.text(cell.files(), "index.html")).contains("<td class=left>L\n<aside", "</aside></td><td>");
        assertThat(inside(moved(cell, "Fog", 1), 0))
                .as("beside a cell only cells stand")
                .containsExactly("div.cards +", "Right", "Fog");
        assertThat(Themes.text(put(theme, "notice", 0, "Fog", table + 3).files(), "index.html"))
                .as("nor before it")
                .contains("</table>\n  <aside");
        for (Theme t : List.of(after, out, cell)) {
            assertThat(Themes.text(
                            Sections.removed(t, t.pages().get(0), "fog")
                                    .applied(t)
                                    .files(),
                            "index.html"))
                    .isEqualTo(NESTED);
        }
    }

    @ParameterizedTest
    @CsvSource(
            delimiter = '|',
            value = {
                "p { color: red } | [data-section=\"x\"] p { color: red }",
                ":scope > p, :scope:hover a { } | [data-section=\"x\"] > p, [data-section=\"x\"]:hover a { }",
                "html body, :root { } | [data-section=\"x\"] html body, [data-section=\"x\"] :root { }",
                ":is(a, b) i { } | [data-section=\"x\"] :is(a, b) i { }",
                "@media (width > 9px) { a { &:hover { } b { } } } | @media (width > 9px) { [data-section=\"x\"] a { &:hover { } b { } } }",
                "p { + a { } &[rel~=x] > i { } main & { } } | [data-section=\"x\"] p { + a { } &[rel~=x] > i { } main & { } }",
                ":scope { > p { & ~ p { } } &:not(.a, &.b) { } } | [data-section=\"x\"] { > p { & ~ p { } } &:not(.a, &.b) { } }",
                "a { animation: go 1s } @keyframes go { from { top: 0 } } | [data-section=\"x\"] a { animation: x-go 1s } @keyframes x-go { from { top: 0 } }"
            })
    void rulesHoldInsideOfTheSectionOnly(String css, String scoped) {
        assertThat(SectionSheet.scoped(css, "x", Map.of(), Map.of(), Identifiers.NONE))
                .isEqualTo(scoped);
    }

    @ParameterizedTest
    @CsvSource(
            delimiter = '|',
            value = {
                "a { }\\n:scope + p { } | line 2: “:scope + p” finds what stands beside",
                ":scope ~ p { } | finds what stands beside",
                ":is(:scope) + p { } | names the section in its middle",
                "body:has(:scope) p { } | names the section in its middle",
                ":scope { + p { } } | may find what stands beside",
                ":scope { :is(&) ~ p { } } | may find what stands beside",
                "+ p { } | finds what stands beside",
                "a, ~ p > i { } | finds what stands beside",
                "p { :not(&) { } } | may find what stands beside",
                "p { i:not(& *) ~ a { } } | may find what stands beside",
                ":scope { &:hover { ~ p { } } } | may find what stands beside",
                ":scope, p { ~ a { } } | may find what stands beside",
                "p { :is(body, > &:a) { } } | may find what stands beside",
                "p { :scope a { } } | names the section inside of a rule",
                "@import 'a.css'; | @import holds for the whole page",
                "@font-face { } | @font-face holds for the whole page",
                "@property --x { } | @property holds",
                "@layer a { p { } } | @layer holds",
                "p { color: red | section.css, line 1",
                "a$b { } | is no selector"
            })
    void whatReachesOutIsRefusedWithItsLine(String css, String words) {
        assertThatThrownBy(
                        () -> SectionSheet.scoped(css.replace("\\n", "\n"), "x", Map.of(), Map.of(), Identifiers.NONE))
                .hasMessageStartingWith("section.css, line")
                .hasMessageContaining(words);
    }

    @ParameterizedTest
    @CsvSource(
            delimiter = '|',
            value = {
                "<p>a</p><p>b</p> | one element",
                "<div><script>x</script></div> | line 1: a section holds no <script>",
                "<div onclick=x></div> | no onclick attribute",
                "<div data-setting-text=nothing></div> | there is no setting “nothing”"
            })
    void markupThatIsNoSectionIsRefused(String html, String words) {
        assertThatThrownBy(() -> SectionKit.read("x", "{\"settings\":[]}", html, "", new TreeMap<>()))
                .hasMessageContaining(words);
    }

    @Test
    void aSectionThatAThemeKeepsIsNoPageOfIt() {
        Theme theme = Themes.of(
                "index.html",
                PAGE,
                "a.css",
                "",
                "sections/mine/section.json",
                "{\"label\":\"Mine\",\"settings\":[]}",
                "sections/mine/section.html",
                "<p>x</p>",
                "sections/mine/section.css",
                "p{color:#123456}",
                "sections/two.html",
                PAGE);
        assertThat(theme.pages())
                .extracting(p -> p.source().file())
                .containsExactlyInAnyOrder("index.html", "sections/two.html");
        assertThat(theme.sheets()).hasSize(1);
        assertThat(SectionKit.of(theme.files())).extracting(SectionKit::label).containsExactly("Mine");
    }

    @Test
    void oneOfTheMakersOwnIsChangedWhereItStandsAndKeepsWhatIsSet() {
        Theme theme = OwnSections.taken(theme(), kit("beside"), "Mine").applied(theme());
        assertThat(theme.pictures())
                .as("pictures of a section that stands nowhere are none of the theme")
                .isEmpty();
        SectionKit mine = SectionKit.of(theme.files()).get(0);
        Theme put =
                Sections.put(theme, mine, theme.pages().get(0), "Harbour", 0).applied(theme);
        put = Sections.put(put, mine, put.pages().get(0), "Quay", 0).applied(put);
        Setting heading = put.palette().known("quay-heading");
        put = PaletteChange.edit(
                        put, heading.withGiven(new Given.Fixed(Value.of("Our own words"))), new Place("quay", "Quay"))
                .applied(put);
        String html = mine.html()
                .replace(
                        "<div class=\"beside-words\">",
                        "<div class=\"beside-words\"><i data-setting-text=\"more\">x</i>")
                .replaceFirst("(?s)<a class.*</a>", "");
        JsonNode root = JsonMapper.shared().readTree(put.files().read("sections/mine/section.json"));
        ArrayNode all = (ArrayNode) root.get("settings");
        for (int i = all.size() - 1; i >= 0; i--) {
            if (all.get(i).get("key").asString().equals("button")) {
                all.remove(i);
            }
        }
        all.addObject()
                .put("key", "more")
                .put("label", "More")
                .put("kind", "line")
                .put("default", "x");
        String json = root.toString();
        Change change = OwnSections.kept(put, "mine", json, html, mine.css() + "\n.words { color: #123456 }");
        assertThat(change.note()).isEqualTo("Changed the section “Mine” and the 2 places where it stands");
        Theme after = change.applied(put);
        String page = Themes.text(after.files(), "index.html");
        assertThat(page)
                .contains(
                        "data-setting-text=\"quay-more\">x</i>",
                        "data-setting-text=\"harbour-more\"",
                        ">Our own words</h2>")
                .doesNotContain("<a class");
        assertThat(Themes.text(after.files(), "sections.css"))
                .contains(
                        "[data-section=\"quay\"] .words { color: #123456 }",
                        "[data-section=\"harbour\"] .words { color: #123456 }");
        assertThat(after.palette().setting("quay-button")).isEmpty();
        assertThat(after.palette().known("quay-heading").given().value()).isEqualTo(Value.of("Our own words"));
        assertThatThrownBy(() -> OwnSections.kept(after, "mine", "{\"settings\":[{\"key\":\"a\"}]}", html, ""))
                .hasMessageContaining("section.json, line 1, settings[0]");
    }

    @Test
    void aSectionGoesToAnotherThemeAsFilesAndNamesThatClashAreSolved() {
        SectionKit cards = kit("cards");
        TreeMap<String, byte[]> files = new TreeMap<>();
        cards.files(cards.json(cards.label()))
                .forEach((path, bytes) -> files.put(path.substring("sections/cards/".length()), bytes));
        Theme once = OwnSections.brought(theme(), files, "cards").applied(theme());
        SectionKit own = SectionKit.of(once.files()).get(0);
        assertThat(own.settings()).isEqualTo(cards.settings());
        assertThat(own.html() + own.css()).isEqualTo(cards.html() + cards.css());
        assertThat(own.pictures().keySet()).isEqualTo(cards.pictures().keySet());
        Change twice = OwnSections.brought(once, files, "cards");
        assertThat(twice.note()).isEqualTo("Brought in the section “Cards” as cards-2");
        Theme other = twice.applied(once);
        assertThat(SectionKit.of(other.files()))
                .extracting(SectionKit::key)
                .containsExactlyInAnyOrder("cards", "cards-2");
        // A picture of another section under the name that it would have.
        Theme taken = Themes.of(
                "index.html",
                PAGE,
                "a.css",
                "",
                "img/cards-harrow.svg",
                "<svg xmlns='http://www.w3.org/2000/svg' width='1' height='1'/>");
        Theme put = Sections.put(taken, cards, taken.pages().get(0), "", 0).applied(taken);
        assertThat(Themes.text(put.files(), "index.html")).contains("src=\"img/cards-harrow-2.svg\"");
        files.remove("section.html");
        assertThatThrownBy(() -> OwnSections.brought(theme(), files, "cards"))
                .hasMessageContaining("section.html is missing");
        files.put("section.html", "<p></p>".getBytes(StandardCharsets.UTF_8));
        files.put("a.svg", "<svg xmlns='http://www.w3.org/2000/svg'><script/></svg>".getBytes(StandardCharsets.UTF_8));
        assertThatThrownBy(() -> OwnSections.brought(theme(), files, "cards")).hasMessageContaining("“a.svg”, line 1");
        files.remove("a.svg");
        files.put("run.sh", new byte[1]);
        assertThatThrownBy(() -> OwnSections.brought(theme(), files, "cards"))
                .hasMessageContaining("“run.sh” is no picture or video");
    }

    @Test
    void aSpecimenIsOneFileThatLoadsNothing() {
        for (SectionKit kit : Shelf.kits()) {
            String page = Sections.specimen(kit);
            assertThat(page)
                    .as(kit.key())
                    .doesNotContain("href=\"sections.css\"")
                    .contains("data-section-kind=\"" + kit.key());
            kit.pictures().keySet().stream().filter(p -> p.endsWith(".svg")).forEach(p -> assertThat(page)
                    .contains("data:image/svg+xml;base64,")
                    .doesNotContain("\"img/"));
        }
    }

    /** A rule that holds where a section stands first, say, is none that finds nothing: sections move. */
    @Test
    void rulesByTheSectionsPlaceAreLeftAlone() {
        for (String[] c : new String[][] {
            {"[data-section=\"a\"]:not(:first-child) .x", "[data-section=\"a\"] .x"},
            {"[data-section=\"a\"]:not(#_#_):first-child", "[data-section=\"a\"]:not(#_#_)"},
            {"[data-section=\"a\"].b:nth-child(2n + 1):hover p", "[data-section=\"a\"].b:hover p"}
        }) {
            assertThat(Sections.isByPlace(c[0])).as(c[0]).isTrue();
            assertThat(Sections.anywhere(c[0])).isEqualTo(c[1]);
        }
        assertThat(Sections.isByPlace("[data-section=\"a\"] p:first-child")).isFalse();
        Theme theme = put(put(theme(), "lead", 0, "First", 0), "beside", 0, "Second", 0);
        assertThat(org.calmpalette.core.survey.Survey.of(theme).findings())
                .filteredOn(f -> f.file().equals("sections.css"))
                .isEmpty();
    }
}
