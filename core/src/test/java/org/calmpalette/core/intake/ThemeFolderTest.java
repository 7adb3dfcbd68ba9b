package org.calmpalette.core.intake;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.io.ByteArrayOutputStream;
import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.Map;
import org.calmpalette.core.BadInputException;
import org.calmpalette.core.output.Handover;
import org.calmpalette.core.setting.Chosen;
import org.calmpalette.core.setting.PaletteJson;
import org.calmpalette.core.setting.Specimens;
import org.calmpalette.core.theme.Theme;
import org.calmpalette.core.theme.ThemeFiles;
import org.calmpalette.core.theme.Themes;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;

/** Themes from the disk, and as they are handed over. */
class ThemeFolderTest {
    @TempDir
    Path folder;

    private Path write(String path, String text) throws IOException {
        Path file = folder.resolve(path);
        Files.createDirectories(file.getParent());
        return Files.writeString(file, text);
    }

    @Test
    void foldersStylesheetsAndZips() throws IOException {
        write("mine/index.html", "<p>x");
        Path css = write("mine/css/a.css", "p{color:red}");
        Theme theme = ThemeFolder.read(folder.resolve("mine"));
        assertThat(theme.files().paths()).containsExactly("css/a.css", "index.html");
        assertThat(theme.palette().name()).isEqualTo("mine");
        assertThat(ThemeFolder.read(css).files().paths()).containsExactly("a.css");
        ByteArrayOutputStream zip = new ByteArrayOutputStream();
        ThemeZip.write(theme.files(), zip);
        Path packed = Files.write(folder.resolve("packed.zip"), zip.toByteArray());
        assertThat(ThemeFolder.read(packed).files().paths()).containsExactly("css/a.css", "index.html");
        assertThat(ThemeFolder.read(packed).palette().name()).isEqualTo("packed");
        assertThatThrownBy(() -> ThemeFolder.read(folder.resolve("gone")))
                .isInstanceOf(BadInputException.class)
                .hasMessageContaining("no file or folder")
                .hasMessageContaining("gone");
    }

    @Test
    void theHandoverSaysHowToGoOnWithoutUs() {
        Theme plain = Themes.of("index.html", "<p>x", "README.txt", "mine");
        ThemeFiles handed = Handover.files(plain, null);
        assertThat(Themes.text(handed, "README.txt"))
                .as("the maker's own stays")
                .isEqualTo("mine");
        assertThat(Themes.text(handed, "README-settings.txt")).contains("This theme has no settings yet.");
        Theme full = Themes.of(
                "index.html",
                "<p>x",
                "palette.json",
                new String(PaletteJson.write(Specimens.palette(), null), StandardCharsets.UTF_8),
                "img/a.png",
                "",
                "img/b.png",
                "",
                "film/a.mp4",
                "");
        String readme = Themes.text(Handover.files(full, Map.of("ink", Chosen.of("#000080"))), "README.txt");
        assertThat(readme)
                .contains(":root {\n  --ink: #202020;\n")
                .contains("--ink\n  Label of ink (")
                .contains("default #202020; phone #303030, allowed:")
                .contains("--ground");
        assertThat(Themes.text(Handover.files(full, Map.of("ink", Chosen.of("#000080"))), "palette.css"))
                .contains("#000080");
    }
}
