package org.calmpalette.core.promise;

import java.math.BigDecimal;
import java.util.ArrayList;
import java.util.Comparator;
import java.util.HashMap;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.function.Function;
import java.util.stream.Collectors;
import org.calmpalette.core.BadInputException;
import org.calmpalette.core.Budget;
import org.calmpalette.core.cascade.ColorExpression;
import org.calmpalette.core.change.Change;
import org.calmpalette.core.change.OwnSheet;
import org.calmpalette.core.change.PaletteChange;
import org.calmpalette.core.change.SheetRole;
import org.calmpalette.core.color.Color;
import org.calmpalette.core.color.ColorSpace;
import org.calmpalette.core.page.Page;
import org.calmpalette.core.part.PartChange;
import org.calmpalette.core.render.Rendered;
import org.calmpalette.core.setting.BackgroundKind;
import org.calmpalette.core.setting.ColorKey;
import org.calmpalette.core.setting.ColorKind;
import org.calmpalette.core.setting.ColorKind.Bounds;
import org.calmpalette.core.setting.ColorKind.Needed;
import org.calmpalette.core.setting.ColorKind.Span;
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
import org.calmpalette.core.theme.Theme;
import org.calmpalette.core.value.Viewport;

/** What would mend a broken promise: the smallest first, by what it takes away. Each was tried before it is offered. */
public final class Mends {
    private static final int MOST = 4;
    private static final int MOST_DROPPED = 24;
    /** More than any colour of sRGB has (CSS Color 4, 9.4: about 0.32). */
    private static final BigDecimal ALL_CHROMA = new BigDecimal("0.4");

    private final Theme theme;
    private final Answer broken;
    private final List<Mend> found = new ArrayList<>();
    private final Map<String, Answer.State> before = new HashMap<>();

    private Mends(Theme theme, Answer broken) {
        this.theme = theme;
        this.broken = broken;
    }

    /** @param broken an answer about this theme as it is; of one that is not decided what would decide it is looked for */
    public static List<Mend> of(Theme theme, Answer broken) {
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
                default -> {
                    // What is wrong in palette.json was meant otherwise, and only its author knows how; what boxes
                    // tell, the
                    // survey mends.
                }
            }
        }
        return mends.found.stream().limit(MOST).toList();
    }

    private void offer(String words, String takes, Setting wanted) {
        offer(words, takes, List.of(wanted));
    }

    private void offer(String words, String takes, List<Setting> wanted) {
        try {
            Change all = null;
            Theme now = theme;
            for (Setting s : wanted) {
                Change one = PaletteChange.edit(
                        now, s, now.palette().place(s.place()).orElseThrow());
                now = one.applied(now);
                all = all == null ? one : all;
            }
            Theme after = now;
            PaletteChange.check(theme, after.palette());
            found.add(new Mend(words, takes, Change.of(words).withPalette(theme, after.palette())));
        } catch (BadInputException refused) {
            // A default or a scheme would not be allowed any more: then it is no mend.
        }
    }

    // Readable

    private void readable() {
        Optional<Readable.Asked> question = Readable.find(theme, broken);
        if (question.isEmpty() || !question.get().why().isEmpty()) {
            return;
        }
        Readable.Asked asked = question.get();
        Setting letters = chosen(asked.letters());
        List<Ply> below = Ply.under(asked.under());
        // The canvas is white where nothing paints it.
        ColorExpression under = below == null
                ? null
                : below.isEmpty()
                        ? new ColorExpression.Fixed(Color.WHITE)
                        : below.get(0) instanceof Ply.Plain p ? p.color() : null;
        Setting ground = chosen(under);
        List<Setting> owners = new ArrayList<>();
        for (Setting s : java.util.Arrays.asList(letters, ground)) {
            if (s != null
                    && !owners.contains(s)
                    && (s.shown() == null || !s.shown().isNever())) {
                owners.add(s);
            }
        }
        if (broken.values().isEmpty()) {
            owners.forEach(s -> otherDefault(asked, s));
            if (asked.letters() instanceof ColorExpression.Fixed f) {
                otherColor(asked, f.color());
            }
            return;
        }
        demand(asked, letters, ground, under);
        owners.forEach(s -> fewerSwatches(asked, s));
        owners.forEach(s -> narrower(asked, s));
    }

    private Setting chosen(ColorExpression e) {
        Setting s = e instanceof ColorExpression.Chosen c
                ? theme.palette().properties().get(c.property())
                : null;
        return s != null && s.kind() instanceof ColorKind ? s : null;
    }

    private Optional<Readable.Retrial> with(Readable.Asked asked, Setting... changed) {
        Budget.step();
        var palette = theme.palette();
        for (Setting s : changed) {
            palette = palette.replacing(s, palette.place(s.place()).orElseThrow());
        }
        try {
            Theme other = Change.of("Tried").withPalette(theme, palette).applied(theme);
            return Optional.of(new Readable.Retrial(other, asked));
        } catch (BadInputException refused) {
            return Optional.empty();
        }
    }

    private boolean isKeptWith(Readable.Asked asked, Setting... changed) {
        return with(asked, changed).filter(Readable.Retrial::isKept).isPresent();
    }

    /** A contrast that is demanded takes the fewest choices away: only those that cannot be read. */
    private void demand(Readable.Asked asked, Setting letters, Setting ground, ColorExpression under) {
        BigDecimal least = BigDecimal.valueOf(asked.needed()).stripTrailingZeros();
        String fixedGround = letters != null && ground == null ? fixed(under) : "";
        String fixedLetters = ground != null && letters == null ? fixed(asked.letters()) : "";
        List<List<Setting>> ways = new ArrayList<>();
        if (letters != null && ground != null && letters != ground) {
            Setting a = letters.withKind(demanding((ColorKind) letters.kind(), ground.key(), least));
            Setting b = ground.withKind(demanding((ColorKind) ground.kind(), letters.key(), least));
            ways.add(List.of(a));
            ways.add(List.of(b));
            ways.add(List.of(a, b));
        } else if (!fixedGround.isEmpty()) {
            ways.add(List.of(letters.withKind(demanding((ColorKind) letters.kind(), fixedGround, least))));
        } else if (!fixedLetters.isEmpty()) {
            ways.add(List.of(ground.withKind(demanding((ColorKind) ground.kind(), fixedLetters, least))));
        }
        for (boolean opaque : new boolean[] {false, true}) {
            for (List<Setting> way : ways) {
                List<Setting> wanted = opaque ? opaque(way, letters, ground) : way;
                if (wanted.isEmpty() || !isKeptWith(asked, wanted.toArray(Setting[]::new))) {
                    continue;
                }
                String which = way.stream().map(s -> "“" + s.label() + "”").collect(Collectors.joining(" and "));
                String against = letters != null && ground != null
                        ? way.size() == 2
                                ? "each other"
                                : "“" + (way.get(0).key().equals(letters.key()) ? ground : letters).label() + "”"
                        : fixedGround + fixedLetters;
                offer(
                        "Ask of " + which + " a contrast of " + least.toPlainString() + " with " + against
                                + (opaque ? ", and no colours that let through" : ""),
                        "Owners cannot choose what has less" + (opaque ? ", or shows what is behind it." : "."),
                        wanted);
                return;
            }
        }
    }

    /** The same with both settings opaque; empty if they are so already. */
    private static List<Setting> opaque(List<Setting> way, Setting letters, Setting ground) {
        Map<String, Setting> all = new LinkedHashMap<>();
        boolean changes = false;
        for (Setting s : java.util.Arrays.asList(letters, ground)) {
            if (s != null && !((ColorKind) s.kind()).opaque()) {
                changes = true;
                all.put(s.key(), s);
            }
        }
        way.forEach(s -> all.put(s.key(), s));
        all.replaceAll((key, s) -> {
            ColorKind kind = (ColorKind) s.kind();
            return s.withKind(new ColorKind(kind.swatches(), kind.bounds(), kind.contrasts(), true));
        });
        return changes ? List.copyOf(all.values()) : List.of();
    }

    private static String fixed(ColorExpression e) {
        return e instanceof ColorExpression.Fixed f && f.color().isOpaque() ? ColorKey.of(f.color()) : "";
    }

    private static ColorKind demanding(ColorKind kind, String with, BigDecimal least) {
        List<Needed> all = new ArrayList<>(kind.contrasts());
        all.removeIf(n -> n.with().equals(with) && n.atLeast().compareTo(least) <= 0);
        all.add(new Needed(with, least));
        return new ColorKind(kind.swatches(), kind.bounds(), all, kind.opaque());
    }

    private void fewerSwatches(Readable.Asked asked, Setting s) {
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
            Setting fewer = s.withKind(new ColorKind(left, kind.bounds(), kind.contrasts(), kind.opaque()));
            Proof.Outcome o = with(asked, fewer).map(Readable.Retrial::outcome).orElse(Proof.Outcome.unproven(""));
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

    /** The widest span of lightness that is kept: the text keeps its distance the better, the farther the ground is from it. */
    private void narrower(Readable.Asked asked, Setting s) {
        ColorKind kind = (ColorKind) s.kind();
        if (!kind.swatches().isEmpty() || !(s.given() instanceof Given.Fixed made)) {
            return;
        }
        Bounds now = kind.bounds() == null ? new Bounds(null, null, null) : kind.bounds();
        Span chroma = now.chroma() == null ? new Span(BigDecimal.ZERO, ALL_CHROMA) : now.chroma();
        double from = now.lightness() == null ? 0 : now.lightness().from().doubleValue();
        double to = now.lightness() == null ? 100 : now.lightness().to().doubleValue();
        double own = Domain.color(made).to(ColorSpace.OKLCH).c0() * 100;
        Function<Span, Setting> bounded = span ->
                s.withKind(new ColorKind(List.of(), new Bounds(span, chroma, now.hue()), kind.contrasts(), true));
        List<Span> ways = new ArrayList<>();
        for (boolean upper : new boolean[] {true, false}) {
            double good = own;
            double bad = upper ? to : from;
            if (!isKeptWith(asked, bounded.apply(span(from, to, good, upper)))) {
                continue;
            }
            while (Math.abs(bad - good) > 0.5) {
                double middle = (good + bad) / 2;
                if (isKeptWith(asked, bounded.apply(span(from, to, middle, upper)))) {
                    good = middle;
                } else {
                    bad = middle;
                }
            }
            ways.add(span(from, to, upper ? Math.floor(good) : Math.ceil(good), upper));
        }
        ways.stream()
                .max(Comparator.comparingDouble(w -> w.to().subtract(w.from()).doubleValue()))
                .filter(w -> isKeptWith(asked, bounded.apply(w)))
                .ifPresent(w -> offer(
                        "Let “" + s.label() + "” have a lightness of "
                                + w.from().toPlainString() + " to " + w.to().toPlainString() + "%",
                        kind.opaque()
                                ? "It may be " + kind.inWords() + " today."
                                : "It may be " + kind.inWords() + " and let through today.",
                        bounded.apply(w)));
    }

    private static Span span(double from, double to, double end, boolean upper) {
        return new Span(tenth(upper ? from : end), tenth(upper ? end : to));
    }

    private static BigDecimal tenth(double n) {
        return new BigDecimal(String.format(Locale.ROOT, "%.1f", n)).stripTrailingZeros();
    }

    /** As made it cannot be read: the nearest colour that can, and is allowed. */
    private void otherDefault(Readable.Asked asked, Setting s) {
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
    private boolean readsAsMade(Readable.Asked asked, Setting other) {
        return with(asked, other)
                .map(Readable.Retrial::outcome)
                .filter(o -> o.state() == Answer.State.KEPT
                        || o.state() == Answer.State.BROKEN
                                && !o.broken().orElse(Map.of()).isEmpty())
                .isPresent();
    }

    /** The nearest colour of the letters that can be read, where it is written; or by a rule for this part alone. */
    private void otherColor(Readable.Asked asked, Color own) {
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
                    Set<String> states = broken.pseudoClass().isEmpty() ? Set.of() : Set.of(broken.pseudoClass());
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

    private boolean tryColor(Rendered rendered, Page page, Color c, String reach, Set<String> states) {
        try {
            Change change = new PartChange(
                            rendered,
                            page,
                            broken.element(),
                            null,
                            "color",
                            Viewport.of(Math.max(320, broken.width()), 900),
                            states,
                            null)
                    .fix(reach, new PartChange.What.Value(ColorKey.of(c)));
            Mend mend = new Mend(
                    "Write it in " + ColorKey.of(c)
                            + (reach.equals("rule") ? ", where its colour is written" : ", by a rule of its own"),
                    "The nearest in lightness that can be read.",
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
    private void stronger(Readable.Asked asked, String property) {
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
            if (!isKeptWith(asked, with.apply(most))) {
                continue;
            }
            int bad = -1;
            int good = most;
            while (good - bad > 1) {
                int middle = (good + bad) / 2;
                if (isKeptWith(asked, with.apply(middle))) {
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
            Readable.of(theme).forEach(a -> before.put(a.id(), a.state()));
        }
        return Readable.of(mend.change().applied(theme)).stream()
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
