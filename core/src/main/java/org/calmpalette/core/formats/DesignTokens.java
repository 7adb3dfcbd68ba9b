package org.calmpalette.core.formats;

import java.math.BigDecimal;
import java.nio.charset.StandardCharsets;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import org.calmpalette.core.BadInputException;
import org.calmpalette.core.color.Color;
import org.calmpalette.core.color.ColorSpace;
import org.calmpalette.core.setting.Bands;
import org.calmpalette.core.setting.BorderKind;
import org.calmpalette.core.setting.ColorKind;
import org.calmpalette.core.setting.Effective;
import org.calmpalette.core.setting.Given;
import org.calmpalette.core.setting.GradientKind;
import org.calmpalette.core.setting.Kind;
import org.calmpalette.core.setting.LengthKind;
import org.calmpalette.core.setting.Media;
import org.calmpalette.core.setting.NumberKind;
import org.calmpalette.core.setting.Palette;
import org.calmpalette.core.setting.PaletteJson;
import org.calmpalette.core.setting.Place;
import org.calmpalette.core.setting.Setting;
import org.calmpalette.core.setting.ShadowKind;
import org.calmpalette.core.setting.Value;
import tools.jackson.core.StreamReadFeature;
import tools.jackson.databind.SerializationFeature;
import tools.jackson.databind.json.JsonMapper;

/**
 * Settings as design tokens, in the format of the Design Tokens Community Group (Format Module 2025.10): groups, types
 * that groups hand down, aliases in braces, and {@code $ref}. What a token cannot say of a setting, such as what is allowed,
 * stands under {@code $extensions}; settings that no type can hold stand there as a whole, at the root.
 */
public final class DesignTokens {
    public static final String EXTENSION = "org.calmpalette";

    static final JsonMapper MAPPER = JsonMapper.builder()
            .enable(StreamReadFeature.STRICT_DUPLICATE_DETECTION)
            .enable(SerializationFeature.INDENT_OUTPUT)
            .build();

    static final int MOST_TOKENS = 5_000;

    static final Map<String, Integer> WEIGHTS = Map.ofEntries(
            Map.entry("thin", 100),
            Map.entry("hairline", 100),
            Map.entry("extra-light", 200),
            Map.entry("ultra-light", 200),
            Map.entry("light", 300),
            Map.entry("normal", 400),
            Map.entry("regular", 400),
            Map.entry("book", 400),
            Map.entry("medium", 500),
            Map.entry("semi-bold", 600),
            Map.entry("demi-bold", 600),
            Map.entry("bold", 700),
            Map.entry("extra-bold", 800),
            Map.entry("ultra-bold", 800),
            Map.entry("black", 900),
            Map.entry("heavy", 900),
            Map.entry("extra-black", 950),
            Map.entry("ultra-black", 950));

    private DesignTokens() {}

    /**
     * What was read.
     *
     * @param settings those that can be made, in the order of the file
     * @param faults what cannot be read, each with its line
     */
    public record Read(List<Setting> settings, List<Place> places, List<String> faults) {}

    // Writing

    public static byte[] write(Palette palette) {
        Effective values = Effective.defaults(palette, Media.NONE);
        Map<String, Map<String, Value>> groups = new LinkedHashMap<>();
        List<Value> others = new ArrayList<>();
        for (Setting s : palette.settings()) {
            Optional<Value.Parts> token = token(palette, s, values);
            if (token.isPresent()) {
                groups.computeIfAbsent(
                                s.place(),
                                p -> new LinkedHashMap<>(Map.of("$description", Value.of(palette.placeLabel(p)))))
                        .put(s.key(), token.get());
            } else {
                others.add(PaletteJson.write(s));
            }
        }
        Map<String, Value> root = new LinkedHashMap<>();
        root.put("$description", Value.of("The settings of " + palette.name()));
        if (!others.isEmpty()) {
            root.put("$extensions", Value.parts(EXTENSION, Value.parts("settings", new Value.Many(others))));
        }
        groups.forEach((place, tokens) -> root.put(place, new Value.Parts(tokens)));
        return (MAPPER.writeValueAsString(new Value.Parts(root).json()) + "\n").getBytes(StandardCharsets.UTF_8);
    }

    private static Optional<Value.Parts> token(Palette palette, Setting s, Effective values) {
        Value now = values.value(s, palette.bands().widest());
        String type = s.kind() instanceof ColorKind
                ? "color"
                : s.kind() instanceof LengthKind
                        ? "dimension"
                        : s.kind() instanceof NumberKind
                                ? "number"
                                : s.kind() instanceof BorderKind
                                        ? "border"
                                        : s.kind() instanceof ShadowKind
                                                ? "shadow"
                                                : s.kind() instanceof GradientKind ? "gradient" : "";
        Optional<Value> value = s.given() instanceof Given.Follows f && f.how() instanceof Given.Same
                ? palette.setting(f.key())
                        .filter(o -> token(palette, o, values).isPresent())
                        .map(o -> Value.of("{" + o.place() + "." + o.key() + "}"))
                : value(s.kind(), now);
        if (type.isEmpty() || value.isEmpty()) {
            return Optional.empty();
        }
        return Optional.of(Value.parts(
                "$type",
                type,
                "$value",
                value.get(),
                "$description",
                s.help().isEmpty() ? null : s.help(),
                "$extensions",
                Value.parts(EXTENSION, PaletteJson.write(s))));
    }

    private static Optional<Value> value(Kind kind, Value v) {
        if (kind instanceof ColorKind) {
            return Optional.of(color(((Value.Text) v).text()));
        }
        if (kind instanceof LengthKind) {
            return dimension(v);
        }
        if (kind instanceof NumberKind) {
            return Optional.of(v);
        }
        if (kind instanceof GradientKind
                && v instanceof Value.Parts g
                && g.part("stops").orElse(null) instanceof Value.Many stops) {
            return Optional.of(new Value.Many(stops.items().stream()
                    .map(Value.Parts.class::cast)
                    .<Value>map(stop -> Value.parts(
                            "color",
                            color(stop.text("color")),
                            "position",
                            stop.number("at").movePointLeft(2)))
                    .toList()));
        }
        if (kind instanceof BorderKind && v instanceof Value.Parts b) {
            return dimension(b.part("width").orElseThrow())
                    .map(w -> Value.parts("color", color(b.text("color")), "width", w, "style", b.text("style")));
        }
        if (kind instanceof ShadowKind && v instanceof Value.Parts sh) {
            List<Optional<Value>> lengths = List.of("x", "y", "blur", "spread").stream()
                    .map(n -> dimension(sh.part(n).orElseThrow()))
                    .toList();
            return lengths.stream().allMatch(Optional::isPresent)
                    ? Optional.of(Value.parts(
                            "color",
                            color(sh.text("color")),
                            "offsetX",
                            lengths.get(0).get(),
                            "offsetY",
                            lengths.get(1).get(),
                            "blur",
                            lengths.get(2).get(),
                            "spread",
                            lengths.get(3).get(),
                            "inset",
                            sh.flag("inside")))
                    : Optional.empty();
        }
        return Optional.empty();
    }

    /** Dimensions know px and rem only. */
    private static Optional<Value> dimension(Value length) {
        String unit = ((Value.Parts) length).text("unit");
        return unit.equals("px") || unit.equals("rem") ? Optional.of(length) : Optional.empty();
    }

    private static Value color(String text) {
        Color c = ColorKind.parse(text);
        if (c.isInGamut()) {
            int[] b = c.bytes();
            List<Value> components = new ArrayList<>();
            for (int i = 0; i < 3; i++) {
                components.add(Value.of(BigDecimal.valueOf(Math.round(b[i] / 255.0 * 1e5), 5)));
            }
            return Value.parts(
                    "colorSpace",
                    "srgb",
                    "components",
                    new Value.Many(components),
                    "alpha",
                    BigDecimal.valueOf(Math.round(c.alpha() * 1e4), 4),
                    "hex",
                    c.hex().substring(0, 7));
        }
        Color wide = c.to(ColorSpace.OKLCH);
        List<Value> components = List.of(Value.of(wide.c0()), Value.of(wide.c1()), Value.of(wide.c2()));
        return Value.parts(
                "colorSpace",
                "oklch",
                "components",
                new Value.Many(components),
                "alpha",
                BigDecimal.valueOf(Math.round(c.alpha() * 1e4), 4));
    }

    /** Takes out what follows something that could not be read. */
    static List<Setting> usable(List<Setting> all) {
        List<Setting> good = new ArrayList<>(all);
        for (boolean again = true; again; ) {
            Set<String> known =
                    new LinkedHashSet<>(good.stream().map(Setting::key).toList());
            again = good.removeIf(s -> s.following().stream()
                    .anyMatch(f -> !known.contains(f.key())
                            || f.how()
                                    .alsoReads()
                                    .filter(k -> !known.contains(k))
                                    .isPresent()));
        }
        return good;
    }

    /**
     * Reads a file of tokens.
     *
     * @param file for messages
     * @throws BadInputException if it is no JSON object
     */
    public static Read read(byte[] json, String file, Bands bands) {
        return DesignTokenReader.read(json, file, bands);
    }
}
