package org.calmpalette.core.theme;

import java.nio.charset.StandardCharsets;
import java.util.TreeMap;

/** Small themes for tests: path, text, path, text … */
public final class Themes {
    private Themes() {}

    public static Theme of(String... pathsAndTexts) {
        return Theme.read(files(pathsAndTexts), "Test");
    }

    public static ThemeFiles files(String... pathsAndTexts) {
        TreeMap<String, byte[]> files = new TreeMap<>();
        for (int i = 0; i < pathsAndTexts.length; i += 2) {
            files.put(pathsAndTexts[i], pathsAndTexts[i + 1].getBytes(StandardCharsets.UTF_8));
        }
        return ThemeFiles.of(files);
    }

    public static String text(ThemeFiles files, String path) {
        return new String(files.read(path), StandardCharsets.UTF_8);
    }
}
