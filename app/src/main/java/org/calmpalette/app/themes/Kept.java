package org.calmpalette.app.themes;

import java.util.Comparator;
import java.util.HashMap;
import java.util.HashSet;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.SortedMap;
import java.util.concurrent.TimeUnit;
import java.util.stream.Collectors;
import org.calmpalette.app.storage.ContentStore;
import org.calmpalette.app.storage.TreeFiles;
import org.calmpalette.core.BadInputException;
import org.calmpalette.core.theme.Limits;
import org.springframework.scheduling.annotation.Scheduled;
import org.springframework.stereotype.Component;
import org.springframework.transaction.support.TransactionTemplate;

/**
 * How much a maker keeps, and the limit of it. A snapshot counts with what it holds and the one before it does not; the same bytes
 * in two themes count twice, though they are kept once: what one maker may keep shall not depend on what others have.
 */
@Component
public class Kept {
    /** Bytes that one maker may keep in all themes together. */
    static final long LIMIT = 2_000_000_000L;
    /** From this share on it is told on every list. */
    private static final double NEAR = 0.8;
    /** Snapshots of a theme that stay when earlier ones are removed. */
    static final int NEWEST = 20;
    /** Snapshots that are counted in one go. */
    private static final int AT_ONCE = 200;

    private final SnapshotRepository snapshots;
    private final ContentStore store;
    private final TransactionTemplate transaction;

    Kept(SnapshotRepository snapshots, ContentStore store, TransactionTemplate transaction) {
        this.snapshots = snapshots;
        this.store = store;
        this.transaction = transaction;
    }

    /**
     * What a maker keeps.
     *
     * @param bytes in all themes, with their histories
     */
    public record Amount(long bytes) {
        public boolean isNear() {
            return bytes > LIMIT * NEAR;
        }

        /** Such as "118.2 MB of 2 GB". */
        public String words() {
            return Limits.words(bytes) + " of " + Limits.words(LIMIT);
        }
    }

    public Amount of(long maker) {
        return new Amount(snapshots.added(maker));
    }

    /**
     * Says no where a maker would keep more than the limit.
     *
     * @param more bytes that would come to what is kept
     * @throws BadInputException if that is too much
     */
    void admit(long maker, long more) {
        admit(of(maker), more);
    }

    /** The same for somebody who has asked already how much is taken. */
    static void admit(Amount taken, long more) {
        if (taken.bytes() + more > LIMIT) {
            throw new BadInputException(
                    "There is no room for this: it takes " + Limits.words(more) + ", and " + taken.words()
                            + " are taken.",
                    "Remove earlier states under History, or a theme that nobody needs. Nothing was changed.");
        }
    }

    /** Bytes of a tree that another one does not hold; all of it where there is none. */
    long added(String before, SortedMap<String, TreeFiles.Entry> after) {
        Set<String> known = before == null
                ? Set.of()
                : store.tree(before).entries().values().stream()
                        .map(TreeFiles.Entry::hash)
                        .collect(Collectors.toSet());
        Map<String, Long> added = new HashMap<>();
        after.values().stream().filter(e -> !known.contains(e.hash())).forEach(e -> added.put(e.hash(), e.size()));
        // Hash, size and the two spaces of each line; see ContentStore.
        long list = after.keySet().stream().mapToLong(p -> p.length() + 72L).sum();
        return added.values().stream().mapToLong(Long::longValue).sum() + list;
    }

    /**
     * What goes when the earlier states of a theme are removed.
     *
     * @param states how many
     * @param bytes how much is free then
     */
    public record Earlier(int states, long bytes) {
        /** Such as "30.1 MB". */
        public String words() {
            return Limits.words(bytes);
        }
    }

    /** What would go; nothing is removed. */
    Earlier earlier(StoredTheme theme) {
        Thinned thinned = thinned(theme);
        if (thinned.all().size() == thinned.parents().size()) {
            return new Earlier(0, 0);
        }
        long before = thinned.all().values().stream()
                .mapToLong(s -> s.added() == null ? 0 : s.added())
                .sum();
        long after = thinned.parents().entrySet().stream()
                .mapToLong(
                        e -> added(thinned.all().get(e.getKey()), thinned.all().get(e.getValue())))
                .sum();
        return new Earlier(thinned.all().size() - thinned.parents().size(), Math.max(0, before - after));
    }

    /** Removes them, inside the caller's transaction, which holds the theme. */
    void removeEarlier(StoredTheme theme) {
        Thinned thinned = thinned(theme);
        thinned.parents().forEach((id, parent) -> {
            Snapshot snapshot = thinned.all().get(id);
            snapshot.follow(parent, added(snapshot, thinned.all().get(parent)));
        });
        snapshots.deleteAllInBatch(thinned.all().values().stream()
                .filter(s -> !thinned.parents().containsKey(s.id()))
                .toList());
    }

    private long added(Snapshot snapshot, Snapshot before) {
        return added(
                before == null ? null : before.treeHash(),
                store.tree(snapshot.treeHash()).entries());
    }

    /** All snapshots by id, and what each that stays is made of then: null for the first one. */
    private record Thinned(Map<Long, Snapshot> all, Map<Long, Long> parents) {}

    private Thinned thinned(StoredTheme theme) {
        Map<Long, Snapshot> all = new LinkedHashMap<>();
        snapshots.findByThemeIdOrderById(theme.id()).forEach(s -> all.put(s.id(), s));
        Set<Long> stay = new HashSet<>(snapshots.usedBySites(theme.id()));
        stay.add(theme.headId());
        all.values().stream()
                .filter(s -> s.pointName() != null || s.parentId() == null)
                .forEach(s -> stay.add(s.id()));
        all.keySet().stream().sorted(Comparator.reverseOrder()).limit(NEWEST).forEach(stay::add);
        Map<Long, Long> parents = new LinkedHashMap<>();
        for (Long id : all.keySet()) {
            if (stay.contains(id)) {
                Long up = all.get(id).parentId();
                while (up != null && !stay.contains(up)) {
                    up = all.get(up).parentId();
                }
                parents.put(id, up);
            }
        }
        return new Thinned(all, parents);
    }

    /** Snapshots of before this was counted. */
    @Scheduled(initialDelay = 15, fixedDelay = 24L * 60 * 60, timeUnit = TimeUnit.SECONDS)
    void countEarlier() {
        for (List<Snapshot> some = uncounted(); !some.isEmpty(); some = uncounted()) {
            for (Snapshot s : some) {
                Snapshot before = s.parentId() == null
                        ? null
                        : snapshots.findById(s.parentId()).orElse(null);
                long bytes = added(s, before);
                transaction.executeWithoutResult(t -> snapshots.count(s.id(), bytes));
            }
        }
    }

    private List<Snapshot> uncounted() {
        return snapshots.findByAddedNull(org.springframework.data.domain.Limit.of(AT_ONCE));
    }
}
