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
import org.calmpalette.core.output.ThemeBuild;
import org.calmpalette.core.picture.PictureEdit;
import org.calmpalette.core.picture.PictureSize;
import org.calmpalette.core.setting.Chosen;
import org.calmpalette.core.setting.ColorKind;
import org.calmpalette.core.setting.Palette;
import org.calmpalette.core.setting.Setting;
import org.calmpalette.core.setting.Subject;
import org.calmpalette.core.setting.Value;
import org.calmpalette.core.theme.Limits;
import org.calmpalette.core.theme.Theme;
import org.calmpalette.core.theme.ThemeFiles;
import org.calmpalette.core.theme.Themes;
import org.calmpalette.core.usage.AbsentPicture;
import org.junit.jupiter.api.Test;

class PictureChangeTest {
    private static byte[] png(int width, int height) throws IOException {
        ByteArrayOutputStream out = new ByteArrayOutputStream();
        ImageIO.write(new BufferedImage(width, height, BufferedImage.TYPE_INT_RGB), "png", out);
        return out.toByteArray();
    }

    /** A picture that a lossy format makes lighter. */
    private static byte[] hills(int width, int height) throws IOException {
        BufferedImage image = new BufferedImage(width, height, BufferedImage.TYPE_INT_RGB);
        for (int i = 0; i < width * height; i++) {
            int shade = (int) (90 + 60.0 * i / (width * height) + 8 * Math.sin(i * 0.7));
            image.setRGB(i % width, i / width, shade << 16 | shade << 8 | 150);
        }
        ByteArrayOutputStream out = new ByteArrayOutputStream();
        ImageIO.write(image, "png", out);
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
    void coloursInAttributesOfPagesTurnWithAllElse() {
        String page =
                """
                <!DOCTYPE html><meta name="theme-color" content="#336699"><title>Old</title>
                <body BGCOLOR=#336699 text=black LINK='#369'>
                <p><font color="steelblue">River</font> <b color="#336699">no colour</b>
                <svg width="9"><path fill="rgb(51, 102, 153)" stroke="none" color="currentColor"/><g fill=#369></g></svg>
                <table bgcolor="&#35;336699"><tr><td bgcolor="">""";
        Theme theme = Themes.of("index.html", page);
        Tint tint = new Tint(Tint.Way.OVER, Color.parse("#ff0000").orElseThrow(), Color.WHITE, 50);
        assertThat(Recolored.written(theme)).isEqualTo(7);
        assertThat(Recolored.staying(theme)).containsExactly("1 grey of the theme's files: greys carry texts.");
        Change change = Recolored.of(theme, tint, Map.of(), Set.of(), true);
        assertThat(Themes.text(change.applied(theme).files(), "index.html"))
                .as("nothing but the colours differs")
                .isEqualTo(page.replace("content=\"#336699\"", "content=\"#99334d\"")
                        .replace("BGCOLOR=#336699", "BGCOLOR=#99334d")
                        .replace("'#369'", "'#99334d'")
                        .replace("\"steelblue\"", "\"#a3415a\"")
                        .replace("rgb(51, 102, 153)", "#99334d")
                        .replace("fill=#369", "fill=#99334d")
                        .replace("&#35;336699", "#99334d"));
        assertThatThrownBy(() -> Recolored.of(theme, tint, Map.of(), Set.of(), false))
                .hasMessage("Nothing was chosen.");
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

    /** Each kind that holds colours, in all bands, with what may be chosen and what schemes choose. */
    @Test
    void allThatCarriesAColourTurnsTogether() {
        Theme theme = Themes.of(
                "a.css",
                "a{color:#336699}",
                "palette.json",
                """
                {"name":"T","places":[{"key":"p","label":"P"}],"settings":[
                 {"key":"back","label":"Back","kind":"background","place":"p","default":{"color":"#336699","picture":"","repeat":"no-repeat",
                  "position":"center center","size":"cover","attachment":"scroll","overlay":"#336699","strength":20},
                  "allowed":{"color":{"swatches":["#336699","#ffffff"]},"fixed":{"overlay":"#336699"}},
                  "bands":{"phone":{"color":"#ffffff","picture":"","repeat":"no-repeat","position":"center center","size":"cover","attachment":"scroll","overlay":"#336699","strength":20}}},
                 {"key":"edge","label":"Edge","kind":"border","place":"p","default":{"width":{"value":1,"unit":"px"},"style":"solid","color":"#336699"}},
                 {"key":"no-edge","label":"No edge","kind":"border","place":"p","default":"none","allowed":{"none":true}},
                 {"key":"shade","label":"Shade","kind":"shadow","place":"p","default":{"x":{"value":0,"unit":"px"},"y":{"value":1,"unit":"px"},"blur":{"value":2,"unit":"px"},"spread":{"value":0,"unit":"px"},"color":"#33669980","inside":false}},
                 {"key":"sky","label":"Sky","kind":"gradient","place":"p","default":{"shape":"linear","angle":180,"stops":[{"color":"#336699","at":0},{"color":"#ffffff","at":100}]}},
                 {"key":"grey","label":"Grey","kind":"color","place":"p","default":"#777777","allowed":{"swatches":["#777777","#336699","#eeeeee"]}}],
                 "schemes":[{"key":"s","label":"S","values":{"grey":"#336699","edge":{"width":{"value":2,"unit":"px"},"style":"solid","color":"#336699"}}}]}""");
        Tint tint = new Tint(Tint.Way.OVER, Color.parse("#ff0000").orElseThrow(), Color.WHITE, 50);
        Set<String> keys = Set.of("back", "edge", "shade", "sky", "grey");
        assertThat(theme.palette().settings().stream().filter(Recolored::takes).map(Setting::key))
                .containsExactlyInAnyOrderElementsOf(keys);
        Theme after = Recolored.of(theme, tint, Map.of(), keys, true).applied(theme);
        String json = Themes.text(after.files(), "palette.json");
        assertThat(json).doesNotContain("#336699").doesNotContain("#777777").contains("#99334d", "#99334d80");
        Palette palette = after.palette();
        // A white that is a default goes along, one that may be chosen stays, and what is chosen is among what may be.
        assertThat(((Value.Parts) palette.known("back").bands().get("phone").value()).text("color"))
                .isEqualTo("#ff8080");
        assertThat(((ColorKind) palette.known("grey").kind()).swatches())
                .containsExactly("#bb3c3c", "#99334d", "#eeeeee");
        assertThat(palette.schemes().get(0).values().get("grey")).isEqualTo(Chosen.of("#99334d"));
        assertThat(ThemeBuild.defaults(after).problems()).isEmpty();
        // As a scheme all of it as well, and the theme as it is.
        Theme scheme = Recolored.scheme(theme, tint, Map.of(), keys, "Red").applied(theme);
        assertThat(scheme.palette().known("back").given())
                .isEqualTo(theme.palette().known("back").given());
        assertThat(scheme.palette().schemes().get(1).values().keySet())
                .as("a list of colours in a part does not grow with a scheme")
                .containsExactlyInAnyOrder("edge", "shade", "sky", "grey");
        assertThat(ThemeBuild.chosen(scheme, scheme.palette().schemes().get(1).values())
                        .leftOut())
                .isEmpty();
    }

    @Test
    void whatALimitForbidsStaysWithWhatItHasToStandOutFromAndIsNamed() {
        Theme theme = Themes.of(
                "a.css",
                "a{color:#336699}",
                "vendor/b.css",
                "b{color:#993366;border-color:#884422} i{color:#777}",
                "palette.json",
                """
                {"name":"T","places":[{"key":"p","label":"P"}],"settings":[
                 {"key":"ink","label":"Ink","kind":"color","place":"p","default":"#113355","allowed":{"contrast":[{"with":"paper","atLeast":9}]}},
                 {"key":"paper","label":"Paper","kind":"color","place":"p","default":"#eef4ff"},
                 {"key":"hue","label":"Hue","kind":"color","place":"p","default":"#336699","allowed":{"bounds":{"hue":[230,270]}}},
                 {"key":"base","label":"Base","kind":"color","place":"p","default":"#336699"},
                 {"key":"shade","label":"Shade","kind":"color","place":"p","default":{"follows":"base"},"allowed":{"bounds":{"hue":[230,270]}}},
                 {"key":"free","label":"Free","kind":"color","place":"p","default":"#336699"}]}""");
        Tint tint = new Tint(Tint.Way.OVER, Color.parse("#ff0000").orElseThrow(), Color.WHITE, 50);
        Set<String> keys = Set.of("ink", "paper", "hue", "base", "free");
        Recolored.Turned turned = Recolored.turned(theme, tint, keys);
        assertThat(turned.keys()).containsExactly("free");
        assertThat(turned.stays()).containsOnlyKeys("ink", "paper", "hue", "base");
        assertThat(turned.stays().get("hue")).contains("“Hue”").contains("hue");
        Change change = Recolored.of(theme, tint, Map.of(), keys, true);
        assertThat(change.note())
                .contains("Recoloured 1 setting, 1 written colour")
                .contains("as before: ", "Ink", "Paper", "Hue");
        assertThat(Themes.text(change.applied(theme).files(), "vendor/b.css")).contains("#993366");
        assertThat(Recolored.staying(theme))
                .containsExactly(
                        "1 grey of the theme's files: greys carry texts.",
                        "2 colours in vendor/b.css, since "
                                + SheetRole.of(theme).get("vendor/b.css").because()
                                + ": an edit there would not last.");
        assertThatThrownBy(() -> Recolored.of(theme, tint, Map.of(), Set.of("hue"), false))
                .hasMessageContaining("“Hue”: the default");
    }

    @Test
    void otherColoursAreKeptAsASchemeBesideWhatIsThere() throws IOException {
        TreeMap<String, byte[]> files = new TreeMap<>();
        files.put("a.css", "i{color:var(--brand, #336699)}".getBytes(StandardCharsets.UTF_8));
        files.put("pics/a.png", png(30, 20));
        files.put("pics/b.png", png(30, 20));
        files.put("pics/a-at-dusk.png", png(3, 2));
        files.put(
                "palette.json",
                """
                {"name":"T","places":[{"key":"p","label":"P"}],"settings":[
                 {"key":"brand","label":"Brand","kind":"color","place":"p","default":"#336699","allowed":{"swatches":["#336699","#ffffff"]}},
                 {"key":"ink","label":"Ink","kind":"color","place":"p","default":"#336699"},
                 {"key":"banner","label":"Banner","kind":"picture","place":"p","default":"pics/a.png"}]}"""
                        .getBytes(StandardCharsets.UTF_8));
        Theme theme = Theme.read(ThemeFiles.of(files), "T");
        Tint tint = new Tint(Tint.Way.OVER, Color.parse("#ff0000").orElseThrow(), Color.WHITE, 50);
        Map<String, byte[]> pictures = Map.of("pics/a.png", png(31, 20), "pics/b.png", png(32, 20));
        Change change = Recolored.scheme(theme, tint, pictures, Set.of("brand"), " At dusk ");
        assertThat(change.note())
                .isEqualTo(
                        "New scheme “At dusk” of 2 settings: 50% of #ff0000 over it; 1 picture that no setting names not in it");
        Theme after = change.applied(theme);
        assertThat(after.palette().schemes().get(0).values())
                .containsOnly(
                        Map.entry("brand", Chosen.of("#99334d")),
                        Map.entry("banner", Chosen.of("pics/a-at-dusk-2.png")));
        assertThat(after.palette().known("brand").given().value()).isEqualTo(Value.of("#336699"));
        assertThat(after.files().read("pics/a.png")).isEqualTo(files.get("pics/a.png"));
        assertThat(ThemeBuild.chosen(after, after.palette().schemes().get(0).values())
                        .leftOut())
                .isEmpty();
        assertThatThrownBy(() -> Recolored.scheme(after, tint, pictures, Set.of("ink"), "at dusk"))
                .hasMessageContaining("There is a scheme “at dusk” already");
        assertThatThrownBy(() -> Recolored.scheme(theme, tint, Map.of("pics/b.png", png(3, 2)), Set.of(), "x"))
                .hasMessageContaining("nothing that was chosen is a setting's");
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
    void aPictureIsRenamedWhereverItIsNamedAndChoicesOfItGoOnCounting() throws IOException {
        TreeMap<String, byte[]> files = new TreeMap<>();
        String page = "<img src=\"../pics/a.png?v=2\" srcset=\"../pics/a.png 1x, ../pics/b.png 2x\">"
                + "<p style=\"background:url('../pics/a.png')\"><svg><image href='../pics/a.png'/></svg>";
        files.put("p/index.html", page.getBytes(StandardCharsets.UTF_8));
        files.put(
                "a.css",
                ".x{background:url(pics/a.png)} .y{background:url(\"pics/b.png\")}".getBytes(StandardCharsets.UTF_8));
        files.put("app.js", "show('a.png')".getBytes(StandardCharsets.UTF_8));
        files.put("pics/a.png", png(30, 20));
        files.put("pics/b.png", png(30, 20));
        files.put(
                "palette.json",
                """
                {"name":"T","places":[{"key":"p","label":"P"}],"settings":[
                 {"key":"banner","label":"Banner","kind":"picture","place":"p","default":"pics/b.png","bands":{"phone":"pics/a.png"}},
                 {"key":"said","label":"Said","kind":"line","place":"p","default":"pics/a.png"}],
                 "schemes":[{"key":"s","label":"S","values":{"banner":"pics/a.png"}}],
                 "pictures":[{"path":"pics/a.png","more":1,"subject":{"left":1,"top":1,"width":9,"height":9}}]}"""
                        .getBytes(StandardCharsets.UTF_8));
        Theme theme = Theme.read(ThemeFiles.of(files), "T");
        Change change = PictureChange.renamed(theme, "pics/a.png", "Quay north 1.png");
        assertThat(change.note())
                .isEqualTo(
                        "Renamed pics/a.png to pics/Quay north 1.png, in 5 places; app.js says a.png as well and was not changed");
        Theme after = change.applied(theme);
        assertThat(after.files().has("pics/a.png")).isFalse();
        assertThat(Themes.text(after.files(), "p/index.html"))
                .isEqualTo(
                        "<img src=\"../pics/Quay%20north%201.png\" srcset=\"../pics/Quay%20north%201.png 1x, ../pics/b.png 2x\">"
                                + "<p style=\"background:url('../pics/Quay%20north%201.png')\"><svg><image href='../pics/Quay%20north%201.png'/></svg>");
        assertThat(Themes.text(after.files(), "a.css"))
                .isEqualTo(".x{background:url(pics/Quay%20north%201.png)} .y{background:url(\"pics/b.png\")}");
        assertThat(after.palette().faults()).extracting(Palette.Fault::at).containsExactly("pictures[0].more");
        assertThat(after.palette().subject("pics/Quay north 1.png")).isPresent();
        assertThat(PictureChange.uses(after).get("pics/Quay north 1.png"))
                .contains("the setting “Banner”", "the scheme “S”")
                .hasSize(7);
        Map<String, Chosen> choices = Map.of(
                "banner",
                new Chosen(Value.of("pics/a.png"), Map.of("phone", Value.of("pics/b.png"))),
                "said",
                Chosen.of("pics/a.png"));
        assertThat(after.palette().carried(choices).get("banner"))
                .isEqualTo(new Chosen(Value.of("pics/Quay north 1.png"), Map.of("phone", Value.of("pics/b.png"))));
        assertThat(after.palette().carried(choices).get("said")).isEqualTo(Chosen.of("pics/a.png"));
        assertThat(ThemeBuild.paletteCss(after, choices)).contains("pics/Quay%20north%201.png");
        // Twice, and back.
        Theme twice =
                PictureChange.renamed(after, "pics/Quay north 1.png", "c.png").applied(after);
        assertThat(twice.palette().moved())
                .containsOnly(Map.entry("pics/a.png", "pics/c.png"), Map.entry("pics/Quay north 1.png", "pics/c.png"));
        assertThatThrownBy(() -> PictureChange.added(twice, "a.png", png(9, 9)))
                .hasMessage("pics/c.png was called pics/a.png before, and owners may have chosen it by that name.");
        assertThatThrownBy(() -> PictureChange.renamed(twice, "pics/b.png", "a.png"))
                .hasMessageContaining("was called pics/a.png before");
        Theme back = PictureChange.renamed(twice, "pics/c.png", "a.png").applied(twice);
        assertThat(back.palette().moved())
                .containsOnly(Map.entry("pics/c.png", "pics/a.png"), Map.entry("pics/Quay north 1.png", "pics/a.png"));
        assertThat(Themes.text(back.files(), "palette.json")).contains("\"more\": 1");
    }

    @Test
    void aPictureBecomesWebpWhereverItIsNamed() throws IOException {
        byte[] bytes = hills(300, 200);
        Theme theme = Change.of("more")
                .withFile("pics/b.png", bytes)
                .withFile("pics/b.120w.png", png(12, 8))
                .withFile("a.css", ".x{background:url(pics/b.png)}".getBytes(StandardCharsets.UTF_8))
                .applied(theme());
        Change change = PictureChange.asWebp(theme, "pics/b.png", 150, 80);
        assertThat(change.note()).matches("Made pics/b.png a WebP: \\d+ kB instead of \\d+ kB, in 1 place");
        Theme after = change.applied(theme);
        assertThat(after.pictures()).contains("pics/b.webp").doesNotContain("pics/b.png");
        assertThat(after.files().has("pics/b.120w.png")).isFalse();
        assertThat(PictureSize.read(after.files().read("pics/b.webp"))).contains(new PictureSize(150, 100));
        assertThat(Themes.text(after.files(), "a.css")).isEqualTo(".x{background:url(pics/b.webp)}");
        assertThat(after.palette().carried(Map.of("banner", Chosen.of("pics/b.png"))))
                .isEqualTo(Map.of("banner", Chosen.of("pics/b.webp")));
        assertThatThrownBy(() -> PictureChange.asWebp(after, "pics/b.webp", 150, 80))
                .hasMessage("pics/b.webp is WebP already.");
        assertThatThrownBy(() -> PictureChange.asWebp(theme, "pics/b.120w.png", 150, 80))
                .isInstanceOf(BadInputException.class);
        Theme taken = Change.of("taken").withFile("pics/B.webp", bytes).applied(theme);
        assertThatThrownBy(() -> PictureChange.asWebp(taken, "pics/b.png", 150, 80))
                .hasMessageContaining("There is a file pics/b.webp already");
    }

    /** Each band shows its own part; where the bands end, none of the whole one's windows changes. */
    @Test
    void aPartIsCutForTheWindowsOfOneBand() throws IOException {
        Theme theme = Change.of("larger")
                .withFile("pics/b.png", hills(400, 200))
                .withPalette(
                        theme(),
                        theme().palette()
                                .withSubject(new Subject(
                                        "pics/b.png",
                                        "boat",
                                        new BigDecimal(75),
                                        new BigDecimal(50),
                                        new BigDecimal(20),
                                        new BigDecimal(20))))
                .applied(theme());
        String narrow = theme.palette().bands().list().get(0).key();
        Change change = PictureChange.cutFor(theme, "pics/b.png", narrow, new PictureEdit.Fitted(100, 200, 0.85, 0.6));
        Theme after = change.applied(theme);
        String part = "pics/b-" + narrow + ".png";
        assertThat(PictureSize.read(after.files().read(part))).contains(new PictureSize(100, 200));
        assertThat(after.files().read("pics/b.png")).isEqualTo(theme.files().read("pics/b.png"));
        assertThat(after.palette().subject("pics/b.png"))
                .isEqualTo(theme.palette().subject("pics/b.png"));
        // By hand: the cut is 290 to 390 of 400 px, the boat is 300 to 380.
        assertThat(after.palette().subject(part).orElseThrow().left()).isEqualByComparingTo("10");
        assertThat(after.palette().subject(part).orElseThrow().width()).isEqualByComparingTo("80");
        String css = ThemeBuild.settingsCss(after);
        int media = css.indexOf("@media (width <");
        assertThat(css.indexOf(part)).isGreaterThan(media);
        assertThat(css.substring(0, media)).contains("url(\"pics/b.png\")").doesNotContain(part);
        assertThat(PictureChange.uses(after).get(part)).containsExactly("the setting “Banner”");
        // Once more: the whole one is not what the band shows any more.
        assertThatThrownBy(() ->
                        PictureChange.cutFor(after, "pics/b.png", narrow, new PictureEdit.Fitted(50, 50, 0.5, 0.5)))
                .hasMessageStartingWith("No setting has pics/b.png in windows of");
        String widest = theme.palette().bands().widest().key();
        assertThatThrownBy(() ->
                        PictureChange.cutFor(theme, "pics/b.png", widest, new PictureEdit.Fitted(50, 50, 0.5, 0.5)))
                .hasMessageContaining("is no band that a picture is cut for");
        assertThatThrownBy(() ->
                        PictureChange.cutFor(theme, "pics/b.png", narrow, new PictureEdit.Fitted(900, 50, 0.5, 0.5)))
                .hasMessageContaining("larger than it is");
    }

    @Test
    void aNameThatCannotBeIsRefused() throws IOException {
        Theme theme = theme();
        for (String[] bad : new String[][] {
            {"a.jpg", "another ending"},
            {"b.png", "There is a file pics/b.png already"},
            {"a.png", "That is the name it has"},
            {"x/../y:z.png", "no name of a picture"}
        }) {
            assertThatThrownBy(() -> PictureChange.renamed(theme, "pics/a.png", bad[0]))
                    .as(bad[0])
                    .hasMessageContaining(bad[1]);
        }
        assertThat(PictureChange.renamed(theme, "pics/a.png", "A.png")
                        .applied(theme)
                        .files()
                        .paths())
                .contains("pics/A.png")
                .doesNotContain("pics/a.png");
    }

    @Test
    void aMissingPictureIsBroughtToWhereItIsNamedAndOneOfAnotherHostIsNamedHere() throws IOException {
        TreeMap<String, byte[]> files = new TreeMap<>();
        files.put(
                "index.html",
                "<img src=art/gone.png><img src='//pics.example/x.png?w=2#f'><img src=#top><img src=data:,x><a style='background:url(../../out.png)'>"
                        .getBytes(StandardCharsets.UTF_8));
        files.put(
                "css/a.css",
                "a{background:url(../art/gone.png)} b{background:url(//pics.example/x.png?w=2#f)} i{mask:url(pic.svg#m)}"
                        .getBytes(StandardCharsets.UTF_8));
        Theme theme = Theme.read(ThemeFiles.of(files), "T");
        assertThat(AbsentPicture.of(theme))
                .extracting(AbsentPicture::key)
                .containsExactlyInAnyOrder(
                        "art/gone.png", "//pics.example/x.png?w=2#f", "css/pic.svg", "../../out.png");
        byte[] bytes = png(9, 9);
        Change there = PictureChange.brought(theme, "art/gone.png", "other.png", bytes);
        assertThat(there.files(theme)).containsOnlyKeys("art/gone.png");
        Theme otherFormat =
                PictureChange.brought(theme, "art/gone.png", "quay.gif", bytes).applied(theme);
        assertThat(Themes.text(otherFormat.files(), "css/a.css")).contains("url(../img/quay.gif)");
        Theme here = PictureChange.brought(theme, "//pics.example/x.png?w=2#f", "x.png", bytes)
                .applied(theme);
        assertThat(Themes.text(here.files(), "index.html")).contains("<img src='img/x.png'>", "art/gone.png");
        assertThat(Themes.text(here.files(), "css/a.css")).contains("b{background:url(../img/x.png)}");
        assertThat(AbsentPicture.of(here)).extracting(AbsentPicture::key).doesNotContain("//pics.example/x.png?w=2#f");
        byte[] svg = "<svg xmlns='http://www.w3.org/2000/svg' width='9' height='9'/>".getBytes(StandardCharsets.UTF_8);
        Theme out = PictureChange.brought(theme, "../../out.png", "m.svg", svg).applied(theme);
        assertThat(Themes.text(out.files(), "index.html")).contains("url(img/m.svg)");
        assertThatThrownBy(() -> PictureChange.brought(here, "//pics.example/x.png?w=2#f", "x.png", bytes))
                .hasMessageContaining("is not missing any more");
        assertThatThrownBy(() -> PictureChange.brought(theme, "art/gone.png", "gone.png", new byte[5]))
                .hasMessageContaining("cannot be read as a picture");
    }

    private static byte[] noisy(int width, int height) throws IOException {
        BufferedImage image = new BufferedImage(width, height, BufferedImage.TYPE_INT_RGB);
        for (int i = 0; i < width * height; i++) {
            image.setRGB(i % width, i / width, i * 7919);
        }
        ByteArrayOutputStream out = new ByteArrayOutputStream();
        ImageIO.write(image, "jpg", out);
        return out.toByteArray();
    }

    @Test
    void narrowerCopiesLieBesideAPictureAndPagesNameThem() throws IOException {
        TreeMap<String, byte[]> files = new TreeMap<>();
        String page =
                "<!doctype html><html><head></head><body><img src='../pics/a,b.jpg' alt=''><img src=../pics/a,b.jpg srcset='x 2x'>"
                        + "<picture><img src='../pics/a,b.jpg'></picture><img src=../pics/small.jpg><img data-setting-src=view src=../pics/small.jpg></body></html>";
        files.put("p/index.html", page.getBytes(StandardCharsets.UTF_8));
        files.put("pics/a,b.jpg", noisy(1000, 500));
        files.put("pics/small.jpg", noisy(300, 200));
        files.put(
                "palette.json",
                """
                {"name":"T","places":[{"key":"p","label":"P"}],"settings":[{"key":"view","label":"View","kind":"picture","place":"p","default":"pics/small.jpg"}]}"""
                        .getBytes(StandardCharsets.UTF_8));
        Theme theme = Theme.read(ThemeFiles.of(files), "T");
        Change change = PictureChange.copied(theme, "pics/a,b.jpg");
        assertThat(change.note()).isEqualTo("Made narrower copies of pics/a,b.jpg: 480, 800 px");
        Theme with = change.applied(theme);
        assertThat(with.pictures()).containsExactly("pics/a,b.jpg", "pics/small.jpg");
        assertThat(with.media().copies("pics/a,b.jpg")).containsOnlyKeys(480, 800);
        assertThat(PictureSize.read(with.files().read("pics/a,b.480w.jpg"))).contains(new PictureSize(480, 240));
        String built = new String(
                ThemeBuild.build(with, Map.of("view", Chosen.of("pics/a,b.jpg")))
                        .files()
                        .get("p/index.html"),
                StandardCharsets.UTF_8);
        String candidates =
                "srcset=\"../pics/a%2Cb.480w.jpg 480w, ../pics/a%2Cb.800w.jpg 800w, ../pics/a%2Cb.jpg 1000w\" sizes=\"(max-width: 1000px) 100vw, 1000px\"";
        assertThat(built)
                .contains(
                        "<img " + candidates + " src='../pics/a,b.jpg' alt=''>",
                        "srcset='x 2x'>",
                        "<picture><img src='../pics/a,b.jpg'></picture>")
                .contains("<img src=../pics/small.jpg><img " + candidates
                        + " data-setting-src=view src=\"../pics/a,b.jpg\">");
        // They are of the picture as it is, and go where it goes.
        Theme moved = PictureChange.renamed(with, "pics/a,b.jpg", "c.jpg").applied(with);
        assertThat(moved.media().copies("pics/c.jpg")).containsOnlyKeys(480, 800);
        assertThat(moved.files().paths()).noneMatch(p -> p.contains("a,b"));
        Theme other = PictureChange.replaced(moved, "pics/c.jpg", "n.jpg", noisy(900, 400))
                .applied(moved);
        assertThat(other.media().copies("pics/c.jpg")).isEmpty();
        assertThatThrownBy(() -> PictureChange.copied(theme, "pics/small.jpg")).hasMessageContaining("300 px wide");
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
