package org.calmpalette.core.setting;

import java.math.BigDecimal;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.function.Function;
import java.util.function.UnaryOperator;
import org.calmpalette.core.css.Escapes;
import org.calmpalette.core.css.TokenType;
import org.calmpalette.core.css.Tokenizer;
import org.calmpalette.core.css.Tokens;
import org.calmpalette.core.language.Language;

/**
 * A picture of the theme, by its path from the theme's folder; an empty text is none.
 *
 * @param none whether no picture at all may be chosen
 * @param leastWidth in the picture's own pixels, 0 for any
 * @param leastHeight in the picture's own pixels, 0 for any
 * @param narrowest least width divided by height, or null
 * @param widest most width divided by height, or null
 * @param mostBytes 0 for any
 * @param formats endings in lower case; empty for all that browsers show
 */
public record PictureKind(
        boolean none,
        int leastWidth,
        int leastHeight,
        BigDecimal narrowest,
        BigDecimal widest,
        long mostBytes,
        List<String> formats)
        implements Kind {
    public static final List<String> FORMATS = List.of("jpg", "png", "webp", "avif", "gif", "svg");
    public static final PictureKind ANY = new PictureKind(false, 0, 0, null, null, 0, List.of());
    static final PictureKind OR_NONE = new PictureKind(true, 0, 0, null, null, 0, List.of());
    /** Paths that stay inside of the theme and need no escapes in an address. */
    private static final String PATH = "(?!/)(?!.*(^|/)\\.\\.?(/|(?![\\s\\S])))[^\\u0000-\\u001f\\u007f\\\\:?#<>\"|*]+";

    public PictureKind {
        formats = List.copyOf(formats);
    }

    public PictureKind withNone(boolean may) {
        return new PictureKind(may, leastWidth, leastHeight, narrowest, widest, mostBytes, formats);
    }

    static PictureKind read(JsonEntry e, List<String> known) {
        List<String> formats = e.texts("formats").stream()
                .map(f -> f.equals("jpeg") ? "jpg" : f)
                .toList();
        for (String f : formats) {
            if (!known.contains(f)) {
                throw JsonEntry.bad(
                        e.at("formats"),
                        "“" + f + "” is no format that browsers show",
                        "Write some of " + String.join(", ", known) + ".");
            }
        }
        JsonEntry shape = e.entry("shape");
        PictureKind read = new PictureKind(
                e.flag("none"),
                e.whole("leastWidth").orElse(0),
                e.whole("leastHeight").orElse(0),
                shape.number("from").orElse(null),
                shape.number("to").orElse(null),
                e.whole("mostBytes").orElse(0),
                formats);
        boolean upsideDown = read.narrowest != null && read.widest != null && read.narrowest.compareTo(read.widest) > 0;
        if (upsideDown || read.leastWidth < 0 || read.leastHeight < 0 || read.mostBytes < 0) {
            throw JsonEntry.bad(
                    upsideDown ? shape.at("from") : e.place(),
                    "no picture can meet these bounds",
                    "Write the shape as width divided by height, from the narrowest to the widest, and no negative numbers.");
        }
        return read;
    }

    private boolean isLimited() {
        return leastWidth > 0 || leastHeight > 0 || narrowest != null || widest != null || mostBytes > 0;
    }

    @Override
    public Value.Parts allowed() {
        return Value.parts(
                "none",
                none ? true : null,
                "leastWidth",
                leastWidth == 0 ? null : leastWidth,
                "leastHeight",
                leastHeight == 0 ? null : leastHeight,
                "shape",
                narrowest == null && widest == null ? null : Value.parts("from", narrowest, "to", widest),
                "mostBytes",
                mostBytes == 0 ? null : BigDecimal.valueOf(mostBytes),
                "formats",
                formats.isEmpty() ? null : Value.of(formats));
    }

    @Override
    public String name() {
        return "picture";
    }

    @Override
    public String label() {
        return "picture";
    }

    @Override
    public String inWords() {
        return inWords("picture");
    }

    /** @param what picture or video */
    String inWords(String what) {
        List<String> all = new ArrayList<>();
        if (leastWidth > 0 || leastHeight > 0) {
            all.add(
                    leastHeight == 0
                            ? Language.say("picture.wide", leastWidth)
                            : leastWidth == 0
                                    ? Language.say("picture.high", leastHeight)
                                    : Language.say("picture.large", leastWidth, leastHeight));
        }
        if (narrowest != null || widest != null) {
            String bounds = narrowest != null && widest != null && narrowest.compareTo(widest) == 0
                    ? Language.spoken().number(widest)
                    : narrowest == null
                            ? Language.say("picture.shape.up-to", widest)
                            : widest == null
                                    ? Language.say("picture.shape.from", narrowest)
                                    : Language.say("picture.shape.between", narrowest, widest);
            all.add(Language.say("picture.shape", bounds));
        }
        if (mostBytes > 0) {
            all.add(Language.say("picture.weight", size(mostBytes)));
        }
        if (!formats.isEmpty()) {
            all.add(String.join(", ", formats));
        }
        if (none) {
            if (all.isEmpty()) {
                return Language.say(what + ".any-or-none");
            }
            all.add(Language.say("picture.or-none"));
        }
        return all.isEmpty() ? Language.say(what + ".any") : String.join(", ", all);
    }

    static String size(long bytes) {
        return bytes < 1_000_000
                ? Language.say("size.kb", (bytes + 999) / 1000)
                : Language.say(
                        "size.mb",
                        BigDecimal.valueOf(bytes)
                                .divide(BigDecimal.valueOf(1_000_000), 1, java.math.RoundingMode.UP)
                                .stripTrailingZeros());
    }

    @Override
    public Value normal(Value given) {
        if (!(given instanceof Value.Text t)) {
            throw Kind.wrong(
                    given,
                    "a picture",
                    "Write its path from the theme's folder, such as \"img/dusk.jpg\", or \"\" for none.");
        }
        String path = t.text();
        if (!path.isEmpty() && (path.length() > 240 || !path.matches(PATH))) {
            throw Kind.wrong(
                    given,
                    "the path of a picture of the theme",
                    "Write it from the theme's folder, such as img/dusk.jpg.");
        }
        return Value.of(path);
    }

    @Override
    public Optional<Refusal> refusal(Value value, Around around) {
        return refusal(value, around, FORMATS);
    }

    Optional<Refusal> refusal(Value value, Around around, List<String> known) {
        String path = ((Value.Text) value).text();
        if (path.isEmpty()) {
            return none ? Optional.empty() : Optional.of(new Refusal.Missing(""));
        }
        String format = MediaFacts.format(path);
        List<String> good = formats.isEmpty() ? known : formats;
        if (!good.contains(format)) {
            return Optional.of(new Refusal.Format(path, format, good));
        }
        MediaFacts facts = around.media(path).orElse(null);
        if (facts == null) {
            return around == Around.NOTHING ? Optional.empty() : Optional.of(new Refusal.NoFile(path));
        }
        if (mostBytes > 0 && facts.bytes() > mostBytes) {
            return Optional.of(new Refusal.TooHeavy(path, facts.bytes(), mostBytes));
        }
        boolean sized = leastWidth > 0 || leastHeight > 0 || narrowest != null || widest != null;
        if (!sized || format.equals("svg") && facts.width() == 0) {
            return Optional.empty();
        }
        if (facts.width() == 0) {
            return Optional.of(new Refusal.NoSize(path));
        }
        // An SVG has no pixels of its own: it is sharp at every size.
        if (!format.equals("svg") && (facts.width() < leastWidth || facts.height() < leastHeight)) {
            return Optional.of(new Refusal.TooSmall(path, facts.width(), facts.height(), leastWidth, leastHeight));
        }
        // Pixels are whole: 1920 by 1080 is as near to 1.7778 as a picture of its size can be.
        boolean narrow = narrowest != null && (facts.width() + 0.5) / (facts.height() - 0.5) < narrowest.doubleValue();
        boolean wide = widest != null && (facts.width() - 0.5) / (facts.height() + 0.5) > widest.doubleValue();
        return narrow || wide
                ? Optional.of(new Refusal.WrongShape(
                        path, facts.width(), facts.height(), narrow, narrow ? narrowest : widest))
                : Optional.empty();
    }

    @Override
    public Value initial() {
        return Value.of("");
    }

    @Override
    public Map<String, String> css(Value value, UnaryOperator<String> address) {
        return Map.of("", url(((Value.Text) value).text(), address));
    }

    static String url(String path, UnaryOperator<String> address) {
        return path.isEmpty() ? "none" : "url(" + Escapes.string(address.apply(path)) + ")";
    }

    /** Reads {@code url()} without resolving it: the caller knows which file it stands in. */
    @Override
    public Optional<Value> readCss(String css) {
        String t = css.strip();
        if (t.equalsIgnoreCase("none")) {
            return Optional.of(Value.of(""));
        }
        Tokens tokens = Tokenizer.tokenize(t);
        if (tokens.size() == 1 && tokens.is(0, TokenType.URL)) {
            return Optional.of(Value.of(tokens.value(0)));
        }
        boolean quoted = tokens.is(0, TokenType.FUNCTION)
                && tokens.lower(0).equals("url")
                && tokens.afterBlock(0, tokens.size()) == tokens.size();
        int at = tokens.skipBlank(1, tokens.size());
        return quoted && tokens.is(at, TokenType.STRING) ? Optional.of(Value.of(tokens.value(at))) : Optional.empty();
    }

    @Override
    public String words(Value value) {
        String path = ((Value.Text) value).text();
        return path.isEmpty() ? Language.say("none") : path.substring(path.lastIndexOf('/') + 1);
    }

    @Override
    public Value.Parts schema(Around around) {
        return schema(around, FORMATS);
    }

    Value.Parts schema(Around around, List<String> known) {
        if (around != Around.NOTHING) {
            List<String> fitting = new ArrayList<>(none ? List.of("") : List.of());
            around.files().stream()
                    .filter(f -> refusal(Value.of(f), around, known).isEmpty())
                    .sorted()
                    .forEach(fitting::add);
            // Nothing fits an empty list, and a list of JSON Schema may not be empty.
            return fitting.isEmpty() ? Value.parts("not", Value.parts()) : Value.parts("enum", Value.of(fitting));
        }
        String endings = String.join("|", formats.isEmpty() ? known : formats).replace("jpg", "jpe?g");
        String pattern = "^(" + (none ? "|" : "") + PATH + "\\.(" + endings + "))" + CompositeKind.END;
        return Value.parts(
                "type",
                "string",
                "pattern",
                pattern,
                "maxLength",
                240,
                "$comment",
                isLimited() ? "Also: " + inWords() + "." : null);
    }

    @Override
    public Value read(Function<String, String> fields) {
        return normal(Value.of(fields.apply("").strip()));
    }

    @Override
    public List<Binding> bindings() {
        return List.of(Binding.SRC);
    }

    @Override
    public List<String> addresses() {
        return List.of("");
    }
}
