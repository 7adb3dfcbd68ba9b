package org.calmpalette.core.promise;

import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.TreeMap;
import java.util.TreeSet;
import org.calmpalette.core.cascade.ElementStyle;
import org.calmpalette.core.cascade.PageStyles;
import org.calmpalette.core.cascade.Painting;
import org.calmpalette.core.color.Color;
import org.calmpalette.core.css.selector.States;
import org.calmpalette.core.theme.Theme;
import org.jsoup.nodes.Element;

/** The states in which texts are asked for besides at rest: what is in one, and what a state changes. */
final class PartStates {
    private PartStates() {}

    /** Those that some stylesheet of a theme looks at. */
    static Set<String> of(Theme theme) {
        Set<String> found = new TreeSet<>();
        for (String state : ALL.keySet()) {
            if (theme.sheets().stream().anyMatch(s -> s.file().text().contains(":" + state))) {
                found.add(state);
            }
        }
        return found;
    }

    /** The pseudo-classes of each state that is asked for. */
    static final Map<String, Set<String>> ALL = new TreeMap<>(Map.of(
            "active",
            Set.of("active", "hover", "focus", "focus-within"),
            "focus",
            Set.of("focus", "focus-visible", "focus-within"),
            "hover",
            Set.of("hover"),
            "visited",
            Set.of("visited")));

    private static final Set<String> OF_ALL_AROUND = Set.of("hover", "active", "focus-within");

    private static final String FOCUSABLE = "a[href], button, summary, [tabindex], input, select, textarea";

    /** Whether the keyboard can come to it. */
    static boolean isFocusable(Element e) {
        return e.is(FOCUSABLE);
    }

    /** What has to be in a state for a text to be seen in it: under the pointer it is the text itself, else what can be focused or visited. */
    static Element holder(Element e, String state) {
        if (state.equals("hover")) {
            return e;
        }
        String which = state.equals("visited") ? "a[href]" : FOCUSABLE + ", label";
        for (Element a = e; a != null && a.parent() != null; a = a.parent()) {
            if (a.is(which)) {
                return a;
            }
        }
        return null;
    }

    /** What a script does by a class is no state of CSS: it stands in the markup then. */
    static boolean isClass(String state) {
        return state.startsWith(".");
    }

    /** @param holder as {@link #holder} finds it; null at rest, or where a class is the state */
    static States on(Element holder, String state) {
        if (holder == null) {
            return States.NONE;
        }
        Set<String> pseudoClasses = ALL.get(state);
        return (e, s) -> pseudoClasses.contains(s)
                && (e == holder || OF_ALL_AROUND.contains(s) && holder.parents().contains(e));
    }

    /**
     * Whether other declarations hold for an element or what is around it; what holds for boxes of their content is looked at with it.
     *
     * @param then the same element where a script has changed classes of the page; else itself
     */
    static boolean isDecidedOtherwise(Element then, PageStyles one, Element e, PageStyles other) {
        Element b = then;
        for (Element a = e; a != null && a.parent() != null; a = a.parent(), b = b.parent()) {
            if (!one.of(b).isDecidedAs(other.of(a))
                    || !one.of(b, "before").isDecidedAs(other.of(a, "before"))
                    || !one.of(b, "after").isDecidedAs(other.of(a, "after"))) {
                return true;
            }
        }
        return false;
    }

    /** Longhands, or their beginnings, that change the look of a box and neither its size nor its place. */
    private static final List<String> LOOKS = List.of(
            "color",
            "background-",
            "opacity",
            "visibility",
            "outline",
            "text-decoration",
            "text-shadow",
            "box-shadow",
            "cursor",
            "fill",
            "stroke",
            "transition",
            "-webkit-text-fill-color");

    /**
     * Whether what was measured and found behind a text at rest is so in a state: boxes are the same, and what is around it paints and hides
     * as it does there. What it paints itself may differ, since its lines lie inside of it.
     */
    static boolean isLaidAs(Element then, PageStyles one, Element e, PageStyles other) {
        Element b = then;
        for (Element a = e; a != null && a.parent() != null; a = a.parent(), b = b.parent()) {
            if (!isLooksAlone(b, one, a, other) || a != e && !isPaintedAs(one.of(b), other.of(a))) {
                return false;
            }
        }
        return true;
    }

    private static boolean isPaintedAs(ElementStyle one, ElementStyle other) {
        double a = one.colorOf("background-color").map(Color::alpha).orElse(0.0);
        double b = other.colorOf("background-color").map(Color::alpha).orElse(0.0);
        return (a == 0) == (b == 0)
                && (a == 1) == (b == 1)
                && one.computed("opacity").equals(other.computed("opacity"))
                && one.computed("background-image").equals(other.computed("background-image"));
    }

    /** Whether an element differs in nothing but what changes the look of its box. */
    static boolean isLooksAlone(Element then, PageStyles one, Element e, PageStyles other) {
        return Painting.differences(one, then, other, e).stream()
                .allMatch(longhand ->
                        longhand.endsWith("-color") || LOOKS.stream().anyMatch(longhand::startsWith));
    }
}
