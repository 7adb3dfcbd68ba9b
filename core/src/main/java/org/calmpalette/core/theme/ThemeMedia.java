package org.calmpalette.core.theme;

import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.SortedMap;
import java.util.concurrent.ConcurrentHashMap;
import org.calmpalette.core.page.Paths;
import org.calmpalette.core.picture.Copies;
import org.calmpalette.core.setting.Media;
import org.calmpalette.core.setting.MediaFacts;
import org.calmpalette.core.setting.PictureKind;
import org.calmpalette.core.setting.VideoKind;

/** The pictures and videos among a theme's files. What a file is, is read when it is first asked for. */
final class ThemeMedia implements Media {
    private final ThemeFiles files;
    private final Map<String, SortedMap<Integer, String>> copies = new ConcurrentHashMap<>();
    private final Map<String, MediaFacts> known = new ConcurrentHashMap<>();

    ThemeMedia(ThemeFiles files) {
        this.files = files;
    }

    /** With other files: what is known of those that are not among {@code touched} goes on. */
    ThemeMedia with(ThemeFiles now, Set<String> touched) {
        ThemeMedia next = new ThemeMedia(now);
        known.forEach((path, facts) -> {
            if (!touched.contains(path)) {
                next.known.put(path, facts);
            }
        });
        return next;
    }

    @Override
    public Optional<MediaFacts> facts(String path) {
        return files.has(path)
                ? Optional.of(known.computeIfAbsent(path, p -> MediaFacts.of(p, files.read(p))))
                : Optional.empty();
    }

    @Override
    public SortedMap<Integer, String> copies(String path) {
        SortedMap<Integer, String> known = copies.get(path);
        if (known == null) {
            known = Copies.of(files.paths(), path);
            copies.put(path, known);
        }
        return known;
    }

    @Override
    public boolean knowsFiles() {
        return true;
    }

    @Override
    public boolean hasFile(String path) {
        return files.has(path);
    }

    @Override
    public List<String> paths() {
        List<String> all = new ArrayList<>();
        Set<String> there = files.paths();
        for (String path : there) {
            String format = Paths.ending(path).equals("jpeg") ? "jpg" : Paths.ending(path);
            boolean shown = PictureKind.FORMATS.contains(format) || VideoKind.FORMATS.contains(format);
            if (shown
                    && !Theme.isOfSection(files, path)
                    && Copies.original(there, path).isEmpty()) {
                all.add(path);
            }
        }
        return all;
    }
}
