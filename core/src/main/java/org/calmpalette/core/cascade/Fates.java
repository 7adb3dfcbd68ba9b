package org.calmpalette.core.cascade;

import java.util.ArrayList;
import java.util.Comparator;
import java.util.HashMap;
import java.util.HashSet;
import java.util.IdentityHashMap;
import java.util.LinkedHashMap;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import org.calmpalette.core.Budget;
import org.calmpalette.core.css.Node;
import org.calmpalette.core.css.selector.ComplexSelector;
import org.calmpalette.core.css.selector.SelectorList;
import org.calmpalette.core.css.selector.Stateless;
import org.calmpalette.core.css.selector.States;
import org.calmpalette.core.page.Page;
import org.calmpalette.core.value.Viewport;
import org.jsoup.nodes.Element;

/**
 * What becomes of each declaration of a theme on its pages, in any window and any state. A declaration counts as beaten
 * on an element only if a stronger one holds there whenever it holds itself, so that nothing is called dead that could
 * ever show. What scripts do to a page is not known here.
 */
public final class Fates {
    /** What became of a declaration. */
    public enum Kind {
        NOT_UNDERSTOOD,
        MATCHES_NOTHING,
        NOWHERE,
        SOMEWHERE,
        EVERYWHERE
    }

    /**
     * A declaration and what became of it.
     *
     * @param declaration where it stands; {@code because} says nothing
     * @param parts elements and pseudo-elements that its selector finds, on all pages
     * @param pages how many pages have one
     * @param beatenParts on how many of them a stronger one always holds
     * @param beatenBy the first of those that beat it, at most three, with the reason in {@code because}
     * @param importantNeeded for an important declaration: whether it would lose anywhere, ever, without it
     */
    public record Fate(
            Kind kind,
            Explanation.Cause declaration,
            int parts,
            int pages,
            int beatenParts,
            List<Explanation.Cause> beatenBy,
            boolean importantNeeded) {}

    /** Names a declaration: the file and the offset of its first character in it. */
    public record Key(String file, int start) {}

    private static final int MOST_NAMED = 3;

    private final Map<Key, Tally> tallies = new LinkedHashMap<>();
    private final Map<Node.Declaration, Boolean> understood = new IdentityHashMap<>();
    private final Map<ComplexSelector, Boolean> stateless = new IdentityHashMap<>();

    private static final class Tally {
        final CascadedDeclaration sample;
        int parts;
        int beaten;
        boolean importantNeeded;
        final Set<Page> pages = java.util.Collections.newSetFromMap(new IdentityHashMap<>());
        final Map<Key, Explanation.Cause> by = new LinkedHashMap<>();

        Tally(CascadedDeclaration sample) {
            this.sample = sample;
        }
    }

    /**
     * A declaration on one element.
     *
     * @param strongest as strong as it may ever be there
     * @param steady as strong as it is there in any state; null if it holds in some states only
     */
    private record Held(CascadedDeclaration strongest, CascadedDeclaration steady) {
        CascadedDeclaration weakest() {
            return steady == null ? strongest : steady;
        }
    }

    /** Decides whether and how far a page is looked at. */
    public interface EachPage {
        void look(int number, Page page, Runnable look);

        EachPage ALL = (number, page, look) -> look.run();
    }

    private Fates() {}

    /**
     * The fates of all declarations in sheets that the pages load, in the order of the sheets.
     *
     * @param each hears of each page, with its number from 1, and has it looked at; what it does not look at does not count
     */
    public static Map<Key, Fate> of(List<Page> pages, PageStyles.Library library, EachPage each) {
        Fates fates = new Fates();
        Map<SheetReader, RuleIndex> indexes = new IdentityHashMap<>();
        int number = 0;
        for (Page page : pages) {
            each.look(++number, page, () -> {
                PageStyles.Sheets sheets = library.of(page);
                RuleIndex index = indexes.get(sheets.reader());
                if (index == null) {
                    index = fates.index(sheets.reader());
                    indexes.put(sheets.reader(), index);
                }
                fates.look(page, sheets, index);
            });
        }
        Map<Key, Fate> all = new LinkedHashMap<>();
        fates.tallies.forEach((key, t) -> all.put(key, fates.fate(t)));
        return all;
    }

    private Fate fate(Tally t) {
        Kind kind = !isUnderstood(t.sample)
                ? Kind.NOT_UNDERSTOOD
                : t.parts == 0
                        ? Kind.MATCHES_NOTHING
                        : t.beaten == t.parts ? Kind.NOWHERE : t.beaten > 0 ? Kind.SOMEWHERE : Kind.EVERYWHERE;
        return new Fate(
                kind,
                Explanation.cause(t.sample, Because.DECIDES),
                t.parts,
                t.pages.size(),
                t.beaten,
                List.copyOf(t.by.values()),
                t.importantNeeded);
    }

    private static Key key(CascadedDeclaration a) {
        return new Key(
                a.rule().source().file().file(),
                a.rule().source().offset()
                        + a.rule()
                                .source()
                                .sheet()
                                .tokens()
                                .start(a.declaration().first()));
    }

    /** All rules, whatever their conditions, with their selectors freed of states. */
    private RuleIndex index(SheetReader reader) {
        RuleIndex index = new RuleIndex();
        int order = 0;
        for (FlatRule rule : reader.rules) {
            Budget.step();
            for (Node.Declaration d : rule.declarations()) {
                CascadedDeclaration a = new CascadedDeclaration(
                        rule,
                        d,
                        d.property(),
                        rule.source().sheet().value(d),
                        d.important(),
                        rule.source().origin(),
                        0,
                        0,
                        rule.selectors().mostSpecific(),
                        0);
                tallies.computeIfAbsent(key(a), k -> new Tally(a));
            }
            List<ComplexSelector> free = new ArrayList<>();
            for (ComplexSelector s : rule.selectors().selectors()) {
                ComplexSelector stripped = Stateless.of(s).selector();
                stateless.put(stripped, Stateless.isStateless(s));
                free.add(stripped);
            }
            index.add(
                    new FlatRule(
                            rule.source(),
                            new SelectorList(free),
                            rule.shownSelector(),
                            rule.layer(),
                            rule.conditions(),
                            rule.scope(),
                            rule.declarations()),
                    order++);
        }
        return index;
    }

    private void look(Page page, PageStyles.Sheets sheets, RuleIndex index) {
        PageStyles styles = sheets.in(Viewport.of(1280, 800), States.ANY);
        for (Element element : page.document().getAllElements()) {
            if (element == page.document()) {
                continue;
            }
            // One group for the element itself and one for each of its pseudo-elements.
            Map<String, Map<FlatRule, List<RuleIndex.Entry>>> groups = new HashMap<>();
            styles.eachMatch(index, element, (entry, proximity) -> groups.computeIfAbsent(
                            String.valueOf(entry.selector().pseudoElement()), k -> new IdentityHashMap<>())
                    .computeIfAbsent(entry.rule(), k -> new ArrayList<>(1))
                    .add(entry));
            Map<String, List<Held>> held = new HashMap<>();
            groups.forEach((pseudo, rules) -> rules.forEach(
                    (rule, entries) -> hold(styles, entries, held.computeIfAbsent(pseudo, k -> new ArrayList<>()))));
            if (element.hasAttr("style") && held.containsKey("null")) {
                styles.matched(element, null).stream()
                        .filter(a -> a.origin() == Origin.STYLE_ATTRIBUTE)
                        .forEach(a -> held.get("null").add(new Held(a, a)));
            }
            held.values().forEach(all -> judge(page, all));
        }
    }

    private void hold(PageStyles styles, List<RuleIndex.Entry> entries, List<Held> out) {
        RuleIndex.Entry best = null;
        RuleIndex.Entry free = null;
        for (RuleIndex.Entry e : entries) {
            best = best == null || isMoreSpecific(e, best) ? e : best;
            if (stateless.get(e.selector())) {
                free = free == null || isMoreSpecific(e, free) ? e : free;
            }
        }
        List<CascadedDeclaration> strongest = styles.applied(best);
        List<CascadedDeclaration> steady = free == best ? strongest : free == null ? null : styles.applied(free);
        for (int i = 0; i < strongest.size(); i++) {
            out.add(new Held(strongest.get(i), steady == null ? null : steady.get(i)));
        }
    }

    private static boolean isMoreSpecific(RuleIndex.Entry a, RuleIndex.Entry b) {
        return a.selector().specificity().compareTo(b.selector().specificity()) > 0;
    }

    private void judge(Page page, List<Held> all) {
        Map<String, List<Held>> byLonghand = new HashMap<>();
        for (Held h : all) {
            if (isUnderstood(h.strongest())) {
                for (String l : Properties.longhands(h.strongest().property())) {
                    byLonghand.computeIfAbsent(l, k -> new ArrayList<>(2)).add(h);
                }
            }
        }
        Map<String, List<Held>> steady = new HashMap<>();
        byLonghand.forEach((longhand, held) -> {
            List<Held> sorted = new ArrayList<>(held);
            sorted.sort(Comparator.comparing(Held::steady, Comparator.nullsFirst(CascadedDeclaration.STRENGTH))
                    .reversed());
            steady.put(longhand, sorted);
            held.sort(Comparator.comparing(Held::strongest, CascadedDeclaration.STRENGTH)
                    .reversed());
        });
        for (Held h : all) {
            Budget.step();
            CascadedDeclaration a = h.strongest();
            if (a.origin() != Origin.AUTHOR) {
                continue;
            }
            Tally tally = tallies.get(key(a));
            tally.parts++;
            tally.pages.add(page);
            if (!isUnderstood(a)) {
                continue;
            }
            CascadedDeclaration by = null;
            boolean beaten = true;
            for (String l : Properties.longhands(a.property())) {
                Optional<CascadedDeclaration> stronger = stronger(steady.get(l), h);
                beaten &= stronger.isPresent();
                by = stronger.orElse(by);
                tally.importantNeeded |= a.important() && isImportanceNeeded(byLonghand.get(l), h);
            }
            if (beaten && by != null) {
                tally.beaten++;
                if (tally.by.size() < MOST_NAMED) {
                    CascadedDeclaration winner = by;
                    tally.by.computeIfAbsent(
                            key(winner), k -> Explanation.cause(winner, Explanation.because(a, winner)));
                }
            }
        }
    }

    /**
     * The strongest declaration that holds whenever another does, and is stronger.
     *
     * @param steady the declarations by how strong they are in any state, the strongest first
     */
    private static Optional<CascadedDeclaration> stronger(List<Held> steady, Held than) {
        for (Held h : steady) {
            CascadedDeclaration a = h.steady();
            Budget.step();
            if (a == null || CascadedDeclaration.STRENGTH.compare(a, than.strongest()) <= 0) {
                return Optional.empty();
            }
            if (h != than
                    && than.strongest().rule().conditions().containsAll(a.rule().conditions())) {
                return Optional.of(a);
            }
        }
        return Optional.empty();
    }

    /** @param strongest the declarations by how strong they may be at most, the strongest first */
    private static boolean isImportanceNeeded(List<Held> strongest, Held important) {
        CascadedDeclaration a = important.weakest();
        CascadedDeclaration normal = new CascadedDeclaration(
                a.rule(),
                a.declaration(),
                a.property(),
                a.value(),
                false,
                a.origin(),
                a.layerRank(),
                a.proximity(),
                a.specificity(),
                a.order());
        Held other = strongest.get(0) == important && strongest.size() > 1 ? strongest.get(1) : strongest.get(0);
        return other != important && CascadedDeclaration.STRENGTH.compare(other.strongest(), normal) > 0;
    }

    private boolean isUnderstood(CascadedDeclaration a) {
        return a.declaration() == null
                || understood.computeIfAbsent(
                        a.declaration(), d -> Understanding.of(a.property(), a.value()) == Understanding.FULL);
    }

    /** Names of all classes that the selectors of a sheet ask for: what scripts may switch on. */
    public static Set<String> classes(SelectorList list) {
        Set<String> names = new LinkedHashSet<>();
        for (ComplexSelector s : list.selectors()) {
            s.compounds().forEach(c -> c.simples().forEach(simple -> {
                if (simple instanceof org.calmpalette.core.css.selector.SimpleSelector.ClassName name) {
                    names.add(name.name());
                } else if (simple instanceof org.calmpalette.core.css.selector.SimpleSelector.Functional f) {
                    names.addAll(classes(f.arguments()));
                }
            }));
        }
        return new HashSet<>(names);
    }
}
