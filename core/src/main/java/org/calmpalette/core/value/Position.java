package org.calmpalette.core.value;

import java.util.ArrayList;
import java.util.List;
import java.util.Optional;

/**
 * Where something lies in a box: the percentage is of the room that is left over, the length is added.
 *
 * @param x from the left edge
 * @param y from the top edge
 * @see <a href="https://www.w3.org/TR/css-values-4/#position">CSS Values and Units 4, section 9</a>
 */
public record Position(Lengths.Sum x, Lengths.Sum y) {
    private static final Lengths.Sum MIDDLE = new Lengths.Sum(0, 50, false, true);

    /** Reads one to four computed component values; empty if they are no position. */
    public static Optional<Position> read(List<ComponentValue> parts) {
        record Axis(ComponentValue word, Lengths.Sum value) {}
        List<Axis> axes = new ArrayList<>();
        for (int i = 0; i < parts.size(); i++) {
            ComponentValue p = parts.get(i);
            Optional<Lengths.Sum> plain = Lengths.sum(p, Lengths.Base.NONE);
            boolean edge = isVertical(p) || isHorizontal(p);
            if (plain.isPresent()) {
                axes.add(new Axis(p, plain.get()));
            } else if (p.isIdent("center")) {
                axes.add(new Axis(p, MIDDLE));
            } else if (edge) {
                // Only of more than two values one is an offset from the edge before it.
                Optional<Lengths.Sum> offset = parts.size() > 2 && i + 1 < parts.size()
                        ? Lengths.sum(parts.get(i + 1), Lengths.Base.NONE)
                        : Optional.empty();
                i += offset.isPresent() ? 1 : 0;
                axes.add(new Axis(
                        p,
                        fromEdge(
                                p.isIdent("right") || p.isIdent("bottom"),
                                offset.orElse(new Lengths.Sum(0, 0, false)))));
            } else {
                return Optional.empty();
            }
        }
        if (axes.isEmpty() || axes.size() > 2) {
            return Optional.empty();
        }
        Axis first = axes.get(0);
        if (axes.size() == 1) {
            return Optional.of(
                    isVertical(first.word())
                            ? new Position(MIDDLE, first.value())
                            : new Position(first.value(), MIDDLE));
        }
        Axis second = axes.get(1);
        boolean swapped = isVertical(first.word()) || isHorizontal(second.word());
        if (isVertical(first.word()) && isVertical(second.word())
                || isHorizontal(first.word()) && isHorizontal(second.word())) {
            return Optional.empty();
        }
        return Optional.of(
                swapped ? new Position(second.value(), first.value()) : new Position(first.value(), second.value()));
    }

    /** An offset from an edge as one from the left or top. */
    static Lengths.Sum fromEdge(boolean end, Lengths.Sum offset) {
        return end ? new Lengths.Sum(-offset.px(), 100 - offset.percent(), false, true) : offset;
    }

    private static boolean isVertical(ComponentValue p) {
        return p.isIdent("top") || p.isIdent("bottom");
    }

    private static boolean isHorizontal(ComponentValue p) {
        return p.isIdent("left") || p.isIdent("right");
    }
}
