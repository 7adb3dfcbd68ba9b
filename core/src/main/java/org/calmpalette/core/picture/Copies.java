package org.calmpalette.core.picture;

import java.util.ArrayList;
import java.util.Collection;
import java.util.List;
import java.util.Optional;
import java.util.SortedMap;
import java.util.TreeMap;
import java.util.regex.Matcher;
import java.util.regex.Pattern;

/**
 * Narrower copies of a picture, for narrow windows and plain screens. A copy lies beside its picture and tells its width in its name:
 * {@code img/dusk.640w.jpg} is {@code img/dusk.jpg}, 640 px wide. So nothing but the files says which copies there are.
 */
public final class Copies {
    /** Common practice: from a phone's width to that of a large window, each half as wide again or so. */
    public static final List<Integer> USUAL = List.of(480, 800, 1280, 1920);

    private static final Pattern COPY = Pattern.compile("(.+)\\.([1-9]\\d{1,4})w(\\.[A-Za-z]{3,4})");

    private Copies() {}

    /** Where a copy lies. @param width in its pixels */
    public static String path(String picture, int width) {
        int dot = picture.lastIndexOf('.');
        return picture.substring(0, dot) + "." + width + "w" + picture.substring(dot);
    }

    /** The picture that a file is a copy of, if that is among the files; empty for any other. */
    public static Optional<String> original(Collection<String> files, String path) {
        Matcher m = COPY.matcher(path);
        return m.matches() ? Optional.of(m.group(1) + m.group(3)).filter(files::contains) : Optional.empty();
    }

    /** The copies of a picture by their width, the narrowest first. */
    public static SortedMap<Integer, String> of(Collection<String> files, String picture) {
        SortedMap<Integer, String> all = new TreeMap<>();
        int dot = picture.lastIndexOf('.');
        if (dot < 0) {
            return all;
        }
        String start = picture.substring(0, dot) + ".";
        for (String file : files) {
            Matcher m = file.startsWith(start) ? COPY.matcher(file) : null;
            if (m != null && m.matches() && (m.group(1) + m.group(3)).equals(picture)) {
                all.put(Integer.parseInt(m.group(2)), file);
            }
        }
        return all;
    }

    /** Widths that copies of a picture are made in: the usual ones that spare a fifth or more. */
    public static List<Integer> widths(int own) {
        List<Integer> all = new ArrayList<>();
        USUAL.stream().filter(w -> w <= own * 0.8).forEach(all::add);
        return all;
    }
}
