package org.calmpalette.core.theme;

import java.util.Set;
import java.util.SortedMap;
import java.util.SortedSet;
import java.util.TreeMap;
import java.util.TreeSet;

/** The files of a theme. Paths are relative, with {@code /}, and never climb. */
public interface ThemeFiles {
    SortedSet<String> paths();

    /** The bytes of a file that is there. @throws IllegalArgumentException if it is not */
    byte[] read(String path);

    /** Size in bytes of a file that is there. */
    default long size(String path) {
        return read(path).length;
    }

    default boolean has(String path) {
        return paths().contains(path);
    }

    static ThemeFiles of(SortedMap<String, byte[]> contents) {
        SortedMap<String, byte[]> copy = new TreeMap<>(contents);
        return new ThemeFiles() {
            @Override
            public SortedSet<String> paths() {
                return new TreeSet<>(copy.keySet());
            }

            @Override
            public boolean has(String path) {
                return copy.containsKey(path);
            }

            @Override
            public byte[] read(String path) {
                byte[] bytes = copy.get(path);
                if (bytes == null) {
                    throw new IllegalArgumentException("no file " + path);
                }
                return bytes;
            }
        };
    }

    /** Files on top of others: those of {@code overlay} stand in the stead of their namesakes. */
    static ThemeFiles overlaid(ThemeFiles base, SortedMap<String, byte[]> overlay) {
        return overlaid(base, overlay, Set.of());
    }

    /** @param gone files of {@code base} that are not there */
    static ThemeFiles overlaid(ThemeFiles base, SortedMap<String, byte[]> overlay, Set<String> gone) {
        ThemeFiles top = of(overlay);
        return new ThemeFiles() {
            @Override
            public SortedSet<String> paths() {
                SortedSet<String> all = new TreeSet<>(base.paths());
                all.removeAll(gone);
                all.addAll(overlay.keySet());
                return all;
            }

            @Override
            public boolean has(String path) {
                return top.has(path) || base.has(path) && !gone.contains(path);
            }

            @Override
            public byte[] read(String path) {
                if (!has(path)) {
                    throw new IllegalArgumentException("no file " + path);
                }
                return top.has(path) ? top.read(path) : base.read(path);
            }

            @Override
            public long size(String path) {
                return top.has(path) ? top.size(path) : base.size(path);
            }
        };
    }
}
