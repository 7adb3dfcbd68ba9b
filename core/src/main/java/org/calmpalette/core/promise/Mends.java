package org.calmpalette.core.promise;

import java.math.BigDecimal;
import java.util.ArrayList;
import java.util.Comparator;
import java.util.HashMap;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.function.Function;
import java.util.stream.Collectors;
import java.util.stream.Stream;
import org.calmpalette.core.BadInputException;
import org.calmpalette.core.cascade.ColorExpression;
import org.calmpalette.core.change.Change;
import org.calmpalette.core.change.OwnSheet;
import org.calmpalette.core.change.PaletteChange;
import org.calmpalette.core.change.SheetRole;
import org.calmpalette.core.color.Color;
import org.calmpalette.core.color.ColorSpace;
import org.calmpalette.core.css.selector.States;
import org.calmpalette.core.page.Page;
import org.calmpalette.core.part.PartChange;
import org.calmpalette.core.render.Rendered;
import org.calmpalette.core.setting.BackgroundKind;
import org.calmpalette.core.setting.Between;
import org.calmpalette.core.setting.ColorKey;
import org.calmpalette.core.setting.ColorKind;
import org.calmpalette.core.setting.CompositeKind;
import org.calmpalette.core.setting.Given;
import org.calmpalette.core.setting.ItemsKind;
import org.calmpalette.core.setting.Kind;
import org.calmpalette.core.setting.LevelKind;
import org.calmpalette.core.setting.LinkKind;
import org.calmpalette.core.setting.NumberKind;
import org.calmpalette.core.setting.PictureKind;
import org.calmpalette.core.setting.Range;
import org.calmpalette.core.setting.Setting;
import org.calmpalette.core.setting.TextKind;
import org.calmpalette.core.setting.Value;
import org.calmpalette.core.survey.Finding;
import org.calmpalette.core.theme.Theme;
import org.calmpalette.core.value.Viewport;

/** What would mend a broken promise: the smallest first, by what it takes away. Each was tried before it is offered. */
public final class Mends {
    private static final int MOST = 4;
    private static final int MOST_DROPPED = 24;

    private final Theme theme;
    private final Answer broken;
    private final List<Mend> found = new ArrayList<>();
    private final Map<String, Answer.State> before = new HashMap<>();
    /** Of this theme, while mends are tried. */
    private final Proved known = new Proved();

    private Mends(Theme theme, Answer broken) {
        this.theme = theme;
        this.broken = broken;
    }

    public static List<Mend> of(Theme theme, Answer broken) {
        return of(theme, broken, Map.of());
    }

    /**
     * @param broken an answer about this theme as it is; of one that is not decided what would decide it is looked for
     * @param varied what is found with other values, of those with which boxes were measured
     */
    public static List<Mend> of(Theme theme, Answer broken, Map<Variation, List<Finding>> varied) {
        Mends mends = new Mends(theme, broken);
        if (broken.state() == Answer.State.UNPROVEN && broken.promise() == Promise.READABLE) {
            Readable.find(theme, broken)
                    .ifPresent(asked ->
                            asked.under().backgrounds().stream().distinct().forEach(p -> mends.stronger(asked, p)));
        }
        if (broken.isBroken()) {
            switch (broken.promise()) {
                case READABLE -> mends.readable();
                case WHOLE -> mends.whole();
                case STILL -> mends.still();
                case EFFECTIVE -> mends.effective();
                case APART -> Apart.find(theme, broken).ifPresent(mends::apart);
                case DISTINCT -> Apart.find(theme, broken).ifPresent(mends::distinct);
                case SOUND, LIGHT -> {
                    // What is wrong in palette.json was meant otherwise, and only its author knows how.
                }
                case COVERED, SHARP, IN_SIGHT, UNDISTORTED, CLEAR, FITS -> mends.boxes(varied);
            }
        }
        return mends.found.stream().limit(MOST).toList();
    }

    /** What boxes tell of the theme as it is made, the survey mends; of another value, limits without it. */
    private void boxes(Map<Variation, List<Finding>> varied) {
        if (broken.finding() != null && broken.values().size() == 1) {
            broken.values().forEach((key, value) -> Narrowing.of(
                            theme, new Variation(key, value), AsMade.breaks(broken.finding(), varied))
                    .ifPresent(found::add));
        }
    }

    private void offer(String words, String takes, Setting wanted) {
        Limiting.offer(theme, words, takes, List.of(wanted)).ifPresent(found::add);
    }

    private Limiting limiting(Asked asked) {
        return new Limiting(theme, List.of(asked));
    }

    // Apart

    /** What limits either of the two, in every band. */
    private void apart(Between between) {
        Limiting limiting = new Limiting(theme, Apart.asked(theme, between, Promise.APART));
        List<Setting> owners = owners(between);
        limiting.demand(owners).ifPresent(found::add);
        owners.forEach(s -> limiting.narrower(s).ifPresent(found::add));
    }

    private List<Setting> owners(Between between) {
        return Stream.of(between.one(), between.other())
                .map(theme.palette()::known)
                .filter(s -> s.shown() == null || !s.shown().isNever())
                .toList();
    }

    /** Fewer swatches of either, or a span of lightness. */
    private void distinct(Between between) {
        Limiting limiting = new Limiting(theme, limited -> Apart.keepsDistance(limited, between));
        for (Setting s : owners(between)) {
            ColorKind kind = (ColorKind) s.kind();
            List<String> kept = kind.swatches().stream()
                    .filter(c -> limiting.isKeptWith(s.withKind(kind.withSwatches(List.of(c)))))
                    .toList();
            Setting fewer = s.withKind(kind.withSwatches(kept));
            if (!kept.isEmpty() && kept.size() < kind.swatches().size() && limiting.isKeptWith(fewer)) {
                offer(
                        "Take "
                                + kind.swatches().stream()
                                        .filter(c -> !kept.contains(c))
                                        .collect(Collectors.joining(", "))
                                + " out of the swatches of “" + s.label() + "”",
                        kept.size() + " of " + kind.swatches().size() + " swatches are left.",
                        fewer);
            }
            limiting.narrower(s).ifPresent(found::add);
        }
    }

    // Readable

    private void readable() {
        Optional<Asked> question = Readable.find(theme, broken);
        if (question.isEmpty() || !question.get().why().isEmpty()) {
            return;
        }
        Asked asked = question.get();
        Limiting limiting = limiting(asked);
        List<Setting> owners = limiting.owners(asked);
        if (broken.values().isEmpty()) {
            owners.forEach(s -> otherDefault(asked, s));
            if (asked.letters() instanceof ColorExpression.Fixed f) {
                otherColor(asked, f.color());
            }
            return;
        }
        limiting.demand(owners).ifPresent(found::add);
        owners.forEach(s -> fewerSwatches(asked, s));
        owners.forEach(s -> limiting.narrower(s).ifPresent(found::add));
    }

    private void fewerSwatches(Asked asked, Setting s) {
        ColorKind kind = (ColorKind) s.kind();
        if (kind.swatches().isEmpty()) {
            return;
        }
        List<String> left = new ArrayList<>(kind.swatches());
        List<String> dropped = new ArrayList<>();
        Map<String, Value> next = broken.values();
        while (dropped.size() < MOST_DROPPED
                && next.get(s.key()) instanceof Value.Text t
                && left.size() > 1
                && left.remove(t.text())) {
            dropped.add(t.text());
            Setting fewer = s.withKind(kind.withSwatches(left));
            Proof.Outcome o = limiting(asked)
                    .with(asked, List.of(fewer))
                    .map(Readable.Retrial::outcome)
                    .orElse(Proof.Outcome.unproven(""));
            if (o.state() == Answer.State.KEPT) {
                offer(
                        "Take " + String.join(", ", dropped) + " out of the swatches of “" + s.label() + "”",
                        left.size() == 1
                                ? "One swatch is left."
                                : left.size() + " of " + kind.swatches().size() + " swatches are left.",
                        fewer);
                return;
            }
            next = o.broken().orElse(Map.of());
        }
    }

    /** As made it cannot be read: the nearest colour that can, and is allowed. */
    private void otherDefault(Asked asked, Setting s) {
        if (!(s.given() instanceof Given.Fixed made) || !s.bands().isEmpty()) {
            return;
        }
        ColorKind kind = (ColorKind) s.kind();
        Color own = Domain.color(made);
        List<Color> tries = new ArrayList<>();
        if (kind.swatches().isEmpty()) {
            Color lch = own.to(ColorSpace.OKLCH);
            for (int step = 1; step <= 100; step++) {
                for (int sign : new int[] {-1, 1}) {
                    double lightness = lch.c0() + sign * step / 100.0;
                    if (lightness >= 0 && lightness <= 1) {
                        tries.add(
                                ColorKind.parse(new Color(ColorSpace.OKLCH, lightness, lch.c1(), lch.c2(), lch.alpha())
                                        .toGamut()
                                        .hex()));
                    }
                }
            }
        } else {
            kind.swatches().stream().map(ColorKind::parse).forEach(tries::add);
            tries.sort(Comparator.comparingDouble(own::distance));
        }
        for (Color c : tries) {
            String hex = ColorKey.of(c);
            Setting other = s.withGiven(new Given.Fixed(Value.of(hex)));
            boolean allowed = kind.refusal(Value.of(hex), Kind.Around.NOTHING).isEmpty();
            if (allowed && !c.equals(own) && readsAsMade(asked, other)) {
                int before = found.size();
                offer(
                        "Make " + hex + " the default of “" + s.label() + "”",
                        "It is " + ColorKey.of(own) + " today.",
                        other);
                if (found.size() > before && breaksAnother(found.get(found.size() - 1))) {
                    found.remove(found.size() - 1);
                    continue;
                }
                return;
            }
        }
    }

    /** Whether it is kept then, or broken by a choice alone, which has mends of its own. */
    private boolean readsAsMade(Asked asked, Setting other) {
        return limiting(asked)
                .with(asked, List.of(other))
                .map(Readable.Retrial::outcome)
                .filter(o -> o.state() == Answer.State.KEPT
                        || o.state() == Answer.State.BROKEN
                                && !o.broken().orElse(Map.of()).isEmpty())
                .isPresent();
    }

    /** The nearest colour of the letters that can be read, where it is written; or by a rule for this part alone. */
    private void otherColor(Asked asked, Color own) {
        Rendered rendered = new Rendered(theme);
        Page page = rendered.page(broken.page()).orElseThrow();
        Color lch = own.withAlpha(1).to(ColorSpace.OKLCH);
        for (int step = 1; step <= 100; step++) {
            for (int sign : new int[] {-1, 1}) {
                double lightness = lch.c0() + sign * step / 100.0;
                Color c = Color.parse(
                                new Color(ColorSpace.OKLCH, Math.max(0, Math.min(1, lightness)), lch.c1(), lch.c2(), 1)
                                        .toGamut()
                                        .hex())
                        .orElseThrow();
                if (lightness >= 0 && lightness <= 1 && asked.keepsIn(theme, c)) {
                    if (PartStates.isClass(broken.pseudoClass())) {
                        // Where it is written which colour holds then is for a person to find.
                        return;
                    }
                    Set<String> states =
                            broken.pseudoClass().isEmpty() || isPlaceholder() ? Set.of() : Set.of(broken.pseudoClass());
                    for (String reach : List.of("rule", "only")) {
                        if (tryColor(rendered, page, c, reach, states)) {
                            return;
                        }
                    }
                    return;
                }
            }
        }
    }

    private boolean isPlaceholder() {
        return broken.pseudoClass().equals(FieldText.PLACEHOLDER);
    }

    private boolean tryColor(Rendered rendered, Page page, Color c, String reach, Set<String> states) {
        try {
            Viewport window = Viewport.of(Math.max(320, broken.width()), 900);
            // The first of several colours, any of which would do: of a field its border.
            Inks.Ink ink = Inks.of(
                            rendered.styles(page, window, States.NONE),
                            page.elements().get(broken.element()),
                            broken.what())
                    .any()
                    .stream()
                    .findFirst()
                    .orElse(null);
            boolean drawn = broken.what() == Perceivable.EDGE || broken.what() == Perceivable.ICON;
            if (drawn && ink == null) {
                return false;
            }
            Change change = new PartChange(
                            rendered,
                            page,
                            drawn ? page.elements().indexOf(ink.style().element()) : broken.element(),
                            isPlaceholder() ? "placeholder" : broken.what().pseudoElement(),
                            drawn ? ink.longhand() : broken.what() == Perceivable.OUTLINE ? "outline-color" : "color",
                            window,
                            states,
                            null)
                    .fix(reach, new PartChange.What.Value(ColorKey.of(c)));
            Mend mend = new Mend(
                    (drawn || broken.what() == Perceivable.OUTLINE ? "Draw it in " : "Write it in ")
                            + ColorKey.of(c)
                            + (reach.equals("rule") ? ", where its colour is written" : ", by a rule of its own"),
                    "The nearest in lightness that can be " + (drawn ? "seen." : "read."),
                    change);
            if (isMendedBy(mend) && !breaksAnother(mend)) {
                found.add(mend);
                return true;
            }
        } catch (BadInputException refused) {
            // Nothing is written there that could be changed.
        }
        return false;
    }

    private boolean isMendedBy(Mend mend) {
        return Readable.find(mend.change().applied(theme), broken)
                .filter(q -> q.outcomeIn(mend.change().applied(theme)).state() != Answer.State.BROKEN)
                .isPresent();
    }

    /** The least shade over whatever picture is chosen: a step less is not enough. */
    private void stronger(Asked asked, String property) {
        Setting s = theme.palette().properties().get(property);
        if (!(s.kind() instanceof BackgroundKind kind)
                || !(s.given() instanceof Given.Fixed made)
                || !s.bands().isEmpty()) {
            return;
        }
        Value.Parts now = (Value.Parts) made.value();
        NumberKind strength = (NumberKind) kind.parts().kinds().get("strength");
        int most = strength.range().upper().min(BigDecimal.valueOf(100)).intValue();
        for (boolean anyColor : new boolean[] {true, false}) {
            Function<Integer, Setting> with = least -> {
                Map<String, Kind> kinds = new LinkedHashMap<>(kind.parts().kinds());
                kinds.put(
                        "strength",
                        new NumberKind(true, new Range(BigDecimal.valueOf(least), BigDecimal.valueOf(most), null)));
                Map<String, Value> fixed = new LinkedHashMap<>(kind.parts().fixed());
                fixed.remove("strength");
                if (!anyColor) {
                    fixed.put("overlay", Value.of(now.text("overlay")));
                    fixed.put("color", Value.of(now.text("color")));
                }
                double own = Math.max(least, now.number("strength").doubleValue());
                return s.withKind(new BackgroundKind(new CompositeKind(kinds, fixed)))
                        .withGiven(new Given.Fixed(now.with("strength", Value.of(BigDecimal.valueOf(own)))));
            };
            if (!limiting(asked).isKeptWith(with.apply(most))) {
                continue;
            }
            int bad = -1;
            int good = most;
            while (good - bad > 1) {
                int middle = (good + bad) / 2;
                if (limiting(asked).isKeptWith(with.apply(middle))) {
                    good = middle;
                } else {
                    bad = middle;
                }
            }
            double own = now.number("strength").doubleValue();
            offer(
                    "Let the shade of “" + s.label() + "” be at least " + good + "%"
                            + (anyColor ? "" : ", in " + now.text("overlay") + " over " + now.text("color")),
                    "Then it reads over any picture."
                            + (own < good ? " Today's " + Math.round(own) + "% becomes " + good + "%." : ""),
                    with.apply(good));
            return;
        }
    }

    /** A default paints all that follows it: a text that could be read must stay so. */
    private boolean breaksAnother(Mend mend) {
        if (before.isEmpty()) {
            Readable.of(theme, Map.of(), Proved.NOTHING, known).answers().forEach(a -> before.put(a.id(), a.state()));
        }
        return Readable.of(mend.change().applied(theme), Map.of(), known, new Proved()).answers().stream()
                .anyMatch(a -> a.isBroken() && a.values().isEmpty() && before.get(a.id()) == Answer.State.KEPT);
    }

    // The others

    private boolean isKeptAfter(Change change, Promise promise) {
        List<Answer> all = promise == Promise.WHOLE
                ? Whole.of(change.applied(theme))
                : promise == Promise.STILL ? Still.of(change.applied(theme)) : Working.of(change.applied(theme));
        return all.stream().noneMatch(a -> a.isBroken() && a.id().equals(broken.id()));
    }

    private void whole() {
        for (Map.Entry<String, Value> e : broken.values().entrySet()) {
            Setting s = theme.palette().setting(e.getKey()).orElse(null);
            if (s == null) {
                continue;
            }
            Kind kind = s.kind();
            if (kind instanceof ItemsKind items && e.getValue() instanceof Value.Many many) {
                Map<String, ItemsKind.Part> parts = new LinkedHashMap<>(items.parts());
                parts.replaceAll((key, part) -> isIn(many, key, part)
                        ? new ItemsKind.Part(part.label(), filled(part.kind()), part.initial())
                        : part);
                kind = new ItemsKind(parts, items.least(), items.most());
            } else {
                kind = filled(kind);
            }
            if (!kind.equals(s.kind())) {
                int before = found.size();
                offer(
                        "Let “" + s.label() + "” be " + kind.inWords(),
                        "It may be " + s.kind().inWords() + " today.",
                        s.withKind(kind));
                if (found.size() > before && !isKeptAfter(found.get(before).change(), Promise.WHOLE)) {
                    found.remove(before);
                }
            }
        }
    }

    /** Whether the case has the emptiest value for a part. */
    private static boolean isIn(Value.Many many, String key, ItemsKind.Part part) {
        return many.items().stream()
                .map(i -> ((Value.Parts) i).part(key).orElse(null))
                .anyMatch(v -> v != null
                        && filled(part.kind()).refusal(v, Kind.Around.NOTHING).isPresent());
    }

    /** The same kind without its emptiest value. */
    private static Kind filled(Kind kind) {
        if (kind instanceof TextKind t && t.least() == 0) {
            return new TextKind(t.rows(), 1, t.most(), t.form());
        }
        if (kind instanceof LinkKind link) {
            List<String> targets = new ArrayList<>(link.targets().isEmpty() ? LinkKind.TARGETS : link.targets());
            targets.remove("anchor");
            return targets.isEmpty() ? kind : new LinkKind(targets);
        }
        if (kind instanceof LevelKind level && level.least() == 1 && level.most() > 1) {
            return new LevelKind(2, level.most());
        }
        return kind instanceof PictureKind p && p.none() ? p.withNone(false) : kind;
    }

    private void still() {
        Rendered rendered = new Rendered(theme);
        Change stop = new OwnSheet(rendered, SheetRole.of(theme))
                .append(
                        "Movement stops for visitors who ask for less of it",
                        """
                        @media (prefers-reduced-motion: reduce) {
                          *,
                          ::before,
                          ::after {
                            animation-duration: 0.01ms !important;
                            animation-iteration-count: 1 !important;
                            scroll-behavior: auto !important;
                          }
                        }""",
                        theme.pages());
        if (isKeptAfter(stop, Promise.STILL)) {
            found.add(new Mend(
                    "Stop all movement for visitors who ask for less of it", "Nobody else sees a difference.", stop));
        }
    }

    private void effective() {
        try {
            Change remove = PaletteChange.remove(theme, List.of(broken.selector()));
            found.add(new Mend(
                    "Remove the setting “" + broken.words() + "”",
                    "What owners chose for it does not count any more; it changes nothing today.",
                    remove));
        } catch (BadInputException refused) {
            // Another setting follows it.
        }
    }
}
