package org.calmpalette.core.survey;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.List;
import org.calmpalette.core.color.Color;
import org.calmpalette.core.color.Contrast;
import org.calmpalette.core.theme.Theme;
import org.calmpalette.core.theme.Themes;
import org.junit.jupiter.api.Test;

class FindingsTest {
    private static final String PAGE = "<!doctype html><link rel=stylesheet href=css/own.css><body>%s";

    private static Theme theme(String css, String body, String... more) {
        String[] files = new String[4 + more.length];
        files[0] = "css/own.css";
        files[1] = css;
        files[2] = "index.html";
        files[3] = PAGE.formatted(body);
        System.arraycopy(more, 0, files, 4, more.length);
        return Themes.of(files);
    }

    private static List<Finding> find(Theme theme, String kind) {
        return Survey.of(theme).findings().stream()
                .filter(f -> f.kind().key().equals(kind))
                .toList();
    }

    /** Finds one of the kind, mends it, and finds it gone; gives the stylesheet as it is then. */
    private static String mended(Theme theme, String kind) {
        List<Finding> found = find(theme, kind);
        assertThat(found).as(kind).hasSize(1);
        Theme after = found.get(0).fix().get().applied(theme);
        assertThat(find(after, kind)).as(kind + " mended").isEmpty();
        return Themes.text(after.files(), "css/own.css");
    }

    @Test
    void misspeltThingsAreCorrectedToTheNearestThatFits() {
        assertThat(mended(theme("p{colour: red}", "<p>x"), "misspelt-property")).isEqualTo("p{color: red}");
        assertThat(mended(theme("p{text-align:cetner}", "<p>x"), "misspelt-value"))
                .isEqualTo("p{text-align:center}");
        assertThat(mended(theme("p{background: tomatoe url(data:,)}", "<p>x"), "misspelt-value"))
                .contains("tomato ");
        assertThat(mended(theme("p{padding: 12 0}", "<p>x"), "misspelt-value")).isEqualTo("p{padding: 12px 0}");
        assertThat(mended(theme("p{width: 3rme}", "<p>x"), "misspelt-value")).isEqualTo("p{width: 3rem}");
        assertThat(mended(theme("p{color: red ! improtant}", "<p>x"), "misspelt-important"))
                .isEqualTo("p{color: red ! important}");
    }

    /** WCAG 2.2, success criterion 1.4.3: an inactive part of the interface needs no contrast. */
    @Test
    void wordsOfDisabledControlsAreNotHardToRead() {
        String css = "body{color:#777777;background:#808080}";
        for (String inactive : List.of(
                "<button disabled><span>x</span></button>",
                "<fieldset disabled><legend></legend><button>x</button></fieldset>",
                "<a href=x aria-disabled=true>x</a>",
                "<label>x <input disabled></label>",
                "<label for=f>x</label><input id=f disabled>")) {
            assertThat(find(theme(css, inactive), "unreadable-text"))
                    .as(inactive)
                    .isEmpty();
        }
        assertThat(find(theme(css, "<label for=f>x</label><input id=f>"), "unreadable-text"))
                .hasSize(1);
    }

    /** A link is visited or it is not, and a part is pointed at or it is not: of two rules for the two neither is without effect. */
    @Test
    void rulesForStatesThatExcludeEachOtherAreNotDead() {
        Theme theme = theme(
                "a:link{color:#123456} a:visited{color:#654321} a:not(:hover){text-decoration:none} input:not(:focus){color:#222222}",
                "<a href=x>y</a><input>");
        assertThat(find(theme, "dead-rule")).isEmpty();
        assertThat(find(theme, "beaten-declaration")).isEmpty();
    }

    @Test
    void whatIsOnlyUnusualIsNotCalledMisspelt() {
        Theme theme = theme(
                """
        @font-face { font-family: Rde; src: url(data:,) }
        p { font-family: Helvetcia; animation: spni 2s; grid-area: mian; will-change: opactiy; *zoom: 1; -ms-filter: x;
            color: var(--redd, redd); width: 100\\9; line-height: 1.5; flex: 1; z-index: 3; --tpyo: blcok; counter-reset: setp }
        @media (min-width: 3px) { p { transition: colr 2s; view-transition-name: cardd } }
        """,
                "<p>x");
        assertThat(find(theme, "misspelt-value")).isEmpty();
        assertThat(find(theme, "misspelt-property")).isEmpty();
    }

    @Test
    void missingPicturesAreLookedForWhereTheyLikelyAre() {
        String pixel = "GIF89a";
        for (String[] c : new String[][] {
            {"url(../img/Dusk.jpg)", "img/dusk.jpg", "url(../img/dusk.jpg)"},
            {"url('img/dusk.jpg')", "img/dusk.jpg", "url('../img/dusk.jpg')"},
            {"url(\"../pictures/dusk.jpg\")", "img/dusk.jpg", "url(\"../img/dusk.jpg\")"},
            {"url(../img/dsuk.jpg)", "img/dusk.jpg", "url(../img/dusk.jpg)"},
            {"url(../../../dusk.jpg)", "dist/dusk.jpg", "url(../dist/dusk.jpg)"}
        }) {
            assertThat(mended(theme("p{background:" + c[0] + "}", "<p>x", c[1], pixel), "missing-picture"))
                    .isEqualTo("p{background:" + c[2] + "}");
        }
        assertThat(find(
                                theme("p{background:url(../img/harbour.jpg)}", "<p>x", "img/dusk.jpg", pixel),
                                "missing-picture")
                        .get(0)
                        .fix())
                .isNull();
    }

    @Test
    void deadAndBeatenDeclarationsAndNeedlessImportanceAreTakenOutWhole() {
        assertThat(mended(
                        theme("p { color: red }\n.gone,\n.away { color: blue }\na { color: tan }\n", "<p>x<a>y"),
                        "dead-rule"))
                .isEqualTo("p { color: red }\na { color: tan }\n");
        assertThat(mended(
                        theme("p { color: red; margin: 0 }\np.a { color: blue }", "<p class=a>x"),
                        "beaten-declaration"))
                .isEqualTo("p {  margin: 0 }\np.a { color: blue }");
        assertThat(mended(theme("p { color: red !important; }", "<p>x"), "needless-important"))
                .isEqualTo("p { color: red; }");
        assertThat(find(
                        theme("p{color:red}.on{color:blue}", "<p>x<script>e.classList.add('on')</script>"),
                        "dead-rule"))
                .isEmpty();
        assertThat(find(theme("p{height:100vh;height:100dvh}", "<p>x"), "beaten-declaration"))
                .as("a fallback for older browsers")
                .isEmpty();
    }

    @Test
    void textThatCannotBeReadGetsTheNearestColourThatReads() {
        Theme theme = theme(
                "body{background:#f4efe6} p{color:#9aa3ab} h1{color:#8a939b} .over{background:url(../x.png);color:#eee}",
                "<p>x<h1>big</h1><div class=over>y",
                "x.png",
                "GIF89a");
        assertThat(find(theme, "unreadable-text"))
                .as("large text needs 3 to 1, and over a picture nothing is said")
                .hasSize(2);
        String css = mended(theme("body{background:#f4efe6} p{color:#9aa3ab}", "<p>x<p>y"), "unreadable-text");
        String color = css.replaceFirst("(?s).*p\\{color:(#\\w+)\\}.*", "$1");
        assertThat(Contrast.ratio(
                        Color.parse(color).orElseThrow(), Color.parse("#f4efe6").orElseThrow()))
                .isBetween(4.5, 4.9);
        assertThat(find(theme("p{color:#767676}", "<p>x"), "unreadable-text"))
                .as("WCAG 2.2: #767676 on white is 4.54 to 1")
                .isEmpty();
        assertThat(find(theme("p{color:#777777}", "<p>x"), "unreadable-text"))
                .as("#777777 is 4.48 to 1")
                .hasSize(1);
    }

    @Test
    void textOverAPictureThatDoesNotComeIsJudgedOnTheColourThatShows() {
        for (String url : List.of("gone.png", "https://pictures.invalid/dusk.jpg")) {
            String css = "body{background:#102030} p{color:#203040;background:url(" + url + ")}";
            assertThat(find(theme(css, "<p>x"), "unreadable-text")).as(url).hasSize(1);
            assertThat(find(theme(css.replace("#203040", "#fff"), "<p>x"), "unreadable-text"))
                    .as(url)
                    .isEmpty();
        }
        assertThat(find(
                        theme("p{color:#eee;background:url(gone.png), linear-gradient(#000, #000)}", "<p>x"),
                        "unreadable-text"))
                .as("a gradient comes")
                .isEmpty();
    }

    @Test
    void textPushedOutOfTheWindowIsCutOffInItsBoxInstead() {
        String css = "h1 {\n  background: url(logo.png);\n  text-indent: -9999px;\n}";
        assertThat(mended(theme(css, "<h1>Harrow</h1>", "logo.png", "GIF89a"), "pushed-text"))
                .isEqualTo(
                        "h1 {\n  background: url(logo.png);\n  text-indent: 100%;\n  white-space: nowrap;\n  overflow: hidden;\n}");
        assertThat(find(theme("h1{text-indent:-999em}", "<h1>Harrow"), "pushed-text"))
                .hasSize(1);
        assertThat(find(theme("p{text-indent:-2em;padding-left:2em}", "<p>hanging"), "pushed-text"))
                .as("a hanging indent")
                .isEmpty();
        assertThat(find(theme("h1{text-indent:-9999px}", "<h1></h1>"), "pushed-text"))
                .as("no text")
                .isEmpty();
    }

    @Test
    void whatALibraryBeatsByOrderAloneIsMendedByTheOrder() {
        Theme theme = Themes.of(
                "css/own.css",
                ".b { color: red }",
                "grid.css",
                "/*! Grid v1.2 MIT */ .b { color: blue }",
                "index.html",
                "<!doctype html>\n<head>\n  <link rel=stylesheet href=css/own.css>\n  <link rel=stylesheet href=grid.css>\n</head><b class=b>x");
        mended(theme, "sheet-order");
        Theme after = find(theme, "sheet-order").get(0).fix().get().applied(theme);
        assertThat(Themes.text(after.files(), "index.html"))
                .isEqualTo(
                        "<!doctype html>\n<head>\n  <link rel=stylesheet href=grid.css>\n  <link rel=stylesheet href=css/own.css>\n</head><b class=b>x");
    }

    @Test
    void nearColoursRepeatsOtherHostsHiddenTextAndCoveredTargetsAreMended() {
        assertThat(mended(theme("a{color:#1f3347}b{color:#1F3347}i{color:#203448}", "<a>x<b>y<i>z"), "near-colors"))
                .endsWith("i{color:#1f3347}");
        assertThat(mended(
                        theme("a{padding:18px}b{margin:18px 2px 18px}i{gap:18px;top:18px}", "<a>x<b>y<i>z"),
                        "repeated-length"))
                .isEqualTo(
                        ":root {\n  --space-18px: 18px;\n}\n\na{padding:var(--space-18px, 18px)}b{margin:var(--space-18px, 18px) 2px var(--space-18px, 18px)}i{gap:var(--space-18px, 18px);top:18px}");
        assertThat(mended(
                        theme(":root{--x:1px}a{color:#abc}b{color:#abc}i{color:#aabbcc}", "<a>x<b>y<i>z"),
                        "repeated-color"))
                .startsWith(":root{--x:1px; --color-aabbcc: #abc}a{color:var(--color-aabbcc, #abc)}");
        assertThat(mended(
                        theme("p{background:url(//cdn.example/a/dusk.jpg?v=2)}", "<p>x", "img/dusk.jpg", "x"),
                        "other-host"))
                .isEqualTo("p{background:url(../img/dusk.jpg)}");
        assertThat(mended(theme("label{display:none}", "<label>Name <input></label>"), "hidden-text"))
                .startsWith("label{position: absolute;");
        String covered = mended(
                theme("header{position:sticky;top:0;height:4rem}", "<header>x</header><a href=#t>y</a><p id=t>z"),
                "covered-target");
        assertThat(covered).endsWith("html {\n  scroll-padding-top: 4rem;\n}\n");
        assertThat(find(
                        theme(
                                "header{position:fixed;top:0;height:40px}html{scroll-padding-top:40px}",
                                "<header>x</header><a href=#t>y</a><p id=t>z"),
                        "covered-target"))
                .isEmpty();
        mended(
                theme(
                        "header{position:fixed;top:0;height:60px}main{padding-top:20px}",
                        "<header>x</header><main><h1>y</h1></main>"),
                "covered-content");
    }

    /** Nobody misses a picture of a part that no page has; that it may be asked for in a state counts. */
    @Test
    void aMissingPictureThatNoPageAsksForIsNotSeenByVisitors() {
        Theme theme = theme(
                ".gone{background:url(../img/a.png)}\np:hover{background:url(../img/b.png)}\n:root{--c:url(../img/c.png)}\n"
                        + ".gone::before{background:url(../img/d.png)} .here{\n  background:\n    url(../img/e.png)\n}",
                "<p class=here>x");
        assertThat(find(theme, "unasked-picture"))
                .extracting(Finding::message)
                .containsExactly(
                        "The picture “../img/a.png” is not in the theme; no part of a page asks for it, so nobody misses it.",
                        "The picture “../img/d.png” is not in the theme; no part of a page asks for it, so nobody misses it.");
        assertThat(find(theme, "missing-picture")).extracting(Finding::line).containsExactly(2, 3, 6);
    }

    /** Shades in a framework's sheet are one line; a slip in the maker's own is its own. */
    @Test
    void shadesThatABuildComputedAreOneLine() {
        String framework =
                "/*! grid v1.2.3 | MIT License */ .r1{color:#1f3347} .r2{color:#203448} .r3{color:#c04020} .r4{color:#c14121}";
        Theme theme = theme(
                "a{color:#4a7a2b}i{color:#4b7b2c}",
                "<link rel=stylesheet href=vendor/grid.css><a>x<i class=r1>z<b class=r2>y",
                "vendor/grid.css",
                framework);
        assertThat(find(theme, "near-colors"))
                .extracting(Finding::message)
                .satisfiesExactlyInAnyOrder(
                        one -> assertThat(one)
                                .isEqualTo(
                                        "2 colours of vendor/grid.css are nearly the same as others: shades that whoever made it computed."),
                        two -> assertThat(two).contains("is nearly #4"));
        assertThat(find(theme, "near-colors").stream().filter(f -> f.fix() != null))
                .hasSize(1);
    }

    @Test
    void aDismissedFindingKeepsItsNameWhenLinesMove() {
        String key =
                find(theme("p{colour:red}", "<p>x"), "misspelt-property").get(0).key();
        assertThat(find(theme("\n\na{margin:0}\np{colour:red}", "<p>x<a>y"), "misspelt-property")
                        .get(0)
                        .key())
                .isEqualTo(key);
    }

    @Test
    void searchFindsSelectorsValuesCommentsAndMarkup() {
        Theme theme = theme(
                "/* Notice badge */\n.badge { color: #D8A13C }\n.x { color: red }",
                "<a class=badge style='top: 3px'>n</a><!-- the Badge -->");
        assertThat(Search.of(theme, "notice  BADGE").hits())
                .extracting(Search.Hit::where, Search.Hit::line)
                .containsExactly(org.assertj.core.groups.Tuple.tuple("comment", 2));
        assertThat(Search.of(theme, ".badge").hits())
                .extracting(Search.Hit::where)
                .containsExactly("selector", "markup");
        assertThat(Search.of(theme, "color: #d8a13c").hits())
                .extracting(Search.Hit::where)
                .containsExactly("declaration");
        assertThat(Search.of(theme, "the badge").hits())
                .extracting(Search.Hit::where)
                .containsExactly("comment");
        assertThat(Search.of(theme, " ").total()).isZero();
    }

    /** Comments that stand above no rule: at the head of a file, after an empty line, in a rule, at the end. */
    @Test
    void searchFindsEveryCommentOnce() {
        Theme theme = theme(
                "/*! Towpath 2.1\n * of the quay */\n@charset \"x\";\n\n/* quay colours */\n\n.a { /* quay red */ color: red }\n/* the quay itself */\n.b { margin: 0 }\n/* end of quay */",
                "<a class=a>n</a><b class=b>m</b>");
        assertThat(Search.of(theme, "quay").hits())
                .extracting(Search.Hit::where, Search.Hit::line)
                .containsExactlyInAnyOrder(
                        org.assertj.core.groups.Tuple.tuple("comment", 1),
                        org.assertj.core.groups.Tuple.tuple("comment", 5),
                        org.assertj.core.groups.Tuple.tuple("comment", 7),
                        org.assertj.core.groups.Tuple.tuple("comment", 9),
                        org.assertj.core.groups.Tuple.tuple("comment", 10));
        assertThat(Search.of(theme, "2.1 of the").hits()).hasSize(1);
    }

    @Test
    void aNameThatSaysAnotherColourIsTold() {
        String setting =
                "{\"key\":\"%s\",\"label\":\"%s\",\"kind\":\"color\",\"default\":\"#b5462f\",\"place\":\"everywhere\"}";
        Theme theme = Themes.of(
                "index.html",
                "<!doctype html><p>x",
                "palette.json",
                "{\"places\":[{\"key\":\"everywhere\",\"label\":\"Everywhere\"}],\"settings\":["
                        + String.format(setting, "sea", "Sea blue") + ","
                        + String.format(setting, "brick", "Brick red") + ","
                        + String.format(setting, "notice", "Background of the notice") + "]}");
        List<Finding> all = Survey.of(theme).findings().stream()
                .filter(f -> f.kind() == Finding.Kind.NAME_BESIDE_COLOR)
                .toList();
        assertThat(all).hasSize(1);
        assertThat(all.get(0).message()).isEqualTo("“Sea blue” is #b5462f, which nobody would call blue.");
    }
}
