package org.calmpalette.core.promise;

import java.util.ArrayList;
import java.util.Comparator;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;
import java.util.Random;
import java.util.Set;
import java.util.TreeMap;
import java.util.function.Consumer;
import java.util.function.Function;
import org.calmpalette.core.Budget;
import org.calmpalette.core.cascade.ColorExpression;
import org.calmpalette.core.color.Color;
import org.calmpalette.core.color.Contrast;
import org.calmpalette.core.paint.ColorRange;
import org.calmpalette.core.paint.Paint;
import org.calmpalette.core.paint.Paint.Veil;
import org.calmpalette.core.setting.BackgroundKind;
import org.calmpalette.core.setting.Band;
import org.calmpalette.core.setting.Chosen;
import org.calmpalette.core.setting.ColorKey;
import org.calmpalette.core.setting.ColorKind;
import org.calmpalette.core.setting.Effective;
import org.calmpalette.core.setting.Given;
import org.calmpalette.core.setting.Kind;
import org.calmpalette.core.setting.Media;
import org.calmpalette.core.setting.NumberKind;
import org.calmpalette.core.setting.Setting;
import org.calmpalette.core.setting.Value;
import org.calmpalette.core.theme.Theme;

/**
 * Decides whether letters keep a contrast ratio with what is behind them, for every allowed choice of the settings that both hold. Finite
 * lists are gone through; of colours between bounds the luminances and channels that they can have are enclosed ({@link OklchBox}), and so
 * are pictures and gradients by what their pixels can be; contrasts that settings demand of each other count as far as they are enforced,
 * which is when a value is chosen and not when it is a default. What is said to be broken has been looked at with the whole cascade.
 */
final class Proof {
    private static final int MOST_COMBINATIONS = 100_000;
    private static final int MOST_TRIES = 20_000;
    private static final int MOST_LOOKED_AT = 12;
    /** Combinations of lists beside colours between bounds. */
    private static final int MOST_CASES = 2_000;
    /** Of those that would break it, among which the worst is taken. */
    private static final int ENOUGH = 300;

    /** @param worst as in {@link Answer} */
    record Outcome(Answer.State state, double worst, Optional<Map<String, Value>> broken, String why, int width) {
        /** At the width that is asked about. */
        Outcome(Answer.State state, double worst, Optional<Map<String, Value>> broken, String why) {
            this(state, worst, broken, why, 0);
        }

        Outcome at(int otherWidth) {
            return new Outcome(state, worst, broken, why, otherWidth);
        }

        static Outcome unproven(String why) {
            return new Outcome(Answer.State.UNPROVEN, 0, Optional.empty(), why);
        }

        static Outcome kept(double worst) {
            return new Outcome(Answer.State.KEPT, worst, Optional.empty(), "");
        }
    }

    /** A way to break it that has to be looked at. */
    record Try(Map<String, Color> chosen, double ratio) {}

    /** Looks at a choice as a browser would. */
    interface Look {
        /** The contrast of the text with choices; empty if it cannot be told. */
        Optional<Double> at(Map<String, Chosen> chosen);
    }

    /** What settings may be. */
    interface Domains {
        Domain of(Setting setting, Band band);
    }

    private final Theme theme;
    private final Domains may;
    /** By custom property; asked for with every colour that is tried. */
    private Map<String, Setting> properties;

    Proof(Theme theme) {
        this(theme, Domain::of);
    }

    /** @param may what colour settings may be, where that is not what the theme says */
    Proof(Theme theme, Domains may) {
        this.theme = theme;
        this.may = may;
    }

    private Setting setting(String property) {
        if (properties == null) {
            properties = theme.palette().properties();
        }
        return properties.get(property);
    }

    static double luminance(Color c) {
        return Contrast.relativeLuminance(c);
    }

    /** Whether a colour hides what is behind it, whatever is chosen and whatever it is without a choice. @param e that is read */
    boolean isOpaque(ColorExpression e, Band band) {
        if (e instanceof ColorExpression.Fixed f) {
            return f.color().isOpaque();
        }
        boolean parts =
                e.properties().stream().map(p -> may.of(setting(p), band)).allMatch(d -> isOpaque(d, band, 0));
        return parts && (!(e instanceof ColorExpression.Mixed m) || Mixture.isOpaque(m));
    }

    private boolean isOpaque(Domain d, Band band, int depth) {
        return d.isOpaqueWhenChosen() && isOpaque(d.given(), band, depth);
    }

    private boolean isOpaque(Given given, Band band, int depth) {
        if (given instanceof Given.Fixed f) {
            return Domain.color(f).isOpaque();
        }
        Given.Follows f = (Given.Follows) given;
        boolean second = f.how().alsoReads().isEmpty();
        return depth < 20
                && second
                && !(f.how() instanceof Given.Translucent)
                && theme.palette()
                        .setting(f.key())
                        .filter(s -> s.kind() instanceof ColorKind)
                        .filter(s -> isOpaque(may.of(s, band), band, depth + 1))
                        .isPresent();
    }

    Outcome decide(ColorExpression letters, Ply under, double needed, Band band, Look look) {
        return new Deciding(letters, under, needed, band, look).outcome();
    }

    /** Whether it is kept; what would break it is not looked for. */
    boolean keeps(ColorExpression letters, Ply under, double needed, Band band) {
        return least(letters, under, needed, band) >= needed;
    }

    /** A contrast ratio that is kept, 1 to 21, near the greatest where that is under the needed one; 0 if none can be told. */
    double least(ColorExpression letters, Ply under, double needed, Band band) {
        return new Deciding(letters, under, needed, band, null).kept();
    }

    /**
     * Whether the luminance of a colour that is chosen opaque is all that counts for a text; if not, its channels may.
     *
     * @param key of its setting
     */
    boolean isByLuminance(ColorExpression letters, Ply under, Band band, String key) {
        return new Deciding(letters, under, 0, band, null).isByLuminance(key);
    }

    /** Whether fixed colours give one contrast: nothing lies behind a text whose colours are known by their range alone. */
    boolean isExact(ColorExpression letters, Ply under, Band band) {
        return new Deciding(letters, under, 0, band, null).isExact();
    }

    /** The keys of all settings that a text and what lies under it follow; empty if what they follow is no colour. */
    Set<String> followed(ColorExpression letters, Ply under, Band band) {
        Deciding d = new Deciding(letters, under, 0, band, null);
        return d.unread().isEmpty() ? d.domains.keySet() : Set.of();
    }

    /** One text in one band. @param look null where nobody wants to know what breaks it */
    class Deciding {
        private final ColorExpression letters;
        private final Ply under;
        private final double needed;
        private final Band band;
        private final Look look;
        private final Map<String, Domain> domains = new LinkedHashMap<>();

        Deciding(ColorExpression letters, Ply under, double needed, Band band, Look look) {
            this.letters = letters;
            this.under = under;
            this.needed = needed;
            this.band = band;
            this.look = look;
        }

        Outcome outcome() {
            String unread = unread();
            return !unread.isEmpty() ? Outcome.unproven(unread) : isShort() ? finite() : bounded();
        }

        /** As {@link Proof#least}. */
        double kept() {
            if (!unread().isEmpty()) {
                return 0;
            }
            if (!isShort()) {
                return least();
            }
            double[] worst = {21};
            each(List.copyOf(domains.values()), Domain::chosen, MOST_COMBINATIONS, chosen -> {
                if (mayBe(chosen)) {
                    worst[0] = Math.min(worst[0], ratio(chosen));
                }
            });
            return worst[0];
        }

        boolean isByLuminance(String key) {
            List<Ply> below = Ply.under(under);
            if (!unread().isEmpty() || below == null || !below.isEmpty() && !(below.get(0) instanceof Ply.Plain)) {
                return false;
            }
            ColorExpression ground =
                    below.isEmpty() ? new ColorExpression.Fixed(Color.WHITE) : ((Ply.Plain) below.get(0)).color();
            return isByItself(letters)
                    && isByItself(ground)
                    && domains.values().stream()
                            .filter(d -> d.given() instanceof Given.Follows)
                            .map(d -> (Given.Follows) d.given())
                            .allMatch(f -> f.how() instanceof Given.Same
                                    || f.how() instanceof Given.Readable
                                            && f.key().equals(key));
        }

        boolean isExact() {
            List<Ply> below = Ply.under(under);
            return unread().isEmpty()
                    && (under.unsure().isEmpty()
                            || below != null
                                    && !below.isEmpty()
                                    && below.get(0) instanceof Ply.Plain p
                                    && isOpaque(p.color()));
        }

        /** Whether all combinations can be gone through. */
        private boolean isShort() {
            long combinations = 1;
            for (Domain d : domains.values()) {
                combinations *= d.isFinite() ? d.chosen().size() + 1 : MOST_COMBINATIONS + 1L;
                combinations = Math.min(combinations, 1L << 40);
            }
            return combinations <= MOST_COMBINATIONS;
        }

        /** Takes up all settings that are followed. @return why that cannot be; empty if it can */
        private String unread() {
            List<ColorExpression> all = new ArrayList<>(under.colors());
            all.add(0, letters);
            for (ColorExpression e : all) {
                if (e instanceof ColorExpression.Unread u) {
                    return "a colour follows a choice: " + u.why();
                }
                for (String property : e.properties()) {
                    String open = read(setting(property));
                    if (!open.isEmpty()) {
                        return open;
                    }
                }
            }
            return "";
        }

        /** Takes up a setting and all that it follows. @return why it cannot be; empty if it can */
        private String read(Setting s) {
            if (s == null || !(s.kind() instanceof ColorKind)) {
                return "what a colour follows is no colour";
            }
            if (domains.containsKey(s.key())) {
                return "";
            }
            Domain d = may.of(s, band);
            domains.put(s.key(), d);
            if (d.given() instanceof Given.Follows f) {
                List<String> keys = new ArrayList<>(List.of(f.key()));
                f.how().alsoReads().ifPresent(keys::add);
                for (String key : keys) {
                    String open = read(theme.palette().setting(key).orElse(null));
                    if (!open.isEmpty()) {
                        return open;
                    }
                }
            }
            return "";
        }

        /** The colour of a setting, as made where it is not chosen. */
        private Color color(String key, Map<String, Color> chosen) {
            Color own = chosen.get(key);
            if (own != null) {
                return own;
            }
            Given given = domains.get(key).given();
            if (given instanceof Given.Fixed f) {
                return Domain.color(f);
            }
            Given.Follows f = (Given.Follows) given;
            Value value = f.how()
                    .of(
                            Value.of(ColorKey.of(color(f.key(), chosen))),
                            f.how().alsoReads().map(k -> Value.of(ColorKey.of(color(k, chosen)))));
            return ColorKind.parse(((Value.Text) value).text());
        }

        private String key(String property) {
            return setting(property).key();
        }

        /** What a combination comes to: a contrast ratio. */
        double ratio(Map<String, Color> chosen) {
            return bound(chosen, Map.of());
        }

        /** A colour with what is chosen. */
        final Color color(ColorExpression e, Map<String, Color> chosen) {
            return e instanceof ColorExpression.Fixed f
                    ? f.color()
                    : e instanceof ColorExpression.Mixed m
                            ? m.computed(property -> color(key(property), chosen))
                            : color(key(((ColorExpression.Chosen) e).property()), chosen);
        }

        /** What a colour may be. @param ranges of settings that are not known by one colour, by key */
        private Veil veil(ColorExpression e, Map<String, Color> chosen, Map<String, Veil> ranges) {
            if (e instanceof ColorExpression.Chosen c && ranges.containsKey(key(c.property()))) {
                return ranges.get(key(c.property()));
            }
            boolean known = !(e instanceof ColorExpression.Mixed m)
                    || ranges.isEmpty()
                    || m.properties().stream().map(this::key).noneMatch(ranges::containsKey);
            return known
                    ? Veil.of(color(e, chosen))
                    : Mixture.veil((ColorExpression.Mixed) e, property -> domains.get(key(property)), isOpaque(e));
        }

        /** A ratio that is kept while each setting is what it is said to be: one colour, or one of a range. */
        private double bound(Map<String, Color> chosen, Map<String, Veil> ranges) {
            Function<ColorExpression, Veil> colors = e -> veil(e, chosen, ranges);
            // The canvas is white where nothing paints it: common practice of browsers in a light scheme.
            return Paint.seen(paint(under, colors), colors.apply(letters), ColorRange.WHITE)
                    .leastRatio();
        }

        /** A ratio that none of what may lie there gets above. */
        private double most(Map<String, Color> chosen) {
            Function<ColorExpression, Veil> colors = e -> Veil.of(color(e, chosen));
            return Paint.seen(paint(under, colors), colors.apply(letters), ColorRange.WHITE)
                    .greatestRatio();
        }

        private Paint paint(Ply ply, Function<ColorExpression, Veil> colors) {
            if (ply instanceof Ply.Group g) {
                return new Paint.Group(
                        g.all().stream().map(p -> paint(p, colors)).toList(), g.from(), g.to());
            }
            return ply instanceof Ply.Letters
                    ? new Paint.Letters()
                    : ply instanceof Ply.Plain p
                            ? colors.apply(p.color())
                            : ply instanceof Ply.Range r
                                    ? r.veil()
                                    : ply instanceof Ply.Gradient g
                                            ? gradient(g, colors)
                                            : background(((Ply.Background) ply).property());
        }

        /** Mixed with premultiplied alpha (CSS Images 3, section 3.4.2): what is wholly clear adds no colour. */
        private static Veil gradient(Ply.Gradient g, Function<ColorExpression, Veil> colors) {
            List<Veil> stops = g.colors().stream().map(colors).toList();
            Veil all = stops.stream().reduce(Veil::and).orElse(Veil.ANYTHING);
            return stops.stream()
                    .filter(v -> v.densest() > 0)
                    .map(Veil::colors)
                    .reduce(ColorRange::and)
                    .map(c -> new Veil(c, all.thinnest(), all.densest()))
                    .orElse(all);
        }

        /** Its colour alone, or any picture under its shade. */
        private Paint background(String property) {
            Setting s = setting(property);
            if (!(s.kind() instanceof BackgroundKind kind) || !(s.givenIn(band) instanceof Given.Fixed made)) {
                return Veil.ANYTHING;
            }
            Value.Parts now = (Value.Parts) made.value();
            Map<String, Value> fixed = kind.parts().fixed();
            double least = now.number("strength").doubleValue();
            double most = least;
            if (!fixed.containsKey("strength")) {
                NumberKind strength = (NumberKind) kind.parts().kinds().get("strength");
                least = Math.min(least, strength.range().lower().doubleValue());
                most = Math.max(most, strength.range().upper().doubleValue());
            }
            Veil overlay = part(kind, now, "overlay");
            // Rounded to two digits of alpha as it is written: a hundredth at most.
            Veil shade = new Veil(
                    overlay.colors(),
                    Math.max(0, overlay.thinnest() * least / 100 - 0.005),
                    Math.min(1, overlay.densest() * most / 100 + 0.005));
            Veil color = part(kind, now, "color");
            return new Paint.Either(List.of(color, new Paint.Group(List.of(shade, Veil.ANYTHING, color), 1, 1)));
        }

        private Veil part(BackgroundKind kind, Value.Parts now, String name) {
            Veil made = Veil.of(ColorKind.parse(now.text(name)));
            if (kind.parts().fixed().containsKey(name)) {
                return made;
            }
            ColorKind colors = (ColorKind) kind.parts().kinds().get(name);
            Veil chosen = colors.swatches().isEmpty()
                    ? new Veil(OklchBox.channels(colors.bounds()), colors.opaque() ? 1 : 0, 1)
                    : colors.swatches().stream()
                            .map(c -> Veil.of(ColorKind.parse(c)))
                            .reduce(Veil::and)
                            .orElseThrow();
            return made.and(chosen);
        }

        private Outcome finite() {
            List<Try> broken = new ArrayList<>();
            double[] worst = {21};
            each(List.copyOf(domains.values()), Domain::chosen, MOST_COMBINATIONS, chosen -> {
                if (mayBe(chosen)) {
                    double r = ratio(chosen);
                    worst[0] = Math.min(worst[0], r);
                    if (r < needed) {
                        broken.add(new Try(Map.copyOf(chosen), r));
                    }
                }
            });
            return broken.isEmpty()
                    ? Outcome.kept(worst[0])
                    : looked(broken)
                            .orElseGet(() -> Outcome.unproven(open(
                                    worst[0],
                                    String.format(
                                            Locale.ROOT,
                                            "%d combinations would break it, and none of those that were looked at is allowed by itself",
                                            broken.size()))));
        }

        /** Why it stays open. */
        private String open(double worst, String otherwise) {
            List<String> unsure = under.unsure();
            return unsure.isEmpty()
                    ? otherwise
                    : String.format(
                            Locale.ROOT,
                            "%s lies behind it: %s",
                            String.join(" and ", unsure),
                            worst < 1.005
                                    ? "it may be as light or as dark as the text"
                                    : String.format(
                                            Locale.ROOT,
                                            "%.2f to 1 where that is worst, and layout tells whether the text stands there",
                                            Math.floor(worst * 100) / 100));
        }

        /** Whether no limit of a value, among those that are chosen, speaks against a combination. */
        final boolean mayBe(Map<String, Color> chosen) {
            for (Domain d : domains.values()) {
                if (d.settled() && !chosen.containsKey(d.key())) {
                    return false;
                }
            }
            if (chosen.isEmpty()) {
                return true;
            }
            Kind.Around around = new Effective.MediaOnly(Media.NONE) {
                @Override
                public Optional<Value> value(String key) {
                    return domains.containsKey(key)
                            ? Optional.of(Value.of(ColorKey.of(color(key, chosen))))
                            : Optional.empty();
                }
            };
            return chosen.entrySet().stream().allMatch(e -> domains.get(e.getKey())
                    .kind()
                    .refusal(Value.of(ColorKey.of(e.getValue())), around)
                    .isEmpty());
        }

        /** The worst of what would break it that the theme allows and the cascade confirms. */
        final Optional<Outcome> looked(List<Try> broken) {
            if (look == null) {
                return Optional.empty();
            }
            // What is broken as made comes first: nobody has to choose anything to see it.
            broken.sort(Comparator.comparing((Try t) -> !t.chosen().isEmpty())
                    .thenComparingDouble(Try::ratio)
                    .thenComparingInt(t -> t.chosen().size()));
            for (Try t : broken.subList(0, Math.min(MOST_LOOKED_AT, broken.size()))) {
                Map<String, Chosen> chosen = new LinkedHashMap<>();
                Map<String, Value> values = new TreeMap<>();
                t.chosen().forEach((key, color) -> {
                    Value v = Value.of(ColorKey.of(color));
                    values.put(key, v);
                    chosen.put(
                            key,
                            domains.get(key).setting().bands().containsKey(band.key())
                                    ? new Chosen(null, Map.of(band.key(), v))
                                    : Chosen.of(v));
                });
                Effective effective = Effective.of(theme.palette(), chosen, theme.media());
                if (!effective.leftOut().isEmpty()) {
                    continue;
                }
                // What only layout could tell the cascade, but is known to fill its box, is as it was put together
                // here; of what is not known it counts what it never gets above.
                Optional<Double> seen = look.at(chosen);
                boolean bound = seen.isEmpty() && !under.unsure().isEmpty();
                double ratio = bound ? most(t.chosen()) : seen.orElse(t.ratio());
                if (ratio < needed) {
                    return Optional.of(
                            new Outcome(Answer.State.BROKEN, ratio, Optional.of(values), bound ? "at most" : ""));
                }
            }
            return Optional.empty();
        }

        Outcome bounded() {
            double least = least();
            if (least >= needed) {
                return Outcome.kept(least);
            }
            if (look == null) {
                return Outcome.unproven("");
            }
            List<Try> broken = new ArrayList<>();
            each(List.copyOf(domains.values()), Domain::samples, MOST_TRIES, chosen -> {
                double r = broken.size() < ENOUGH ? ratio(chosen) : needed;
                if (r < needed && mayBe(chosen)) {
                    broken.add(new Try(Map.copyOf(chosen), r));
                }
            });
            return looked(broken)
                    .orElseGet(() -> Outcome.unproven(
                            open(least, "colours between these bounds are not told apart closely enough")));
        }

        /** A ratio that is kept, of all ways in which the letters and what lies right under them are chosen or as made. */
        double least() {
            List<Ply> below = Ply.under(under);
            ColorExpression ground = below == null
                    ? null
                    : below.isEmpty()
                            ? new ColorExpression.Fixed(Color.WHITE)
                            : below.get(0) instanceof Ply.Plain p ? p.color() : null;
            Domain front = domain(letters);
            Domain back = domain(ground);
            if (front != null && front == back) {
                return 1;
            }
            boolean plain = ground != null && isByItself(letters) && isByItself(ground);
            double least = 21;
            for (boolean a : ways(front)) {
                for (boolean b : ways(back)) {
                    double demanded = Math.max(
                            a ? demanded(front, back, ground, plain) : 0,
                            b ? demanded(back, front, letters, plain) : 0);
                    least = Math.min(
                            least,
                            demanded >= needed
                                    ? demanded
                                    : plain ? ratio(front, a, back, b, ground) : cases(front, a, back, b));
                }
            }
            return least;
        }

        /** Whether it is chosen, in both ways that there may be. */
        private static boolean[] ways(Domain d) {
            return d == null || !d.mayBeChosen()
                    ? new boolean[] {false}
                    : d.settled() ? new boolean[] {true} : new boolean[] {true, false};
        }

        final double needed() {
            return needed;
        }

        final Domain domain(ColorExpression e) {
            return e instanceof ColorExpression.Chosen c ? domains.get(key(c.property())) : null;
        }

        private boolean isOpaque(ColorExpression e) {
            return Proof.this.isOpaque(e, band);
        }

        /** Whether it is opaque, and one colour or one setting: no other takes part in it. */
        private boolean isByItself(ColorExpression e) {
            return !(e instanceof ColorExpression.Mixed) && isOpaque(e);
        }

        /**
         * What one demands of the other where it is chosen, 0 for nothing; over whatever lies below, where they do not meet plainly.
         *
         * @param beside the other, a setting or a colour
         */
        private double demanded(Domain one, Domain other, ColorExpression beside, boolean plain) {
            return one == null
                    ? 0
                    : one.kind().contrasts().stream()
                            .filter(n -> plain || n.anything())
                            .filter(n -> other != null
                                    ? n.with().equals(other.key())
                                    : beside instanceof ColorExpression.Fixed f
                                            && Color.parse(n.with())
                                                    .filter(f.color()::equals)
                                                    .isPresent())
                            .mapToDouble(n -> n.atLeast().doubleValue())
                            .max()
                            .orElse(0);
        }

        private double ratio(Domain front, boolean a, Domain back, boolean b, ColorExpression ground) {
            Luminances behind = back == null
                    ? Luminances.at(luminance(((ColorExpression.Fixed) ground).color()))
                    : b ? back.luminances() : made(back);
            if (front == null) {
                return Luminances.at(luminance(((ColorExpression.Fixed) letters).color()))
                        .ratio(behind);
            }
            boolean turns = !a
                    && front.given() instanceof Given.Follows f
                    && back != null
                    && f.key().equals(back.key())
                    && f.how() instanceof Given.Readable;
            if (turns) {
                Given.Readable r = (Given.Readable) ((Given.Follows) front.given()).how();
                return behind.better(luminance(ColorKind.parse(r.dark())), luminance(ColorKind.parse(r.light())));
            }
            return (a ? front.luminances() : made(front)).ratio(behind);
        }

        /** Of what is made, which may follow another one. */
        private Luminances made(Domain d) {
            Veil v = madeVeil(d);
            return v.thinnest() < 1
                    ? Luminances.of(0, 1)
                    : Luminances.of(v.colors().darkest(), v.colors().lightest());
        }

        private Veil madeVeil(Domain d) {
            if (d.given() instanceof Given.Fixed f) {
                return Veil.of(Domain.color(f));
            }
            Given.Follows f = (Given.Follows) d.given();
            if (f.how() instanceof Given.Same) {
                return all(domains.get(f.key()));
            }
            if (f.how() instanceof Given.Readable r) {
                return Veil.of(ColorKind.parse(r.dark())).and(Veil.of(ColorKind.parse(r.light())));
            }
            return new Veil(ColorRange.ANY, Proof.this.isOpaque(d.given(), band, 0) ? 1 : 0, 1);
        }

        private Veil all(Domain d) {
            return d.mayBeChosen() ? madeVeil(d).and(d.veil()) : madeVeil(d);
        }

        /** With lists gone through as far as they are short, and ranges for the rest. */
        private double cases(Domain front, boolean a, Domain back, boolean b) {
            List<Domain> listed = new ArrayList<>();
            long count = 1;
            for (Domain d : domains.values()) {
                boolean plainList = d.isFinite() && d.given() instanceof Given.Fixed;
                if (plainList && count * (d.chosen().size() + 1) <= MOST_CASES) {
                    count *= d.chosen().size() + 1;
                    listed.add(d);
                }
            }
            Map<String, Veil> ranges = new LinkedHashMap<>();
            for (Domain d : domains.values()) {
                if (!listed.contains(d)) {
                    ranges.put(
                            d.key(),
                            d == front && a || d == back && b
                                    ? d.veil()
                                    : d == front || d == back ? madeVeil(d) : all(d));
                }
            }
            double[] least = {21};
            each(listed, Domain::chosen, MOST_COMBINATIONS, chosen -> {
                boolean here = (front == null || !listed.contains(front) || chosen.containsKey(front.key()) == a)
                        && (back == null || !listed.contains(back) || chosen.containsKey(back.key()) == b);
                if (here) {
                    least[0] = Math.min(least[0], bound(chosen, ranges));
                }
            });
            return least[0];
        }
    }

    /** Goes through combinations, each setting as made or as one of its values; some of them at random where there are more than {@code most}. */
    private static void each(
            List<Domain> variables,
            Function<Domain, List<Color>> values,
            int most,
            Consumer<Map<String, Color>> visitor) {
        List<List<Color>> lists = variables.stream().map(values).toList();
        double all = lists.stream().mapToDouble(l -> l.size() + 1.0).reduce(1, (a, b) -> a * b);
        boolean some = all > most;
        Random random = new Random(1);
        int[] at = new int[lists.size()];
        for (long n = 0; n < (some ? most : all); n++) {
            Budget.step();
            Map<String, Color> chosen = new LinkedHashMap<>();
            for (int i = 0; i < at.length; i++) {
                if (at[i] > 0) {
                    chosen.put(variables.get(i).key(), lists.get(i).get(at[i] - 1));
                }
            }
            visitor.accept(chosen);
            if (some) {
                for (int i = 0; i < at.length; i++) {
                    at[i] = random.nextInt(lists.get(i).size() + 1);
                }
            } else {
                for (int i = 0; i < at.length && ++at[i] > lists.get(i).size(); i++) {
                    at[i] = 0;
                }
            }
        }
    }
}
