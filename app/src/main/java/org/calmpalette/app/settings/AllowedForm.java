package org.calmpalette.app.settings;

import java.math.BigDecimal;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.TreeMap;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import org.calmpalette.core.BadInputException;
import org.calmpalette.core.color.Color;
import org.calmpalette.core.setting.ColorKind;
import org.calmpalette.core.setting.Kind;
import org.calmpalette.core.setting.Kinds;
import org.calmpalette.core.setting.LengthKind;
import org.calmpalette.core.setting.Value;

/**
 * What an owner may choose, as a maker enters it. What the form has no field for stays as {@code palette.json} has it.
 */
final class AllowedForm {
    private final Fields fields;
    private final Map<String, Value> allowed;

    private AllowedForm(Fields fields, Value.Parts before) {
        this.fields = fields;
        this.allowed = new LinkedHashMap<>(before.parts());
    }

    /**
     * @param before the limits that are there, or none
     * @param value the default: it is always among the swatches, and fixed parts have what it has
     */
    static Kind read(String kind, Fields fields, Value.Parts before, Value value) {
        if (!fields.has("a.given")) {
            return Kinds.read(kind, before);
        }
        AllowedForm form = new AllowedForm(fields, before);
        switch (kind) {
            case "color" -> form.color("", value instanceof Value.Text t ? t.text() : "");
            case "length" -> form.lengths();
            case "spacing" -> {
                form.lengths();
                form.fixed(value);
            }
            case "number", "percentage", "level" -> form.numbers("least", "most", kind.equals("level") ? "" : "step");
            case "line", "text" -> form.numbers("least", "most", kind.equals("text") ? "rows" : "");
            case "choice" -> form.options();
            case "yes-no" -> form.yesNo();
            case "link" -> form.list("targets");
            case "picture" -> form.picture();
            case "video" -> {
                form.flag("none");
                form.bytes();
                form.list("formats");
            }
            case "border", "shadow" -> {
                form.flag("none");
                form.inside("color", value);
                form.fixed(value);
            }
            case "gradient" -> {
                form.list("shapes");
                form.numbers("mostStops");
                form.inside("color", value);
            }
            case "background" -> {
                form.inside("color", value);
                form.inside("overlay", value);
                form.part("picture", "leastWidth");
                form.part("strength", "least", "most");
                form.fixed(value);
            }
            default -> {}
        }
        return Kinds.read(kind, new Value.Parts(form.allowed));
    }

    private void put(String key, Value value) {
        if (value == null
                || value instanceof Value.Many m && m.items().isEmpty()
                || value instanceof Value.Parts p && p.parts().isEmpty()) {
            allowed.remove(key);
        } else {
            allowed.put(key, value);
        }
    }

    private void numbers(String... keys) {
        for (String key : keys) {
            if (!key.isEmpty()) {
                put(key, number("a." + key));
            }
        }
    }

    private Value number(String name) {
        BigDecimal n = fields.number(name);
        return n == null ? null : Value.of(n);
    }

    private void flag(String key) {
        put(key, fields.has("a." + key) ? Value.of(true) : null);
    }

    /** A list of check boxes; all of them ticked says the same as none. */
    private void list(String key) {
        put(key, Value.of(fields.all("a." + key)));
    }

    private void color(String prefix, String value) {
        String mode = fields.text("a." + prefix + "mode");
        if (mode.isEmpty()) {
            return;
        }
        Map<String, String> names = new TreeMap<>();
        put("swatches", mode.equals("swatches") ? swatches("a." + prefix + "swatches", value, names) : null);
        put("names", names.isEmpty() ? null : Value.texts(names));
        Map<String, Value> bounds = new LinkedHashMap<>();
        for (String axis : List.of("lightness", "chroma", "hue")) {
            BigDecimal from = fields.number("a." + prefix + axis + ".from");
            BigDecimal to = fields.number("a." + prefix + axis + ".to");
            if (mode.equals("bounds") && (from != null || to != null)) {
                BigDecimal end = BigDecimal.valueOf(axis.equals("lightness") ? 100 : axis.equals("hue") ? 360 : 0.5);
                bounds.put(
                        axis,
                        new Value.Many(List.of(
                                Value.of(from == null ? BigDecimal.ZERO : from), Value.of(to == null ? end : to))));
            }
        }
        put("bounds", new Value.Parts(bounds));
        List<Value> needed = new ArrayList<>();
        for (int i = 0; i < 3; i++) {
            String with = fields.text("a." + prefix + "contrast" + i + ".with");
            BigDecimal least = fields.number("a." + prefix + "contrast" + i + ".atLeast");
            if (!with.isEmpty()) {
                needed.add(Value.parts(
                        "with",
                        Color.parse(with).isPresent() ? ColorKind.canonical(with) : with,
                        "atLeast",
                        least == null ? new BigDecimal("4.5") : least,
                        "over",
                        fields.has("a." + prefix + "contrast" + i + ".over") ? "anything" : null));
            }
        }
        put("contrast", new Value.Many(needed));
        put("opaque", fields.has("a." + prefix + "opaque") ? Value.of(true) : null);
    }

    /** A colour at the start of a line: digits, a function, or a name. */
    private static final Pattern COLOR = Pattern.compile("\\s*(#\\w+|[\\w-]+\\([^)]*\\)|[\\w-]+)\\s*(.*?)\\s*");

    /** @param names gets what stands after a colour */
    private Value swatches(String name, String value, Map<String, String> names) {
        List<String> values = new ArrayList<>();
        int line = 0;
        for (String written : fields.text(name).split("\\R")) {
            line++;
            if (written.isBlank()) {
                continue;
            }
            Matcher parts = COLOR.matcher(written);
            if (!parts.matches() || Color.parse(parts.group(1)).isEmpty()) {
                throw new BadInputException(
                        "Swatches, line " + line + ": “" + written.strip() + "” is not a colour.",
                        "Write one CSS colour a line, such as #24463a, and its name after it if it has one.");
            }
            if (parts.group(2).length() > ColorKind.LONGEST_NAME) {
                throw new BadInputException(
                        "Swatches, line " + line + ": the name has more than " + ColorKind.LONGEST_NAME
                                + " characters.",
                        "Write a shorter one, such as Fir.");
            }
            String color = ColorKind.canonical(parts.group(1));
            if (!parts.group(2).isEmpty()) {
                names.putIfAbsent(color, parts.group(2));
            }
            if (!values.contains(color)) {
                values.add(color);
            }
        }
        String own = Color.parse(value).isPresent() ? ColorKind.canonical(value) : "";
        if (!own.isEmpty() && !values.contains(own)) {
            // The default is always one of the choices: else nobody could go back to it.
            values.add(0, own);
        }
        return Value.of(values);
    }

    /** The colour inside of another kind. */
    private void inside(String part, Value value) {
        if (fields.text("a." + part + ".mode").isEmpty()) {
            return;
        }
        String own = value instanceof Value.Parts p ? p.text(part) : "";
        Value.Parts before = allowed.get(part) instanceof Value.Parts p ? p : Value.parts();
        AllowedForm form = new AllowedForm(fields, before);
        form.color(part + ".", own);
        put(part, new Value.Parts(form.allowed));
    }

    private void part(String part, String... keys) {
        Map<String, Value> parts =
                new LinkedHashMap<>(allowed.get(part) instanceof Value.Parts p ? p.parts() : Map.of());
        for (String key : keys) {
            Value v = number("a." + part + "." + key);
            parts.remove(key);
            if (v != null) {
                parts.put(key, v);
            }
        }
        if (part.equals("picture")) {
            // Whether there may be no picture is not asked here; with limits of its own the part would else demand one.
            parts.putIfAbsent("none", Value.of(true));
            parts = parts.size() == 1 ? Map.of() : parts;
        }
        put(part, new Value.Parts(parts));
    }

    private void fixed(Value value) {
        if (!fields.has("a.free.given") || !(value instanceof Value.Parts p)) {
            return;
        }
        Map<String, Value> fixed = new LinkedHashMap<>(p.parts());
        fixed.keySet().removeAll(fields.all("a.free"));
        put("fixed", new Value.Parts(fixed));
    }

    private void lengths() {
        List<Value> units = new ArrayList<>();
        for (int i = 0; i < 4; i++) {
            String at = "a.unit" + i;
            String unit = fields.text(at);
            if (!unit.isEmpty()) {
                units.add(Value.parts(
                        "unit",
                        unit,
                        "least",
                        number(at + ".least"),
                        "most",
                        number(at + ".most"),
                        "step",
                        number(at + ".step")));
            }
        }
        put("units", new Value.Many(units));
        List<Value> steps = new ArrayList<>();
        for (String line : lines("a.steps")) {
            int cut = line.lastIndexOf(':');
            var length = LengthKind.ANY.readCss(line.substring(cut + 1));
            if (cut < 1 || length.isEmpty()) {
                throw new BadInputException(
                        "Named steps: “" + line + "” is no name with a length.",
                        "Write one a line, such as wide: 32px.");
            }
            Value.Parts p = (Value.Parts) length.get();
            steps.add(Value.parts(
                    "label",
                    line.substring(0, cut).strip(),
                    "value",
                    p.part("value").orElseThrow(),
                    "unit",
                    p.text("unit")));
        }
        put("steps", new Value.Many(steps));
    }

    private List<String> lines(String name) {
        return fields.text(name)
                .lines()
                .map(String::strip)
                .filter(l -> !l.isEmpty())
                .toList();
    }

    private void options() {
        List<Value> options = new ArrayList<>();
        for (String line : lines("a.options")) {
            String[] parts = line.split("\\|", -1);
            String key = parts[0].strip();
            String label = parts.length > 1 ? parts[1].strip() : "";
            String css = parts.length > 2 ? parts[2].strip() : "";
            options.add(Value.parts(
                    "key", key, "label", label.isEmpty() ? null : label, "css", css.isEmpty() ? null : css));
        }
        allowed.put("options", new Value.Many(options));
    }

    private void yesNo() {
        String yes = fields.text("a.yes");
        String no = fields.text("a.no");
        boolean plain = yes.isEmpty() && no.isEmpty();
        put("yes", plain ? null : Value.of(yes.isEmpty() ? "1" : yes));
        put("no", plain ? null : Value.of(no.isEmpty() ? "0" : no));
    }

    private void bytes() {
        BigDecimal kb = fields.number("a.mostKilobytes");
        put("mostBytes", kb == null ? null : Value.of(kb.multiply(BigDecimal.valueOf(1000))));
    }

    private void picture() {
        flag("none");
        numbers("leastWidth", "leastHeight");
        bytes();
        list("formats");
        Value from = number("a.shape.from");
        Value to = number("a.shape.to");
        put("shape", Value.parts("from", from, "to", to));
    }
}
