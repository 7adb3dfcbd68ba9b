package org.calmpalette.core.cascade;

import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import org.calmpalette.core.color.Color;
import org.calmpalette.core.css.Reference;
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

    /** It follows what is chosen in a way that is not read here. @param why for people: what it follows */
    record Unread(String why) implements ColorExpression {}

    /**
     * Custom properties that choices go to, as the sheets that carry them declare them on the root element.
     *
     * @param colors those whose value is one colour, whatever is chosen
     * @param others those that hold anything else
     * @param sheets the files that declare them
     */
    record Choices(Set<String> colors, Set<String> others, Set<String> sheets) {
        boolean holds(String name) {
            return colors.contains(name) || others.contains(name);
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
                .anyMatch(a -> reading.touches(style, a.value(), 0) && !reading.passesBy(style, longhand, a));
    }

    /**
     * An image of {@code background-image} that reads what is chosen as colours.
     *
     * @param image with colours that nothing else has in place of those that are chosen; {@link Image.Url} as it is written
     * @param stands the custom properties by the colours that stand for them
     */
    record Drawn(Image image, Map<Color, String> stands) {
        /** A colour of the image. */
        public ColorExpression of(Color color) {
            return stands.containsKey(color) ? new Chosen(stands.get(color)) : new Fixed(color);
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
            Marked marked = won.map(a -> marked(style, a, 0)).orElse(null);
            if (marked == null || marked.others()) {
                return Optional.empty();
            }
            Map<Color, String> stands = new LinkedHashMap<>();
            marked.stands()
                    .forEach((css, property) -> stands.put(Color.parse(css).orElseThrow(), property));
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
            if (value.contains("currentcolor")) {
                ColorExpression current =
                        longhand.equals("color") ? handed(style, longhand, true, depth) : of(style, "color", depth + 1);
                if (!(current instanceof Fixed)) {
                    return value.equals("currentcolor") ? current : new Unread(winner.value());
                }
            }
            return style.colorOf(longhand).<ColorExpression>map(Fixed::new).orElseGet(() -> new Unread(winner.value()));
        }

        /** Which part of a declaration that reads what is chosen decides the longhand: looked for with a colour that nothing else has. */
        private ColorExpression component(ElementStyle style, String longhand, CascadedDeclaration a, int depth) {
            Marked marked = marked(style, a, depth);
            Optional<String> part = marked.part(style, longhand, a);
            if (part.isEmpty()) {
                return new Unread(a.value().strip());
            }
            if (marked.stands().containsKey(part.get())) {
                return new Chosen(marked.stands().get(part.get()));
            }
            return marked.isPlain(part.get())
                            && !part.get().toLowerCase(Locale.ROOT).contains("currentcolor")
                    ? style.color(part.get()).<ColorExpression>map(Fixed::new).orElseGet(() -> new Unread(part.get()))
                    : new Unread(a.value().strip());
        }

        /** Whether a declaration that reads what is chosen sets a longhand to something that does not. */
        private boolean passesBy(ElementStyle style, String longhand, CascadedDeclaration a) {
            Marked marked = marked(style, a, 0);
            return marked.part(style, longhand, a).filter(marked::isPlain).isPresent();
        }

        /**
         * A value in which colours that nothing else has stand for those that are chosen.
         *
         * @param stands custom properties by the colour that stands for them
         * @param others whether something else in it follows a choice
         */
        private record Marked(String text, Map<String, String> stands, boolean others) {
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

        private Marked marked(ElementStyle style, CascadedDeclaration a, int depth) {
            Tokens tokens = Tokenizer.tokenize(a.value());
            StringBuilder out = new StringBuilder();
            Map<String, String> stands = new LinkedHashMap<>();
            boolean others = false;
            for (int i = 0; i < tokens.size(); ) {
                // What stands in other functions is looked at one by one: a gradient has its colours in brackets.
                boolean reads = Reference.isOpened(tokens, i);
                int end = reads ? tokens.afterBlock(i, tokens.size()) : i + 1;
                String text = a.value().substring(tokens.start(i), tokens.end(end - 1));
                Optional<String> chosen = reads ? reference(style, text, choices.colors(), depth) : Optional.empty();
                if (chosen.isPresent()) {
                    String color = "rgb(" + (1 + stands.size()) + " 2 3)";
                    stands.put(color, chosen.get());
                    out.append(color);
                } else if (reads) {
                    others |= touches(style, text, 0);
                    out.append(style.variables().substitute(text).orElse(""));
                } else {
                    out.append(text);
                }
                i = end;
            }
            return new Marked(out.toString(), stands, others);
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
