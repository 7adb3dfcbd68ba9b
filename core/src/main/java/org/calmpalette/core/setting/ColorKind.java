package org.calmpalette.core.setting;

import java.math.BigDecimal;
import java.util.ArrayList;
import java.util.Collections;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.TreeMap;
import java.util.function.Function;
import java.util.function.UnaryOperator;
import org.calmpalette.core.BadInputException;
import org.calmpalette.core.color.Color;
import org.calmpalette.core.color.ColorSpace;
import org.calmpalette.core.color.Contrast;
import org.calmpalette.core.language.Language;

/**
 * A colour: {@code #rrggbb}, {@code #rrggbbaa}, or a CSS colour that sRGB cannot show.
 *
 * @param swatches the colours to choose among; empty if there is no such list
 * @param bounds in OKLCH; null for none
 * @param contrasts that have to be kept
 * @param opaque whether only opaque colours may be chosen
 * @param names what owners read of a swatch, by its colour; of one that has none they read what its colour is called
 */
public record ColorKind(
        List<String> swatches, Bounds bounds, List<Needed> contrasts, boolean opaque, Map<String, String> names)
        implements Kind {
    /** Characters of a swatch's name: it stands under a dot. */
    public static final int LONGEST_NAME = 40;

    public static final ColorKind ANY = new ColorKind(List.of(), null, List.of(), false);
    private static final String N = "[+-]?(\\d{1,6}(\\.\\d{1,10})?|\\.\\d{1,10})";
    private static final String S = "\\s+";
    private static final String END = "(\\s*/\\s*(0|1|0?\\.\\d{1,6}|\\d{1,3}%))?\\)";
    /** The plain spellings of a colour; every one of them is a colour for {@link Color#parse}. */
    private static final String SPELLING = "^(#([0-9a-fA-F]{3,4}|[0-9a-fA-F]{6}|[0-9a-fA-F]{8})"
            + "|rgb\\(" + N + S + N + S + N + END
            + "|hsl\\(" + N + S + N + "%" + S + N + "%" + END
            + "|(oklch|oklab|lch|lab)\\(" + N + "%?" + S + N + S + N + END
            + "|color\\((srgb|srgb-linear|display-p3|a98-rgb|prophoto-rgb|rec2020|xyz|xyz-d50|xyz-d65)" + S + N + S + N
            + S + N + END + ")" + CompositeKind.END;

    public ColorKind {
        swatches = List.copyOf(swatches);
        contrasts = List.copyOf(contrasts);
        for (String s : swatches) {
            parse(s);
        }
        Map<String, String> ofSwatches = new TreeMap<>(names);
        ofSwatches.keySet().retainAll(swatches);
        names = Collections.unmodifiableMap(ofSwatches);
    }

    /** With swatches that have no names. */
    public ColorKind(List<String> swatches, Bounds bounds, List<Needed> contrasts, boolean opaque) {
        this(swatches, bounds, contrasts, opaque, Map.of());
    }

    /** With other swatches; those that stay keep their names. */
    public ColorKind withSwatches(List<String> others) {
        return new ColorKind(others, bounds, contrasts, opaque, names);
    }

    public ColorKind withContrasts(List<Needed> others) {
        return new ColorKind(swatches, bounds, others, opaque, names);
    }

    public ColorKind withOpaque(boolean only) {
        return new ColorKind(swatches, bounds, contrasts, only, names);
    }

    /** The swatches as a maker writes them: a colour, and its name after it. */
    public List<String> lines() {
        return swatches.stream()
                .map(s -> names.containsKey(s) ? s + " " + names.get(s) : s)
                .toList();
    }

    /**
     * Bounds in OKLCH (CSS Color Level 4, section 9.4); null where there is none.
     *
     * @param lightness from and to in percent
     * @param chroma from and to, 0 to 0.5
     * @param hue from and to in degrees, clockwise; 350 to 20 goes through 0. Grey has no hue, so it is never outside.
     */
    public record Bounds(Span lightness, Span chroma, Span hue) {
        /** Below it a colour counts as grey. */
        private static final double GREY = 0.004;

        Optional<Refusal> refusal(Color color) {
            Color lch = color.to(ColorSpace.OKLCH);
            if (lightness != null && !lightness.holds(lch.c0() * 100, 0.05)) {
                return Optional.of(new Refusal.ColorBeyond(Refusal.Component.LIGHTNESS, lch.c0() * 100, lightness));
            }
            if (chroma != null && !chroma.holds(lch.c1(), 0.0005)) {
                return Optional.of(new Refusal.ColorBeyond(Refusal.Component.CHROMA, lch.c1(), chroma));
            }
            if (hue != null && lch.c1() > GREY && !hue.holdsAngle(lch.c2())) {
                return Optional.of(new Refusal.ColorBeyond(Refusal.Component.HUE, lch.c2(), hue));
            }
            return Optional.empty();
        }

        String inWords() {
            List<String> all = new ArrayList<>();
            if (lightness != null) {
                all.add(Language.say("colour.lightness", lightness.inWords("%")));
            }
            if (chroma != null) {
                all.add(Language.say("colour.chroma", chroma.inWords("")));
            }
            if (hue != null) {
                all.add(Language.say("colour.hue", hue.inWords("°")));
            }
            return String.join(", ", all);
        }

        static Bounds read(JsonEntry e) {
            return new Bounds(
                    Span.read(e, "lightness", 0, 100, false),
                    Span.read(e, "chroma", 0, 0.5, false),
                    Span.read(e, "hue", 0, 360, true));
        }

        Value.Parts parts() {
            return Value.parts(
                    "lightness",
                    lightness == null ? null : lightness.pair(),
                    "chroma",
                    chroma == null ? null : chroma.pair(),
                    "hue",
                    hue == null ? null : hue.pair());
        }
    }

    /** From one number to another. */
    public record Span(BigDecimal from, BigDecimal to) {
        static Span read(JsonEntry e, String key, double least, double most, boolean angle) {
            if (!e.has(key)) {
                return null;
            }
            List<Value> pair = e.list(key);
            if (pair.size() != 2
                    || !(pair.get(0) instanceof Value.Number a)
                    || !(pair.get(1) instanceof Value.Number b)
                    || a.number().doubleValue() < least
                    || b.number().doubleValue() < least
                    || a.number().doubleValue() > most
                    || b.number().doubleValue() > most
                    || !angle && a.number().compareTo(b.number()) > 0) {
                throw JsonEntry.bad(
                        e.at(key),
                        "it is no pair of numbers from " + round(least, 1) + " to " + round(most, 1),
                        "Write \"" + key + "\": [" + round(least, 1) + ", " + round(most, 1) + "].");
            }
            return new Span(a.number(), b.number());
        }

        boolean holds(double v, double tolerance) {
            return v >= from.doubleValue() - tolerance && v <= to.doubleValue() + tolerance;
        }

        boolean holdsAngle(double degrees) {
            double size = ((to.doubleValue() - from.doubleValue()) % 360 + 360) % 360;
            double inside = ((degrees - from.doubleValue()) % 360 + 360) % 360;
            return size == 0 && to.compareTo(from) != 0 || inside <= size + 0.5 || inside >= 359.5;
        }

        String inWords(String unit) {
            return Language.say("allowed.between", from, to, unit);
        }

        Value pair() {
            return new Value.Many(List.of(Value.of(from), Value.of(to)));
        }
    }

    private static final String ANYTHING = "anything";

    /**
     * A contrast that has to be kept (WCAG 2.2, contrast ratio).
     *
     * @param with the key of another colour setting, or a CSS colour
     * @param atLeast from 1 to 21
     * @param anything whether it has to be kept whatever lies under a colour that lets through, as a shade over pictures and films does
     */
    public record Needed(String with, BigDecimal atLeast, boolean anything) {
        public Needed(String with, BigDecimal atLeast) {
            this(with, atLeast, false);
        }

        Optional<Refusal> refusal(Color color, Around around) {
            Optional<Color> fixed = Color.parse(with);
            Optional<Color> other = fixed.isPresent()
                    ? fixed
                    : around.value(with)
                            .flatMap(v -> v instanceof Value.Text t ? Color.parse(t.text()) : Optional.empty());
            if (other.isEmpty()) {
                return Optional.empty();
            }
            double ratio = anything ? leastBetween(color, other.get()) : ratio(color, other.get());
            return ratio >= atLeast.doubleValue()
                    ? Optional.empty()
                    : Optional.of(new Refusal.LowContrast(with, fixed.isEmpty(), other.get(), ratio, atLeast));
        }
    }

    @Override
    public ColorKind renamed(UnaryOperator<String> name) {
        List<Needed> named = contrasts.stream()
                .map(n -> new Needed(name.apply(n.with()), n.atLeast(), n.anything()))
                .toList();
        return withContrasts(named);
    }

    @Override
    public ColorKind recolored(UnaryOperator<String> to) {
        Map<String, String> others = new TreeMap<>();
        names.forEach((color, name) -> others.put(to.apply(color), name));
        return new ColorKind(swatches.stream().map(to).distinct().toList(), bounds, contrasts, opaque, others);
    }

    @Override
    public ColorKind withTexts(UnaryOperator<String> to) {
        Map<String, String> others = new TreeMap<>();
        names.forEach((color, name) -> others.put(color, to.apply(name)));
        return new ColorKind(swatches, bounds, contrasts, opaque, others);
    }

    @Override
    public Value recolored(Value value, UnaryOperator<String> to) {
        return Value.of(to.apply(((Value.Text) value).text()));
    }

    static double ratio(Color a, Color b) {
        if (a.isOpaque()) {
            return b.isOpaque() ? Contrast.ratio(a, b) : Contrast.ratioOver(b, List.of(a));
        }
        // What lies under a translucent ground is not known here: paper is taken for it.
        return Contrast.ratioOver(a, List.of(b, Color.WHITE));
    }

    /**
     * A contrast ratio that letters keep with a ground that lets through, over any picture: what the ground shows lies between it over black
     * and over white, channel by channel, and so do letters that let through (source-over is linear in what is under it, Compositing 1,
     * section 5; relative luminance grows with each channel, WCAG 2.2). Exact for opaque letters, else no more than what is kept.
     */
    static double leastOver(Color ground, Color letters) {
        Color dark = Contrast.over(ground, Color.BLACK);
        Color light = Contrast.over(ground, Color.WHITE);
        double low = Contrast.relativeLuminance(Contrast.over(letters, dark));
        double high = Contrast.relativeLuminance(Contrast.over(letters, light));
        double from = Contrast.relativeLuminance(dark);
        double to = Contrast.relativeLuminance(light);
        return low > to ? (low + 0.05) / (to + 0.05) : from > high ? (from + 0.05) / (high + 0.05) : 1;
    }

    /** Of two colours the one that lets through is the ground; where both do, either may be. */
    private static double leastBetween(Color a, Color b) {
        return a.isOpaque()
                ? leastOver(b, a)
                : b.isOpaque() ? leastOver(a, b) : Math.min(leastOver(a, b), leastOver(b, a));
    }

    static Kind read(JsonEntry e) {
        List<Needed> needed = e.entries("contrast").stream()
                .map(c -> {
                    BigDecimal least = c.number("atLeast").orElse(new BigDecimal("4.5"));
                    if (least.doubleValue() < 1 || least.doubleValue() > 21) {
                        throw JsonEntry.bad(
                                c.at("atLeast"),
                                "a contrast ratio lies between 1 and 21",
                                "Write 4.5 for text, 3 for large text.");
                    }
                    String over = c.has("over") ? c.text("over") : "";
                    if (c.has("over") && !over.equals(ANYTHING)) {
                        throw JsonEntry.bad(
                                c.at("over"), "“" + over + "” is unknown", "Write \"anything\", or leave it out.");
                    }
                    return new Needed(c.text("with"), least, c.has("over"));
                })
                .toList();
        List<String> swatches = e.texts("swatches");
        if (e.has("swatches") && swatches.isEmpty()) {
            throw JsonEntry.bad(
                    e.at("swatches"),
                    "the list is empty, so nothing could be chosen",
                    "Name a colour, or leave \"swatches\" out.");
        }
        List<String> colors = swatches.stream().map(ColorKind::canonical).toList();
        return new ColorKind(
                colors,
                e.has("bounds") ? Bounds.read(e.entry("bounds")) : null,
                needed,
                e.flag("opaque"),
                names(e, colors));
    }

    private static Map<String, String> names(JsonEntry e, List<String> swatches) {
        Map<String, String> all = new TreeMap<>();
        JsonEntry given = e.entry("names");
        for (String color : given.keys()) {
            String name = given.text(color);
            if (Color.parse(color).isEmpty() || !swatches.contains(canonical(color))) {
                throw JsonEntry.bad(
                        given.at(color), "no swatch is “" + color + "”", "Name one that stands under \"swatches\".");
            }
            if (name.isBlank() || name.length() > LONGEST_NAME) {
                throw JsonEntry.bad(
                        given.at(color),
                        "the name is " + (name.isBlank() ? "empty" : "too long"),
                        "Write 1 to " + LONGEST_NAME + " characters, such as Fir.");
            }
            all.put(canonical(color), name);
        }
        return all;
    }

    @Override
    public Value.Parts allowed() {
        return Value.parts(
                "swatches",
                swatches.isEmpty() ? null : Value.of(swatches),
                "bounds",
                bounds == null ? null : bounds.parts(),
                "contrast",
                contrasts.isEmpty()
                        ? null
                        : new Value.Many(contrasts.stream()
                                .<Value>map(c -> Value.parts(
                                        "with",
                                        c.with(),
                                        "atLeast",
                                        c.atLeast(),
                                        "over",
                                        c.anything() ? ANYTHING : null))
                                .toList()),
                "opaque",
                opaque ? true : null,
                "names",
                names.isEmpty() ? null : Value.texts(names));
    }

    @Override
    public String name() {
        return "color";
    }

    @Override
    public String label() {
        return "colour";
    }

    @Override
    public String inWords() {
        List<String> all = new ArrayList<>();
        all.add(
                swatches.isEmpty()
                        ? bounds == null ? Language.say("colour.any") : bounds.inWords()
                        : Language.say("colour.swatches", swatches.size()));
        if (opaque) {
            all.add(Language.say("colour.opaque"));
        }
        contrasts.forEach(c -> {
            String with = Language.say(
                    "colour.contrast",
                    c.atLeast(),
                    Color.parse(c.with()).isPresent() ? c.with() : Language.say("quoted", c.with()));
            all.add(c.anything() ? Language.say("colour.over-any", with) : with);
        });
        return String.join(", ", all);
    }

    /** Reads a colour that a person typed. @throws BadInputException if it is none */
    public static Color parse(String text) {
        return Color.parse(text.strip())
                .orElseThrow(() ->
                        new BadInputException(Language.say("colour.none", text.strip()), Language.say("colour.write")));
    }

    /** A colour in its one way of writing. Nothing of what was typed goes through but the colour. */
    public static String canonical(String text) {
        return ColorKey.of(parse(text));
    }

    @Override
    public Value normal(Value given) {
        if (!(given instanceof Value.Text t)) {
            throw Kind.wrong(given, "a colour", "Write it as CSS does: \"#d8a13c\".");
        }
        return Value.of(canonical(t.text()));
    }

    @Override
    public Optional<Refusal> refusal(Value value, Around around) {
        String text = ((Value.Text) value).text();
        Color color = parse(text);
        if (!swatches.isEmpty() && !swatches.contains(text)) {
            return Optional.of(new Refusal.NotAmong(Refusal.Listed.SWATCHES, text, swatches));
        }
        if (opaque && !color.isOpaque()) {
            return Optional.of(new Refusal.Translucent());
        }
        Optional<Refusal> outside = bounds == null ? Optional.empty() : bounds.refusal(color);
        return outside.or(() -> contrasts.stream()
                .flatMap(c -> c.refusal(color, around).stream())
                .findFirst());
    }

    @Override
    public Value initial() {
        return Value.of(swatches.isEmpty() ? "#808080" : swatches.get(0));
    }

    @Override
    public Map<String, String> css(Value value, UnaryOperator<String> address) {
        return Map.of("", ((Value.Text) value).text());
    }

    @Override
    public Optional<Value> readCss(String css) {
        return Color.parse(css.strip()).map(c -> Value.of(ColorKey.of(c)));
    }

    @Override
    public String words(Value value) {
        return ((Value.Text) value).text();
    }

    @Override
    public Value.Parts schema(Around around) {
        if (!swatches.isEmpty()) {
            // However its digits are written.
            return swatches.stream().allMatch(s -> s.startsWith("#"))
                    ? Value.parts(
                            "type",
                            "string",
                            "pattern",
                            "^("
                                    + String.join(
                                            "|",
                                            swatches.stream()
                                                    .map(ColorKind::digits)
                                                    .toList()) + ")" + CompositeKind.END)
                    : Value.parts("enum", Value.of(swatches));
        }
        boolean more = bounds != null || !contrasts.isEmpty() || opaque;
        return Value.parts("type", "string", "pattern", SPELLING, "$comment", more ? "Also: " + inWords() + "." : null);
    }

    private static String digits(String hex) {
        StringBuilder all = new StringBuilder("#");
        StringBuilder brief = new StringBuilder("#");
        boolean mayBeBrief = true;
        for (int i = 1; i < hex.length(); i++) {
            String c = Character.isDigit(hex.charAt(i))
                    ? hex.substring(i, i + 1)
                    : "[" + hex.charAt(i) + Character.toUpperCase(hex.charAt(i)) + "]";
            all.append(c);
            if (i % 2 == 0) {
                mayBeBrief &= hex.charAt(i) == hex.charAt(i - 1);
                brief.append(c);
            }
        }
        String opaque = hex.length() == 7 ? "([fF]{2})?" : "";
        return all + opaque + (mayBeBrief ? "|" + brief + (hex.length() == 7 ? "[fF]?" : "") : "");
    }

    @Override
    public Value read(Function<String, String> fields) {
        return normal(Value.of(fields.apply("").strip()));
    }

    static String round(double v, int places) {
        return BigDecimal.valueOf(v)
                .setScale(places, java.math.RoundingMode.HALF_UP)
                .stripTrailingZeros()
                .toPlainString();
    }
}
