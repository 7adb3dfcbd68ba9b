package org.calmpalette.core.setting;

import java.math.BigDecimal;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;
import java.util.function.Function;
import java.util.function.UnaryOperator;
import org.calmpalette.core.BadInputException;
import org.calmpalette.core.css.TokenType;
import org.calmpalette.core.css.Tokenizer;
import org.calmpalette.core.css.Tokens;
import org.calmpalette.core.language.Language;

/**
 * A gradient of two to eight colours: {@code {"shape": "linear", "angle": 180, "stops": [{"color": "#…", "at": 0}, …]}}.
 * The angle is in degrees as CSS counts it, clockwise from upwards; a radial gradient does not use it.
 *
 * @param shapes that may be chosen
 * @param color what the colours may be
 */
public record GradientKind(List<String> shapes, ColorKind color, int mostStops) implements Kind {
    static final List<String> SHAPES = List.of("linear", "radial");
    static final int MOST_STOPS = 8;
    private static final Range ANGLE = new Range(BigDecimal.ZERO, BigDecimal.valueOf(360), null);
    private static final NumberKind AT = NumberKind.SHARE;
    private static final Map<String, Integer> SIDES =
            Map.of("to top", 0, "to right", 90, "to bottom", 180, "to left", 270);
    public static final GradientKind ANY = new GradientKind(SHAPES, ColorKind.ANY, MOST_STOPS);

    public GradientKind {
        shapes = List.copyOf(shapes);
    }

    static Kind read(JsonEntry e) {
        List<String> shapes = e.has("shapes") ? e.texts("shapes") : SHAPES;
        if (shapes.isEmpty() || !SHAPES.containsAll(shapes)) {
            throw JsonEntry.bad(
                    e.at("shapes"), "a gradient is linear or radial", "Write [\"linear\"], [\"radial\"] or both.");
        }
        int most = e.whole("mostStops").orElse(MOST_STOPS);
        if (most < 2 || most > MOST_STOPS) {
            throw JsonEntry.bad(
                    e.at("mostStops"), "a gradient has 2 to " + MOST_STOPS + " colours", "Write \"mostStops\": 3.");
        }
        return new GradientKind(shapes, (ColorKind) ColorKind.read(e.entry("color")), most);
    }

    @Override
    public Value.Parts allowed() {
        return Value.parts(
                "shapes",
                shapes.equals(SHAPES) ? null : Value.of(shapes),
                "color",
                color.allowed().parts().isEmpty() ? null : color.allowed(),
                "mostStops",
                mostStops == MOST_STOPS ? null : mostStops);
    }

    @Override
    public String name() {
        return "gradient";
    }

    @Override
    public String label() {
        return "gradient";
    }

    @Override
    public String inWords() {
        String which = shapes.size() == 2 ? Language.say("allowed.or", shapes.get(0), shapes.get(1)) : shapes.get(0);
        return color.equals(ColorKind.ANY)
                ? Language.say("gradient.allowed", which, mostStops)
                : Language.say("gradient.allowed.of", which, mostStops, color.inWords());
    }

    @Override
    public Value normal(Value given) {
        if (!(given instanceof Value.Parts p)
                || p.parts().size() != 3
                || !SHAPES.contains(p.text("shape"))
                || !(p.part("stops").orElse(null) instanceof Value.Many many)
                || many.items().size() < 2
                || many.items().size() > MOST_STOPS) {
            throw wrong(given);
        }
        BigDecimal angle = Range.normal(p.part("angle").orElse(given), Language.say("is.angle"));
        ANGLE.refusal(angle, "°").ifPresent(why -> {
            throw new BadInputException(
                    Language.say("gradient.angle", why.words()), Language.say("gradient.angle.write"));
        });
        List<Value> stops = new ArrayList<>();
        for (Value stop : many.items()) {
            if (!(stop instanceof Value.Parts s) || s.parts().size() != 2) {
                throw wrong(given);
            }
            Value at = AT.normal(s.part("at").orElse(given));
            AT.refusal(at, Around.NOTHING).ifPresent(why -> {
                throw new BadInputException(
                        Language.say("gradient.at", why.words()), Language.say("gradient.at.write"));
            });
            stops.add(Value.parts("color", color.normal(s.part("color").orElse(given)), "at", at));
        }
        return Value.parts("shape", p.text("shape"), "angle", angle, "stops", new Value.Many(stops));
    }

    private static BadInputException wrong(Value given) {
        return Kind.wrong(
                given,
                "a gradient",
                "Write {\"shape\": \"linear\", \"angle\": 180, \"stops\": [{\"color\": \"#1f3347\", \"at\": 0}, "
                        + "{\"color\": \"#d8a13c\", \"at\": 100}]} with 2 to " + MOST_STOPS + " stops.");
    }

    @Override
    public GradientKind recolored(UnaryOperator<String> to) {
        return new GradientKind(shapes, color.recolored(to), mostStops);
    }

    @Override
    public Value recolored(Value value, UnaryOperator<String> to) {
        List<Value> stops = new ArrayList<>();
        stops(value)
                .forEach(s -> stops.add(
                        s.with("color", color.recolored(s.part("color").orElseThrow(), to))));
        return ((Value.Parts) value).with("stops", new Value.Many(stops));
    }

    private static List<Value.Parts> stops(Value value) {
        return ((Value.Many) ((Value.Parts) value).part("stops").orElseThrow())
                .items().stream().map(Value.Parts.class::cast).toList();
    }

    @Override
    public Optional<Refusal> refusal(Value value, Around around) {
        String shape = ((Value.Parts) value).text("shape");
        if (!shapes.contains(shape)) {
            return Optional.of(new Refusal.NotAmong(Refusal.Listed.SHAPES, shape, shapes));
        }
        List<Value.Parts> stops = stops(value);
        if (stops.size() > mostStops) {
            return Optional.of(new Refusal.TooMany(stops.size(), mostStops));
        }
        return stops.stream()
                .flatMap(s -> color.refusal(s.part("color").orElseThrow(), around).stream()
                        .<Refusal>map(why -> new Refusal.InPart(s.text("color"), why)))
                .findFirst();
    }

    @Override
    public Value initial() {
        String first = ColorKind.ANY.words(color.initial());
        String last = color.swatches().size() > 1
                ? color.swatches().get(1)
                : color.swatches().isEmpty() ? "#d0d0d0" : first;
        return Value.parts(
                "shape",
                shapes.get(0),
                "angle",
                180,
                "stops",
                new Value.Many(List.of(Value.parts("color", first, "at", 0), Value.parts("color", last, "at", 100))));
    }

    @Override
    public Map<String, String> css(Value value, UnaryOperator<String> address) {
        Value.Parts p = (Value.Parts) value;
        List<String> all = new ArrayList<>();
        if (p.text("shape").equals("linear")) {
            all.add(Range.plain(p.number("angle")) + "deg");
        }
        stops(value).forEach(s -> all.add(s.text("color") + " " + Range.plain(s.number("at")) + "%"));
        return Map.of("", p.text("shape") + "-gradient(" + String.join(", ", all) + ")");
    }

    /** Linear gradients with an angle or a side, radial ones with nothing but colours; a place for a colour may be missing. */
    @Override
    public Optional<Value> readCss(String css) {
        String text = css.strip();
        Tokens tokens = Tokenizer.tokenize(text);
        String name = tokens.is(0, TokenType.FUNCTION) ? tokens.lower(0) : "";
        if (!name.equals("linear-gradient") && !name.equals("radial-gradient")
                || tokens.afterBlock(0, tokens.size()) != tokens.size()
                || !text.endsWith(")")) {
            return Optional.empty();
        }
        List<String> parts = arguments(tokens);
        int angle = 180;
        String first = parts.get(0).toLowerCase(Locale.ROOT).replaceAll("\\s+", " ");
        if (name.startsWith("linear") && (SIDES.containsKey(first) || first.matches("\\d{1,3}(\\.0)?deg"))) {
            angle = SIDES.containsKey(first) ? SIDES.get(first) : Integer.parseInt(first.replaceAll("\\D.*", ""));
            parts = parts.subList(1, parts.size());
        }
        List<Value> stops = new ArrayList<>();
        for (int i = 0; i < parts.size(); i++) {
            String part = parts.get(i);
            int cut = part.endsWith("%") ? Math.max(part.lastIndexOf(' '), 0) : part.length();
            Optional<Value> c = ColorKind.ANY.readCss(part.substring(0, cut));
            Optional<Value> at = cut == part.length()
                    ? Optional.of(Value.of(Math.round(i * 10000.0 / Math.max(1, parts.size() - 1)) / 100.0))
                    : NumberKind.PERCENTAGE.readCss(part.substring(cut));
            boolean placed = cut < part.length()
                    || i == 0
                    || i == parts.size() - 1
                    || parts.stream().noneMatch(x -> x.endsWith("%"));
            if (c.isEmpty()
                    || at.isEmpty()
                    || !placed
                    || AT.refusal(at.get(), Around.NOTHING).isPresent()) {
                return Optional.empty();
            }
            stops.add(Value.parts("color", c.get(), "at", at.get()));
        }
        return stops.size() < 2 || stops.size() > MOST_STOPS || angle > 360
                ? Optional.empty()
                : Optional.of(Value.parts(
                        "shape", name.replace("-gradient", ""), "angle", angle, "stops", new Value.Many(stops)));
    }

    private static List<String> arguments(Tokens tokens) {
        List<String> all = new ArrayList<>();
        int end = tokens.size() - 1;
        int from = 1;
        for (int i = 1; i <= end; ) {
            if (i == end || tokens.is(i, TokenType.COMMA)) {
                all.add(
                        i == from
                                ? ""
                                : tokens.text()
                                        .substring(tokens.start(from), tokens.end(i - 1))
                                        .strip());
                from = i + 1;
            }
            i = i < end && tokens.opens(i) ? tokens.afterBlock(i, end) : i + 1;
        }
        return all;
    }

    @Override
    public String words(Value value) {
        return ((Value.Parts) value).text("shape") + ", "
                + String.join(
                        " ", stops(value).stream().map(s -> s.text("color")).toList());
    }

    @Override
    public Value.Parts schema(Around around) {
        Value.Parts stop = CompositeKind.object(Value.parts("color", color.schema(around), "at", AT.schema(around)));
        return CompositeKind.object(Value.parts(
                "shape",
                Value.parts("enum", Value.of(shapes)),
                "angle",
                ANGLE.schema(),
                "stops",
                Value.parts("type", "array", "items", stop, "minItems", 2, "maxItems", mostStops)));
    }

    @Override
    public Value read(Function<String, String> fields) {
        List<Value> stops = new ArrayList<>();
        for (int i = 1; i <= MOST_STOPS; i++) {
            String c = fields.apply(".stop" + i + ".color").strip();
            if (!c.isEmpty()) {
                stops.add(Value.parts(
                        "color",
                        c,
                        "at",
                        Range.typed(
                                fields.apply(".stop" + i + ".at").replace("%", ""), Language.say("is.percentage"))));
            }
        }
        if (stops.size() < 2) {
            throw new BadInputException(Language.say("gradient.two"), Language.say("gradient.two.write"));
        }
        String angle = fields.apply(".angle").strip().replaceFirst("(°|deg)$", "");
        return normal(Value.parts(
                "shape",
                fields.apply(".shape"),
                "angle",
                angle.isEmpty() ? Value.of(180) : Range.typed(angle, Language.say("is.angle")),
                "stops",
                new Value.Many(stops)));
    }

    @Override
    public Map<String, String> fields(Value value) {
        Value.Parts p = (Value.Parts) value;
        Map<String, String> all = new LinkedHashMap<>();
        all.put(".shape", p.text("shape"));
        all.put(".angle", Range.plain(p.number("angle")));
        List<Value.Parts> stops = stops(value);
        for (int i = 0; i < stops.size(); i++) {
            all.put(".stop" + (i + 1) + ".color", stops.get(i).text("color"));
            all.put(".stop" + (i + 1) + ".at", Range.plain(stops.get(i).number("at")));
        }
        return all;
    }
}
