package org.calmpalette.core.usage;

import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import org.calmpalette.core.page.Paths;
import org.calmpalette.core.theme.Theme;

/**
 * A picture that a theme names and does not hold.
 *
 * @param key its path in the theme where it has one, else its address: names it among those of a theme
 * @param path where it should be; empty if it lies on another host, or outside of the theme
 * @param addresses that name it
 */
public record AbsentPicture(String key, String path, List<Address> addresses) {
    public AbsentPicture {
        addresses = List.copyOf(addresses);
    }

    /** Pictures that are missing or lie elsewhere, in the order in which the theme names them. */
    public static List<AbsentPicture> of(Theme theme) {
        Map<String, List<Address>> found = new LinkedHashMap<>();
        Map<String, String> paths = new LinkedHashMap<>();
        for (Address a : Addresses.of(theme)) {
            String url = a.url().strip();
            boolean picture = a.loads() == Address.Loads.PICTURE
                    && !url.isEmpty()
                    && !url.startsWith("#")
                    && !(url.matches("(?i)[a-z][a-z0-9+.-]*:.*") && !a.isOnAnotherHost());
            if (!picture) {
                continue;
            }
            String path = Paths.resolve(a.file(), url).orElse("");
            if (path.isEmpty() || !theme.files().has(path)) {
                String key = path.isEmpty() ? url : path;
                paths.put(key, path);
                found.computeIfAbsent(key, k -> new ArrayList<>()).add(a);
            }
        }
        return found.entrySet().stream()
                .map(e -> new AbsentPicture(e.getKey(), paths.get(e.getKey()), e.getValue()))
                .toList();
    }

    public boolean isOnAnotherHost() {
        return addresses.get(0).isOnAnotherHost();
    }

    /** Its name as the address has it; may be empty. */
    public String name() {
        String plain = key.replaceFirst("[?#].*", "");
        return plain.substring(plain.lastIndexOf('/') + 1);
    }
}
