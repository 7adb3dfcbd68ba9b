package org.calmpalette.core.promise;

import java.util.ArrayList;
import java.util.List;
import org.calmpalette.core.cascade.ColorExpression;
import org.calmpalette.core.paint.Paint;

/** What is painted under a text, and the text itself, as far as choices leave it open. */
sealed interface Ply {
    /** Where the letters stand. */
    record Letters() implements Ply {}

    /** A background colour. */
    record Plain(ColorExpression color) implements Ply {}

    /** A gradient by its colours, mixed in sRGB: each of its own lies between them. */
    record Gradient(List<ColorExpression> colors) implements Ply {
        boolean isEven() {
            return colors.stream().distinct().count() == 1;
        }
    }

    /** What is known by the range of its colours alone. @param what as people call it, such as “the picture img/a.jpg” */
    record Range(Paint.Veil veil, String what) implements Ply {}

    /** All that a setting makes of a background. @param property of the setting */
    record Background(String property) implements Ply {}

    /**
     * Painted together, then laid over what is behind.
     *
     * @param all the uppermost first
     * @param from least opacity, 0 to 1; 0 too for what may lie elsewhere
     * @param what why it is not one opacity, as people call it; empty if it is one
     */
    record Group(List<Ply> all, double from, double to, String what) implements Ply {
        public Group {
            all = List.copyOf(all);
        }

        static Group of(List<Ply> all, double opacity) {
            return new Group(all, opacity, opacity, "");
        }
    }

    /** What keeps one from telling the colours even when all choices are known; empty if nothing does. */
    default List<String> unsure() {
        List<String> all = new ArrayList<>();
        if (this instanceof Range r) {
            all.add(r.what());
        } else if (this instanceof Background) {
            all.add("a picture that is chosen");
        } else if (this instanceof Gradient g && !g.isEven()) {
            all.add("a gradient");
        } else if (this instanceof Group g) {
            if (!g.what().isEmpty()) {
                all.add(g.what());
            }
            g.all().forEach(p -> all.addAll(p.unsure()));
        }
        return all.stream().distinct().toList();
    }

    /** What lies under the letters one after the other, down to the first group with an opacity; null if such a group holds the letters. */
    static List<Ply> under(Ply ply) {
        if (!(ply instanceof Group g) || g.from() != 1 || g.to() != 1) {
            return ply instanceof Letters ? List.of() : null;
        }
        List<Ply> below = new ArrayList<>();
        boolean found = false;
        for (Ply p : g.all()) {
            if (found) {
                below.add(p);
            } else if (holdsLetters(p)) {
                List<Ply> inner = under(p);
                if (inner == null) {
                    return null;
                }
                below.addAll(inner);
                found = true;
            }
        }
        return below;
    }

    private static boolean holdsLetters(Ply p) {
        return p instanceof Letters || p instanceof Group g && g.all().stream().anyMatch(Ply::holdsLetters);
    }

    /** Every colour that is read, in any order. */
    default List<ColorExpression> colors() {
        return this instanceof Plain p
                ? List.of(p.color())
                : this instanceof Gradient g
                        ? g.colors()
                        : this instanceof Group g
                                ? g.all().stream()
                                        .flatMap(p -> p.colors().stream())
                                        .toList()
                                : List.of();
    }

    /** The settings of backgrounds that are read, by their properties. */
    default List<String> backgrounds() {
        return this instanceof Background b
                ? List.of(b.property())
                : this instanceof Group g
                        ? g.all().stream()
                                .flatMap(p -> p.backgrounds().stream())
                                .toList()
                        : List.of();
    }
}
