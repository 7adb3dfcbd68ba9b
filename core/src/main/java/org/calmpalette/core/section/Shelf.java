package org.calmpalette.core.section;

import java.io.IOException;
import java.io.InputStream;
import java.io.UncheckedIOException;
import java.nio.charset.StandardCharsets;
import java.util.ArrayList;
import java.util.List;
import java.util.TreeMap;
import org.calmpalette.core.theme.ThemeFiles;

/** The sections that come with the application, each to be put on any page of any theme. */
public final class Shelf {
    private static final List<SectionKit> KITS = read();

    private Shelf() {}

    public static List<SectionKit> kits() {
        return KITS;
    }

    private static List<SectionKit> read() {
        List<SectionKit> kits = new ArrayList<>();
        for (String line :
                new String(bytes("shelf.txt"), StandardCharsets.UTF_8).lines().toList()) {
            List<String> words = List.of(line.split(" "));
            String folder = SectionKit.FOLDER + words.get(0) + "/";
            TreeMap<String, byte[]> files = new TreeMap<>();
            words.subList(1, words.size()).forEach(f -> files.put(folder + f, bytes(words.get(0) + "/" + f)));
            kits.add(SectionKit.read(ThemeFiles.of(files), folder));
        }
        return List.copyOf(kits);
    }

    private static byte[] bytes(String name) {
        try (InputStream in = Shelf.class.getResourceAsStream(name)) {
            return in.readAllBytes();
        } catch (IOException e) {
            throw new UncheckedIOException(e);
        }
    }
}
