package org.calmpalette.app.storage;

import java.nio.charset.StandardCharsets;
import java.util.Collections;
import java.util.LinkedHashMap;
import java.util.Map;
import java.util.SortedMap;
import java.util.TreeMap;
import org.springframework.stereotype.Service;
import org.springframework.transaction.annotation.Transactional;

/** Keeps contents and trees. A tree is a list of path, content hash and size, kept as a content itself. */
@Service
public class ContentStore {
  private static final int TREES_IN_MEMORY = 200;
  private final ContentRepository contents;
  /** Trees never change, so what is read once stays right on every node. */
  private final Map<String, SortedMap<String, TreeFiles.Entry>> trees =
      Collections.synchronizedMap(new LinkedHashMap<>(16, 0.75f, true) {
        @Override
        protected boolean removeEldestEntry(Map.Entry<String, SortedMap<String, TreeFiles.Entry>> eldest) {
          return size() > TREES_IN_MEMORY;
        }
      });

  ContentStore(ContentRepository contents) {
    this.contents = contents;
  }

  /** Keeps bytes and tells under which hash. */
  @Transactional
  public String keep(byte[] bytes) {
    String hash = Hash.of(bytes);
    if (!contents.existsByHash(hash)) {
      contents.keep(hash, bytes.length, bytes);
    }
    return hash;
  }

  /** @throws IllegalStateException if nothing is kept under the hash, which only a damaged database brings about */
  @Transactional(readOnly = true)
  public byte[] read(String hash) {
    byte[] bytes = contents.bytes(hash);
    if (bytes == null) {
      throw new IllegalStateException("content " + hash + " is missing from the database");
    }
    return bytes;
  }

  /** Keeps a list of files and tells under which hash. */
  @Transactional
  public String keepTree(SortedMap<String, TreeFiles.Entry> entries) {
    StringBuilder text = new StringBuilder();
    entries.forEach((path, e) -> text.append(e.hash()).append(' ').append(e.size()).append(' ').append(path).append('\n'));
    return keep(text.toString().getBytes(StandardCharsets.UTF_8));
  }

  /** The files of a tree; their bytes are read when they are asked for. */
  public TreeFiles tree(String treeHash) {
    SortedMap<String, TreeFiles.Entry> entries = trees.get(treeHash);
    if (entries == null) {
      entries = new TreeMap<>();
      for (String line : new String(read(treeHash), StandardCharsets.UTF_8).split("\n")) {
        String[] parts = line.split(" ", 3);
        if (parts.length == 3) {
          entries.put(parts[2], new TreeFiles.Entry(parts[0], Long.parseLong(parts[1])));
        }
      }
      trees.put(treeHash, entries);
    }
    return new TreeFiles(treeHash, entries, this);
  }

  /** The tree that comes of a tree when some files get other bytes. */
  @Transactional
  public String keepTree(TreeFiles before, SortedMap<String, byte[]> changed) {
    SortedMap<String, TreeFiles.Entry> entries = new TreeMap<>(before.entries());
    changed.forEach((path, bytes) -> entries.put(path, new TreeFiles.Entry(keep(bytes), bytes.length)));
    return keepTree(entries);
  }
}
