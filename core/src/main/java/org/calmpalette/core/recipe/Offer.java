package org.calmpalette.core.recipe;

import java.util.List;
import java.util.Map;
import org.calmpalette.core.setting.Kind;
import org.calmpalette.core.setting.Place;
import org.calmpalette.core.setting.Value;

/**
 * One setting that could be made of a part.
 *
 * @param question that it answers
 * @param way in which the setting comes to decide it
 * @param kind with what an owner may choose
 * @param value today's, in the widest band
 * @param bands today's in those bands that differ
 * @param now in words
 * @param where what decides it today; empty if nothing does
 * @param note what an owner's choice does not reach; may be empty
 * @param turnsInside whether its value turns inside of a band, so that only what decides in the widest stretch follows
 * @param once the class of a script with which it holds; empty for the page as it is loaded
 */
public record Offer(
        Question question,
        Way way,
        Kind kind,
        Value value,
        Map<String, Value> bands,
        String now,
        List<String> where,
        String note,
        boolean turnsInside,
        String once) {
    /** How a setting comes to decide something. */
    enum Way {
        /** The declarations that decide it read the setting. */
        READ,
        /** No rule decided it: one is written. */
        ADDED,
        /** The one declaration that says all of a background reads the setting. */
        GROUND,
        /** A layer that reads it lies over each picture. */
        SHADE,
        /** It follows another setting of the part. */
        FOLLOWS
    }

    /** Of what is there at every width. */
    Offer(Question question, Way way, Kind kind, Value value, String now, List<String> where, String note) {
        this(question, way, kind, value, Map.of(), now, where, note, false, "");
    }

    /** Names it among those of the part. */
    public String id() {
        return once.isEmpty() ? question.id() : "once-" + Place.keyOf(once) + "-" + question.id();
    }

    /** As the owner reads it. */
    public String label() {
        return once.isEmpty() ? question.label() : question.label() + ", once a script sets “" + once + "”";
    }

    /** Index of the element that it concerns. */
    public int element() {
        return question.element();
    }

    public String property() {
        return question.property();
    }

    /** Whether it is of a state, such as being pointed at. */
    public boolean isOfState() {
        return !question.states().isEmpty();
    }

    /** Whether it is for the page to be well, and no owner is asked. */
    public boolean isSilent() {
        return way == Way.ADDED && property().startsWith("scroll-");
    }

    /** Whether it only makes something else follow the setting of another offer. */
    public boolean follows() {
        return way == Way.FOLLOWS;
    }

    Offer noted(String words) {
        return new Offer(question, way, kind, value, bands, now, where, words, turnsInside, once);
    }

    Offer once(String name) {
        return new Offer(question, way, kind, value, bands, now, where, note, turnsInside, name);
    }
}
