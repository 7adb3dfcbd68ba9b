package org.calmpalette.core.usage;

import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import org.calmpalette.core.page.Paths;
import org.calmpalette.core.picture.PictureSize;
import org.calmpalette.core.theme.Theme;

/** Finds the pictures that a theme names. */
public final class Pictures {
    private final Theme theme;
    private final Map<List<String>, PictureUse> found = new LinkedHashMap<>();
    private final Map<String, PictureSize> sizes = new LinkedHashMap<>();

    private Pictures(Theme theme) {
        this.theme = theme;
    }

    /** @param addresses all that the theme loads, from {@link Addresses} */
    public static List<PictureUse> of(Theme theme, List<Address> addresses) {
        Pictures pictures = new Pictures(theme);
        addresses.stream()
                .filter(a -> a.loads() == Address.Loads.PICTURE)
                .forEach(a -> pictures.add(a.url(), a.file(), a.line()));
        return List.copyOf(pictures.found.values());
    }

    private void add(String url, String file, int line) {
        if (url.isBlank() || url.startsWith("#") || url.startsWith("data:")) {
            return;
        }
        PictureUse before = found.get(List.of(url, file));
        if (before != null) {
            found.put(
                    List.of(url, file),
                    new PictureUse(
                            url,
                            file,
                            before.line(),
                            before.path(),
                            before.exists(),
                            before.width(),
                            before.height(),
                            before.bytes(),
                            before.uses() + 1));
            return;
        }
        Optional<String> path = Paths.resolve(file, url);
        boolean exists = path.filter(theme.files()::has).isPresent();
        PictureSize size = exists
                ? sizes.computeIfAbsent(
                        path.get(), p -> PictureSize.read(theme.files().read(p)).orElse(new PictureSize(0, 0)))
                : new PictureSize(0, 0);
        found.put(
                List.of(url, file),
                new PictureUse(
                        url,
                        file,
                        line,
                        path.orElse(""),
                        exists,
                        size.width(),
                        size.height(),
                        exists ? theme.files().size(path.get()) : 0,
                        1));
    }
}
