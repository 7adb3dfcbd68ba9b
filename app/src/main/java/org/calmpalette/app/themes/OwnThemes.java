package org.calmpalette.app.themes;

import java.io.ByteArrayOutputStream;
import java.io.IOException;
import java.io.InputStream;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.Map;
import java.util.SortedMap;
import java.util.TreeMap;
import org.calmpalette.app.accounts.SignedIn;
import org.calmpalette.core.intake.ThemeZip;
import org.springframework.core.io.Resource;
import org.springframework.core.io.support.PathMatchingResourcePatternResolver;
import org.springframework.stereotype.Component;

/** Themes that come with the application. They go through the same import as a stranger's zip. */
@Component
public class OwnThemes {
    /** The theme of the tour, with honest, everyday faults. */
    public static final String TOWPATH = "Towpath";
    /** A tidy theme with settings; the one to start from. */
    public static final String STARTER = "Landing stage";

    private final ImportService imports;

    OwnThemes(ImportService imports) {
        this.imports = imports;
    }

    public StoredTheme bringIn(String theme, SignedIn me) throws IOException {
        Path zip = Files.createTempFile("calm-own-", ".zip");
        try {
            Files.write(zip, zip(theme));
            return imports.read(zip, theme + ".zip", me, (done, total, path) -> {});
        } finally {
            Files.deleteIfExists(zip);
        }
    }

    /** The theme as a zip: its files from the application, and its pictures, which a program of ours draws. */
    static byte[] zip(String theme) throws IOException {
        String folder = theme.toLowerCase(java.util.Locale.ROOT).replace(' ', '-');
        SortedMap<String, byte[]> files = new TreeMap<>();
        for (Resource resource :
                new PathMatchingResourcePatternResolver().getResources("classpath*:/own/" + folder + "/**")) {
            String url = resource.getURL().toString();
            String path = url.substring(url.indexOf("/own/" + folder + "/") + folder.length() + 6);
            if (!path.isEmpty() && !path.endsWith("/") && resource.isReadable()) {
                try (InputStream in = resource.getInputStream()) {
                    files.put(path, in.readAllBytes());
                }
            }
        }
        Map<String, byte[]> pictures = DuskPainter.pictures(folder);
        files.putAll(pictures);
        ByteArrayOutputStream out = new ByteArrayOutputStream();
        ThemeZip.write(org.calmpalette.core.theme.ThemeFiles.of(files), out);
        return out.toByteArray();
    }
}
