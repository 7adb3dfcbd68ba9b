package org.calmpalette.core.change;

import static org.assertj.core.api.Assertions.assertThat;

import java.nio.charset.Charset;
import java.nio.charset.StandardCharsets;
import java.util.List;
import java.util.Map;
import java.util.TreeMap;
import org.calmpalette.core.output.ThemeBuild;
import org.calmpalette.core.page.Page;
import org.calmpalette.core.setting.Binding;
import org.calmpalette.core.setting.Chosen;
import org.calmpalette.core.setting.Place;
import org.calmpalette.core.setting.Setting;
import org.calmpalette.core.theme.Theme;
import org.calmpalette.core.theme.ThemeFiles;
import org.calmpalette.core.theme.Themes;
import org.jsoup.nodes.Element;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

/** Elements whose contents are text alone: what stands after them stays where it is. */
class BindingOfTextElementsTest {
    private static final String HTML =
            "<!doctype html><head><title>Boats &amp; piers</title><style>p{color:red}</style><script>var x = '<p>';</script></head>"
                    + "<body><textarea>Write</textarea><iframe src=a.html>old</iframe><xmp>raw</xmp><noscript><p>no</p></noscript><p>end</p></body>";

    private static Theme bound(Theme theme, String selector, Binding binding) {
        Page page = theme.pages().get(0);
        Element e = page.document().selectFirst(selector);
        PageBinding.Offer offer = PageBinding.offers(page, e).stream()
                .filter(o -> o.binding() == binding)
                .findFirst()
                .orElseThrow();
        Setting setting = Setting.of("it", "It", "", "page", offer.kind(), offer.value());
        return PageBinding.bind(theme, page, e, binding, setting, new Place("page", "Page"), false)
                .applied(theme);
    }

    private static String built(Theme theme, Map<String, Chosen> choices) {
        return new String(
                ThemeBuild.build(theme, choices).files().get("index.html"),
                theme.pages().get(0).source().charset());
    }

    @ParameterizedTest
    @CsvSource({"title,Boats &amp; piers", "textarea,Write"})
    void theirTextIsReplacedAndNothingAfterIt(String element, String was) {
        Theme theme = bound(Themes.of("index.html", HTML), element, Binding.TEXT);
        String tag = "<" + element + " data-setting-text=\"it\">";
        assertThat(built(theme, Map.of()))
                .contains(tag + was + "</" + element + ">")
                .endsWith(HTML.substring(HTML.indexOf("<noscript>")));
        String chosen = built(theme, Map.of("it", Chosen.of("New </" + element + "><b>words</b>")));
        assertThat(chosen)
                .contains(tag + "New &lt;/" + element + "&gt;&lt;b&gt;words&lt;/b&gt;</" + element + ">")
                .endsWith(HTML.substring(HTML.indexOf("<noscript>")));
        assertThat(built(
                        Theme.read(
                                ThemeFiles.overlaid(
                                        theme.files(),
                                        new TreeMap<>(Map.of("index.html", chosen.getBytes(StandardCharsets.UTF_8)))),
                                "T"),
                        Map.of("it", Chosen.of("New </" + element + "><b>words</b>"))))
                .as("built again it is the same")
                .isEqualTo(chosen);
    }

    @Test
    void aFrameCanBeSwitchedOffWithoutTakingThePageAlong() {
        Theme theme = bound(Themes.of("index.html", HTML), "iframe", Binding.SHOW);
        String off = built(theme, Map.of("it", new Chosen(org.calmpalette.core.setting.Value.of(false), Map.of())));
        assertThat(off)
                .contains("data-setting-hidden=\"phone tablet desktop\">old</iframe>")
                .endsWith(HTML.substring(HTML.indexOf("<xmp>")));
    }

    @Test
    void whatIsNeverShownCannotBeSwitchedOff() {
        Page page = Themes.of("index.html", HTML).pages().get(0);
        for (String name : List.of("title", "style", "script", "noscript")) {
            assertThat(PageBinding.offers(page, page.document().selectFirst(name)))
                    .as(name)
                    .noneMatch(o -> o.binding() == Binding.SHOW);
        }
        assertThat(PageBinding.offers(page, page.document().selectFirst("style")))
                .isEmpty();
    }

    @ParameterizedTest
    @CsvSource({
        "windows-1252,<meta charset=windows-1252>",
        "ISO-8859-2,<meta charset=iso-8859-2>",
        "windows-31j,<meta charset=shift_jis>",
        "UTF-8,<meta charset=utf-8>"
    })
    void textsOfSettingsAreWholeInWhateverEncodingThePageIs(String charset, String meta) {
        TreeMap<String, byte[]> files = new TreeMap<>();
        files.put("index.html", ("<!doctype html>" + meta + "<h1>Boats</h1>").getBytes(Charset.forName(charset)));
        Theme theme = bound(Theme.read(ThemeFiles.of(files), "T"), "h1", Binding.TEXT);
        String words = "\u00c9t\u00e9 \u2013 \u65e5\u672c \u0141\u00f3d\u017a \ud83d\udea2";
        Page page = Page.read(
                "index.html",
                ThemeBuild.build(theme, Map.of("it", Chosen.of(words))).files().get("index.html"));
        assertThat(page.document().selectFirst("h1").text()).isEqualTo(words);
    }

    /** A sheet that names no encoding is read in that of the page which links it: CSS Syntax 3, section 3.2. */
    @Test
    void generatedSheetsNameTheirEncodingWhereItMatters() {
        TreeMap<String, byte[]> files = new TreeMap<>();
        files.put(
                "index.html",
                "<meta charset=windows-1252><link rel=stylesheet href=a.css><p>x".getBytes(StandardCharsets.US_ASCII));
        files.put("a.css", "p{background:var(--ground, none)}".getBytes(StandardCharsets.US_ASCII));
        files.put("\u00e9t\u00e9.png", "GIF89a".getBytes(StandardCharsets.US_ASCII));
        files.put(
                "palette.json",
                """
        {"name":"T","places":[{"key":"p","label":"P"}],"settings":[{"key":"ground","label":"G","place":"p","kind":"picture","default":"\u00e9t\u00e9.png"}]}
        """
                        .getBytes(StandardCharsets.UTF_8));
        Theme theme = Theme.read(ThemeFiles.of(files), "T");
        assertThat(theme.palette().faults()).isEmpty();
        assertThat(ThemeBuild.settingsCss(theme))
                .startsWith("@charset \"utf-8\";\n")
                .contains("\u00e9t\u00e9.png");
        assertThat(ThemeBuild.settingsCss(Themes.of("a.css", "p{}"))).doesNotContain("@charset");
    }
}
