package org.calmpalette.core.setting;

import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.function.Function;
import java.util.function.UnaryOperator;
import org.calmpalette.core.BadInputException;
import org.calmpalette.core.language.Language;

/**
 * What a setting is: the shape of its values, which of them an owner may choose, and what they become in stylesheets
 * and pages. A kind is a value itself: with its limits it is all that {@code palette.json} says under {@code kind} and
 * {@code allowed}.
 */
public sealed interface Kind
        permits BackgroundKind,
                BorderKind,
                ChoiceKind,
                ColorKind,
                GradientKind,
                ItemsKind,
                LengthKind,
                LevelKind,
                LinkKind,
                NumberKind,
                PictureKind,
                ShadowKind,
                SpacingKind,
                TextKind,
                VideoKind,
                YesNoKind {

    /** As {@code palette.json} writes it. */
    String name();

    /** As people read it. */
    String label();

    /** What an owner may choose, in plain words. */
    String inWords();

    /**
     * A value in its one way of writing, with all its parts.
     *
     * @throws BadInputException if it is no value of this kind; the message says what one looks like
     */
    Value normal(Value given);

    /** Why a value, in its one way of writing, may not be chosen; empty if it may. */
    Optional<Refusal> refusal(Value value, Around around);

    /** What a new setting of this kind starts with. */
    Value initial();

    /** The limits as {@code palette.json} keeps them under {@code allowed}; no parts if there are none. */
    Value.Parts allowed();

    /**
     * The custom properties that a value becomes, by what follows the setting's own property: nothing for the whole value,
     * {@code -top} for one side. Empty for what only pages show.
     *
     * @param address makes the address that a stylesheet names from a path in the theme
     */
    default Map<String, String> css(Value value, UnaryOperator<String> address) {
        return Map.of();
    }

    /** Reads what a stylesheet says; empty if the kind cannot say the same. */
    default Optional<Value> readCss(String css) {
        return Optional.empty();
    }

    /** A value as the ledger shows it. */
    String words(Value value);

    /** Whether it gives what is said and shown its measure and edges, and is asked for after that. */
    default boolean isFiner() {
        return false;
    }

    /**
     * JSON Schema (2020-12) of the values that may be chosen, as far as a schema can say it. What it cannot say stands in
     * its {@code $comment}.
     */
    Value.Parts schema(Around around);

    /**
     * Reads the fields of a form.
     *
     * @param fields the text of a field by its name after the setting's prefix: empty for the one field of a simple kind
     * @throws BadInputException if a field cannot be read; the message names it
     */
    Value read(Function<String, String> fields);

    /** The fields of a form that show a value: the inverse of {@link #read}. One field for a kind that is a text. */
    default Map<String, String> fields(Value value) {
        return Map.of("", ((Value.Text) value).text());
    }

    /** The attributes that tie parts of pages to a setting of this kind. */
    default List<Binding> bindings() {
        return List.of();
    }

    /** Custom properties that have to be registered as addresses, by what follows the setting's own property. */
    default List<String> addresses() {
        return List.of();
    }

    /** The same kind where other settings that its limits name are called otherwise. */
    default Kind renamed(UnaryOperator<String> name) {
        return this;
    }

    /**
     * The same kind with other colours, wherever its limits list some.
     *
     * @param to makes another colour of one in its one way of writing
     */
    default Kind recolored(UnaryOperator<String> to) {
        return this;
    }

    /**
     * The same kind with other names of what may be chosen.
     *
     * @param to another text of one
     */
    default Kind withTexts(UnaryOperator<String> to) {
        return this;
    }

    /** A value of the kind with other colours, wherever it holds some. */
    default Value recolored(Value value, UnaryOperator<String> to) {
        return value;
    }

    /** What a value is judged against. */
    interface Around {
        /** The value of another setting at the same window width; empty if there is none. */
        Optional<Value> value(String key);

        /** What is known of a picture or video of the theme; empty if there is no such file. */
        Optional<MediaFacts> media(String path);

        /** Paths of all pictures and videos of the theme; empty where no theme is around. */
        default List<String> files() {
            return List.of();
        }

        /** Whether it is known which files there are. */
        default boolean knowsFiles() {
            return false;
        }

        /** Whether the theme has a file; only where {@link #knowsFiles}. */
        default boolean hasFile(String path) {
            return false;
        }

        /** Nothing around: for values that are judged by themselves. */
        Around NOTHING = new Around() {
            @Override
            public Optional<Value> value(String key) {
                return Optional.empty();
            }

            @Override
            public Optional<MediaFacts> media(String path) {
                return Optional.empty();
            }
        };
    }

    /**
     * One that says what a value should look like.
     *
     * @param label what it is not, such as “a length”
     */
    static BadInputException wrong(Value given, String label, String mend) {
        String text = given instanceof Value.Text t ? t.text() : given.json().toString();
        return new BadInputException(
                Language.say("wrong", text.length() > 60 ? text.substring(0, 60) + "…" : text, label), mend);
    }
}
