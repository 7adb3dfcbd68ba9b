package org.calmpalette.core.render;

import java.lang.ref.SoftReference;
import java.util.Map;
import java.util.Optional;
import java.util.concurrent.ConcurrentHashMap;
import org.calmpalette.core.background.NaturalSize;
import org.calmpalette.core.page.Paths;
import org.calmpalette.core.picture.Pixels;
import org.calmpalette.core.setting.MediaFacts;
import org.calmpalette.core.theme.Theme;

/** The pictures of a theme, each decoded when it is first looked at; memory that is short takes them back. */
public final class Gallery {
    private final Theme theme;
    private final Map<String, SoftReference<Optional<Pixels>>> pixels = new ConcurrentHashMap<>();

    public Gallery(Theme theme) {
        this.theme = theme;
    }

    /** Whether the theme holds a file of this path. */
    public boolean has(String path) {
        return theme.files().has(path);
    }

    /** What a picture looks like; empty if it is not there, or of a kind that is not decoded. */
    public Optional<Pixels> pixels(String path) {
        SoftReference<Optional<Pixels>> known = pixels.get(path);
        Optional<Pixels> read = known == null ? null : known.get();
        if (read == null) {
            read = theme.files().has(path) ? Pixels.read(theme.files().read(path)) : Optional.empty();
            pixels.put(path, new SoftReference<>(read));
        }
        return read;
    }

    /** What a picture says of its own size; empty if it is not there or cannot be read. */
    public Optional<NaturalSize> size(String path) {
        Optional<MediaFacts> facts = theme.media().facts(path).filter(f -> f.width() > 0 && f.height() > 0);
        if (facts.isPresent() && Paths.ending(path).equals("svg")) {
            return Optional.of(NaturalSize.ofSvg(theme.files().read(path)));
        }
        return facts.map(f -> NaturalSize.of(f.width(), f.height()));
    }
}
