package org.calmpalette.core.promise;

import java.math.BigDecimal;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.TreeSet;
import java.util.stream.Collectors;
import org.calmpalette.core.page.Page;
import org.calmpalette.core.part.PartSelector;
import org.calmpalette.core.setting.Setting;
import org.calmpalette.core.setting.Value;
import org.calmpalette.core.survey.Finding;
import org.calmpalette.core.theme.Theme;
import org.jsoup.nodes.Element;

/**
 * What a promise comes to for one subject: a text with all others in the same colours on the same grounds, a part, a setting, or a page.
 *
 * @param page of the first part, as a path; empty where none is concerned
 * @param element its index among all elements of the page; -1 where no single part is meant
 * @param selector how a person finds it; the key where it is a setting
 * @param words its first words, or what it is called
 * @param width at which it is asked, CSS px; the others are asked with it
 * @param pseudoClass of the part, or of what can be in that state around it: empty at rest, else hover, focus, active or visited; or a
 *     class with its full stop, which a script puts on something
 * @param dark whether it is met by visitors alone who prefer a dark colour scheme
 * @param what of the part has to be seen, where that is what it is about
 * @param parts how many parts are concerned, over all pages, widths and states
 * @param pages on which they are
 * @param needed readable: the contrast ratio of WCAG 2.2, 1.4.3, 4.5 or 3; apart: the one that is promised; distinct: the distance that is
 *     promised; else 0
 * @param worst kept: what is never fallen below, or exceeded; broken: the number of the case; else 0
 * @param broken the choices that break it, by key; empty map where it is broken as made
 * @param waiver why the maker does not promise it; null where it is promised
 * @param finding of the survey that tells the same, or null
 * @param why unproven: what keeps it from being decided; broken: what is wrong then, where the numbers do not say so, or “at most” where
 *     they are an upper bound; distinct and broken: the colour vision for which it is so
 */
public record Answer(
        Promise promise,
        String page,
        int element,
        String selector,
        String words,
        int width,
        String pseudoClass,
        boolean dark,
        Perceivable what,
        int parts,
        Set<String> pages,
        double needed,
        State state,
        double worst,
        Optional<Map<String, Value>> broken,
        String why,
        Finding finding,
        String waiver) {
    /** As a selector, where a promise is about the theme as a whole. */
    public static final String THEME = "theme";

    /** How far it is decided. */
    public enum State {
        /** There is an allowed choice that breaks it, and it was looked at. */
        BROKEN,
        /** Not decided; never said where it is known. */
        UNPROVEN,
        /** For every allowed choice. */
        KEPT
    }

    /** The same of another page as well. */
    Answer and(Answer other) {
        Set<String> more = new TreeSet<>(pages);
        more.addAll(other.pages);
        return copy(parts + other.parts, more, finding, waiver);
    }

    /** The same, as a finding of the survey tells it. */
    Answer told(Finding by) {
        return copy(parts, pages, by, waiver);
    }

    Answer waived(String reason) {
        return copy(parts, pages, finding, reason);
    }

    private Answer copy(int manyParts, Set<String> allPages, Finding by, String reason) {
        return new Answer(
                promise,
                page,
                element,
                selector,
                words,
                width,
                pseudoClass,
                dark,
                what,
                manyParts,
                allPages,
                needed,
                state,
                worst,
                broken,
                why,
                by,
                reason);
    }

    /** What a promise speaks of. */
    record Subject(String page, int element, String selector, String words, int width) {
        static Subject part(Page page, Element e, int width) {
            return new Subject(
                    page.source().file(),
                    page.elements().indexOf(e),
                    PartSelector.unique(page, e),
                    brief(e.text().isBlank() ? PartSelector.name(e) : e.text()),
                    width);
        }

        static Subject page(Page page) {
            return new Subject(page.source().file(), -1, "html", page.document().title(), 0);
        }

        static Subject theme(Theme theme) {
            String name = theme.palette().name();
            return new Subject("", -1, THEME, name.isEmpty() ? "The theme" : name, 0);
        }

        static Subject setting(Setting s) {
            return new Subject("", -1, s.key(), s.label(), 0);
        }
    }

    private static final int LONGEST = 60;

    static String brief(String words) {
        String all = words.strip();
        return all.length() > LONGEST ? all.substring(0, LONGEST) + "…" : all;
    }

    static Answer of(Promise promise, Subject s, State state, Map<String, Value> broken, String why) {
        return new Answer(
                promise,
                s.page(),
                s.element(),
                s.selector(),
                s.words(),
                s.width(),
                "",
                false,
                Perceivable.TEXT,
                1,
                s.page().isEmpty() ? Set.of() : Set.of(s.page()),
                0,
                state,
                0,
                Optional.ofNullable(broken),
                why,
                null,
                null);
    }

    static Answer kept(Promise promise, Subject s) {
        return of(promise, s, State.KEPT, null, "");
    }

    static Answer unproven(Promise promise, Subject s, String why) {
        return of(promise, s, State.UNPROVEN, null, why);
    }

    /** @param choices that break it; empty if it is broken as made */
    static Answer broken(Promise promise, Subject s, Map<String, Value> choices, String why) {
        return of(promise, s, State.BROKEN, choices, why);
    }

    /** Names the subject of a promise as long as the page, its markup and the width stay. */
    public String id() {
        return promise.key()
                + (page.isEmpty() ? "" : " " + page)
                + " "
                + selector
                + (pseudoClass.isEmpty() ? "" : PartStates.isClass(pseudoClass) ? " " + pseudoClass : ":" + pseudoClass)
                + what.suffix()
                + (dark ? " in the dark" : "")
                + (width == 0 ? "" : " at " + width);
    }

    /** What it comes to in a sentence, such as “3.66 to 1 at 320 px, 4.5 is needed, as made”. */
    public String inWords() {
        String with = broken.map(values -> values.isEmpty()
                        ? "as made"
                        : "with "
                                + values.entrySet().stream()
                                        .map(e -> e.getKey() + " " + brief(plain(e.getValue())))
                                        .collect(Collectors.joining(", ")))
                .orElse("");
        return switch (state) {
            case UNPROVEN -> why;
            case KEPT ->
                isContrast()
                        ? "never below " + number(worst) + " to 1"
                        : isDistance() ? "never nearer than " + distance(worst) : "";
            case BROKEN ->
                isMeasured()
                        ? ratio() + (width == 0 ? "" : " at " + width + " px")
                                + (what.label().isEmpty() ? "" : ", " + what.label())
                                + (pseudoClass.isEmpty() ? "" : ", " + inState(pseudoClass))
                                + (dark ? ", in the dark scheme" : "") + ", "
                                + plain(needed) + " is needed, " + with
                        : why + (values().isEmpty() ? "" : " So it is " + with + ".");
        };
    }

    /** The ratio of a case in words; where not all that lies behind a text is known, what it is never above. */
    public String ratio() {
        if (isDistance()) {
            return distance(worst) + " apart with " + why;
        }
        return (why.isEmpty() ? "" : why + " ") + number(worst) + " to 1";
    }

    /** Whether its numbers are contrast ratios. */
    public boolean isContrast() {
        return promise == Promise.READABLE || promise == Promise.APART;
    }

    /** Whether its numbers are distances in OKLab. */
    public boolean isDistance() {
        return promise == Promise.DISTINCT;
    }

    /** Whether it has numbers. */
    public boolean isMeasured() {
        return isContrast() || isDistance();
    }

    /** Whether it is about two settings, of which the selector has the keys. */
    public boolean isAboutTwo() {
        return promise == Promise.APART || promise == Promise.DISTINCT;
    }

    /** Three digits, never more than it is. */
    public static String distance(double d) {
        return String.format(Locale.ROOT, "%.3f", Math.floor(d * 1000) / 1000);
    }

    /** A number without zeros behind it. */
    public static String plain(double n) {
        return BigDecimal.valueOf(n).stripTrailingZeros().toPlainString();
    }

    private static String inState(String state) {
        return PartStates.isClass(state)
                ? "with the class " + state.substring(1) + " that a script sets"
                : IN_STATE.get(state);
    }

    private static final Map<String, String> IN_STATE = Map.of(
            "hover",
            "under the pointer",
            "focus",
            "focused",
            "active",
            "pressed",
            "visited",
            "visited",
            FieldText.PLACEHOLDER,
            "before anything is written");

    /** The choices of the case; empty where it is broken as made, or not broken. */
    public Map<String, Value> values() {
        return broken.orElse(Map.of());
    }

    private static String plain(Value v) {
        return v instanceof Value.Text t
                ? t.text().isEmpty() ? "empty" : t.text()
                : v.json().toString();
    }

    /** A ratio with two digits, never more than it is. */
    private static String number(double ratio) {
        return String.format(Locale.ROOT, "%.2f", Math.floor(ratio * 100) / 100);
    }

    /** Whether what is promised does not hold. */
    public boolean isBroken() {
        return state == State.BROKEN && waiver == null;
    }

    public boolean isWaived() {
        return waiver != null;
    }
}
