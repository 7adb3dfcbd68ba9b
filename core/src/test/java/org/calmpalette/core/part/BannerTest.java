package org.calmpalette.core.part;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.awt.image.BufferedImage;
import java.io.ByteArrayOutputStream;
import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.util.Map;
import java.util.TreeMap;
import javax.imageio.ImageIO;
import org.calmpalette.core.change.SheetRole;
import org.calmpalette.core.output.ThemeBuild;
import org.calmpalette.core.page.Page;
import org.calmpalette.core.render.Rendered;
import org.calmpalette.core.setting.Chosen;
import org.calmpalette.core.setting.PictureKind;
import org.calmpalette.core.setting.Place;
import org.calmpalette.core.setting.Setting;
import org.calmpalette.core.setting.Value;
import org.calmpalette.core.survey.Finding;
import org.calmpalette.core.survey.Survey;
import org.calmpalette.core.theme.Theme;
import org.calmpalette.core.theme.ThemeFiles;
import org.calmpalette.core.theme.Themes;
import org.junit.jupiter.api.Test;

/** A picture in place of a title: the words stay, as its alternative text. */
class BannerTest {
    private static final String CSS =
            ".title a { text-indent: -9999px; background: #fff url(\"pics/banner.png\") no-repeat; height: 120px !important; /* kept */ }\n";

    private static Theme theme(String css, String title) throws IOException {
        TreeMap<String, byte[]> files = new TreeMap<>();
        String page =
                "<!doctype html><html><head><link rel=stylesheet href=%sa.css></head><body><header>%s</header></body></html>";
        files.put("index.html", page.formatted("", title).getBytes(StandardCharsets.UTF_8));
        files.put("more/two.html", page.formatted("../", title).getBytes(StandardCharsets.UTF_8));
        files.put("a.css", css.getBytes(StandardCharsets.UTF_8));
        for (int width : new int[] {600, 900}) {
            ByteArrayOutputStream out = new ByteArrayOutputStream();
            ImageIO.write(new BufferedImage(width, 150, BufferedImage.TYPE_INT_RGB), "png", out);
            files.put(width == 600 ? "pics/banner.png" : "pics/wide.png", out.toByteArray());
        }
        return Theme.read(ThemeFiles.of(files), "T");
    }

    private static final String TITLE = "<h1 class=title><a href=\"/\">Ferries &amp; <br>Boats</a></h1>";

    @Test
    void theWordsBecomeTheAlternativeTextOnAllPagesAndWhatPushedThemIsUndone() throws IOException {
        Theme theme = theme(CSS, TITLE);
        Rendered rendered = new Rendered(theme);
        Page page = theme.pages().get(0);
        Banner banner = new Banner(rendered, SheetRole.of(theme));
        assertThat(banner.behind(page, page.document().selectFirst("h1"))).contains("pics/banner.png");
        Setting setting = Setting.of("banner", "Banner", "", "head", PictureKind.ANY, Value.of("pics/banner.png"));
        Theme after = banner.of(
                        page,
                        page.document().selectFirst("h1"),
                        "pics/banner.png",
                        setting,
                        new Place("head", "Head"),
                        true)
                .applied(theme);
        assertThat(Themes.text(after.files(), "index.html"))
                .contains(
                        "<h1 class=title><a href=\"/\"><img src=\"pics/banner.png\" alt=\"Ferries &amp; Boats\" width=\"600\" height=\"150\" data-setting-src=\"banner\"></a></h1>");
        assertThat(Themes.text(after.files(), "more/two.html")).contains("<img src=\"../pics/banner.png\" alt=");
        assertThat(Themes.text(after.files(), "a.css"))
                .startsWith(
                        ".title a { text-indent: 0; background: #fff none no-repeat; height: auto !important; /* kept */ }\n")
                .contains("> img {\n  display: block;\n  width: auto;\n  max-width: 100%;\n  height: auto;\n}");
        // An owner's picture of another shape gets the room of its shape.
        assertThat(new String(
                        ThemeBuild.build(after, Map.of("banner", Chosen.of("pics/wide.png")))
                                .files()
                                .get("index.html"),
                        StandardCharsets.UTF_8))
                .contains("src=\"pics/wide.png\" alt=\"Ferries &amp; Boats\" width=\"600\" height=\"100\"");
    }

    @Test
    void whatFilledTheWordsFillsTheAlternativeText() throws IOException {
        Theme theme = theme("", "<p id=t data-setting-text=name>Boats</p>");
        Page page = theme.pages().get(0);
        Theme after = new Banner(new Rendered(theme), SheetRole.of(theme))
                .of(page, page.document().selectFirst("p"), "pics/banner.png", null, null, false)
                .applied(theme);
        assertThat(Themes.text(after.files(), "index.html"))
                .contains(
                        "<p id=t><img src=\"pics/banner.png\" alt=\"Boats\" width=\"600\" height=\"150\" data-setting-alt=\"name\"></p>");
        assertThat(Themes.text(after.files(), "more/two.html")).contains("<p id=t data-setting-text=name>Boats</p>");
    }

    @Test
    void aFindingOffersIt() throws IOException {
        Theme theme = theme(CSS, TITLE);
        Finding pushed = Survey.of(theme).findings().stream()
                .filter(f -> f.kind() == Finding.Kind.PUSHED_TEXT)
                .findFirst()
                .orElseThrow();
        assertThat(pushed.mend()).startsWith("Put pics/banner.png itself in its place");
        Theme after = pushed.fix().get().applied(theme);
        assertThat(after.pages().get(1).document().select("img[alt='Ferries & Boats']"))
                .hasSize(1);
        assertThat(Survey.of(after).findings()).extracting(Finding::kind).doesNotContain(Finding.Kind.PUSHED_TEXT);
    }

    @Test
    void aPartWithMoreThanOneTextIsNoTitle() throws IOException {
        Theme theme = theme("", "<div id=t><b>A</b> and <i>B</i></div>");
        Page page = theme.pages().get(0);
        Banner banner = new Banner(new Rendered(theme), SheetRole.of(theme));
        assertThatThrownBy(
                        () -> banner.of(page, page.document().selectFirst("#t"), "pics/banner.png", null, null, false))
                .hasMessageContaining("index.html, line 1");
        assertThatThrownBy(() -> banner.of(page, page.document().selectFirst("b"), "pics/none.png", null, null, false))
                .hasMessageContaining("no picture of the theme");
    }
}
