package org.calmpalette.app.themes;

import com.github.benmanes.caffeine.cache.Cache;
import com.github.benmanes.caffeine.cache.Caffeine;
import java.util.ArrayList;
import java.util.Collections;
import java.util.IdentityHashMap;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.SortedMap;
import java.util.TreeMap;
import java.util.function.Function;
import java.util.function.Supplier;
import java.util.regex.Pattern;
import java.util.stream.Stream;
import org.calmpalette.app.accounts.SignedIn;
import org.calmpalette.app.storage.ContentStore;
import org.calmpalette.app.storage.TreeFiles;
import org.calmpalette.app.web.NotFoundException;
import org.calmpalette.app.web.StaleException;
import org.calmpalette.app.web.Times;
import org.calmpalette.app.work.Job;
import org.calmpalette.core.BadInputException;
import org.calmpalette.core.background.Sweep;
import org.calmpalette.core.change.Change;
import org.calmpalette.core.change.Merge;
import org.calmpalette.core.css.selector.States;
import org.calmpalette.core.page.Page;
import org.calmpalette.core.page.Paths;
import org.calmpalette.core.part.Landmarks;
import org.calmpalette.core.promise.Answer;
import org.calmpalette.core.promise.Variation;
import org.calmpalette.core.render.Backdrop;
import org.calmpalette.core.render.Backgrounds;
import org.calmpalette.core.render.Ground;
import org.calmpalette.core.render.LayoutKey;
import org.calmpalette.core.render.Measures;
import org.calmpalette.core.render.PaintedPicture;
import org.calmpalette.core.render.Rendered;
import org.calmpalette.core.render.Scenes;
import org.calmpalette.core.render.TextsOn;
import org.calmpalette.core.setting.Chosen;
import org.calmpalette.core.setting.Palette;
import org.calmpalette.core.setting.PaletteJson;
import org.calmpalette.core.setting.Subject;
import org.calmpalette.core.survey.Finding;
import org.calmpalette.core.survey.LostInBands;
import org.calmpalette.core.theme.Theme;
import org.calmpalette.core.usage.Painted;
import org.calmpalette.core.value.Viewport;
import org.jsoup.nodes.Element;
import org.springframework.dao.ConcurrencyFailureException;
import org.springframework.dao.DataIntegrityViolationException;
import org.springframework.data.domain.Limit;
import org.springframework.stereotype.Service;
import org.springframework.transaction.annotation.Transactional;
import org.springframework.transaction.support.TransactionTemplate;

/** Themes and their snapshots. Every method takes the person who asks, and finds only what is theirs. */
@Service
public class ThemeService {
    private static final int MOST_HISTORY = 200;
    private static final int LONGEST_NOTE = 400;
    private static final int TRIES = 4;
    /** In a note, before what was made at the same time. */
    private static final String BESIDE = " (beside: ";
    /** Bytes of a palette.json whose settings are counted for the list. */
    private static final long LARGEST_COUNTED = 300_000;

    private final StoredThemeRepository themes;
    private final SnapshotRepository snapshots;
    private final ContentStore store;
    private final ThemeCache cache;
    private final DismissalRepository dismissals;
    private final TransactionTemplate transaction;
    private final Surveys surveys;
    private final Promised promised;
    private final MeasureStore measures;
    private final Kept kept;
    private static final int MOST_GROUNDS = 200;
    /** Pages that are measured with other values, of one theme: what is left out stays open. */
    private static final int MOST_VARIED = 120;

    private final Cache<Long, String> names =
            Caffeine.newBuilder().maximumSize(2_000).build();

    ThemeService(
            StoredThemeRepository themes,
            SnapshotRepository snapshots,
            DismissalRepository dismissals,
            ContentStore store,
            ThemeCache cache,
            TransactionTemplate transaction,
            Surveys surveys,
            Promised promised,
            MeasureStore measures,
            Kept kept) {
        this.kept = kept;
        this.measures = measures;
        this.themes = themes;
        this.snapshots = snapshots;
        this.dismissals = dismissals;
        this.store = store;
        this.cache = cache;
        this.transaction = transaction;
        this.surveys = surveys;
        this.promised = promised;
    }

    /** A theme in the list. Listing reads no theme, so one that is slow to read keeps nobody from the others. */
    public record Listed(StoredTheme stored, Snapshot head, int pages, int settings, String first) {}

    @Transactional(readOnly = true)
    public List<Listed> all(SignedIn me) {
        return Stream.concat(
                        themes.findByMakerIdOrderByNameAscIdAsc(me.id()).stream(), themes.sharedWith(me.id()).stream())
                .map(this::listed)
                .toList();
    }

    /** Themes that are a maker's own, by name; with whom they are shared stands in each. */
    @Transactional(readOnly = true)
    public List<StoredTheme> own(SignedIn me) {
        return themes.findByMakerIdOrderByNameAscIdAsc(me.id());
    }

    /** Lets another maker work on a theme. */
    @Transactional
    public void share(long id, long maker) {
        themes.findById(id).orElseThrow(NotFoundException::new).add(maker);
    }

    /** Another maker works on a theme no longer. */
    @Transactional
    public void unshare(long id, long maker) {
        themes.findById(id).orElseThrow(NotFoundException::new).leave(maker);
    }

    /** A theme by its id, for who has an invitation to it. */
    @Transactional(readOnly = true)
    public Optional<StoredTheme> invitedTo(long id) {
        return themes.findById(id);
    }

    private Listed listed(StoredTheme stored) {
        Snapshot head = snapshots.findById(stored.headId()).orElseThrow();
        TreeFiles files = store.tree(head.treeHash());
        List<String> pages = files.paths().stream().filter(Paths::isPage).toList();
        int settings = 0;
        if (files.has(Palette.FILE) && files.size(Palette.FILE) < LARGEST_COUNTED) {
            try {
                settings = PaletteJson.read(files.read(Palette.FILE), stored.name())
                        .settings()
                        .size();
            } catch (BadInputException told) {
                // Opening the theme tells what is wrong with it.
            }
        }
        return new Listed(
                stored,
                head,
                pages.size(),
                settings,
                pages.contains("index.html") ? "index.html" : pages.isEmpty() ? "" : pages.get(0));
    }

    /**
     * Opens a theme. Reads in short steps, not in one transaction: a theme that takes long to read must not hold a connection
     * meanwhile.
     *
     * @throws NotFoundException if there is no such theme in the person's room
     */
    public OpenTheme open(long id, SignedIn me) {
        return open(stored(id, me));
    }

    /** A theme without its files. */
    public StoredTheme stored(long id, SignedIn me) {
        return themes.findByIdAndMakerId(id, me.id()).orElseThrow(NotFoundException::new);
    }

    /** Has a survey that failed made once more. */
    public void surveyAgain(long id, SignedIn me) {
        StoredTheme stored = stored(id, me);
        cache.forget(snapshots.findById(stored.headId()).orElseThrow().treeHash(), stored.name());
    }

    private OpenTheme open(StoredTheme stored) {
        Snapshot head = snapshots.findById(stored.headId()).orElseThrow();
        ThemeCache.Read read = cache.get(head.treeHash(), stored.name());
        surveys.make(stored.id(), read, () -> measures.of(stored.id(), read));
        promised.make(stored.id(), read, new Boxes(measures, stored.id(), read));
        return new OpenTheme(
                stored,
                head,
                read,
                head.parentId() != null,
                snapshots.findFirstByParentIdOrderByIdDesc(head.id()).isPresent(),
                dismissed(stored.id()));
    }

    /**
     * Has the promises of a theme worked out, now and after each of its changes from now on.
     *
     * @return the work, which may have ended
     */
    public Job<List<Answer>> promises(OpenTheme open) {
        promised.watch(open.id());
        promised.make(open.id(), open.read(), new Boxes(measures, open.id(), open.read()));
        return open.read().promises().job().orElseThrow();
    }

    /** After promises could not be worked out. */
    public void promisesAgain(long id, SignedIn who) {
        promised.again(open(id, who).read());
    }

    /** What was measured of the pages as they are now, by path. */
    public Map<String, Measures> measures(OpenTheme open) {
        return measures.of(open.id(), open.read());
    }

    /** Paths of the pages that nobody measured as they are now. */
    public List<String> unmeasured(OpenTheme open) {
        Map<String, Measures> measured = measures(open);
        return open.theme().pages().stream()
                .map(p -> p.source().file())
                .filter(p -> !measured.containsKey(p))
                .toList();
    }

    /**
     * Pages that nobody measured yet with another value of a setting, where that moves a box.
     *
     * @param variation which of {@link ThemeCache.Read#variations()}
     */
    public record Unvaried(String page, int variation) {}

    public List<Unvaried> unvaried(OpenTheme open) {
        List<Variation> all = open.read().variations();
        Map<Variation, Map<String, String>> looked = Boxes.first(open.read().varied(), MOST_VARIED);
        Set<String> known = new Boxes(measures, open.id(), open.read()).knownOf(looked);
        List<Unvaried> left = new ArrayList<>();
        looked.forEach((v, pages) -> pages.forEach((page, layout) -> {
            if (!known.contains(layout)) {
                left.add(new Unvaried(page, all.indexOf(v)));
            }
        }));
        return left;
    }

    /** Names what is measured now, and what was when the promises were last looked at: where they differ there is news. */
    public int measuredNow(OpenTheme open) {
        return new Boxes(measures, open.id(), open.read()).known().hashCode();
    }

    public int measuredThen(OpenTheme open) {
        return open.read().promises().told();
    }

    /** Keeps what was measured of a page with another value of a setting. @throws NotFoundException where that is none of the head's */
    public void keepVaried(OpenTheme open, int variation, Measures measured) {
        List<Variation> all = open.read().variations();
        String layout = variation < 0 || variation >= all.size()
                ? null
                : open.read().varied().get(all.get(variation)).get(measured.page());
        if (layout == null) {
            throw new NotFoundException();
        }
        measures.keep(open.id(), layout, measured.of(layout));
    }

    /**
     * How dark and how light it is behind the texts of a page that do not stand on a plain colour: by index of the element the relative
     * luminances below and above which a twentieth lies. Without those whose boxes are not known for these choices.
     *
     * @param choices of an owner, or null for the defaults
     * @param width of the window
     */
    public Map<Integer, double[]> grounds(
            long themeId, ThemeCache.Read read, Map<String, Chosen> choices, String page, int width) {
        int within = Math.max(Sweep.FROM, Math.min(Sweep.TO, width));
        Measures measured = measures.of(themeId, read).get(page);
        // What is known only later is not kept as unknown.
        return measured == null
                ? Map.of()
                : read.derived(
                        List.of("grounds", page, within, choices == null ? Map.of() : choices),
                        () -> grounds(read, measured, choices, page, within));
    }

    private static Map<Integer, double[]> grounds(
            ThemeCache.Read read, Measures measured, Map<String, Chosen> choices, String path, int width) {
        Rendered rendered = choices == null ? read.rendered() : new Rendered(read.theme(), choices);
        Page page = rendered.page(path).orElseThrow(NotFoundException::new);
        Map<Integer, double[]> all = new TreeMap<>();
        if (choices != null && !new LayoutKey.Keys(rendered).of(page).equals(measured.layout())) {
            return all;
        }
        Backdrop.Reader backdrops = new Backdrop.Reader(
                rendered.styles(page, Viewport.of(width, measured.windowHeight()), States.NONE),
                read.theme().files()::has);
        Ground ground = new Ground(new Scenes(rendered, page, measured), read.gallery(), true);
        List<Element> elements = page.elements();
        for (int i : measured.lines().keySet()) {
            if (i < elements.size()
                    && all.size() < MOST_GROUNDS
                    && backdrops.of(elements.get(i)).unknown() != null) {
                ground.under(i, width).reading().ifPresent(r -> all.put(i, new double[] {r.dark(), r.light()}));
            }
        }
        return all;
    }

    /**
     * How well the texts of a page read that stand on the backgrounds of a setting, while another value of it is tried.
     *
     * @param tried the theme with that value
     * @param painted what the setting paints
     * @return empty if the page was not measured, or is laid out otherwise with that value than when it was
     */
    public Optional<TextsOn> textsOn(
            long themeId, ThemeCache.Read read, Rendered tried, List<Painted> painted, String path, int width) {
        int within = Math.max(Sweep.FROM, Math.min(Sweep.TO, width));
        return scenes(themeId, read, tried, path)
                .map(s -> TextsOn.of(s, read.gallery(), painting(painted, s.page()), within));
    }

    /**
     * Where the backgrounds of a setting lose what must stay in sight of a picture, while another value of it is tried.
     *
     * @return empty if they do not, or if that is not known, as in {@link #textsOn}
     */
    public Optional<LostInBands> lost(
            long themeId, ThemeCache.Read read, Rendered tried, List<Painted> painted, String path, Subject subject) {
        return scenes(themeId, read, tried, path).flatMap(s -> {
            List<Element> elements = s.page().elements();
            Set<Element> painting = painting(painted, s.page());
            List<PaintedPicture> pictures = PaintedPicture.of(tried, s.page()).stream()
                    .filter(p -> p.path().equals(subject.path()) && painting.contains(elements.get(p.element())))
                    .toList();
            return LostInBands.of(
                    new Backgrounds(s, read.gallery()),
                    pictures,
                    subject,
                    tried.theme().palette().bands());
        });
    }

    /** A page with other values, in the boxes that were measured; empty if it was not, or they would lie elsewhere now. */
    private Optional<Scenes> scenes(long themeId, ThemeCache.Read read, Rendered tried, String path) {
        Page page = tried.page(path).orElseThrow(NotFoundException::new);
        Measures measured = measures.of(themeId, read).get(path);
        return measured == null || !new LayoutKey.Keys(tried).of(page).equals(measured.layout())
                ? Optional.empty()
                : Optional.of(new Scenes(tried, page, measured));
    }

    /** The elements whose backgrounds are painted. */
    private static Set<Element> painting(List<Painted> painted, Page page) {
        List<Painted> backgrounds = painted.stream()
                .filter(p -> p.property().startsWith("background"))
                .toList();
        Set<Element> painting = Collections.newSetFromMap(new IdentityHashMap<>());
        painting.addAll(Landmarks.found(backgrounds, page));
        return painting;
    }

    /**
     * Keeps what a browser measured of a page, and has what lies behind its texts looked at.
     *
     * @throws NotFoundException if there is no such page in the head snapshot
     */
    public void keepMeasures(OpenTheme open, Measures measured) {
        keepMeasures(open, open.head().id(), measured);
    }

    /**
     * Keeps what was measured of a page as it was in a snapshot. Where it lies is told by what lays it out, so what was changed
     * meanwhile and moves no box, such as a marked subject, takes nothing away.
     *
     * @throws NotFoundException where the theme has no such snapshot, or that had no such page
     */
    public void keepMeasures(OpenTheme open, long snapshot, Measures measured) {
        ThemeCache.Read then = snapshot == open.head().id()
                ? open.read()
                : read(snapshots.findByIdAndThemeId(snapshot, open.id()).orElseThrow(NotFoundException::new));
        String layout = layout(then, measured.page()).orElseThrow(NotFoundException::new);
        Measures kept = measured.of(layout);
        measures.keep(open.id(), layout, kept);
        if (layout(open.read(), measured.page()).filter(layout::equals).isPresent()) {
            open.read().keep(measured.page(), kept);
            surveys.lookBehind(open.id(), open.read(), () -> measures.of(open.id(), open.read()));
        }
    }

    private static Optional<String> layout(ThemeCache.Read read, String page) {
        return read.rendered().page(page).map(read.layoutKeys()::of);
    }

    /** Keeps what was measured before, if the page is still laid out as it was then. @return whether it is */
    public boolean keepRecorded(OpenTheme open, Measures recorded) {
        boolean same = layout(open.read(), recorded.page())
                .map(recorded.layout()::equals)
                .orElse(false);
        if (same) {
            keepMeasures(open, recorded);
        }
        return same;
    }

    private Map<String, Dismissal> dismissed(long id) {
        Map<String, Dismissal> byKey = new LinkedHashMap<>();
        dismissals.findByThemeIdOrderByIdDesc(id).forEach(d -> byKey.putIfAbsent(d.findingKey(), d));
        return byKey;
    }

    /** Lets a finding stand, with a note why. */
    @Transactional
    public void dismiss(long id, Finding finding, String note, SignedIn me) {
        themes.findByIdAndMakerId(id, me.id()).orElseThrow(NotFoundException::new);
        if (note.length() > LONGEST_NOTE) {
            throw new BadInputException("The note is too long.", "Use at most " + LONGEST_NOTE + " characters.");
        }
        dismissals.deleteByThemeIdAndFindingKey(id, finding.key());
        dismissals.save(new Dismissal(id, finding.key(), finding.message(), note.strip(), me.name()));
    }

    /** Takes a dismissal back. */
    @Transactional
    public void takeBack(long id, String findingKey, SignedIn me) {
        themes.findByIdAndMakerId(id, me.id()).orElseThrow(NotFoundException::new);
        dismissals.deleteByThemeIdAndFindingKey(id, findingKey);
    }

    /** A snapshot, whoever it belongs to: for previews and sites, whose addresses prove that they may. */
    @Transactional(readOnly = true)
    public Snapshot snapshot(long id) {
        return snapshots.findById(id).orElseThrow(NotFoundException::new);
    }

    public ThemeCache.Read read(Snapshot snapshot) {
        return cache.get(snapshot.treeHash(), name(snapshot));
    }

    /** With files beside the theme's that are not its own. */
    public ThemeCache.Read read(Snapshot snapshot, SortedMap<String, TreeFiles.Entry> more) {
        return cache.get(snapshot.treeHash(), more, name(snapshot));
    }

    private String name(Snapshot snapshot) {
        // A theme keeps its name, so asking for it once is enough.
        return names.get(
                snapshot.themeId(),
                id -> themes.findById(id).orElseThrow(NotFoundException::new).name());
    }

    /** Makes a theme of files that are kept already. */
    public StoredTheme create(String name, SortedMap<String, TreeFiles.Entry> files, String note, SignedIn me) {
        kept.admit(me.id(), kept.added(null, files));
        String tree = store.keepTree(files);
        // Reading it now refuses what cannot be used, before there is a theme of it.
        cache.get(tree, freeName(name, me.id()));
        return transaction.execute(s -> begun(name, tree, note, me));
    }

    private StoredTheme begun(String name, String tree, String note, SignedIn me) {
        StoredTheme theme = themes.save(new StoredTheme(freeName(name, me.id()), me.id()));
        long added = kept.added(null, store.tree(tree).entries());
        Snapshot first = snapshots.save(new Snapshot(theme.id(), null, tree, note, me.name(), added));
        theme.moveHead(first.id());
        return theme;
    }

    /** Two themes of one maker never have one name: the second gets a number. */
    private String freeName(String wanted, long maker) {
        String base = wanted.isBlank() ? "Theme" : wanted.strip();
        base = base.substring(0, Math.min(100, base.length()));
        String name = base;
        for (int i = 2; themes.existsByMakerIdAndName(maker, name); i++) {
            name = base + " " + i;
        }
        return name;
    }

    /**
     * Changes a theme.
     *
     * @param base id of the snapshot that the person saw
     * @throws StaleException if the theme has moved on since; nothing is changed then
     */
    public Snapshot change(long id, long base, SignedIn me, Function<Theme, Change> change) {
        // The change is worked out before anything is locked: nobody waits for somebody else's thinking.
        StoredTheme seen = at(themes.findByIdAndMakerId(id, me.id()), base);
        Snapshot from = snapshots.findById(base).orElseThrow();
        return change(
                seen,
                from,
                me,
                change.apply(cache.get(from.treeHash(), seen.name()).theme()));
    }

    /**
     * Changes a theme. Where it has moved on since the person saw it, the change is worked out for what they saw, and put together with
     * what was made meanwhile if the two do not touch the same.
     *
     * @param base id of the snapshot that the person saw
     * @param change worked out from the theme that it is given and from nothing else of that theme: it may not be the newest
     * @throws StaleException if both changed the same, or both did the same; nothing is changed then
     */
    public Snapshot changeBeside(long id, long base, SignedIn me, Function<Theme, Change> change) {
        // The change is worked out before anything is locked: nobody waits for somebody else's thinking.
        StoredTheme seen = stored(id, me);
        Snapshot from = snapshots.findByIdAndThemeId(base, id).orElseThrow(() -> stale(id));
        Theme then = cache.get(from.treeHash(), seen.name()).theme();
        Change made = change.apply(then);
        for (int i = 1; ; i++) {
            StoredTheme now = stored(id, me);
            Snapshot head = snapshots.findById(now.headId()).orElseThrow();
            try {
                return change(now, head, me, head.id() == base ? made : beside(now, head, then, made));
            } catch (StaleException moved) {
                // Only where somebody else was faster once more.
                if (i == TRIES || stored(id, me).headId() == head.id()) {
                    throw moved;
                }
            }
        }
    }

    private Snapshot change(StoredTheme theme, Snapshot head, SignedIn me, Change made) {
        SortedMap<String, byte[]> files =
                made.files(cache.get(head.treeHash(), theme.name()).theme());
        kept.admit(
                theme.makerId(),
                files.values().stream().mapToLong(f -> f.length).sum());
        return guarded(theme.id(), () -> {
            StoredTheme locked = at(themes.lock(theme.id(), me.id()), head.id());
            String tree = store.keepTree(store.tree(head.treeHash()), new TreeMap<>(files), made.removed());
            return advance(locked, head, tree, made.note(), me);
        });
    }

    /** A change of an earlier state as one of the head. */
    private Change beside(StoredTheme theme, Snapshot head, Theme then, Change made) {
        Merge merge = Merge.of(then, cache.get(head.treeHash(), theme.name()).theme(), made.applied(then));
        if (!merge.clashes().isEmpty()) {
            throw new StaleException(
                    stale(theme.id()).getMessage() + " Both change the same: "
                            + merge.clashes().get(0).message() + ".",
                    head.id());
        }
        if (merge.files().isEmpty() && merge.removed().isEmpty()) {
            throw stale(theme.id());
        }
        return merge.change(made.note() + BESIDE + head.note().replaceFirst(Pattern.quote(BESIDE) + ".*", "") + ")");
    }

    /**
     * A theme of its own that differs from another one by a change; that one stays as it is.
     *
     * @param base id of the snapshot that the person saw
     */
    public StoredTheme variant(long id, long base, String name, SignedIn me, Function<Theme, Change> change) {
        StoredTheme seen = at(themes.findByIdAndMakerId(id, me.id()), base);
        Snapshot from = snapshots.findById(base).orElseThrow();
        Theme theme = cache.get(from.treeHash(), seen.name()).theme();
        Change made = change.apply(theme);
        SortedMap<String, byte[]> files = made.files(theme);
        kept.admit(
                me.id(),
                kept.added(null, store.tree(from.treeHash()).entries())
                        + files.values().stream().mapToLong(f -> f.length).sum());
        return transaction.execute(s -> begun(
                name,
                store.keepTree(store.tree(from.treeHash()), new TreeMap<>(files), made.removed()),
                "Made of “" + seen.name() + "”: " + made.note(),
                me));
    }

    private Snapshot advance(StoredTheme stored, Snapshot head, String tree, String note, SignedIn me) {
        long added = kept.added(head.treeHash(), store.tree(tree).entries());
        Snapshot next = snapshots.save(new Snapshot(stored.id(), head.id(), tree, note, me.name(), added));
        stored.moveHead(next.id());
        return next;
    }

    /** Moves the head to the snapshot before. */
    public Snapshot undo(long id, long base, SignedIn me) {
        return guarded(id, () -> {
            StoredTheme stored = at(themes.lock(id, me.id()), base);
            Snapshot head = snapshots.findById(base).orElseThrow();
            if (head.parentId() == null) {
                throw new BadInputException("There is nothing to undo.", "This is how the theme came in.");
            }
            stored.moveHead(head.parentId());
            return head;
        });
    }

    /** Moves the head to the newest snapshot that was made from it. */
    public Snapshot redo(long id, long base, SignedIn me) {
        return guarded(id, () -> {
            StoredTheme stored = at(themes.lock(id, me.id()), base);
            Snapshot next = snapshots
                    .findFirstByParentIdOrderByIdDesc(base)
                    .orElseThrow(() -> new BadInputException(
                            "There is nothing to redo.", "Nothing was undone since the last change."));
            stored.moveHead(next.id());
            return next;
        });
    }

    /** Makes the state of an earlier snapshot the newest one. What lies between stays in the history. */
    public Snapshot goBack(long id, long base, long to, SignedIn me) {
        return guarded(id, () -> {
            StoredTheme stored = at(themes.lock(id, me.id()), base);
            Snapshot target = snapshots.findByIdAndThemeId(to, id).orElseThrow(NotFoundException::new);
            Snapshot head = snapshots.findById(base).orElseThrow();
            String what = target.pointName() == null
                    ? "the state after “" + target.note() + "”"
                    : "the restore point “" + target.pointName() + "”";
            return advance(stored, head, target.treeHash(), "Went back to " + what, me);
        });
    }

    /** Names a snapshot, which makes it a restore point. */
    @Transactional
    public void namePoint(long id, long snapshotId, String name, SignedIn me) {
        themes.findByIdAndMakerId(id, me.id()).orElseThrow(NotFoundException::new);
        Snapshot snapshot = snapshots.findByIdAndThemeId(snapshotId, id).orElseThrow(NotFoundException::new);
        if (name.isBlank() || name.strip().length() > 80) {
            throw new BadInputException(
                    name.isBlank() ? "A restore point needs a name." : "The name of the restore point is too long.",
                    "Write up to 80 characters, such as “before the green variant”.");
        }
        snapshot.name(name.strip());
    }

    /**
     * Says of a theme's present state why it goes out though promises are broken.
     *
     * @param base the state that was looked at
     */
    @Transactional
    public void giveOut(long id, long base, String why, SignedIn me) {
        themes.findByIdAndMakerId(id, me.id()).orElseThrow(NotFoundException::new);
        Snapshot snapshot = snapshots.findByIdAndThemeId(base, id).orElseThrow(NotFoundException::new);
        if (why.isBlank() || why.strip().length() > LONGEST_REASON) {
            throw new BadInputException(
                    why.isBlank() ? "There is no word on why it goes out." : "The reason is too long.",
                    "Write up to " + LONGEST_REASON + " characters, such as “the times are mended next week”.");
        }
        snapshot.giveOut(why.strip());
    }

    private static final int LONGEST_REASON = 300;

    /** What goes when the earlier states of a theme are removed. */
    @Transactional(readOnly = true)
    public Kept.Earlier earlier(long id, SignedIn me) {
        return kept.earlier(themes.findByIdAndMakerId(id, me.id()).orElseThrow(NotFoundException::new));
    }

    /**
     * Removes the states of a theme that are neither its newest, nor how it came in, nor restore points, nor used by a site. Cannot be
     * undone.
     *
     * @param base id of the snapshot that the person saw
     * @throws StaleException if the theme has moved on since
     * @return what went
     */
    @Transactional
    public Kept.Earlier removeEarlier(long id, long base, SignedIn me) {
        StoredTheme stored = at(themes.lock(id, me.id()), base);
        Kept.Earlier went = kept.earlier(stored);
        kept.removeEarlier(stored);
        return went;
    }

    @Transactional(readOnly = true)
    public List<Snapshot> history(long id, SignedIn me) {
        themes.findByIdAndMakerId(id, me.id()).orElseThrow(NotFoundException::new);
        return recent(id);
    }

    List<Snapshot> recent(long id) {
        return snapshots.findByThemeIdOrderByIdDesc(id, Limit.of(MOST_HISTORY));
    }

    /** A maker goes, and another one has the themes from now on; where a name is taken there, it gets a number. */
    @Transactional
    public void handOver(long from, long to) {
        for (StoredTheme t : themes.findByMakerIdOrderByNameAscIdAsc(from)) {
            handTo(t, to);
        }
        for (StoredTheme t : themes.sharedWith(from)) {
            t.leave(from);
            t.add(to);
        }
    }

    private void handTo(StoredTheme theme, long to) {
        theme.handTo(to, freeName(theme.name(), to));
        names.invalidate(theme.id());
    }

    /** A maker goes with all their themes, but for those on which others work: these are the next one's. */
    @Transactional
    public void removeAll(long maker) {
        themes.sharedWith(maker).forEach(t -> t.leave(maker));
        List<StoredTheme> all = themes.findByMakerIdOrderByNameAscIdAsc(maker);
        for (StoredTheme theme : all) {
            if (theme.others().isEmpty()) {
                themes.delete(theme);
                forget(theme.id());
            } else {
                handTo(theme, theme.others().iterator().next());
            }
        }
    }

    /** Removes a theme with its history. @throws BadInputException if sites use it, or it is another maker's */
    public void remove(long id, SignedIn me) {
        if (stored(id, me).makerId() != me.id()) {
            throw new BadInputException(
                    "This theme is another maker's, who alone may remove it.", "Leave it, under Handover.");
        }
        try {
            transaction.executeWithoutResult(
                    s -> themes.delete(themes.findByIdAndMakerId(id, me.id()).orElseThrow(NotFoundException::new)));
        } catch (DataIntegrityViolationException used) {
            throw new BadInputException("A site is built on this theme, so it stays.", "Remove the site first.");
        }
        forget(id);
    }

    /** Nobody waits for what is worked out about a theme that is no more, and others wait for their turn. */
    private void forget(long id) {
        surveys.forget(id);
        promised.forget(id);
    }

    private StoredTheme at(Optional<StoredTheme> found, long base) {
        StoredTheme stored = found.orElseThrow(NotFoundException::new);
        if (stored.headId() != base) {
            throw stale(stored.id());
        }
        return stored;
    }

    private StaleException stale(long id) {
        Snapshot head = snapshots
                .findById(
                        themes.findById(id).orElseThrow(NotFoundException::new).headId())
                .orElseThrow();
        return new StaleException(
                "The theme has changed since you opened this page: " + head.author() + ", "
                        + Times.at(head.at(), "HH:mm") + ", “" + head.note() + "”.",
                head.id());
    }

    /** Makes a change. The theme is locked in it; whoever comes second is told what the first one did. */
    private Snapshot guarded(long id, Supplier<Snapshot> change) {
        for (int i = 1; ; i++) {
            try {
                return transaction.execute(status -> change.get());
            } catch (ConcurrencyFailureException again) {
                if (i == TRIES) {
                    throw stale(id);
                }
            }
        }
    }
}
