package org.calmpalette.core.theme;

import java.nio.ByteBuffer;
import java.util.Arrays;
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

    /**
     * What stands for the contents of a file that is there: of two that are equal, so are the contents. Files that are kept by a hash have
     * that, so that pictures need not be read to see that they stay.
     */
    default Object mark(String path) {
        return ByteBuffer.wrap(read(path));
    }

    /** Whether a path holds the same in both, or is in neither. */
    static boolean isSame(ThemeFiles a, ThemeFiles b, String path) {
        if (!a.has(path) || !b.has(path)) {
            return a.has(path) == b.has(path);
        }
        Object one = a.mark(path);
        Object other = b.mark(path);
        // Marks of two kinds tell nothing by being different.
        return one.equals(other)
                || one.getClass() != other.getClass()
                        && a.size(path) == b.size(path)
                        && Arrays.equals(a.read(path), b.read(path));
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

            @Override
            public Object mark(String path) {
                return top.has(path) ? top.mark(path) : base.mark(path);
            }
        };
    }
}
