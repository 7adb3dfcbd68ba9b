package org.calmpalette.app.storage;

import java.util.SortedMap;
import java.util.SortedSet;
import java.util.TreeSet;
import org.calmpalette.core.theme.ThemeFiles;

/** The files of a kept tree. */
public final class TreeFiles implements ThemeFiles {
    /** A file: where its bytes are kept, and how many there are. */
    public record Entry(String hash, long size) {}

    private final String treeHash;
    private final SortedMap<String, Entry> entries;
    private final ContentStore store;

    TreeFiles(String treeHash, SortedMap<String, Entry> entries, ContentStore store) {
        this.treeHash = treeHash;
        this.entries = entries;
        this.store = store;
    }

    public String treeHash() {
        return treeHash;
    }

    public SortedMap<String, Entry> entries() {
        return entries;
    }

    /** Hash of a file that is there. */
    public String hash(String path) {
        return entry(path).hash();
    }

    @Override
    public SortedSet<String> paths() {
        return new TreeSet<>(entries.keySet());
    }

    @Override
    public boolean has(String path) {
        return entries.containsKey(path);
    }

    @Override
    public byte[] read(String path) {
        return store.read(entry(path).hash());
    }

    @Override
    public long size(String path) {
        return entry(path).size();
    }

    @Override
    public Object mark(String path) {
        return hash(path);
    }

    private Entry entry(String path) {
        Entry entry = entries.get(path);
        if (entry == null) {
            throw new IllegalArgumentException("no file " + path);
        }
        return entry;
    }
}
