package org.calmpalette.core.cascade;

import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.function.Function;
import java.util.regex.Pattern;
import org.calmpalette.core.color.Color;
import org.calmpalette.core.color.ColorSyntax;
import org.calmpalette.core.css.Reference;
import org.calmpalette.core.css.TokenType;
import org.calmpalette.core.css.Tokenizer;
import org.calmpalette.core.css.Tokens;
import org.calmpalette.core.value.ComponentValue;
import org.calmpalette.core.value.Image;

/**
 * What a colour of an element comes to whatever is chosen: it still holds the custom properties that choices go to. It is read from the
 * winning declaration, through {@code var()} and what is inherited, and not from what it computes to today.
 */
public sealed interface ColorExpression {
    /** The same whatever is chosen. */
    record Fixed(Color color) implements ColorExpression {}

    /** The value of a custom property that somebody chooses a colour for. */
    record Chosen(String property) implements ColorExpression {}

    /**
     * A colour function of what is chosen, such as {@code color-mix(in oklab, var(--ink) 20%, white)} (CSS Color 5).
     *
     * @param pieces what is written around the parts, one more than there are parts
     * @param parts what stands between the pieces, in order; none is {@link Unread}
     * @param dark whether the used colour scheme is dark
     */
    record Mixed(List<String> pieces, List<Part> parts, boolean dark) implements ColorExpression {
        public Mixed {
            pieces = List.copyOf(pieces);
            parts = List.copyOf(parts);
        }

        /** What it computes to with colours for what is chosen, as it is written in a computed style. @param chosen by custom property */
        public Color computed(Function<String, Color> chosen) {
            return Color.parse(with(chosen).css()).orElseThrow();
        }

        /** What it comes to before it is written. @param chosen by custom property */
        public Color with(Function<String, Color> chosen) {
            return read(p -> p.color() instanceof Mixed m
                            ? m.with(chosen)
                            : p.color() instanceof Fixed f ? f.color() : chosen.apply(((Chosen) p.color()).property()))
                    .orElseThrow();
        }

        private Optional<Color> read(Function<Part, Color> colors) {
            StringBuilder css = new StringBuilder(pieces.get(0));
            for (int i = 0; i < parts.size(); i++) {
                css.append(parts.get(i).css(colors.apply(parts.get(i)))).append(pieces.get(i + 1));
            }
            return ColorSyntax.parse(css.toString(), name -> Optional.empty(), dark);
        }
    }

    /** @param numbers whether red, green and blue stand there as numbers, in {@code rgb()} that somebody else has opened */
    record Part(ColorExpression color, boolean numbers) {
        private String css(Color c) {
            return numbers
                    ? c.bytes()[0] + ", " + c.bytes()[1] + ", " + c.bytes()[2]
                    : c.isInGamut() ? c.hex() : c.css();
        }
    }

    /** The custom properties of all choices that it holds, each once; none of what is {@link Unread}. */
    default List<String> properties() {
        return this instanceof Chosen c
                ? List.of(c.property())
                : this instanceof Mixed m
                        ? m.parts().stream()
                                .flatMap(p -> p.color().properties().stream())
                                .distinct()
                                .toList()
                        : List.of();
    }

    /** It follows what is chosen in a way that is not read here. @param why for people: what it follows */
    record Unread(String why) implements ColorExpression {}

    /**
     * Custom properties that choices go to, as the sheets that carry them declare them on the root element.
     *
     * @param colors those whose value is one colour, whatever is chosen
     * @param numbers those whose value is red, green and blue of one colour as numbers
     * @param others those that hold anything else
     * @param sheets the files that declare them
     */
    record Choices(Set<String> colors, Set<String> numbers, Set<String> others, Set<String> sheets) {
        boolean holds(String name) {
            return colors.contains(name) || numbers.contains(name) || others.contains(name);
        }
    }

    /** @param longhand a colour, of the element or inherited */
    static ColorExpression of(ElementStyle style, String longhand, Choices choices) {
        return new Reading(choices).of(style, longhand, 0);
    }

    /**
     * Whether anything that is declared of a longhand on the element reads what is chosen, whichever declaration wins. What a shorthand
     * sets beside it does not count.
     */
    static boolean follows(ElementStyle style, String longhand, Choices choices) {
        Reading reading = new Reading(choices);
        return style.candidates(longhand).stream()
                .anyMatch(a -> reading.reads(style, longhand, a) && !reading.passesBy(style, longhand, a));
    }

    /**
     * An image of {@code background-image} that reads what is chosen as colours.
     *
     * @param image with colours that nothing else has in place of those that are chosen; {@link Image.Url} as it is written
     * @param stands what is chosen, by the colours that stand for it
     */
    record Drawn(Image image, Map<Color, ColorExpression> stands) {
        /** A colour of the image. */
        public ColorExpression of(Color color) {
            return stands.getOrDefault(color, new Fixed(color));
        }
    }

    /** The images of an element's background, the uppermost first; empty where they follow what is chosen otherwise than in their colours. */
    static Optional<List<Drawn>> images(ElementStyle style, Choices choices) {
        return new Reading(choices).images(style);
    }

    /**
     * The custom property that decides all of an element's background, colour and images, and nothing else does; empty where there is no
     * such.
     */
    static Optional<String> background(ElementStyle style, Choices choices) {
        return new Reading(choices).background(style);
    }

    /** One walk from a colour to what it is made of. */
    final class Reading {
        private static final int DEEPEST = 32;
        private static final Fixed TRANSPARENT = new Fixed(Color.TRANSPARENT);
        private static final String CURRENT = "currentcolor";
        private static final Pattern IN_CURRENT = Pattern.compile(CURRENT, Pattern.CASE_INSENSITIVE);
        /** Functions that make a colour of others, or of numbers of one: CSS Color 5. */
        private static final Set<String> MIXING = Set.of(
                "color-mix",
                "light-dark",
                "rgb",
                "rgba",
                "hsl",
                "hsla",
                "hwb",
                "lab",
                "lch",
                "oklab",
                "oklch",
                "color");

        private final Choices choices;

        private Reading(Choices choices) {
            this.choices = choices;
        }

        private ColorExpression of(ElementStyle style, String longhand, int depth) {
            if (depth > DEEPEST) {
                return new Unread("too many steps");
            }
            List<CascadedDeclaration> candidates = style.candidates(longhand);
            Optional<ElementStyle.Winner> winner = style.winner(longhand);
            CascadedDeclaration won = winner.map(ElementStyle.Winner::applied).orElse(null);
            // What steps back today might not with another choice.
            for (int i = candidates.size() - 1; i >= 0 && candidates.get(i) != won; i--) {
                if (touches(style, candidates.get(i).value(), 0)) {
                    return new Unread(candidates.get(i).value().strip());
                }
            }
            if (winner.isEmpty()) {
                return handed(style, longhand, Properties.isInherited(longhand), depth);
            }
            String written = won.value().strip();
            if (!touches(style, written, 0)) {
                return plain(style, longhand, winner.get(), depth);
            }
            return winner.get().invalidAtComputedValueTime()
                    ? new Unread(written)
                    : component(style, longhand, won, depth);
        }

        /** The winning declaration of a longhand, if no stronger one might win with another choice. */
        private Optional<CascadedDeclaration> sure(ElementStyle style, String longhand) {
            List<CascadedDeclaration> candidates = style.candidates(longhand);
            Optional<ElementStyle.Winner> winner = style.winner(longhand).filter(w -> !w.invalidAtComputedValueTime());
            CascadedDeclaration won = winner.map(ElementStyle.Winner::applied).orElse(null);
            for (int i = candidates.size() - 1; i >= 0 && candidates.get(i) != won; i--) {
                if (touches(style, candidates.get(i).value(), 0)) {
                    return Optional.empty();
                }
            }
            return Optional.ofNullable(won);
        }

        private Optional<List<Drawn>> images(ElementStyle style) {
            Optional<CascadedDeclaration> won = sure(style, "background-image");
            Marked marked =
                    won.map(a -> marked(style, a, "background-image", 0)).orElse(null);
            if (marked == null || marked.others()) {
                return Optional.empty();
            }
            Map<Color, ColorExpression> stands = new LinkedHashMap<>();
            marked.stands().forEach((css, chosen) -> stands.put(Color.parse(css).orElseThrow(), chosen));
            return marked.part(style, "background-image", won.get())
                    .map(part -> ComponentValue.commaSeparated(ComponentValue.read(part)))
                    .filter(all -> all.stream().allMatch(one -> one.size() == 1))
                    .map(all -> all.stream()
                            .map(one -> new Drawn(Image.read(one.get(0)), stands))
                            .toList());
        }

        private Optional<String> background(ElementStyle style) {
            Optional<CascadedDeclaration> image = sure(style, "background-image");
            return image.filter(a -> a.property().equals("background")
                            && sure(style, "background-color")
                                    .filter(b -> b == a)
                                    .isPresent())
                    .flatMap(a -> reference(style, a.value(), choices.others(), 0));
        }

        private ColorExpression handed(ElementStyle style, String longhand, boolean inherits, int depth) {
            return inherits && style.parent() != null
                    ? of(style.parent(), longhand, depth + 1)
                    : style.colorOf(longhand).<ColorExpression>map(Fixed::new).orElse(TRANSPARENT);
        }

        /** A declaration that reads nothing of what is chosen; what it hands on to may. */
        private ColorExpression plain(ElementStyle style, String longhand, ElementStyle.Winner winner, int depth) {
            String value = winner.value().strip().toLowerCase(Locale.ROOT);
            boolean inherited = Properties.isInherited(longhand);
            if (value.equals("inherit") || value.equals("unset")) {
                return handed(style, longhand, value.equals("inherit") || inherited, depth);
            }
            if (value.contains(CURRENT)) {
                ColorExpression current = current(style, longhand, depth);
                if (!(current instanceof Fixed)) {
                    return value.equals(CURRENT) ? current : component(style, longhand, winner.applied(), depth);
                }
            }
            return style.colorOf(longhand).<ColorExpression>map(Fixed::new).orElseGet(() -> new Unread(winner.value()));
        }

        /** What {@code currentcolor} means in a longhand. */
        private ColorExpression current(ElementStyle style, String longhand, int depth) {
            return longhand.equals("color") ? handed(style, longhand, true, depth + 1) : of(style, "color", depth + 1);
        }

        /** Whether a declaration reads what is chosen, by itself or as the colour of its element. */
        private boolean reads(ElementStyle style, String longhand, CascadedDeclaration a) {
            return touches(style, a.value(), 0)
                    || !longhand.equals("color") && isInChosenColor(style, longhand, a.value());
        }

        private boolean isInChosenColor(ElementStyle style, String longhand, String text) {
            return style.variables()
                            .substitute(text)
                            .filter(v -> IN_CURRENT.matcher(v).find())
                            .isPresent()
                    && !(current(style, longhand, 0) instanceof Fixed);
        }

        /** Which part of a declaration that reads what is chosen decides the longhand: looked for with a colour that nothing else has. */
        private ColorExpression component(ElementStyle style, String longhand, CascadedDeclaration a, int depth) {
            Marked marked = marked(style, a, longhand, depth);
            Optional<String> part = marked.part(style, longhand, a);
            if (part.isEmpty()) {
                return new Unread(a.value().strip());
            }
            if (marked.stands().containsKey(part.get())) {
                return marked.stands().get(part.get());
            }
            return marked.isPlain(part.get())
                            && !part.get().toLowerCase(Locale.ROOT).contains(CURRENT)
                    ? style.color(part.get()).<ColorExpression>map(Fixed::new).orElseGet(() -> new Unread(part.get()))
                    : new Unread(a.value().strip());
        }

        /** Whether a declaration that reads what is chosen sets a longhand to something that does not. */
        private boolean passesBy(ElementStyle style, String longhand, CascadedDeclaration a) {
            Marked marked = marked(style, a, longhand, 0);
            return marked.part(style, longhand, a).filter(marked::isPlain).isPresent();
        }

        /**
         * A value in which colours that nothing else has stand for those that are chosen.
         *
         * @param stands what is chosen, by the colour that stands for it
         * @param others whether something else in it follows a choice
         */
        private record Marked(String text, Map<String, ColorExpression> stands, boolean others) {
            Optional<String> part(ElementStyle style, String longhand, CascadedDeclaration a) {
                return style.page()
                        .expand(a.property(), text.strip())
                        .map(all -> all.get(longhand))
                        .map(String::strip);
            }

            boolean isPlain(String part) {
                return !others && stands.keySet().stream().noneMatch(part::contains);
            }
        }

        private Marked marked(ElementStyle style, CascadedDeclaration a, String longhand, int depth) {
            Tokens tokens = Tokenizer.tokenize(a.value());
            StringBuilder out = new StringBuilder();
            Map<String, ColorExpression> stands = new LinkedHashMap<>();
            boolean others = false;
            for (int i = 0; i < tokens.size(); ) {
                // What stands in other functions is looked at one by one: a gradient has its colours in brackets.
                boolean reads = Reference.isOpened(tokens, i);
                boolean mixes = tokens.is(i, TokenType.FUNCTION) && MIXING.contains(tokens.lower(i));
                boolean current = isCurrent(tokens, i);
                int end = reads || mixes ? tokens.afterBlock(i, tokens.size()) : i + 1;
                String text = a.value().substring(tokens.start(i), tokens.end(end - 1));
                Optional<ColorExpression> chosen = reads
                        ? chosen(style, text, depth)
                        : mixes
                                ? mixed(style, text, longhand, depth)
                                : current
                                        ? Optional.of(current(style, longhand, depth))
                                                .filter(c -> !(c instanceof Fixed))
                                        : Optional.empty();
                if (chosen.filter(Unread.class::isInstance).isPresent()) {
                    others = true;
                } else if (chosen.isPresent()) {
                    String color = "rgb(" + (1 + stands.size()) + " 2 3)";
                    stands.put(color, chosen.get());
                    out.append(color);
                } else if (reads || mixes) {
                    others |= touches(style, text, 0) || isInChosenColor(style, longhand, text);
                    out.append(style.variables().substitute(text).orElse(""));
                } else {
                    out.append(text);
                }
                i = end;
            }
            return new Marked(out.toString(), stands, others);
        }

        private static boolean isCurrent(Tokens tokens, int i) {
            return tokens.is(i, TokenType.IDENT) && tokens.lower(i).equals(CURRENT);
        }

        /** The choice, or the colour function of choices, that one {@code var()} means; empty where it is neither, or may become another. */
        private Optional<ColorExpression> chosen(ElementStyle style, String text, int depth) {
            Optional<ColorExpression> one =
                    reference(style, text, choices.colors(), depth).map(Chosen::new);
            if (one.isPresent() || depth > DEEPEST) {
                return one;
            }
            Reference read = Reference.whole(Tokenizer.tokenize(text.strip())).orElse(null);
            ElementStyle at = read == null || style.page().registered().containsKey(read.name())
                    ? null
                    : declaring(style, read.name());
            if (at == null || isChosen(at, read.name())) {
                return Optional.empty();
            }
            // Its own colour is whose element reads it, which is not known here.
            String value = last(at, read.name()).value().strip();
            return Reference.whole(Tokenizer.tokenize(value)).isPresent()
                    ? chosen(at, value, depth + 1)
                    : mixed(at, value, null, depth + 1);
        }

        /** @param longhand that the function is a value of; null where {@code currentcolor} has no meaning yet */
        private Optional<ColorExpression> mixed(ElementStyle style, String text, String longhand, int depth) {
            Tokens tokens = Tokenizer.tokenize(text);
            boolean whole = depth <= DEEPEST
                    && tokens.size() > 1
                    && tokens.is(0, TokenType.FUNCTION)
                    && MIXING.contains(tokens.lower(0))
                    && tokens.afterBlock(0, tokens.size()) == tokens.size()
                    // Which scheme it means is told by whose element reads it.
                    && (longhand != null || !text.toLowerCase(Locale.ROOT).contains("light-dark"));
            if (!whole) {
                return Optional.empty();
            }
            List<String> pieces = new ArrayList<>();
            List<Part> parts = new ArrayList<>();
            StringBuilder piece = new StringBuilder(text.substring(0, tokens.end(0)));
            for (int i = 1; i < tokens.size(); ) {
                boolean reads = Reference.isOpened(tokens, i);
                boolean mixes = tokens.is(i, TokenType.FUNCTION) && MIXING.contains(tokens.lower(i));
                int end = reads || mixes ? tokens.afterBlock(i, tokens.size()) : i + 1;
                String one = text.substring(tokens.start(i), tokens.end(end - 1));
                Part part = null;
                if (isCurrent(tokens, i)) {
                    ColorExpression color = longhand == null ? new Unread(one) : current(style, longhand, depth);
                    if (color instanceof Unread) {
                        return Optional.empty();
                    }
                    part = new Part(color, false);
                } else if (reads) {
                    part = chosen(style, one, depth)
                            .map(c -> new Part(c, false))
                            .or(() -> reference(style, one, choices.numbers(), depth)
                                    .map(n -> new Part(new Chosen(n), true)))
                            .orElse(null);
                } else if (mixes) {
                    part = mixed(style, one, longhand, depth + 1)
                            .map(c -> new Part(c, false))
                            .orElse(null);
                }
                if (part != null) {
                    pieces.add(piece.toString());
                    piece.setLength(0);
                    parts.add(part);
                } else {
                    Optional<String> known = touches(style, one, 0)
                            ? Optional.empty()
                            : style.variables().substitute(one);
                    if (known.filter(k ->
                                    longhand != null || !IN_CURRENT.matcher(k).find())
                            .isEmpty()) {
                        return Optional.empty();
                    }
                    piece.append(known.get());
                }
                i = end;
            }
            pieces.add(piece.toString());
            Mixed mixed = new Mixed(pieces, parts, style.isDark());
            return !mixed.properties().isEmpty()
                            && mixed.read(p -> Color.rgb(0.2, 0.4, 0.6)).isPresent()
                    ? Optional.of(mixed)
                    : Optional.empty();
        }

        /**
         * The custom property of a choice that a text means, where it is one {@code var()} and leads there and nowhere else.
         *
         * @param among the properties that are looked for
         */
        private Optional<String> reference(ElementStyle style, String text, Set<String> among, int depth) {
            Tokens tokens = Tokenizer.tokenize(text.strip());
            Reference one = Reference.whole(tokens).orElse(null);
            if (one == null || depth > DEEPEST) {
                return Optional.empty();
            }
            String property = one.name();
            if (style.page().registered().containsKey(property)) {
                return Optional.empty();
            }
            ElementStyle at = declaring(style, property);
            if (at == null) {
                return one.hasFallback() && one.fallback() < tokens.size()
                        ? reference(
                                style,
                                text.strip().substring(tokens.start(one.fallback()), tokens.start(tokens.size() - 1)),
                                among,
                                depth + 1)
                        : Optional.empty();
            }
            if (isChosen(at, property)) {
                return among.contains(property) ? Optional.of(property) : Optional.empty();
            }
            return reference(at, last(at, property).value(), among, depth + 1);
        }

        /** Whether a value reads what is chosen, through whatever; more rather than fewer. */
        private boolean touches(ElementStyle style, String written, int depth) {
            if (!CustomProperties.mentions(written)) {
                return false;
            }
            if (depth > DEEPEST) {
                return true;
            }
            for (String name : Reference.names(written)) {
                ElementStyle at = declaring(style, name);
                if (at == null) {
                    continue;
                }
                String value = last(at, name).value().strip();
                // What steps back means another declaration, which is not looked for.
                boolean back = value.toLowerCase(Locale.ROOT).startsWith("revert");
                if (back || isChosen(at, name) || touches(at, value, depth + 1)) {
                    return true;
                }
            }
            return false;
        }

        /** Whether the sheets that carry choices are what declares a custom property there. */
        private boolean isChosen(ElementStyle at, String name) {
            CascadedDeclaration last = last(at, name);
            return choices.holds(name)
                    && at.parent() == null
                    && last.rule() != null
                    && choices.sheets().contains(last.rule().source().file().file());
        }

        private static CascadedDeclaration last(ElementStyle at, String name) {
            List<CascadedDeclaration> all = new ArrayList<>(at.customDeclarations(name));
            return all.get(all.size() - 1);
        }

        /** The nearest around that declares a custom property and does not hand it on, or null. */
        private static ElementStyle declaring(ElementStyle style, String name) {
            for (ElementStyle at = style; at != null; at = at.parent()) {
                if (!at.customDeclarations(name).isEmpty()
                        && !Set.of("inherit", "unset")
                                .contains(last(at, name).value().strip().toLowerCase(Locale.ROOT))) {
                    return at;
                }
            }
            return null;
        }
    }
}
