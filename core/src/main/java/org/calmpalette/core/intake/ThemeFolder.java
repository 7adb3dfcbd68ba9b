package org.calmpalette.core.intake;

import java.io.IOException;
import java.io.UncheckedIOException;
import java.nio.file.Path;
import java.util.SortedMap;
import java.util.TreeMap;
import java.util.stream.Stream;
import org.calmpalette.core.BadInputException;
import org.calmpalette.core.theme.Theme;
import org.calmpalette.core.theme.ThemeFiles;

/** Reads a theme from a disk: a folder, a zip, or a lone stylesheet. */
public final class ThemeFolder {
    private ThemeFolder() {}

    /**
     * @throws BadInputException if there is no theme at the path, or it cannot be used
     * @throws IOException if the disk fails
     */
    public static Theme read(Path path) throws IOException {
        String name = path.toAbsolutePath().normalize().getFileName().toString();
        SortedMap<String, byte[]> files = new TreeMap<>();
        if (java.nio.file.Files.isDirectory(path)) {
            collect(path, files);
        } else if (!java.nio.file.Files.isRegularFile(path)) {
            throw new BadInputException(
                    "There is no file or folder " + path + ".", "Name a theme's folder, zip or stylesheet.");
        } else if (name.endsWith(".zip")) {
            ThemeZip.read(path, name, files::put, (done, total, at) -> {});
        } else {
            files.put(name, java.nio.file.Files.readAllBytes(path));
        }
        return Theme.read(ThemeFiles.of(files), name.replaceFirst("\\.(zip|css)$", ""));
    }

    private static void collect(Path folder, SortedMap<String, byte[]> files) throws IOException {
        try (Stream<Path> all = java.nio.file.Files.walk(folder)) {
            for (Path p : (Iterable<Path>) all.filter(java.nio.file.Files::isRegularFile)::iterator) {
                if (files.size() >= ThemeZip.MOST_FILES) {
                    throw new BadInputException(
                            folder + " holds more than " + ThemeZip.MOST_FILES + " files.",
                            "Name the theme's own folder.");
                }
                files.put(folder.relativize(p).toString().replace('\\', '/'), java.nio.file.Files.readAllBytes(p));
            }
        } catch (UncheckedIOException e) {
            throw e.getCause();
        }
    }
}
