package org.calmpalette.core.change;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.awt.image.BufferedImage;
import java.io.ByteArrayOutputStream;
import java.io.IOException;
import java.math.BigDecimal;
import java.nio.charset.StandardCharsets;
import java.util.Map;
import java.util.Set;
import java.util.TreeMap;
import javax.imageio.ImageIO;
import org.calmpalette.core.BadInputException;
import org.calmpalette.core.color.Color;
import org.calmpalette.core.color.Tint;
import org.calmpalette.core.picture.PictureEdit;
import org.calmpalette.core.setting.Subject;
import org.calmpalette.core.theme.Limits;
import org.calmpalette.core.theme.Theme;
import org.calmpalette.core.theme.ThemeFiles;
import org.calmpalette.core.theme.Themes;
import org.junit.jupiter.api.Test;

class PictureChangeTest {
    private static byte[] png(int width, int height) throws IOException {
        ByteArrayOutputStream out = new ByteArrayOutputStream();
        ImageIO.write(new BufferedImage(width, height, BufferedImage.TYPE_INT_RGB), "png", out);
        return out.toByteArray();
    }

    private static Theme theme() throws IOException {
        TreeMap<String, byte[]> files = new TreeMap<>();
        files.put(
                "index.html",
                "<link rel=stylesheet href=a.css><img src=\"pics/a.png\"><p data-setting-src=x>"
                        .getBytes(StandardCharsets.UTF_8));
        files.put("a.css", ".x { background: url(pics/a.png) }".getBytes(StandardCharsets.UTF_8));
        files.put("pics/a.png", png(30, 20));
        files.put("pics/b.png", png(30, 20));
        files.put("pics/c.png", png(30, 20));
        files.put(
                "palette.json",
                """
        {"name":"T","places":[{"key":"p","label":"P"}],"settings":[{"key":"banner","label":"Banner","kind":"picture","place":"p","default":"pics/b.png"}]}"""
                        .getBytes(StandardCharsets.UTF_8));
        return Theme.read(ThemeFiles.of(files), "T");
    }

    @Test
    void usesAreTold() throws IOException {
        assertThat(PictureChange.uses(theme()).get("pics/a.png"))
                .containsExactlyInAnyOrder("index.html, line 1", "a.css, line 1");
        assertThat(PictureChange.uses(theme()).get("pics/b.png")).containsExactly("the setting “Banner”");
        assertThat(PictureChange.uses(theme()).get("pics/c.png")).isEmpty();
    }

    @Test
    void whatIsMarkedIsMarkedWhereItIsAfterACut() throws IOException {
        Theme theme = theme();
        theme = Change.of("m")
                .withPalette(
                        theme,
                        theme.palette()
                                .withSubject(new Subject(
                                        "pics/a.png",
                                        "the ferry",
                                        new BigDecimal("60"),
                                        new BigDecimal("20"),
                                        new BigDecimal("20"),
                                        new BigDecimal("50"))))
                .applied(theme);
        // 30 by 20, cut to a square of 20 around 21 px: from 10 to 30.
        Theme after = PictureChange.edited(theme, "pics/a.png", new PictureEdit.Fitted(10, 10, 0.7, 0.45))
                .applied(theme);
        Subject s = after.palette().subject("pics/a.png").orElseThrow();
        assertThat(s.left()).isEqualByComparingTo("40");
        assertThat(s.width()).isEqualByComparingTo("30");
        assertThat(s.top()).isEqualByComparingTo("20");
        assertThat(s.height()).isEqualByComparingTo("50");
        Theme without = PictureChange.edited(theme, "pics/a.png", new PictureEdit.Fitted(5, 20, 0, 0.5))
                .applied(theme);
        assertThat(without.palette().subject("pics/a.png")).isEmpty();
    }

    @Test
    void aThemeIsRecolouredAsAWhole() {
        Theme theme = Themes.of(
                "a.css",
                "a{color:#336699;border-color:#777} b{color:rgba(51,102,153,.5)} i{color:var(--brand, #336699)}",
                "palette.json",
                """
                {"name":"T","places":[{"key":"p","label":"P"}],"settings":[
                 {"key":"brand","label":"Brand","kind":"color","place":"p","default":"#336699","allowed":{"swatches":["#336699","#ffffff"]}},
                 {"key":"soft","label":"Soft","kind":"color","place":"p","default":{"follows":"brand","opacity":50}}]}""");
        Tint tint = new Tint(Tint.Way.OVER, Color.parse("#ff0000").orElseThrow(), Color.WHITE, 50);
        assertThat(Recolored.written(theme)).isEqualTo(2);
        Change change = Recolored.of(theme, tint, Map.of(), Set.of("brand"), true);
        assertThat(change.note()).isEqualTo("Recoloured 1 setting, 2 written colours: 50% of #ff0000 over it");
        Theme after = change.applied(theme);
        assertThat(Themes.text(after.files(), "a.css"))
                .isEqualTo("a{color:#99334d;border-color:#777} b{color:#99334d80} i{color:var(--brand, #336699)}");
        assertThat(Themes.text(after.files(), "palette.json")).contains("\"#99334d\"", "\"#ffffff\"");
        assertThatThrownBy(() -> Recolored.of(theme, tint, Map.of(), Set.of("soft"), false))
                .hasMessageContaining("no colour of its own");
        assertThatThrownBy(() -> Recolored.of(theme, tint, Map.of(), Set.of(), false))
                .hasMessageContaining("Nothing was chosen");
    }

    @Test
    void anotherPictureOfTheSameFormatTakesItsPlace() throws IOException {
        Theme theme = theme();
        byte[] other = png(60, 50);
        Change change = PictureChange.replaced(theme, "pics/a.png", "new one.PNG", other);
        assertThat(change.files(theme)).containsOnlyKeys("pics/a.png");
        assertThat(change.note()).isEqualTo("Replaced pics/a.png by a picture of 60 by 50 px");
        assertThatThrownBy(() -> PictureChange.replaced(theme, "pics/a.png", "new.jpg", other))
                .hasMessage("“new.jpg” is not a png file, and pics/a.png is one.");
        assertThatThrownBy(() -> PictureChange.replaced(theme, "pics/a.png", "new.png", new byte[9]))
                .hasMessageContaining("cannot be read as a picture");
        assertThatThrownBy(() -> PictureChange.replaced(theme, "pics/z.png", "new.png", other))
                .hasMessage("There is no picture pics/z.png in the theme any more.");
    }

    @Test
    void severalAreWrittenAnewInOneChange() throws IOException {
        Theme theme = theme();
        Change change = PictureChange.lighter(theme, Map.of("pics/a.png", new byte[40], "pics/b.png", new byte[50]));
        assertThat(change.files(theme)).containsOnlyKeys("pics/a.png", "pics/b.png");
        assertThat(change.files(theme).get("pics/b.png")).hasSize(50);
        assertThat(change.note()).startsWith("Made 2 pictures lighter: 0 kB instead of ");
        assertThatThrownBy(() -> PictureChange.lighter(theme, Map.of()))
                .isInstanceOf(BadInputException.class)
                .hasMessage("No picture was chosen.");
        assertThatThrownBy(() -> PictureChange.lighter(theme, Map.of("pics/z.png", new byte[1])))
                .hasMessage("There is no picture pics/z.png in the theme any more.");
    }

    @Test
    void aNewOneComesWhereTheOthersAre() throws IOException {
        Theme theme = theme();
        assertThat(PictureChange.added(theme, "C:\\fakepath\\Dusk 2.png", png(9, 9))
                        .files(theme))
                .containsOnlyKeys("pics/Dusk 2.png");
        assertThatThrownBy(() -> PictureChange.added(theme, "A.PNG", png(9, 9)))
                .as("one that differs in case would be lost on some disks")
                .hasMessage("There is a file pics/A.PNG already.");
        for (String name : new String[] {"x.exe", "..png", "../../x", "a:b.png", ".png", "x.html"}) {
            assertThatThrownBy(() -> PictureChange.added(theme, name, png(9, 9)))
                    .as(name)
                    .hasMessageContaining("is no name of a picture for a page");
        }
    }

    @Test
    void whatDoesNotGetLighterIsRefused() throws IOException {
        Theme theme = theme();
        assertThatThrownBy(() -> PictureChange.lighter(theme, "pics/a.png", 3000, 80))
                .hasMessageContaining("does not get lighter so");
        assertThat(PictureChange.lighter(theme, "pics/a.png", 5, 80).files(theme))
                .containsOnlyKeys("pics/a.png");
    }

    @Test
    void onlyWhatNothingUsesGoes() throws IOException {
        Theme theme = theme();
        Change change = PictureChange.removed(theme, "pics/c.png");
        assertThat(change.applied(theme).files().paths())
                .contains("pics/a.png", "pics/b.png")
                .doesNotContain("pics/c.png");
        assertThat(change.applied(theme).files().has("pics/c.png")).isFalse();
        assertThat(Difference.of(theme, change)).extracting(Difference::file).containsExactly("pics/c.png");
        assertThat(change.isEmpty()).isFalse();
        assertThatThrownBy(() -> PictureChange.removed(theme, "pics/a.png"))
                .hasMessageContaining("pics/a.png is used: ")
                .hasMessageContaining("a.css, line 1");
        assertThatThrownBy(() -> PictureChange.removed(theme, "pics/b.png"))
                .hasMessage("pics/b.png is used: the setting “Banner”.");
    }

    @Test
    void aThemeTakesAsManyFilesAsItMayHave() throws IOException {
        TreeMap<String, byte[]> files = new TreeMap<>();
        for (int i = 0; i < Limits.FILES; i++) {
            files.put("t" + i + ".txt", new byte[0]);
        }
        byte[] one = png(3, 3);
        assertThatThrownBy(() -> PictureChange.added(Theme.read(ThemeFiles.of(files), "T"), "a.png", one))
                .hasMessage("The theme holds 2000 files, as many as a theme may have.");
        files.remove("t7.txt");
        assertThat(PictureChange.added(Theme.read(ThemeFiles.of(files), "T"), "a.png", one)
                        .written())
                .containsOnlyKeys("img/a.png");
    }
}
