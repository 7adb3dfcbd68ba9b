package org.calmpalette.core.value;

import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import java.util.Optional;
import java.util.OptionalDouble;
import org.calmpalette.core.color.Color;
import org.calmpalette.core.color.ColorSpace;
import org.calmpalette.core.color.HueArc;

/**
 * An image of a computed value: CSS Images 3, section 2, and 4 for interpolation. One that cannot be read says so and is
 * never taken for none.
 */
public sealed interface Image {
    /** The keyword {@code none}. */
    record None() implements Image {}

    /** @param address whole, as the computed value has it */
    record Url(String address) implements Image {}

    /** An image of a kind that is not read here, such as {@code image-set()}. */
    record Unread(String text) implements Image {}

    /**
     * A gradient.
     *
     * @param stops colours and hints in order; lengths are in CSS px along the gradient line, angles in degrees for a conic one
     * @param space in which colours are mixed
     */
    record Gradient(Line line, boolean repeating, List<Stop> stops, ColorSpace space, HueArc arc) implements Image {}

    /** Where a gradient runs. */
    sealed interface Line {
        /** @param degrees clockwise, 0 to the top */
        record Angle(double degrees) implements Line {}

        /** To a side or corner; -1, 0 or 1 to the right and downwards. */
        record Corner(int x, int y) implements Line {}

        /**
         * From a point outwards.
         *
         * @param circle false for an ellipse
         * @param extent where it ends, if no radius is given
         * @param radii one for a circle, two for an ellipse, or none
         */
        record Radial(boolean circle, Extent extent, List<Lengths.Sum> radii, Lengths.Sum x, Lengths.Sum y)
                implements Line {}

        /** Around a point. @param from in degrees, clockwise, 0 at the top */
        record Conic(double from, Lengths.Sum x, Lengths.Sum y) implements Line {}
    }

    /** CSS Images 3, section 3.2.1. */
    enum Extent {
        CLOSEST_SIDE,
        CLOSEST_CORNER,
        FARTHEST_SIDE,
        FARTHEST_CORNER
    }

    /**
     * A stop of a gradient, or a hint between two.
     *
     * @param color null for a hint
     * @param at where, as a length or a share of the gradient line (degrees and a share of the turn for a conic one); null if
     *     it is left open
     */
    record Stop(Color color, Lengths.Sum at) {}

    /** Reads one image of a computed value. */
    static Image read(ComponentValue value) {
        if (value.isIdent("none")) {
            return new None();
        }
        if (value.kind() == ComponentValue.Kind.URL) {
            return new Url(value.name());
        }
        return GradientReader.read(value).<Image>map(g -> g).orElseGet(() -> new Unread(value.text()));
    }

    /** Reads gradients as computed values write them. */
    final class GradientReader {
        private static final Lengths.Sum HALF = new Lengths.Sum(0, 50, false);

        private ColorSpace space;
        private HueArc arc = HueArc.SHORTER;

        private GradientReader() {}

        static Optional<Gradient> read(ComponentValue value) {
            if (value.kind() != ComponentValue.Kind.FUNCTION
                    || !value.name().endsWith("-gradient")
                    || value.name().startsWith("-webkit-")) {
                return Optional.empty();
            }
            return new GradientReader().gradient(value);
        }

        private Optional<Gradient> gradient(ComponentValue value) {
            boolean repeating = value.name().startsWith("repeating-");
            String kind = value.name().replace("repeating-", "").replace("-gradient", "");
            List<List<ComponentValue>> arguments = ComponentValue.commaSeparated(ComponentValue.read(value.inside()));
            boolean prelude = !arguments.get(0).isEmpty()
                    && color(arguments.get(0).get(0)).isEmpty()
                    && arguments.get(0).stream().noneMatch(c -> color(c).isPresent());
            List<ComponentValue> first = prelude ? withoutInterpolation(arguments.get(0)) : List.of();
            Optional<Line> line = first == null
                    ? Optional.empty()
                    : switch (kind) {
                        case "linear" -> linear(first);
                        case "radial" -> radial(first);
                        case "conic" -> conic(first);
                        default -> Optional.empty();
                    };
            Optional<List<Stop>> stops =
                    stops(arguments.subList(prelude ? 1 : 0, arguments.size()), kind.equals("conic"));
            if (line.isEmpty() || stops.isEmpty()) {
                return Optional.empty();
            }
            // CSS Color 4, section 12.1: legacy colours are mixed in sRGB, all others in OKLab.
            boolean legacy = stops.get().stream()
                    .allMatch(s -> s.color() == null || s.color().space() == ColorSpace.RGB);
            return Optional.of(new Gradient(
                    line.get(),
                    repeating,
                    stops.get(),
                    space != null ? space : legacy ? ColorSpace.SRGB : ColorSpace.OKLAB,
                    arc));
        }

        /** Takes {@code in oklch longer hue} out. Null if the space is not known. */
        private List<ComponentValue> withoutInterpolation(List<ComponentValue> parts) {
            List<ComponentValue> rest = new ArrayList<>();
            for (int i = 0; i < parts.size(); i++) {
                if (!parts.get(i).isIdent("in")) {
                    rest.add(parts.get(i));
                    continue;
                }
                if (i + 1 >= parts.size()) {
                    return null;
                }
                String name = parts.get(++i).name();
                for (ColorSpace s : ColorSpace.values()) {
                    if (s != ColorSpace.RGB && s.cssName().equals(name)) {
                        space = s;
                    }
                }
                if (space == null) {
                    return null;
                }
                if (i + 2 < parts.size() && parts.get(i + 2).isIdent("hue")) {
                    arc = HueArc.valueOf(parts.get(i + 1).name().toUpperCase(Locale.ROOT));
                    i += 2;
                }
            }
            return rest;
        }

        private static Optional<Line> linear(List<ComponentValue> parts) {
            if (parts.isEmpty()) {
                return Optional.of(new Line.Angle(180));
            }
            if (parts.size() == 1) {
                return degrees(parts.get(0)).stream().boxed().findFirst().map(Line.Angle::new);
            }
            int x = 0;
            int y = 0;
            if (!parts.get(0).isIdent("to")) {
                return Optional.empty();
            }
            for (ComponentValue p : parts.subList(1, parts.size())) {
                switch (p.name()) {
                    case "left" -> x = -1;
                    case "right" -> x = 1;
                    case "top" -> y = -1;
                    case "bottom" -> y = 1;
                    default -> {
                        return Optional.empty();
                    }
                }
            }
            return Optional.of(
                    x != 0 && y != 0
                            ? new Line.Corner(x, y)
                            : new Line.Angle(x == 0 ? y < 0 ? 0 : 180 : x > 0 ? 90 : 270));
        }

        private static Optional<Line> radial(List<ComponentValue> parts) {
            int at = index(parts, "at");
            Boolean circle = null;
            Extent extent = Extent.FARTHEST_CORNER;
            List<Lengths.Sum> radii = new ArrayList<>();
            for (ComponentValue p : parts.subList(0, at)) {
                switch (p.name()) {
                    case "circle" -> circle = true;
                    case "ellipse" -> circle = false;
                    case "closest-side", "closest-corner", "farthest-side", "farthest-corner" ->
                        extent =
                                Extent.valueOf(p.name().toUpperCase(Locale.ROOT).replace('-', '_'));
                    default -> {
                        Optional<Lengths.Sum> radius = Lengths.sum(p, Lengths.Base.NONE);
                        if (radius.isEmpty()) {
                            return Optional.empty();
                        }
                        radii.add(radius.get());
                    }
                }
            }
            Extent ends = radii.isEmpty() ? extent : null;
            boolean round = circle != null ? circle : radii.size() == 1;
            return point(parts, at).map(xy -> new Line.Radial(round, ends, List.copyOf(radii), xy.get(0), xy.get(1)));
        }

        private static Optional<Line> conic(List<ComponentValue> parts) {
            int at = index(parts, "at");
            List<ComponentValue> before = parts.subList(0, at);
            OptionalDouble from = before.isEmpty()
                    ? OptionalDouble.of(0)
                    : before.size() == 2 && before.get(0).isIdent("from")
                            ? degrees(before.get(1))
                            : OptionalDouble.empty();
            return from.isEmpty()
                    ? Optional.empty()
                    : point(parts, at).map(xy -> new Line.Conic(from.getAsDouble(), xy.get(0), xy.get(1)));
        }

        private static int index(List<ComponentValue> parts, String word) {
            for (int i = 0; i < parts.size(); i++) {
                if (parts.get(i).isIdent(word)) {
                    return i;
                }
            }
            return parts.size();
        }

        private static Optional<List<Lengths.Sum>> point(List<ComponentValue> parts, int at) {
            if (at == parts.size()) {
                return Optional.of(List.of(HALF, HALF));
            }
            return Position.read(parts.subList(at + 1, parts.size())).map(p -> List.of(p.x(), p.y()));
        }

        private static Optional<List<Stop>> stops(List<List<ComponentValue>> arguments, boolean conic) {
            List<Stop> stops = new ArrayList<>();
            for (List<ComponentValue> argument : arguments) {
                Color color = null;
                List<Lengths.Sum> places = new ArrayList<>();
                for (ComponentValue p : argument) {
                    Optional<Color> c = color(p);
                    Optional<Lengths.Sum> place =
                            c.isPresent() ? Optional.empty() : conic ? turn(p) : Lengths.sum(p, Lengths.Base.NONE);
                    if (c.isPresent() && color == null) {
                        color = c.get();
                    } else if (place.isPresent()) {
                        places.add(place.get());
                    } else {
                        return Optional.empty();
                    }
                }
                boolean hint = color == null;
                boolean lone =
                        hint && (stops.isEmpty() || stops.get(stops.size() - 1).color() == null);
                if (hint && places.size() != 1 || lone || places.size() > 2) {
                    return Optional.empty();
                }
                stops.add(new Stop(color, places.isEmpty() ? null : places.get(0)));
                if (places.size() == 2) {
                    stops.add(new Stop(color, places.get(1)));
                }
            }
            // A hint stands between two colours.
            return stops.isEmpty() || stops.get(stops.size() - 1).color() == null
                    ? Optional.empty()
                    : Optional.of(List.copyOf(stops));
        }

        /** A place around a circle: an angle in degrees, or a share of the turn. */
        private static Optional<Lengths.Sum> turn(ComponentValue p) {
            if (p.kind() == ComponentValue.Kind.PERCENTAGE) {
                return Optional.of(new Lengths.Sum(0, p.number(), false));
            }
            return degrees(p).stream().boxed().findFirst().map(d -> new Lengths.Sum(d, 0, false));
        }

        private static OptionalDouble degrees(ComponentValue p) {
            if (p.kind() == ComponentValue.Kind.NUMBER && p.number() == 0) {
                return OptionalDouble.of(0);
            }
            return p.kind() != ComponentValue.Kind.DIMENSION
                    ? OptionalDouble.empty()
                    : switch (p.name()) {
                        case "deg" -> OptionalDouble.of(p.number());
                        case "grad" -> OptionalDouble.of(p.number() * 0.9);
                        case "rad" -> OptionalDouble.of(Math.toDegrees(p.number()));
                        case "turn" -> OptionalDouble.of(p.number() * 360);
                        default -> OptionalDouble.empty();
                    };
        }

        private static Optional<Color> color(ComponentValue p) {
            boolean may = p.kind() == ComponentValue.Kind.IDENT
                    || p.kind() == ComponentValue.Kind.FUNCTION
                    || p.kind() == ComponentValue.Kind.HASH;
            return may ? Color.parse(p.text()) : Optional.empty();
        }
    }
}
