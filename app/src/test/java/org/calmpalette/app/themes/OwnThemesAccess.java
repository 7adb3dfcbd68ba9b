package org.calmpalette.app.themes;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.Map;
import java.util.TreeMap;
import org.calmpalette.core.intake.ThemeZip;

/** The files of our own themes, for tests that need no running application. */
public final class OwnThemesAccess {
    private OwnThemesAccess() {}

    public static Map<String, byte[]> files(String theme) throws IOException {
        Path zip = Files.createTempFile("own", ".zip");
        Files.write(zip, OwnThemes.zip(theme));
        Map<String, byte[]> files = new TreeMap<>();
        ThemeZip.read(zip, "own.zip", files::put, (d, t, p) -> {});
        Files.delete(zip);
        return files;
    }
}
