package org.calmpalette.core.theme;

import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.concurrent.ConcurrentHashMap;
import org.calmpalette.core.page.Paths;
import org.calmpalette.core.setting.Media;
import org.calmpalette.core.setting.MediaFacts;
import org.calmpalette.core.setting.PictureKind;
import org.calmpalette.core.setting.VideoKind;

/** The pictures and videos among a theme's files. What a file is, is read when it is first asked for. */
final class ThemeMedia implements Media {
    private final ThemeFiles files;
    private final Map<String, MediaFacts> known = new ConcurrentHashMap<>();

    ThemeMedia(ThemeFiles files) {
        this.files = files;
    }

    @Override
    public Optional<MediaFacts> facts(String path) {
        return files.has(path)
                ? Optional.of(known.computeIfAbsent(path, p -> MediaFacts.of(p, files.read(p))))
                : Optional.empty();
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
        for (String path : files.paths()) {
            String format = Paths.ending(path).equals("jpeg") ? "jpg" : Paths.ending(path);
            boolean shown = PictureKind.FORMATS.contains(format) || VideoKind.FORMATS.contains(format);
            if (shown && !Theme.isOfSection(files, path)) {
                all.add(path);
            }
        }
        return all;
    }
}
