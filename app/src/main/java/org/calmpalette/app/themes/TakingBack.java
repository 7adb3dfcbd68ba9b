package org.calmpalette.app.themes;

import java.util.ArrayList;
import java.util.Collections;
import java.util.HashMap;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import org.calmpalette.app.accounts.SignedIn;
import org.calmpalette.app.web.NotFoundException;
import org.calmpalette.core.BadInputException;
import org.calmpalette.core.change.Change;
import org.calmpalette.core.change.Clash;
import org.calmpalette.core.change.Merge;
import org.calmpalette.core.theme.Theme;
import org.springframework.stereotype.Service;

/** Takes one earlier change back and keeps what was made after it. */
@Service
public class TakingBack {
    /** Later changes among which the one is looked for that stands in the way. */
    private static final int MOST_LOOKED_AT = 30;

    private static final int MOST_TOLD = 3;

    private final ThemeService themes;
    private final SnapshotRepository snapshots;

    TakingBack(ThemeService themes, SnapshotRepository snapshots) {
        this.themes = themes;
        this.snapshots = snapshots;
    }

    /**
     * The changes that the theme as it is was made by, and that can be told apart from others.
     *
     * @param history the newest first
     */
    public Set<Long> possible(List<Snapshot> history, Snapshot head) {
        Set<Long> all = new LinkedHashSet<>();
        line(history, head).stream()
                .filter(s -> s.parentId() != null && !s.joined())
                .forEach(s -> all.add(s.id()));
        return all;
    }

    /** From the head back to the oldest that is there. */
    private static List<Snapshot> line(List<Snapshot> history, Snapshot head) {
        Map<Long, Snapshot> byId = new HashMap<>();
        history.forEach(s -> byId.put(s.id(), s));
        List<Snapshot> line = new ArrayList<>();
        for (Snapshot at = head; at != null; at = at.parentId() == null ? null : byId.get(at.parentId())) {
            line.add(at);
        }
        return line;
    }

    /**
     * Makes a snapshot that has everything of the head but one change.
     *
     * @param base id of the snapshot that the person saw
     * @param which id of the snapshot that the change made
     * @throws BadInputException if later changes stand on it, with where, and the first of these changes
     */
    public Snapshot takeBack(long id, long base, long which, SignedIn me) {
        themes.stored(id, me);
        Snapshot made = snapshots.findByIdAndThemeId(which, id).orElseThrow(NotFoundException::new);
        if (made.parentId() == null || made.joined()) {
            throw new BadInputException(
                    made.parentId() == null
                            ? "“" + made.note() + "” is how the theme came in."
                            : "What was just before “" + made.note() + "” has been removed from the history.",
                    "Go back to an earlier state, or change it by hand.");
        }
        Snapshot parent = snapshots.findByIdAndThemeId(made.parentId(), id).orElseThrow(NotFoundException::new);
        Theme with = themes.read(made).theme();
        Theme without = themes.read(parent).theme();
        return themes.change(id, base, me, head -> {
            Merge merge = Merge.of(with, head, without);
            if (!merge.clashes().isEmpty()) {
                throw standsInTheWay(id, base, made, with, without, merge.clashes());
            }
            Change change = merge.change("Took back: " + made.note());
            if (change.isEmpty()) {
                throw new BadInputException(
                        "Nothing of “" + made.note() + "” is left in the theme.", "It was taken back already.");
            }
            return change;
        });
    }

    private BadInputException standsInTheWay(
            long id, long base, Snapshot made, Theme with, Theme without, List<Clash> clashes) {
        List<String> told =
                clashes.stream().limit(MOST_TOLD).map(Clash::message).toList();
        int left = clashes.size() - told.size();
        return new BadInputException(
                "“" + made.note() + "” cannot be taken back by itself: " + String.join("; ", told)
                        + (left > 0 ? "; and " + left + " more" : "") + ".",
                inTheWay(id, base, made, with, without)
                        .map(s -> "Take back “" + s.note() + "” first, or change it by hand.")
                        .orElse("Go back to the state before it, or change it by hand."));
    }

    /** The first later change with which it cannot be taken back any more. */
    private Optional<Snapshot> inTheWay(long id, long base, Snapshot made, Theme with, Theme without) {
        List<Snapshot> history = themes.recent(id);
        Snapshot head = snapshots.findByIdAndThemeId(base, id).orElseThrow(NotFoundException::new);
        List<Snapshot> later = new ArrayList<>(line(history, head));
        later.removeIf(s -> s.id() <= made.id());
        Collections.reverse(later);
        return later.stream()
                .limit(MOST_LOOKED_AT)
                .filter(s -> !Merge.of(with, themes.read(s).theme(), without)
                        .clashes()
                        .isEmpty())
                .findFirst();
    }
}
