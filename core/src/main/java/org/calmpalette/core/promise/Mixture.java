package org.calmpalette.core.promise;

import java.util.List;
import java.util.function.Function;
import java.util.regex.Pattern;
import java.util.stream.Stream;
import org.calmpalette.core.cascade.ColorExpression;
import org.calmpalette.core.cascade.ColorExpression.Mixed;
import org.calmpalette.core.color.Color;
import org.calmpalette.core.color.ColorSpace;
import org.calmpalette.core.paint.ColorRange;
import org.calmpalette.core.paint.Paint.Veil;
import org.calmpalette.core.setting.Given;

/** Between what a colour function of chosen colours lies, where they are known by their bounds alone. */
final class Mixture {
    private static final List<Color> TRIED = Stream.of("#000000", "#ffffff", "#336699")
            .map(c -> Color.parse(c).orElseThrow())
            .toList();
    /** An alpha that is a number, or none: not one that is reckoned from what is chosen. */
    private static final Pattern STEADY = Pattern.compile("[^/]*|[^/]*/\\s*[\\d.]+%?\\s*\\)\\s*");

    private Mixture() {}

    /** Whether it is opaque wherever its parts are. */
    static boolean isOpaque(Mixed m) {
        boolean steady = m.pieces().get(0).startsWith("color-mix")
                || STEADY.matcher(String.join("", m.pieces())).matches();
        return steady
                && m.parts().stream().allMatch(p -> !(p.color() instanceof Mixed inner) || isOpaque(inner))
                && TRIED.stream().allMatch(c -> m.with(p -> c).isOpaque());
    }

    /**
     * Of one setting mixed with one colour in sRGB or OKLab that is near; of all else it is not known what it may be.
     *
     * @param domains of what is chosen, by custom property
     */
    static Veil veil(Mixed m, Function<String, Domain> domains, boolean opaque) {
        Veil unknown = new Veil(ColorRange.ANY, opaque ? 1 : 0, 1);
        ColorSpace space = space(m);
        if (space == null
                || !opaque
                || m.parts().size() != 1
                || !(m.parts().get(0).color() instanceof ColorExpression.Chosen c)) {
            return unknown;
        }
        Domain d = domains.apply(c.property());
        if (d.isFinite() || !(d.given() instanceof Given.Fixed made)) {
            return unknown;
        }
        // Mixing is linear in each channel of its space: two colours tell by what share and from where.
        Color black = m.with(p -> Color.rgb(0, 0, 0)).to(space);
        Color white = m.with(p -> Color.rgb(1, 1, 1)).to(space);
        ColorRange chosen = OklchBox.mixed(
                d.kind().bounds(), space, white.c0() - black.c0(), new double[] {black.c0(), black.c1(), black.c2()});
        return new Veil(chosen, 1, 1).and(Veil.of(m.with(p -> Domain.color(made))));
    }

    /** In which it is mixed along straight lines; null where that is neither sRGB nor OKLab. */
    private static ColorSpace space(Mixed m) {
        String head = m.pieces().get(0).replaceAll("\\s+", " ");
        return head.matches("color-mix\\( ?in srgb ?,.*")
                ? ColorSpace.SRGB
                : head.matches("color-mix\\( ?in oklab ?,.*") ? ColorSpace.OKLAB : null;
    }
}
