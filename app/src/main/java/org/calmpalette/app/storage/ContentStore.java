package org.calmpalette.app.storage;

import com.github.benmanes.caffeine.cache.Cache;
import com.github.benmanes.caffeine.cache.Caffeine;
import java.nio.charset.StandardCharsets;
import java.util.Collections;
import java.util.HashSet;
import java.util.List;
import java.util.Set;
import java.util.SortedMap;
import java.util.TreeMap;
import org.springframework.stereotype.Service;
import org.springframework.transaction.annotation.Transactional;

/** Keeps contents and trees. A tree is a list of path, content hash and size, kept as a content itself. */
@Service
public class ContentStore {
    /** Characters of paths in the trees that are remembered; with their hashes they take about six times as many bytes. */
    private static final long TREES_IN_MEMORY = 2_000_000;

    private final ContentRepository contents;
    /** Trees never change, so what is read once stays right on every node. */
    private final Cache<String, SortedMap<String, TreeFiles.Entry>> trees = Caffeine.newBuilder()
            .maximumWeight(TREES_IN_MEMORY)
            .<String, SortedMap<String, TreeFiles.Entry>>weigher((hash, tree) ->
                    100 + tree.keySet().stream().mapToInt(p -> p.length() + 40).sum())
            .build();

    ContentStore(ContentRepository contents) {
        this.contents = contents;
    }

    /** Keeps bytes and tells under which hash. */
    @Transactional
    public String keep(byte[] bytes) {
        String hash = Hash.of(bytes);
        // To touch what is not there would lock the gap in which others put theirs, and two that do both wait for each
        // other.
        if (contents.isThere(hash) == 0 || contents.touch(hash) == 0) {
            contents.keep(hash, bytes.length, bytes);
        }
        return hash;
    }

    /** @throws IllegalStateException if nothing is kept under the hash, which only a damaged database brings about */
    @Transactional(readOnly = true)
    public byte[] read(String hash) {
        return there(hash, contents.bytes(hash));
    }

    /** Some bytes of a content, from one of them on. */
    @Transactional(readOnly = true)
    public byte[] read(String hash, long from, int count) {
        return there(hash, contents.bytes(hash, from, count));
    }

    private static byte[] there(String hash, byte[] bytes) {
        if (bytes == null) {
            throw new IllegalStateException("content " + hash + " is missing from the database");
        }
        return bytes;
    }

    /** Keeps a list of files and tells under which hash. */
    @Transactional
    public String keepTree(SortedMap<String, TreeFiles.Entry> entries) {
        return keep(text(entries).getBytes(StandardCharsets.UTF_8));
    }

    private static String text(SortedMap<String, TreeFiles.Entry> entries) {
        StringBuilder text = new StringBuilder();
        entries.forEach((path, e) -> text.append(e.hash())
                .append(' ')
                .append(e.size())
                .append(' ')
                .append(path)
                .append('\n'));
        return text.toString();
    }

    /** The files of a tree; their bytes are read when they are asked for. */
    public TreeFiles tree(String treeHash) {
        return new TreeFiles(treeHash, trees.get(treeHash, hash -> parse(read(hash))), this);
    }

    /** The files of a tree with others beside them, which nobody keeps as a tree; where both have a file, that of the tree is there. */
    public TreeFiles joined(TreeFiles tree, SortedMap<String, TreeFiles.Entry> more) {
        SortedMap<String, TreeFiles.Entry> all = new TreeMap<>(more);
        all.putAll(tree.entries());
        return new TreeFiles(
                Hash.of((tree.treeHash() + text(more)).getBytes(StandardCharsets.UTF_8)),
                Collections.unmodifiableSortedMap(all),
                this);
    }

    private static SortedMap<String, TreeFiles.Entry> parse(byte[] tree) {
        SortedMap<String, TreeFiles.Entry> entries = new TreeMap<>();
        for (String line : new String(tree, StandardCharsets.UTF_8).split("\n")) {
            String[] parts = line.split(" ", 3);
            if (parts.length == 3) {
                entries.put(parts[2], new TreeFiles.Entry(parts[0], Long.parseLong(parts[1])));
            }
        }
        return Collections.unmodifiableSortedMap(entries);
    }

    /** The tree that comes of a tree when some files get other bytes, and some go. */
    @Transactional
    public String keepTree(TreeFiles before, SortedMap<String, byte[]> changed, Set<String> gone) {
        SortedMap<String, TreeFiles.Entry> entries = new TreeMap<>(before.entries());
        entries.keySet().removeAll(gone);
        changed.forEach((path, bytes) -> entries.put(path, new TreeFiles.Entry(keep(bytes), bytes.length)));
        return keepTree(entries);
    }

    /**
     * Removes what no snapshot, no edition and no picture of a site uses, if nobody has wanted it for some minutes: an import keeps its contents
     * before there is a snapshot of them, and takes no longer than that.
     *
     * @return how many contents went
     */
    public int sweep(int minutes) {
        // What comes into use while this runs was kept again just now, so it is too young to be removed.
        List<String> trees = contents.trees();
        Set<String> used = new HashSet<>(trees);
        trees.forEach(t -> parse(read(t)).values().forEach(e -> used.add(e.hash())));
        used.addAll(contents.uploads());
        int gone = 0;
        String after = "";
        for (List<String> old = contents.old(minutes, after); !old.isEmpty(); old = contents.old(minutes, after)) {
            for (String hash : old) {
                gone += used.contains(hash) ? 0 : contents.remove(hash, minutes);
            }
            after = old.get(old.size() - 1);
        }
        return gone;
    }
}
