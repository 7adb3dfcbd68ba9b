package org.calmpalette.core.cascade;

import java.util.ArrayList;
import java.util.Collection;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Optional;
import java.util.Set;
import java.util.regex.Pattern;
import org.calmpalette.core.css.Node;
import org.calmpalette.core.css.Stylesheet;
import org.calmpalette.core.css.Tokens;
import org.jsoup.nodes.Element;

/** Compares what two states of a theme make of one element. */
public final class Painting {
    private static final List<String> PSEUDOS = List.of("before", "after");

    private static final Pattern IDLE_ZEROS = Pattern.compile("(\\d)\\.0+(?!\\d)");

    private Painting() {}

    /** The longhands whose values differ, on the element or its generated content. */
    public static List<String> differences(PageStyles a, Element in, PageStyles b, Element then) {
        List<String> differ = new ArrayList<>();
        differences(a.of(in), b.of(then), differ);
        for (String pseudo : PSEUDOS) {
            ElementStyle x = a.of(in, pseudo);
            ElementStyle y = b.of(then, pseudo);
            if (x.winner("content").isPresent() || y.winner("content").isPresent()) {
                differences(x, y, differ);
            }
        }
        return differ;
    }

    private static void differences(ElementStyle a, ElementStyle b, List<String> differ) {
        for (String longhand : Properties.computed()) {
            if (!a.computed(longhand).equals(b.computed(longhand)) && (isDrawn(a, longhand) || isDrawn(b, longhand))) {
                differ.add(longhand);
            }
        }
        // Of properties that are not computed here the winning declarations are compared.
        Set<String> others = new LinkedHashSet<>();
        for (ElementStyle s : List.of(a, b)) {
            for (CascadedDeclaration applied : s.matchedDeclarations()) {
                for (String l : Properties.longhands(applied.property())) {
                    if (!l.startsWith("--") && Properties.isKnown(l) && !Properties.isComputed(l)) {
                        others.add(l);
                    }
                }
            }
        }
        for (String l : others) {
            if (!a.winner(l).map(Painting::plain).equals(b.winner(l).map(Painting::plain))) {
                differ.add(l);
            }
        }
    }

    /** As it is written, but for zeros that say nothing: 112.0rem is 112rem. */
    private static String plain(ElementStyle.Winner w) {
        return IDLE_ZEROS.matcher(w.value()).replaceAll("$1");
    }

    /**
     * The stretch of a declaration's value that decides a longhand, such as the colour in {@code background}.
     *
     * @param style of an element that the declaration holds for, whose custom properties the value may read
     * @param probe a value of the longhand that no stylesheet has
     * @return first token and the token after the last; empty if no single stretch does
     */
    public static Optional<int[]> component(
            ElementStyle style, Stylesheet sheet, Node.Declaration d, String longhand, String probe) {
        if (d.valueFirst() >= d.valueEnd()) {
            return Optional.empty();
        }
        if (d.property().equals(longhand)) {
            return Optional.of(new int[] {d.valueFirst(), d.valueEnd()});
        }
        Tokens tokens = sheet.tokens();
        for (int i = d.valueFirst(); i < d.valueEnd(); ) {
            int next = tokens.opens(i) ? tokens.afterBlock(i, d.valueEnd()) : i + 1;
            if (!tokens.isBlank(i)) {
                String tried = sheet.text(d.valueFirst(), i) + probe + sheet.text(next, d.valueEnd());
                boolean decides = style.variables()
                        .substitute(tried)
                        .flatMap(v -> Expansion.of(d.property(), v.strip()))
                        .map(m -> m.get(longhand))
                        .filter(probe::equalsIgnoreCase)
                        .isPresent();
                if (decides) {
                    return Optional.of(new int[] {i, next});
                }
            }
            i = next;
        }
        return Optional.empty();
    }

    /** Whether a stretch that {@link #component} found decides one longhand only: the first of two paddings decides two. */
    public static boolean isAlone(
            ElementStyle style, Stylesheet sheet, Node.Declaration d, int[] stretch, String probe) {
        String tried = sheet.text(d.valueFirst(), stretch[0]) + probe + sheet.text(stretch[1], d.valueEnd());
        return style.variables()
                .substitute(tried)
                .flatMap(v -> Expansion.of(d.property(), v.strip()))
                .filter(m -> m.values().stream().filter(probe::equalsIgnoreCase).count() == 1)
                .isPresent();
    }

    /** The declared value of a longhand, with its custom properties replaced; empty if nothing declares it. */
    public static Optional<String> declared(ElementStyle style, String longhand) {
        return style.winner(longhand).map(ElementStyle.Winner::value);
    }

    /** True for longhands whose values are computed as the browser does. */
    public static boolean isComputed(String longhand) {
        return Properties.isComputed(longhand);
    }

    public static boolean isInherited(String longhand) {
        return Properties.isInherited(longhand);
    }

    /** The longhand's value before anything declares it. */
    public static String initial(String longhand) {
        return Properties.initial(longhand);
    }

    /**
     * Of an element that no changed rule finds, the longhands that differ because they do around it: the same ones, what
     * takes the text colour, and what is measured by the size of the text.
     *
     * @param around longhands that differ on the parent
     */
    public static List<String> handedDown(ElementStyle a, ElementStyle b, List<String> around) {
        Set<String> asked = new LinkedHashSet<>(around);
        if (around.contains("color")) {
            asked.addAll(List.of(
                    "background-color",
                    "fill",
                    "stroke",
                    "border-top-color",
                    "border-right-color",
                    "border-bottom-color",
                    "border-left-color"));
        }
        if (around.contains("font-size")) {
            asked.addAll(Properties.computed());
        }
        List<String> differ = new ArrayList<>();
        for (String l : asked) {
            boolean same = Properties.isComputed(l)
                    ? a.computed(l).equals(b.computed(l))
                    : !Properties.isInherited(l) || a.winner(l).isPresent();
            if (!same && (isDrawn(a, l) || isDrawn(b, l))) {
                differ.add(l);
            }
        }
        return differ;
    }

    /** The colour of a border that has no style shows nowhere. */
    private static boolean isDrawn(ElementStyle style, String longhand) {
        if (!longhand.startsWith("border-") || !longhand.endsWith("-color")) {
            return true;
        }
        return style.winner(longhand.replace("-color", "-style"))
                .map(ElementStyle.Winner::value)
                .filter(v -> !v.equals("none") && !v.equals("hidden") && !v.equals("initial"))
                .isPresent();
    }

    /** Longhands by the words one knows them under: {@code border-color} rather than its four sides. */
    public static List<String> inGroups(Collection<String> longhands) {
        Set<String> groups = new LinkedHashSet<>();
        for (String l : longhands) {
            groups.add(
                    l.startsWith("border-") && l.endsWith("-color")
                            ? "border colour"
                            : l.startsWith("border-") && (l.endsWith("-style") || l.endsWith("-width"))
                                    ? "border"
                                    : l.startsWith("padding-")
                                            ? "padding"
                                            : l.startsWith("margin-")
                                                    ? "margin"
                                                    : l.equals("color")
                                                            ? "text colour"
                                                            : l.startsWith("background-")
                                                                    ? l.replace('-', ' ')
                                                                            .replace("color", "colour")
                                                                            .replace("image", "picture")
                                                                    : l);
        }
        return List.copyOf(groups);
    }
}
