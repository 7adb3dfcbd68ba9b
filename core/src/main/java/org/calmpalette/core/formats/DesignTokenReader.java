package org.calmpalette.core.formats;

import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Set;
import org.calmpalette.core.BadInputException;
import org.calmpalette.core.color.Color;
import org.calmpalette.core.color.ColorSpace;
import org.calmpalette.core.setting.Bands;
import org.calmpalette.core.setting.BorderKind;
import org.calmpalette.core.setting.ColorKey;
import org.calmpalette.core.setting.ColorKind;
import org.calmpalette.core.setting.Given;
import org.calmpalette.core.setting.GradientKind;
import org.calmpalette.core.setting.JsonLines;
import org.calmpalette.core.setting.Kind;
import org.calmpalette.core.setting.LengthKind;
import org.calmpalette.core.setting.NumberKind;
import org.calmpalette.core.setting.PaletteJson;
import org.calmpalette.core.setting.Place;
import org.calmpalette.core.setting.Setting;
import org.calmpalette.core.setting.ShadowKind;
import org.calmpalette.core.setting.Value;
import tools.jackson.core.JacksonException;
import tools.jackson.databind.JsonNode;

/** Reads design tokens as settings. */
final class DesignTokenReader {
    private DesignTokenReader() {}

    /**
     * Reads a file of tokens.
     *
     * @param file for messages
     * @throws BadInputException if it is no JSON object
     */
    public static DesignTokens.Read read(byte[] json, String file, Bands bands) {
        JsonNode root;
        try {
            root = DesignTokens.MAPPER.readTree(json);
        } catch (JacksonException e) {
            throw new BadInputException(
                    file + ", line "
                            + (e.getLocation() == null
                                    ? 1
                                    : Math.max(1, e.getLocation().getLineNr())) + ": this is not JSON. "
                            + e.getOriginalMessage(),
                    "Mend that line.");
        }
        if (!root.isObject()) {
            throw new BadInputException(file + ": it holds no object.", "Write groups and tokens between { and }.");
        }
        return new Reader(root, new JsonLines(json), file, bands).read();
    }

    private record Token(String path, String type, JsonNode node, String group) {}

    /** Reads one file. */
    private static final class Reader {
        private final JsonNode root;
        private final JsonLines lines;
        private final String file;
        private final Bands bands;
        private final Map<String, Token> tokens = new LinkedHashMap<>();
        private final List<String> faults = new ArrayList<>();

        Reader(JsonNode root, JsonLines lines, String file, Bands bands) {
            this.root = root;
            this.lines = lines;
            this.file = file;
            this.bands = bands;
        }

        DesignTokens.Read read() {
            collect(root, "", "", 0);
            List<Setting> settings = new ArrayList<>();
            Map<String, Place> places = new LinkedHashMap<>();
            places.put(Place.EVERYWHERE.key(), Place.EVERYWHERE);
            Map<String, String> keys = new LinkedHashMap<>();
            tokens.forEach((path, t) -> keys.put(path, key(t)));
            for (Token t : tokens.values()) {
                try {
                    Place place = place(t);
                    Setting s = setting(t, keys, place);
                    settings.add(s);
                    places.putIfAbsent(place.key(), place);
                } catch (BadInputException e) {
                    fault(t.path(), e.getMessage() + " " + e.mend());
                }
            }
            Value own = Value.of(
                    root.path("$extensions").path(DesignTokens.EXTENSION).path("settings"));
            if (own instanceof Value.Many many) {
                for (Value v : many.items()) {
                    try {
                        Setting s = PaletteJson.readSetting(v, bands);
                        settings.add(s);
                        places.putIfAbsent(s.place(), new Place(s.place(), s.place()));
                    } catch (BadInputException e) {
                        fault("$extensions", e.getMessage() + " " + e.mend());
                    }
                }
            }
            return new DesignTokens.Read(
                    DesignTokens.usable(settings), List.copyOf(places.values()), List.copyOf(faults));
        }

        private void fault(String path, String what) {
            faults.add(file + ", line " + lines.line(path) + ", " + path + ": " + what);
        }

        private void collect(JsonNode group, String path, String type, int depth) {
            String own = group.path("$type").asString(type);
            if (depth > 60 || tokens.size() > DesignTokens.MOST_TOKENS) {
                throw new BadInputException(
                        file + " nests too deep or holds more than " + DesignTokens.MOST_TOKENS + " tokens.",
                        "Split it into several files.");
            }
            extended(group, path, own);
            group.properties().forEach(e -> {
                String name = e.getKey();
                JsonNode child = e.getValue();
                if (!name.startsWith("$") && child.isObject() || name.equals("$root")) {
                    String at = path.isEmpty() ? name : path + "." + name;
                    if (name.matches(".*[{}.].*")) {
                        fault(at, "The name of a token may not hold dots or braces.");
                    } else if (child.has("$value") || child.has("$ref")) {
                        tokens.put(at, new Token(at, child.path("$type").asString(own), child, path));
                    } else {
                        collect(child, at, own, depth + 1);
                    }
                } else if (!name.startsWith("$")) {
                    fault(path.isEmpty() ? name : path + "." + name, "This is neither a token nor a group.");
                }
            });
        }

        /** A group that extends another one has its tokens, but for those that it has itself. */
        private void extended(JsonNode group, String path, String type) {
            String from = group.path("$extends").asString("");
            if (from.isEmpty()) {
                return;
            }
            JsonNode other = at(from.replaceAll("^\\{|}$", ""));
            if (other == null || path.startsWith(from.replaceAll("^\\{|}$", ""))) {
                fault(path, "It extends " + from + ", which is not there, or is around it.");
                return;
            }
            other.properties().stream()
                    .filter(e -> !e.getKey().startsWith("$")
                            && !group.has(e.getKey())
                            && e.getValue().has("$value"))
                    .forEach(e -> tokens.put(
                            path + "." + e.getKey(),
                            new Token(
                                    path + "." + e.getKey(),
                                    e.getValue()
                                            .path("$type")
                                            .asString(other.path("$type").asString(type)),
                                    e.getValue(),
                                    path)));
        }

        private JsonNode at(String path) {
            JsonNode node = root;
            for (String step : path.split("\\.")) {
                node = node.path(step);
            }
            return node.isObject() ? node : null;
        }

        private static String key(Token t) {
            JsonNode own =
                    t.node().path("$extensions").path(DesignTokens.EXTENSION).path("key");
            String key = own.isString()
                    ? own.asString()
                    : t.path()
                            .replaceAll("\\.?\\$root", "")
                            .toLowerCase(Locale.ROOT)
                            .replaceAll("[^a-z0-9_]+", "-")
                            .replaceAll("^-|-$", "");
            return key.isEmpty() || !Character.isLetter(key.charAt(0)) ? "token-" + key : key;
        }

        private Place place(Token t) {
            if (t.group().isEmpty()) {
                return Place.EVERYWHERE;
            }
            JsonNode group = at(t.group());
            String own = t.node()
                    .path("$extensions")
                    .path(DesignTokens.EXTENSION)
                    .path("place")
                    .asString("");
            String said = group == null ? "" : group.path("$description").asString("");
            String label = !own.isEmpty() && !said.isEmpty() ? said : t.group().replace('.', ' ');
            label = label.substring(0, 1).toUpperCase(Locale.ROOT)
                    + label.substring(1, Math.min(label.length(), Setting.LONGEST_LABEL));
            return new Place(own.isEmpty() ? Place.keyOf(t.group()) : own, label);
        }

        private Setting setting(Token t, Map<String, String> keys, Place place) {
            String alias = alias(t.node());
            String label = t.path()
                    .substring(t.path().lastIndexOf('.') + 1)
                    .replaceAll("[-_$]+", " ")
                    .strip();
            if (label.equals("root")) {
                label = t.group();
            }
            JsonNode extension = t.node().path("$extensions").path(DesignTokens.EXTENSION);
            Token end = alias.isEmpty() ? t : followed(t);
            String type = end.type().isEmpty() ? guessed(end.node().path("$value")) : end.type();
            Typed typed = typed(type, resolved(end.node().path("$value"), end.path(), 0));
            Setting s;
            if (extension.isObject() && extension.has("kind")) {
                Setting ours = PaletteJson.readSetting(Value.of(extension), bands);
                boolean same = ours.kind().name().equals("percentage") && typed.kind() instanceof NumberKind
                        || ours.kind().name().equals(typed.kind().name());
                if (!same) {
                    throw new BadInputException(
                            "Its type is " + type + ", but it was a "
                                    + ours.kind().label() + ".",
                            "Take the extension out to make it anew.");
                }
                boolean gradient =
                        ours.kind() instanceof GradientKind && ours.given().value() instanceof Value.Parts;
                // What another tool changed of the value counts; the rest is as it was.
                Value now = gradient
                        ? ((Value.Parts) ours.given().value())
                                .with(
                                        "stops",
                                        ((Value.Parts) typed.value())
                                                .part("stops")
                                                .orElseThrow())
                        : typed.value();
                boolean follows = ours.given() instanceof Given.Follows;
                s = follows ? ours : ours.withGiven(new Given.Fixed(now));
            } else {
                String description = t.node().path("$description").asString("");
                s = Setting.of(
                        keys.get(t.path()),
                        label.isEmpty()
                                ? keys.get(t.path())
                                : label.substring(0, 1).toUpperCase(Locale.ROOT)
                                        + label.substring(1, Math.min(label.length(), Setting.LONGEST_LABEL)),
                        description.substring(0, Math.min(description.length(), Setting.LONGEST_HELP)),
                        place.key(),
                        typed.kind(),
                        typed.value());
            }
            return alias.isEmpty() || s.given() instanceof Given.Follows
                    ? s
                    : s.withGiven(new Given.Follows(keys.get(alias), new Given.Same()));
        }

        /** The path of the token that a token is an alias of; empty if it has a value of its own. */
        private String alias(JsonNode node) {
            String text = node.path("$value").asString("");
            if (text.matches("\\{[^{}]+}")) {
                return text.substring(1, text.length() - 1);
            }
            String pointer =
                    node.path("$ref").asString(node.path("$value").path("$ref").asString(""));
            return pointer.startsWith("#/")
                    ? pointer.substring(2).replaceAll("/\\$value$", "").replace("/", ".")
                    : "";
        }

        private Token followed(Token t) {
            Set<String> seen = new LinkedHashSet<>(List.of(t.path()));
            Token now = t;
            for (String alias = alias(now.node()); !alias.isEmpty(); alias = alias(now.node())) {
                Token next = tokens.get(alias);
                if (next == null) {
                    throw new BadInputException("{" + alias + "} names no token.", "Name one that is there.");
                }
                if (!seen.add(alias)) {
                    throw new BadInputException(
                            "Tokens are aliases of each other in a circle: " + String.join(" → ", seen) + " → " + alias
                                    + ".",
                            "Give one of them a value.");
                }
                now = next;
            }
            return now;
        }

        /** A value with the aliases inside of it replaced by what they stand for. */
        private JsonNode resolved(JsonNode value, String path, int depth) {
            if (depth > 20) {
                throw new BadInputException("Its aliases go round in a circle.", "Give one of them a value.");
            }
            String text = value.asString("");
            if (text.matches("\\{[^{}]+}")) {
                Token t = tokens.get(text.substring(1, text.length() - 1));
                if (t == null) {
                    throw new BadInputException(text + " names no token.", "Name one that is there.");
                }
                return resolved(t.node().path("$value"), path, depth + 1);
            }
            if (value.isArray()) {
                var array = DesignTokens.MAPPER.createArrayNode();
                value.forEach(v -> array.add(resolved(v, path, depth + 1)));
                return array;
            }
            if (value.isObject()) {
                var object = DesignTokens.MAPPER.createObjectNode();
                value.properties().forEach(e -> object.set(e.getKey(), resolved(e.getValue(), path, depth + 1)));
                return object;
            }
            return value;
        }

        private static String guessed(JsonNode value) {
            if (value.isObject() && value.has("colorSpace")) {
                return "color";
            }
            return value.isObject() && value.has("unit") ? "dimension" : value.isNumber() ? "number" : "";
        }
    }

    private record Typed(Kind kind, Value value) {}

    private static Typed typed(String type, JsonNode v) {
        switch (type) {
            case "color" -> {
                return new Typed(ColorKind.ANY, Value.of(ColorKey.of(color(v))));
            }
            case "dimension" -> {
                return new Typed(LengthKind.ANY, length(v));
            }
            case "number", "fontWeight" -> {
                Integer weight = DesignTokens.WEIGHTS.get(v.asString(""));
                return new Typed(
                        NumberKind.ANY, NumberKind.ANY.normal(weight == null ? Value.of(v) : Value.of(weight)));
            }
            case "border" -> {
                if (!v.path("style").isString()) {
                    throw new BadInputException(
                            "A stroke of dashes of given lengths cannot be held.", "Write a style such as dashed.");
                }
                return new Typed(
                        BorderKind.ANY,
                        BorderKind.ANY.normal(Value.parts(
                                "width",
                                length(v.path("width")),
                                "style",
                                v.path("style").asString(),
                                "color",
                                ColorKey.of(color(v.path("color"))))));
            }
            case "shadow" -> {
                if (v.isArray() && v.size() != 1) {
                    throw new BadInputException(
                            "A setting holds one shadow; these are " + v.size() + ".", "Make a token of each.");
                }
                JsonNode one = v.isArray() ? v.get(0) : v;
                return new Typed(
                        ShadowKind.ANY,
                        ShadowKind.ANY.normal(Value.parts(
                                "x",
                                length(one.path("offsetX")),
                                "y",
                                length(one.path("offsetY")),
                                "blur",
                                length(one.path("blur")),
                                "spread",
                                length(one.path("spread")),
                                "color",
                                ColorKey.of(color(one.path("color"))),
                                "inside",
                                one.path("inset").asBoolean(false))));
            }
            case "gradient" -> {
                List<Value> stops = new ArrayList<>();
                v.forEach(stop -> stops.add(Value.parts(
                        "color",
                        ColorKey.of(color(stop.path("color"))),
                        "at",
                        Value.of(Math.max(
                                0,
                                Math.min(100, Math.round(stop.path("position").asDouble(0) * 1e4) / 1e2))))));
                return new Typed(
                        GradientKind.ANY,
                        GradientKind.ANY.normal(
                                Value.parts("shape", "linear", "angle", 180, "stops", new Value.Many(stops))));
            }
            default ->
                throw new BadInputException(
                        type.isEmpty()
                                ? "It has no type."
                                : "No kind of setting holds tokens of the type " + type + ".",
                        type.isEmpty()
                                ? "Write \"$type\": \"color\", or another one, here or at its group."
                                : "It is left aside.");
        }
    }

    private static Value length(JsonNode v) {
        if (v.isString()) {
            return LengthKind.ANY
                    .readCss(v.asString())
                    .orElseThrow(() -> new BadInputException(
                            "“" + v.asString() + "” is not a dimension.", "Write {\"value\": 16, \"unit\": \"px\"}."));
        }
        return LengthKind.ANY.normal(Value.of(v));
    }

    private static Color color(JsonNode v) {
        if (v.isString()) {
            return ColorKind.parse(v.asString());
        }
        String space = v.path("colorSpace").asString("");
        JsonNode c = v.path("components");
        if (space.isEmpty() || c.size() != 3) {
            throw new BadInputException(
                    "It is no colour.", "Write {\"colorSpace\": \"srgb\", \"components\": [0.1, 0.2, 0.3]}.");
        }
        List<String> parts = new ArrayList<>();
        for (int i = 0; i < 3; i++) {
            boolean percent = (space.equals("hsl") || space.equals("hwb")) && i > 0;
            parts.add(c.get(i).isNumber() ? c.get(i).decimalValue().toPlainString() + (percent ? "%" : "") : "none");
        }
        String alpha = v.path("alpha").isNumber()
                ? " / " + v.path("alpha").decimalValue().toPlainString()
                : "";
        boolean function = Set.of("hsl", "hwb", "lab", "lch", "oklab", "oklch").contains(space);
        String css = (function ? space + "(" : "color(" + space + " ") + String.join(" ", parts) + alpha + ")";
        Color read = ColorKind.parse(css);
        // Components are decimals of bytes in most files: what the hex says is what was meant.
        String hex = v.path("hex").asString("");
        boolean near = space.equals("srgb")
                && Color.parse(hex).isPresent()
                && read.isInGamut()
                && ColorKind.parse(hex).hex().equals(read.withAlpha(1).hex());
        return near
                ? ColorKind.parse(hex).withAlpha(read.alpha())
                : space.equals("srgb") ? read.to(ColorSpace.RGB) : read;
    }
}
