package org.calmpalette.core.survey;

import static org.assertj.core.api.Assertions.assertThat;

import java.nio.charset.StandardCharsets;
import java.util.List;
import java.util.Map;
import java.util.TreeMap;
import org.calmpalette.core.theme.Theme;
import org.calmpalette.core.theme.ThemeFiles;
import org.calmpalette.core.theme.Themes;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

/** What visitors cannot read or see: contrast of WCAG 2.2, 1.4.3; texts hidden from screen readers; what a fixed header covers. */
class PageFindingsTest {
    private static Theme theme(String css, String body) {
        return Themes.of(
                "css/own.css",
                css,
                "index.html",
                "<!doctype html><html><head><link rel=stylesheet href=css/own.css></head><body>" + body,
                "img/a.png",
                "x");
    }

    private static List<Finding> found(String css, String body, Finding.Kind kind) {
        return Survey.of(theme(css, body)).findings().stream()
                .filter(f -> f.kind() == kind)
                .toList();
    }

    private static Finding one(String css, String body, Finding.Kind kind) {
        List<Finding> all = found(css, body, kind);
        assertThat(all).hasSize(1);
        return all.get(0);
    }

    @ParameterizedTest
    @CsvSource(
            delimiter = '|',
            value = {
                // #767676 on white is 4.54 to 1, #777777 is 4.48: the well-known pair at the edge.
                "p{color:#767676} | 0",
                "p{color:#777777} | 1",
                "p{color:#777;font-size:24px} | 0",
                "p{color:#777;font-size:18.67px;font-weight:700} | 0",
                "p{color:#777;font-size:18.67px} | 1",
                "p{color:#777;font-size:18px;font-weight:700} | 1",
                "p{color:#959595;font-size:24px} | 1",
                "p{color:#777;display:none} | 0",
                "p{color:#777;visibility:hidden} | 0",
                "p{color:transparent} | 0",
                "p{color:#777;text-shadow:0 0 2px #000} | 0",
                "p{color:#777;text-shadow:none} | 1",
                "body{text-shadow:0 0 2px #000} p{color:#777} | 0",
                "body{text-shadow:0 0 2px #000} p{color:#777;text-shadow:initial} | 1",
                "p{color:#777;-webkit-text-fill-color:#000} | 0",
                "p{color:#777;background:url(../img/a.png)} | 0",
                "p{color:#777;background:url(../img/gone.png)} | 1",
                "p{color:#777;position:absolute} | 0",
                "p{color:#777;position:absolute;background:#fff} | 1",
                "p{color:#000;opacity:.4} | 1",
                "p{color:#000;opacity:.6} | 0",
                "body{opacity:.4} p{background:#fff;color:#000} | 1",
                "p{color:#777;mix-blend-mode:multiply} | 0"
            })
    void textsAreJudgedWhereTheirGroundIsKnown(String css, int expected) {
        assertThat(found(css, "<p>Read me</p>", Finding.Kind.UNREADABLE_TEXT)).hasSize(expected);
    }

    /** Told once for all pages, at the rule; what a script has yet to show is not there. */
    @Test
    void whatLiesOverTheWholeWindowIsTold() {
        String css = ".veil{position:fixed;inset:0;z-index:2147483647;background:#000c} .shut{visibility:hidden}";
        Finding over = one(css, "<p>a</p><div class=veil></div>", Finding.Kind.OVER_WINDOW);
        assertThat(over.file()).isEqualTo("css/own.css");
        assertThat(over.message())
                .isEqualTo("div.veil lies over the whole window and stays there: the page behind it cannot be used.");
        assertThat(found(css, "<p>a</p><div class='veil shut'></div>", Finding.Kind.OVER_WINDOW))
                .isEmpty();
    }

    /** HTML, section 16.2: attributes of another age, which no stylesheet has. */
    @Test
    void coloursInAttributesAreTold() {
        Finding f = one(
                "p{margin:0}",
                "<table bgcolor='#336699' bordercolor=red>\n<tr><td bgcolor=white><font color=navy size=2>x</font></table>\n<hr color=gray><p color=red bgcolor=blue>no</p>",
                Finding.Kind.MARKUP_COLOR);
        assertThat(f.message())
                .isEqualTo(
                        "5 colours stand in attributes of index.html, where none can become a setting: bgcolor=\"#336699\" of <table> on line 1,"
                                + " bgcolor=\"white\" of <td> on line 2, color=\"navy\" of <font> on line 2, color=\"gray\" of <hr> on line 3.");
        assertThat(f.line()).isEqualTo(1);
        assertThat(found("p{margin:0}", "<p style='color:red'>x", Finding.Kind.MARKUP_COLOR))
                .isEmpty();
    }

    @Test
    void theMendIsTheNearestColourThatReads() {
        String css = "p{color:#8899aa;background:#ffffff}";
        Theme theme = theme(css, "<p>Read me</p>");
        Finding finding = one(css, "<p>Read me</p>", Finding.Kind.UNREADABLE_TEXT);
        assertThat(finding.message()).contains("#8899aa on #ffffff is 2.92 to 1, and 4.5 is needed");
        Theme after = finding.fix().get().applied(theme);
        assertThat(Themes.text(after.files(), "css/own.css")).matches("p\\{color:#[0-9a-f]{6};background:#ffffff}");
        assertThat(Survey.of(after).findings()).noneMatch(f -> f.kind() == Finding.Kind.UNREADABLE_TEXT);
    }

    @Test
    void whereAnOpacityIsToBlameItIsNamed() {
        Finding pale = one("p{color:#333333;opacity:.5}", "<p>Read me</p>", Finding.Kind.UNREADABLE_TEXT);
        assertThat(pale.message())
                .contains("#999999 on #ffffff")
                .contains("Opacity makes it paler than it is written, #333333");
        Finding hopeless = one("p{color:#333333;opacity:.3}", "<p>Read me</p>", Finding.Kind.UNREADABLE_TEXT);
        assertThat(hopeless.mend()).contains("Raise the opacity");
        assertThat(hopeless.canBeMended()).isFalse();
        Theme theme = theme("p{color:#333333;opacity:.7}", "<p>Read me</p>");
        assertThat(Survey.of(theme).findings())
                .as("0.7 of #333 is 5.1 to 1")
                .noneMatch(f -> f.kind() == Finding.Kind.UNREADABLE_TEXT);
    }

    @Test
    void textsThatEverybodyNeedsAreNotHiddenFromScreenReaders() {
        Theme theme = theme(
                "label{display:none}\n.sr-only{visibility:hidden}\nem{display:none}",
                "<label>Name</label><b class=sr-only>Menu</b><em>no</em><label aria-hidden=true>x</label>");
        List<Finding> hidden = Survey.of(theme).findings().stream()
                .filter(f -> f.kind() == Finding.Kind.HIDDEN_TEXT)
                .toList();
        assertThat(hidden).extracting(Finding::line).containsExactlyInAnyOrder(1, 2);
        Theme after = hidden.get(0).fix().get().applied(theme);
        assertThat(Themes.text(after.files(), "css/own.css"))
                .contains("position: absolute")
                .contains("clip-path");
        Finding pushed = one("h1{text-indent:-9999px}", "<h1>Boats</h1>", Finding.Kind.PUSHED_TEXT);
        assertThat(pushed.canBeMended()).isTrue();
        assertThat(found("h1{text-indent:-10px}", "<h1>Boats</h1>", Finding.Kind.PUSHED_TEXT))
                .isEmpty();
    }

    private static final String HEADER = "header{position:fixed;top:0;height:64px;width:100%}\n";

    @ParameterizedTest
    @CsvSource(
            delimiter = '|',
            value = {
                "'' | 1",
                "main{padding-top:64px} | 0",
                "main{padding-top:63px} | 1",
                "body{padding-top:80px} | 0",
                "main{margin-top:4rem} | 0",
                "main{padding-top:10%} | 0",
                "main{display:grid} | 0",
                "main{position:relative} | 0",
                "main{background:url(../img/a.png)} | 0",
                "header{position:sticky} | 0",
                "header{height:auto} | 0",
                "main p{margin-top:70px} | 0"
            })
    void whatComesFirstUnderAFixedHeaderNeedsRoom(String css, int expected) {
        assertThat(found(
                        HEADER + "p,body{margin:0}\n" + css,
                        "<header>Boats</header><main><p>First words</p></main>",
                        Finding.Kind.COVERED_CONTENT))
                .hasSize(expected);
    }

    @Test
    void whatIsLinkedToNeedsRoomAboveIt() {
        String body =
                "<header>Boats</header><main><p style='margin-top:90px'>x</p><h2 id=withy>Withy</h2><a href='#withy'>go</a></main>";
        Finding covered = one(HEADER, body, Finding.Kind.COVERED_TARGET);
        assertThat(covered.message()).contains("#withy");
        Theme theme = theme(HEADER, body);
        Theme after = covered.fix().get().applied(theme);
        assertThat(Themes.text(after.files(), "css/own.css")).contains("scroll-padding-top: 64px");
        assertThat(Survey.of(after).findings()).noneMatch(f -> f.kind() == Finding.Kind.COVERED_TARGET);
        assertThat(found(HEADER + "h2{scroll-margin-top:70px}", body, Finding.Kind.COVERED_TARGET))
                .isEmpty();
        assertThat(found(HEADER + "header{bottom:0;top:auto}", body, Finding.Kind.COVERED_TARGET))
                .isEmpty();
    }

    @Test
    void onAGradientOnlyWhatReadsNowhereIsTold() {
        Finding pale = one(
                "p{color:#ffffff;background:linear-gradient(#cccccc,#eeeeee)}",
                "<p>Read me</p>",
                Finding.Kind.UNREADABLE_TEXT);
        assertThat(pale.message()).contains("#ffffff comes to 1.60 to 1 at best on the gradient behind it");
        Theme theme = theme("p{color:#ffffff;background:linear-gradient(#cccccc,#eeeeee)}", "<p>Read me</p>");
        assertThat(Survey.of(pale.fix().get().applied(theme)).findings())
                .noneMatch(f -> f.kind() == Finding.Kind.UNREADABLE_TEXT);
        assertThat(found(
                        "p{color:#ffffff;background:linear-gradient(#000000,#eeeeee)}",
                        "<p>Read me</p>",
                        Finding.Kind.UNREADABLE_TEXT))
                .as("it reads somewhere")
                .isEmpty();
        assertThat(found(
                        "p{color:#ffffff;background:linear-gradient(#cccccc,#eeeeee) no-repeat 0 0/4px}",
                        "<p>Read me</p>",
                        Finding.Kind.UNREADABLE_TEXT))
                .as("it may lie beside it")
                .isEmpty();
        Finding wide = one(
                "p{color:#777777;background:linear-gradient(#333333,#bbbbbb)}",
                "<p>Read me</p>",
                Finding.Kind.UNREADABLE_TEXT);
        assertThat(wide.mend()).startsWith("Lay a plain colour behind it");
        assertThat(wide.canBeMended())
                .as("no colour reads everywhere from dark to light")
                .isFalse();
    }

    private static List<String> unreadable(String css, String script, String html) {
        return Survey.of(Themes.of(
                        "a.css",
                        css,
                        "s.js",
                        script,
                        "index.html",
                        "<!doctype html><html><head><link rel=stylesheet href=a.css><script src=s.js></script></head><body>"
                                + html))
                .findings()
                .stream()
                .filter(f -> f.kind() == Finding.Kind.UNREADABLE_TEXT)
                .map(Finding::message)
                .toList();
    }

    /** A header that a script changes on scrolling: what is read on is told as it stands and with the class. */
    @Test
    void textOnAGroundThatAScriptChangesIsToldWithBoth() {
        String nav = "<nav id=n><a href=#>About us</a></nav>";
        String toggles = "addEventListener('scroll', () => n.classList.toggle('shrunk', scrollY > 0))";
        List<String> stands = unreadable("a{color:#fff} #n.shrunk{background:#123}", toggles, nav);
        assertThat(stands).hasSize(1);
        assertThat(stands.get(0))
                .contains("is hard to read: #ffffff on #ffffff is 1.00 to 1")
                .contains("It depends on a script: with the class “shrunk” it is #ffffff on #112233, 16.14 to 1.");
        List<String> later = unreadable("a{color:#123} #n.shrunk{background:#123}", toggles, nav);
        assertThat(later).hasSize(1);
        assertThat(later.get(0))
                .contains("is hard to read once a script sets the class “shrunk”: #112233 on #112233 is 1.00 to 1")
                .contains("depends on that script");
        assertThat(unreadable("a{color:#123} #n.shrunk{background:#eee}", toggles, nav))
                .isEmpty();
        assertThat(unreadable("a{color:#123} #n.shrunk{background:#123}", "let shrunk = 'shrunk'", nav))
                .as("a word of a script that changes no class")
                .isEmpty();
        assertThat(unreadable("a{color:#123} #n .shrunk{background:#123}", toggles, nav))
                .as("a class alone may be put on anything")
                .isEmpty();
    }

    /** CSS Syntax 3, section 3.2: without a mark and a first {@code @charset} the encoding of the page that loads it counts. */
    @Test
    void aSheetIsReadInTheEncodingOfItsPageAndACharsetThatIsNotFirstIsTold() {
        byte[] sheet =
                "/* M\u00fchle */\n@charset \"utf-8\";\n.m\u00fchle{color:red}".getBytes(StandardCharsets.ISO_8859_1);
        byte[] page =
                "<meta http-equiv=Content-Type content='text/html; charset=iso-8859-1'><link rel=stylesheet href=css/a.css><p class=m\u00fchle>x"
                        .getBytes(StandardCharsets.ISO_8859_1);
        Theme theme = Theme.read(ThemeFiles.of(new TreeMap<>(Map.of("index.html", page, "css/a.css", sheet))), "T");
        assertThat(theme.sheets().get(0).file().text()).contains(".m\u00fchle{");
        assertThat(theme.sheets().get(0).file().withEdits(List.of())).isEqualTo(sheet);
        List<Finding> all = Survey.of(theme).findings().stream()
                .filter(f -> f.kind() == Finding.Kind.ENCODING || f.kind() == Finding.Kind.DEAD_RULE)
                .toList();
        assertThat(all).hasSize(1);
        assertThat(all.get(0).line()).isEqualTo(2);
        assertThat(all.get(0).message())
                .isEqualTo(
                        "@charset \"utf-8\"; does nothing here: it has to be the very first thing in the file. The sheet is read as windows-1252, as the page that loads it is.");
    }
}
