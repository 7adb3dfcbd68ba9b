package org.calmpalette.core.part;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.time.LocalDate;
import java.util.Set;
import org.calmpalette.core.BadInputException;
import org.calmpalette.core.change.Change;
import org.calmpalette.core.change.Trial;
import org.calmpalette.core.css.Edit;
import org.calmpalette.core.css.selector.States;
import org.calmpalette.core.page.Page;
import org.calmpalette.core.part.PartChange.What;
import org.calmpalette.core.render.Rendered;
import org.calmpalette.core.setting.ColorKind;
import org.calmpalette.core.setting.Place;
import org.calmpalette.core.setting.Setting;
import org.calmpalette.core.setting.Value;
import org.calmpalette.core.theme.Theme;
import org.calmpalette.core.theme.Themes;
import org.calmpalette.core.usage.Readers;
import org.calmpalette.core.value.Viewport;
import org.junit.jupiter.api.Test;

class PartChangeTest {
    private static final String OWN =
            """
      :root { --amber: #d8a13c }
      .badge { background: var(--amber) url(a.png) repeat-x; border: 1px solid #123456 }
      .button { background: var(--amber); padding: 4px 8px }
      """;
    private static final String LIBRARY =
            """
      /*! Grid 2.1 | MIT */
      .row .cell { color: #445566; margin: 3px }
      @media (min-width: 10px) { .row .cell { border-left: 2px solid #778899 } }
      """;
    private static final String HTML =
            """
      <!doctype html>
      <head>
        <link rel="stylesheet" href="own.css">
        <link rel="stylesheet" href="grid.css">
      </head>
      <body><a class="badge">n</a><a class="button">b</a><a class="button">c</a>
      <div class="row"><p class="cell">d</p><p class="cell">e</p></div></body>
      """;

    private static Rendered theme() {
        return new Rendered(Themes.of("own.css", OWN, "grid.css", LIBRARY, "index.html", HTML));
    }

    private static PartChange at(Rendered r, String selector, String property, LocalDate dated) {
        Page page = r.theme().pages().get(0);
        int index = page.elements().indexOf(page.document().selectFirst(selector));
        return new PartChange(r, page, index, null, property, Viewport.of(1000, 800), Set.of(), dated);
    }

    private static String after(Rendered r, Change fix, String file) {
        return Themes.text(fix.applied(r.theme()).files(), file);
    }

    private static String computed(Theme theme, String selector, String property) {
        Page page = theme.pages().get(0);
        return new Rendered(theme)
                .styles(page, Viewport.of(1000, 800), States.NONE)
                .of(page.document().selectFirst(selector))
                .computed(property);
    }

    private static What.NewSetting setting(String key, String value) {
        return new What.NewSetting(
                Setting.of(key, "Badge", "", "everywhere", ColorKind.ANY, Value.of(value)), Place.EVERYWHERE);
    }

    @Test
    void aPartIsCutLooseFromASharedColourAndNothingElseChanges() {
        Rendered r = theme();
        Change fix = at(r, ".badge", "background-color", null).fix("rule", setting("badge-fill", "#d8a13c"));
        assertThat(after(r, fix, "own.css"))
                .isEqualTo(OWN.replaceFirst("var\\(--amber\\) url", "var(--badge-fill, #d8a13c) url"));
        assertThat(Trial.of(r, fix).changed())
                .as("the default is today's colour")
                .isEmpty();
        Theme red = at(r, ".badge", "background-color", null)
                .fix("rule", setting("badge-fill", "#ff0000"))
                .applied(r.theme());
        assertThat(computed(red, ".badge", "background-color")).isEqualTo("rgb(255, 0, 0)");
        assertThat(computed(red, ".button", "background-color")).isEqualTo("rgb(216, 161, 60)");
    }

    @Test
    void onePartOfSeveralGetsARuleOfItsOwnThatWins() {
        Rendered r = theme();
        Change fix =
                at(r, ".button", "background-color", LocalDate.of(2026, 3, 1)).fix("only", new What.Value("#00ff00"));
        assertThat(after(r, fix, "own.css"))
                .startsWith(OWN)
                .endsWith(
                        """

        /* 2026-03-01: Set the background colour of a.button to #00ff00 */
        a:nth-of-type(2) {
          background-color: #00ff00;
        }
        """);
        Trial trial = Trial.of(r, fix);
        assertThat(trial.parts()).isEqualTo(1);
        assertThat(trial.properties()).containsExactly("background-color");
        assertThat(at(r, ".button", "background-color", null)
                        .fix("--amber", new What.Value("#00ff00"))
                        .edits()
                        .get("own.css"))
                .singleElement()
                .satisfies(e -> assertThat(e.replacement()).isEqualTo("#00ff00"));
    }

    @Test
    void whatStandsInAFrameworkIsOverriddenFromTheOwnSheetByTheLeastThatWins() {
        Rendered r = theme();
        Change color = at(r, ".cell", "color", null).fix("rule", new What.Value("navy"));
        assertThat(color.edits()).containsOnlyKeys("own.css");
        assertThat(after(r, color, "own.css")).contains("body .row .cell {\n  color: navy;\n}");
        assertThat(Trial.of(r, color).parts()).isEqualTo(2);
        Change border = at(r, ".cell", "border-left-color", null).fix("rule", new What.Nothing(Set.of("left")));
        assertThat(after(r, border, "own.css"))
                .contains("@media (min-width: 10px) {\n  body .row .cell {\n    border-left: 0;\n  }\n}");
        assertThat(computed(border.applied(r.theme()), ".cell", "border-left-width"))
                .isEqualTo("0");

        Rendered lone = new Rendered(Themes.of(
                "grid.css",
                LIBRARY,
                "index.html",
                HTML.replace("  <link rel=\"stylesheet\" href=\"own.css\">\n", ""),
                // The only sheet would be the maker's, if they did not say otherwise.
                "palette.json",
                "{\"name\": \"T\", \"stylesheets\": [{\"path\": \"grid.css\", \"whose\": \"library\"}]}"));
        Change first = at(lone, ".cell", "color", null).fix("rule", new What.Value("navy"));
        assertThat(after(lone, first, "index.html"))
                .contains("grid.css\">\n  <link rel=\"stylesheet\" href=\"own.css\">\n</head>");
        assertThat(computed(first.applied(lone.theme()), ".cell", "color")).isEqualTo("rgb(0, 0, 128)");
    }

    @Test
    void bordersAndPaddingsGoSideBySideOrWhole() {
        Rendered r = theme();
        Change all = at(r, ".button", "padding-left", null).fix("rule", new What.Nothing(Set.of()));
        assertThat(after(r, all, "own.css")).contains("padding: 0 }");
        Change one = at(r, ".button", "padding-left", null).fix("rule", new What.Nothing(Set.of("left")));
        assertThat(after(r, one, "own.css")).contains("padding: 4px 8px; padding-left: 0 }");
        Change picture = at(r, ".badge", "background-image", null).fix("rule", new What.Nothing(Set.of()));
        assertThat(computed(picture.applied(r.theme()), ".badge", "background-image"))
                .isEqualTo("none");
        assertThat(computed(picture.applied(r.theme()), ".badge", "background-color"))
                .isEqualTo("rgb(216, 161, 60)");
        Change border = at(r, ".badge", "border-top-color", null).fix("rule", new What.Value("red"));
        assertThat(after(r, border, "own.css")).contains("border: 1px solid red }");
    }

    @Test
    void valuesThatAreNoneAreRefused() {
        PartChange change = at(theme(), ".badge", "background-color", null);
        for (String bad : new String[] {"", "redd", "red; color: blue", "red } x {", "red /* x", "red !important"}) {
            assertThatThrownBy(() -> change.fix("rule", new What.Value(bad)))
                    .as(bad)
                    .isInstanceOf(BadInputException.class);
        }
        assertThatThrownBy(() -> change.fix("--amber", new What.Nothing(Set.of())))
                .isInstanceOf(BadInputException.class);
        assertThatThrownBy(() -> change.fix("rule", setting("amber", "#d8a13c")))
                .isInstanceOf(BadInputException.class)
                .hasMessageContaining("own.css, line 1");
    }

    @Test
    void aUtilityClassGoesIntoTheMarkupOfThePart() {
        Rendered r = new Rendered(Themes.of(
                "own.css",
                ".mute { color: gray } .big { font-size: 2em } .two { color: red; margin: 0 }",
                "index.html",
                HTML,
                "b.html",
                HTML.replace("class=\"badge\"", "class='badge' id=z")));
        Page page = r.theme().pages().get(0);
        var badge = page.document().selectFirst(".badge");
        assertThat(UtilityClass.of(r, page, badge, "color"))
                .extracting(UtilityClass::name)
                .containsExactly("mute");
        Change fix = UtilityClass.put(r, page, badge, "mute", true);
        assertThat(after(r, fix, "index.html")).contains("<a class=\"badge mute\">n</a>");
        assertThat(after(r, fix, "b.html")).contains("<a class='badge mute' id=z>n</a>");
        assertThat(UtilityClass.put(r, page, page.document().selectFirst("body"), "mute", false)
                        .edits()
                        .get("index.html")
                        .get(0)
                        .replacement())
                .isEqualTo(" class=\"mute\"");
    }

    @Test
    void theSourceOfABuildIsOfferedWhereTheSheetIsMadeFromOne() {
        Rendered r = new Rendered(Themes.of(
                "main.css",
                "p { color: #aa0000 }",
                "scss/main.scss",
                "$ink:  #A00 !default;\n$n: 1px;\n",
                "index.html",
                "<!doctype html><link rel=stylesheet href=main.css><p>x"));
        Page page = r.theme().pages().get(0);
        int p = page.elements().indexOf(page.document().selectFirst("p"));
        PartLook look = PartLook.of(
                r, Readers.of(r.theme()), new PartIndex(r.theme().pages()), page, p, Viewport.of(1000, 800), Set.of());
        String reach = look.aspect("text").orElseThrow().reaches().stream()
                .map(PartLook.Reach::id)
                .filter(i -> i.contains("@"))
                .findFirst()
                .orElseThrow();
        Change fix = new PartChange(r, page, p, null, "color", Viewport.of(1000, 800), Set.of(), null)
                .fix(reach, new What.Value("#00a"));
        assertThat(after(r, fix, "scss/main.scss")).isEqualTo("$ink:  #00a !default;\n$n: 1px;\n");
    }

    private static Rendered with(String css, String html, String... more) {
        String[] files = new String[4 + more.length];
        System.arraycopy(
                new String[] {
                    "own.css", css, "index.html", "<!doctype html><link rel=stylesheet href=own.css><body>" + html
                },
                0,
                files,
                0,
                4);
        System.arraycopy(more, 0, files, 4, more.length);
        return new Rendered(Themes.of(files));
    }

    private static PartChange change(Rendered r, String selector, String pseudo, String property) {
        Page page = r.theme().pages().get(0);
        return new PartChange(
                r,
                page,
                page.elements().indexOf(page.document().selectFirst(selector)),
                pseudo,
                property,
                Viewport.of(1000, 800),
                Set.of(),
                null);
    }

    @Test
    void aPartFollowsASettingThatIsThere() {
        String palette =
                "{\"format\":\"calm-palette/1\",\"places\":[{\"key\":\"p\",\"label\":\"P\"}],\"settings\":[{\"key\":\"ink\",\"label\":\"Ink\",\"kind\":\"color\",\"place\":\"p\",\"default\":\"#112233\"},"
                        + "{\"key\":\"gap\",\"label\":\"Gap\",\"kind\":\"length\",\"place\":\"p\",\"default\":{\"value\":4,\"unit\":\"px\"}}]}";
        Rendered r = with("p { color: red }", "<p>x", "palette.json", palette);
        Change follow = change(r, "p", null, "color").fix("rule", new What.Follow("ink"));
        assertThat(after(r, follow, "own.css")).isEqualTo("p { color: var(--ink, #112233) }");
        assertThat(follow.note()).isEqualTo("Let the text colour of p follow “Ink”");
        assertThat(computed(follow.applied(r.theme()), "p", "color")).isEqualTo("rgb(17, 34, 51)");
        assertThatThrownBy(() -> change(r, "p", null, "color").fix("rule", new What.Follow("gap")))
                .hasMessageContaining("“Gap” is a length and cannot be followed by color");
        assertThatThrownBy(() -> change(r, "p", null, "color").fix("rule", new What.Follow("gone")))
                .hasMessageContaining("no setting “gone”");
        // What is offered is what fits.
        assertThat(PartChange.followed(r.theme(), "color"))
                .extracting(Setting::key)
                .containsExactly("ink");
        assertThat(PartChange.followed(r.theme(), "padding-top"))
                .extracting(Setting::key)
                .containsExactly("gap");
    }

    @Test
    void generatedContentIsChangedByItsOwnRule() {
        Rendered r = with("p::before { content: '»'; color: red }", "<p>x<p>y");
        assertThat(after(r, change(r, "p", "before", "color").fix("rule", new What.Value("blue")), "own.css"))
                .isEqualTo("p::before { content: '»'; color: blue }");
        Change alone = change(r, "p", "before", "color").fix("only", new What.Value("blue"));
        assertThat(after(r, alone, "own.css")).contains("p:nth-of-type(1)::before {\n  color: blue;\n}");
        assertThat(alone.note()).endsWith("::before to blue");
    }

    @Test
    void importanceIsMetWithImportanceAndNoMore() {
        Rendered r = with("p { color: red !important } b { color: red }", "<p class=a>x</p><p>y</p><b>z</b>");
        assertThat(after(r, change(r, "p", null, "color").fix("only", new What.Value("blue")), "own.css"))
                .contains("color: blue !important;");
        assertThat(after(r, change(r, "b", null, "color").fix("only", new What.Value("blue")), "own.css"))
                .doesNotContain("blue !important");
        assertThat(after(r, change(r, "p", null, "color").fix("rule", new What.Value("blue")), "own.css"))
                .startsWith("p { color: blue !important }");
    }

    @Test
    void aSettingInPlaceOfCurrentColorHasTodaysColourBesideIt() {
        Rendered r = with("p { color: #aa1100 } path { fill: currentColor }", "<p><svg><path d='M0 0'/></svg>");
        Change fix = change(r, "path", null, "fill")
                .fix(
                        "rule",
                        new What.NewSetting(
                                Setting.of("sun", "Sun", "", "p", ColorKind.ANY, Value.of("#aa1100")),
                                new Place("p", "P")));
        assertThat(fix.edits().get("own.css")).extracting(Edit::replacement).containsExactly("var(--sun, #aa1100)");
    }

    @Test
    void whatCannotBeReachedSaysSo() {
        Rendered r = with("p { background: url(a.png) }", "<p>x</p><a href=#>y</a>");
        assertThatThrownBy(() -> change(r, "a", null, "color").fix("rule", new What.Value("blue")))
                .hasMessageContaining("No rule of the theme paints this");
        assertThatThrownBy(() -> change(r, "p", null, "background-image")
                        .fix(
                                "only",
                                new What.NewSetting(
                                        Setting.of("k", "K", "", "p", ColorKind.ANY, Value.of("#000000")),
                                        Place.EVERYWHERE)))
                .hasMessageContaining("What paints it is no colour");
        assertThatThrownBy(() -> change(r, "p", null, "color").fix("gone.scss@3", new What.Value("blue")))
                .hasMessageContaining("no longer where it was");
        assertThatThrownBy(() -> change(r, "p", null, "color").fix("--nobody", new What.Value("blue")))
                .hasMessageContaining("--nobody is not declared");
    }

    @Test
    void takingAwayKnowsWhatNothingIs() {
        Rendered r = with("p { background-color: red; opacity: .5; margin: 1px 2px }", "<p>x");
        assertThat(after(
                        r, change(r, "p", null, "background-color").fix("rule", new What.Nothing(Set.of())), "own.css"))
                .contains("background-color: transparent");
        assertThat(after(
                        r,
                        change(r, "p", null, "margin-left").fix("rule", new What.Nothing(Set.of("left", "top"))),
                        "own.css"))
                .contains("margin: 1px 2px; margin-left: 0; margin-top: 0 }");
        assertThat(change(r, "p", null, "margin-left")
                        .fix("rule", new What.Nothing(Set.of("left")))
                        .note())
                .isEqualTo("Took the margin of p away (left)");
    }
}
