package org.calmpalette.core.setting;

import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;
import java.util.function.Function;
import java.util.function.UnaryOperator;
import java.util.regex.Pattern;
import org.calmpalette.core.color.Color;
import org.calmpalette.core.css.TokenType;
import org.calmpalette.core.css.Tokenizer;
import org.calmpalette.core.css.Tokens;
import org.calmpalette.core.language.Language;
import org.calmpalette.core.value.ComponentValue;

/**
 * A background: its colour, a picture with repeat, position, size and attachment, and an overlay, which is a colour with
 * a strength in percent that lies over the picture. Each part is free or fixed.
 */
public record BackgroundKind(CompositeKind parts) implements Kind {
    private static final String LENGTH = "-?(\\d{1,6}(\\.\\d{1,4})?|\\.\\d{1,4})(px|%|rem|em|vw|vh)";
    private static final String EXTENT = LENGTH.substring(2);
    private static final String BLANKS = "[ \\t\\n\\f\\r]+";
    private static final TextKind POSITION = new TextKind(
            1,
            1,
            60,
            new TextKind.Form(
                    "^((left|center|right|" + LENGTH + ") (top|center|bottom|" + LENGTH + ")|(left|right) " + LENGTH
                            + " (top|bottom) " + LENGTH + ")" + CompositeKind.END,
                    "is.position",
                    "center bottom, 30% 0%, or right 10px bottom 20%",
                    BackgroundKind::plainPosition,
                    taken()));
    private static final TextKind SIZE = new TextKind(
            1,
            1,
            40,
            new TextKind.Form(
                    "^(cover|contain|auto|" + EXTENT + "( (auto|" + EXTENT + "))?)" + CompositeKind.END,
                    "is.size",
                    "cover, or 320px auto"));
    static final List<String> REPEATS = List.of("no-repeat", "repeat", "repeat-x", "repeat-y", "space", "round");
    static final List<String> ATTACHMENTS = List.of("scroll", "fixed");
    private static final String PICTURE = "-picture";
    public static final BackgroundKind ANY = (BackgroundKind) read(JsonEntry.none());

    static Kind read(JsonEntry e) {
        PictureKind picture =
                e.has("picture") ? PictureKind.read(e.entry("picture"), PictureKind.FORMATS) : PictureKind.OR_NONE;
        NumberKind strength =
                e.has("strength") ? (NumberKind) NumberKind.read(true, e.entry("strength")) : NumberKind.SHARE;
        if (strength.range().least().signum() < 0 || strength.range().most().intValue() > 100) {
            throw JsonEntry.bad(
                    e.at("strength"),
                    "the strength of an overlay lies between 0 and 100 percent",
                    "Write \"strength\": {\"least\": 20, \"most\": 80}.");
        }
        return new BackgroundKind(CompositeKind.of(
                e,
                "color",
                ColorKind.read(e.entry("color")),
                "picture",
                picture,
                "repeat",
                ChoiceKind.of(REPEATS),
                "position",
                POSITION,
                "size",
                SIZE,
                "attachment",
                ChoiceKind.of(ATTACHMENTS),
                "overlay",
                ColorKind.read(e.entry("overlay")),
                "strength",
                strength));
    }

    @Override
    public Value.Parts allowed() {
        Map<String, Value> all = new LinkedHashMap<>();
        Map<String, Kind> unlimited = ANY == null ? Map.of() : ANY.parts.kinds();
        for (String name : List.of("color", "picture", "overlay", "strength")) {
            Kind kind = parts.kinds().get(name);
            if (!kind.equals(unlimited.get(name))) {
                all.put(name, kind.allowed());
            }
        }
        all.putAll(parts.allowed().parts());
        return new Value.Parts(all);
    }

    @Override
    public String name() {
        return "background";
    }

    @Override
    public String label() {
        return "background";
    }

    @Override
    public String inWords() {
        List<String> free = parts.kinds().keySet().stream()
                .filter(k -> !parts.fixed().containsKey(k))
                .toList();
        List<String> limits = new ArrayList<>();
        Map<String, Value> limited = allowed().parts();
        free.stream()
                .filter(limited::containsKey)
                .forEach(k -> limits.add(
                        CompositeKind.said(k) + ": " + parts.kinds().get(k).inWords()));
        String which = free.size() == parts.kinds().size()
                ? Language.say("allowed.every-part")
                : free.isEmpty()
                        ? Language.say("allowed.nothing")
                        : String.join(
                                ", ", free.stream().map(CompositeKind::said).toList());
        return which + (limits.isEmpty() ? "" : "; " + String.join("; ", limits));
    }

    @Override
    public BackgroundKind recolored(UnaryOperator<String> to) {
        return new BackgroundKind(parts.recolored(to));
    }

    @Override
    public BackgroundKind withTexts(UnaryOperator<String> to) {
        return new BackgroundKind(parts.withTexts(to));
    }

    @Override
    public Value recolored(Value value, UnaryOperator<String> to) {
        return parts.recolored(value, to);
    }

    @Override
    public Value normal(Value given) {
        return parts.normal(given, "a background", ANY.initial());
    }

    @Override
    public Optional<Refusal> refusal(Value value, Around around) {
        return parts.refusal(value, around);
    }

    @Override
    public Value initial() {
        return parts.initial(
                "color",
                "#808080",
                "picture",
                "",
                "repeat",
                "no-repeat",
                "position",
                "center center",
                "size",
                "cover",
                "attachment",
                "scroll",
                "overlay",
                "#000000",
                "strength",
                0);
    }

    @Override
    public Map<String, String> css(Value value, UnaryOperator<String> address) {
        Value.Parts p = (Value.Parts) value;
        Map<String, String> all = new LinkedHashMap<>();
        all.put(PICTURE, PictureKind.url(p.text("picture"), address));
        StringBuilder whole = new StringBuilder();
        double strength = p.number("strength").doubleValue() / 100;
        // Without a picture there is nothing for the overlay to lie on but the colour, which is free itself.
        if (strength > 0 && !p.text("picture").isEmpty()) {
            Color overlay = ColorKind.parse(p.text("overlay"));
            String color = ColorKey.of(overlay.withAlpha(overlay.alpha() * strength));
            whole.append("linear-gradient(")
                    .append(color)
                    .append(", ")
                    .append(color)
                    .append("), ");
        }
        // The address is read through a property of its own, which is registered as one: only then does it mean the
        // same in
        // every stylesheet that reads it.
        whole.append("var(@")
                .append(PICTURE)
                .append(") ")
                .append(p.text("position"))
                .append(" / ")
                .append(p.text("size"))
                .append(' ')
                .append(p.text("repeat"))
                .append(' ')
                .append(p.text("attachment"))
                .append(' ')
                .append(p.text("color"));
        all.put("", whole.toString());
        return all;
    }

    /**
     * A colour, a picture with what a shorthand says of it, or both; and over a picture an even shade, which stylesheets
     * write as a gradient from a colour to the same colour.
     */
    @Override
    public Optional<Value> readCss(String css) {
        List<List<ComponentValue>> layers = ComponentValue.commaSeparated(ComponentValue.read(css));
        if (layers.size() == 2 && layers.get(0).size() == 1) {
            Optional<Color> shade = even(layers.get(0).get(0));
            return shade.flatMap(color -> layer(ComponentValue.join(layers.get(1)))
                    .filter(v -> !v.text("picture").isEmpty())
                    .map(v -> shaded(v, color)));
        }
        return layer(css).map(v -> v);
    }

    /** The one colour of a gradient that has no other; wherever its stops lie, it paints every point alike. */
    private static Optional<Color> even(ComponentValue gradient) {
        if (gradient.kind() != ComponentValue.Kind.FUNCTION || !gradient.name().endsWith("linear-gradient")) {
            return Optional.empty();
        }
        Color only = null;
        int stops = 0;
        List<List<ComponentValue>> arguments = ComponentValue.commaSeparated(ComponentValue.read(gradient.inside()));
        for (int i = 0; i < arguments.size(); i++) {
            List<ComponentValue> argument = arguments.get(i);
            Optional<Color> color = argument.isEmpty()
                    ? Optional.empty()
                    : Color.parse(argument.get(0).text());
            if (color.isEmpty() && i == 0) {
                continue; // a direction
            }
            boolean placed = argument.stream()
                    .skip(1)
                    .allMatch(p -> p.kind() == ComponentValue.Kind.PERCENTAGE
                            || p.kind() == ComponentValue.Kind.DIMENSION
                            || p.kind() == ComponentValue.Kind.NUMBER);
            if (color.isEmpty() || !placed || only != null && !ColorKey.of(only).equals(ColorKey.of(color.get()))) {
                return Optional.empty();
            }
            only = color.get();
            stops++;
        }
        return stops < 2 ? Optional.empty() : Optional.ofNullable(only);
    }

    /** Says the same in a colour and a strength: a solid colour and whole percents if that comes to the same bytes. */
    private static Value shaded(Value.Parts layer, Color shade) {
        Color solid = shade.withAlpha(1);
        int percent = (int) Math.round(shade.alpha() * 100);
        boolean whole = ColorKey.of(solid.withAlpha(percent / 100.0)).equals(ColorKey.of(shade));
        return layer.with("overlay", Value.of(ColorKey.of(whole ? solid : shade)))
                .with("strength", Value.of(whole ? percent : 100));
    }

    private static Optional<Value.Parts> layer(String css) {
        Tokens tokens = Tokenizer.tokenize(css.strip());
        // What a shorthand leaves out gets its initial value (CSS Backgrounds and Borders Level 3, section 2.10).
        String color = "#00000000";
        String picture = "";
        String repeat = "repeat";
        String attachment = "scroll";
        List<String> places = new ArrayList<>();
        List<String> sizes = new ArrayList<>();
        boolean slash = false;
        for (int i = tokens.skipBlank(0, tokens.size()); i < tokens.size(); ) {
            int next = tokens.opens(i) ? tokens.afterBlock(i, tokens.size()) : i + 1;
            String written = tokens.text().substring(tokens.start(i), tokens.end(next - 1));
            String part = written.toLowerCase(Locale.ROOT);
            Optional<Value> url = PictureKind.ANY.readCss(written);
            if (tokens.isDelim(i, '/')) {
                slash = true;
            } else if (url.isPresent()) {
                picture = ((Value.Text) url.get()).text();
            } else if (REPEATS.contains(part)) {
                repeat = part;
            } else if (ATTACHMENTS.contains(part)) {
                attachment = part;
            } else if (part.equals("cover")
                    || part.equals("contain")
                    || slash && (part.equals("auto") || part.matches(EXTENT))) {
                sizes.add(part);
            } else if (part.matches("left|center|right|top|bottom|0|" + LENGTH)) {
                places.add(part.equals("0") ? "0px" : part);
            } else if (Color.parse(part).isPresent()) {
                color = ColorKind.canonical(part);
            } else {
                return Optional.empty();
            }
            if (tokens.is(i, TokenType.COMMA)) {
                return Optional.empty();
            }
            i = tokens.skipBlank(next, tokens.size());
        }
        Optional<String> position = POSITION.readCss(places.isEmpty() ? "0% 0%" : String.join(" ", places))
                .map(POSITION::words);
        String size = sizes.isEmpty() ? "auto" : String.join(" ", sizes);
        if (css.isBlank() || position.isEmpty() || SIZE.readCss(size).isEmpty()) {
            return Optional.empty();
        }
        return Optional.of(Value.parts(
                "color",
                color,
                "picture",
                picture,
                "repeat",
                repeat,
                "position",
                position.get(),
                "size",
                size,
                "attachment",
                attachment,
                "overlay",
                "#000000",
                "strength",
                0));
    }

    /**
     * Every way to write a position that {@link #plainPosition} reads, for schemas: one to four values, in capitals or not.
     */
    private static String taken() {
        String length = "(" + LENGTH + "|0)";
        String across = "(left|right)(_" + length + ")?";
        String down = "(top|bottom)(_" + length + ")?";
        String all =
                "(left|center|right|top|bottom|" + length + "|(left|center|right|" + length + ")_(top|center|bottom|"
                        + length + ")|(" + across + "|center)_(" + down + "|center)|(" + down + "|center)_(" + across
                        + "|center))";
        // Patterns of JSON Schema have no flag for capitals. What a backslash makes special stays as it is.
        StringBuilder pattern = new StringBuilder("^(" + BLANKS + ")?");
        for (int i = 0; i < all.length(); i++) {
            char c = all.charAt(i);
            boolean letter = c >= 'a' && c <= 'z' && (i == 0 || all.charAt(i - 1) != '\\');
            pattern.append(letter ? "[" + c + Character.toUpperCase(c) + "]" : c == '_' ? BLANKS : String.valueOf(c));
        }
        return pattern + "(" + BLANKS + ")?" + CompositeKind.END;
    }

    /**
     * A position as two values, across and down, or as four, an edge and a distance from it each way; what is no position comes back
     * as it is.
     *
     * @see <a href="https://www.w3.org/TR/css-backgrounds-3/#typedef-bg-position">CSS Backgrounds and Borders 3, section 3.6</a>
     */
    private static String plainPosition(String text) {
        String[] parts = Pattern.compile(BLANKS)
                .splitAsStream(text.toLowerCase(Locale.ROOT))
                .filter(part -> !part.isEmpty())
                .toArray(String[]::new);
        if (parts.length == 0) {
            return text;
        }
        for (int i = 0; i < parts.length; i++) {
            parts[i] = parts[i].equals("0") ? "0px" : parts[i];
        }
        if (parts.length == 1) {
            return parts[0].matches("top|bottom") ? "center " + parts[0] : parts[0] + " center";
        }
        if (parts.length == 2) {
            boolean swapped = parts[0].matches("top|bottom") && parts[1].matches("left|center|right")
                    || parts[0].equals("center") && parts[1].matches("left|right");
            return swapped ? parts[1] + " " + parts[0] : parts[0] + " " + parts[1];
        }
        // An edge may have a distance behind it; the middle has none.
        List<String> edges = new ArrayList<>();
        for (int i = 0; i < parts.length; i++) {
            boolean edge = parts[i].matches("left|right|top|bottom");
            if (!edge && !parts[i].equals("center")) {
                return text;
            }
            boolean far = edge && i + 1 < parts.length && parts[i + 1].matches(LENGTH);
            edges.add(parts[i] + " " + (far ? parts[i + 1] : "0px"));
            i += far ? 1 : 0;
        }
        if (edges.size() != 2) {
            return text;
        }
        boolean swapped =
                edges.get(0).matches("(top|bottom) .*") || edges.get(1).matches("(left|right) .*");
        String across = edges.get(swapped ? 1 : 0);
        String down = edges.get(swapped ? 0 : 1);
        return across.replace("center 0px", "left 50%") + " " + down.replace("center 0px", "top 50%");
    }

    @Override
    public String words(Value value) {
        Value.Parts p = (Value.Parts) value;
        if (p.text("picture").isEmpty()) {
            return p.text("color");
        }
        String picture = PictureKind.ANY.words(Value.of(p.text("picture")));
        return p.number("strength").signum() > 0
                ? Language.say("background.shaded", picture, p.number("strength"))
                : picture;
    }

    @Override
    public Value.Parts schema(Around around) {
        return parts.schema(around);
    }

    @Override
    public Value read(Function<String, String> fields) {
        return parts.read(fields);
    }

    @Override
    public Map<String, String> fields(Value value) {
        return parts.fields(value);
    }

    @Override
    public List<String> addresses() {
        return List.of(PICTURE);
    }
}
