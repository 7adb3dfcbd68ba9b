package org.calmpalette.core.promise;

import java.math.BigDecimal;
import java.util.ArrayList;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Locale;
import java.util.Set;
import org.calmpalette.core.color.Color;
import org.calmpalette.core.color.ColorSpace;
import org.calmpalette.core.paint.ColorRange;
import org.calmpalette.core.paint.Paint.Veil;
import org.calmpalette.core.setting.Band;
import org.calmpalette.core.setting.ColorKey;
import org.calmpalette.core.setting.ColorKind;
import org.calmpalette.core.setting.Given;
import org.calmpalette.core.setting.Setting;
import org.calmpalette.core.setting.Value;

/**
 * What a colour setting may be in a band.
 *
 * @param given what it is where nobody chooses
 * @param chosen all that may be chosen; null for colours between bounds
 * @param settled whether something is chosen in any case
 */
record Domain(Setting setting, ColorKind kind, Given given, List<Color> chosen, boolean settled) {
    static Domain of(Setting s, Band band) {
        ColorKind kind = (ColorKind) s.kind();
        Given given = s.givenIn(band);
        boolean fixed = s.shown() != null && s.shown().isNever() || s.bands().containsKey(band.key()) && !s.perBand();
        List<Color> swatches = kind.swatches().stream().map(ColorKind::parse).toList();
        Color made = given instanceof Given.Fixed f ? color(f) : null;
        List<Color> others = swatches.stream().filter(c -> !c.equals(made)).toList();
        return new Domain(s, kind, given, fixed ? List.of() : swatches.isEmpty() ? null : others, false);
    }

    /**
     * The same setting with one colour alone to choose, which is chosen, allowed or not: of its limits only what it demands of other
     * settings counts, since that is a limit of theirs as well.
     */
    Domain settledOn(Color color) {
        List<ColorKind.Needed> ofOthers = kind.contrasts().stream()
                .filter(n -> Color.parse(n.with()).isEmpty())
                .toList();
        ColorKind free = new ColorKind(List.of(), null, ofOthers, false);
        return new Domain(setting, free, new Given.Fixed(Value.of(ColorKey.of(color))), List.of(color), true);
    }

    /** The same setting, of which nothing is chosen, made so. */
    Domain madeAs(Color color) {
        return new Domain(setting, kind, new Given.Fixed(Value.of(ColorKey.of(color))), List.of(), false);
    }

    Domain unchosen() {
        return new Domain(setting, kind, given, List.of(), false);
    }

    static Color color(Given.Fixed given) {
        return ColorKind.parse(((Value.Text) given.value()).text());
    }

    String key() {
        return setting.key();
    }

    boolean isFinite() {
        return chosen != null;
    }

    boolean mayBeChosen() {
        return chosen == null || !chosen.isEmpty();
    }

    /** Whether it hides what is behind it, whatever is chosen of it. */
    boolean isOpaqueWhenChosen() {
        return chosen == null ? kind.opaque() : chosen.stream().allMatch(Color::isOpaque);
    }

    /** Luminances of what may be chosen, whatever alpha it has. */
    Luminances luminances() {
        if (isFinite()) {
            return chosen.stream()
                    .map(c -> Luminances.at(Proof.luminance(c)))
                    .reduce(Luminances::and)
                    .orElseThrow();
        }
        Luminances all = OklchBox.luminances(kind.bounds());
        for (ColorKind.Needed n : kind.contrasts()) {
            // A colour that lets through is judged over white there, and may be another one here.
            if (!n.anything() && kind.opaque()) {
                Color fixed = Color.parse(n.with()).filter(Color::isOpaque).orElse(null);
                if (fixed != null) {
                    all = all.keeping(n.atLeast().doubleValue(), Proof.luminance(fixed), OklchBox.SLACK);
                }
            }
        }
        return all;
    }

    /** The range of what may be chosen. */
    Veil veil() {
        if (isFinite()) {
            return chosen.stream().map(Veil::of).reduce(Veil::and).orElseThrow();
        }
        ColorRange range = OklchBox.channels(kind.bounds());
        return new Veil(range, kind.opaque() ? 1 : 0, 1);
    }

    /** Colours to try: greys, the corners of what screens show, and those at the bounds and at what is demanded. */
    List<Color> samples() {
        if (isFinite()) {
            return chosen;
        }
        Set<Color> all = new LinkedHashSet<>();
        for (int i = 0; i <= 16; i++) {
            all.add(Color.rgb(i / 16.0, i / 16.0, i / 16.0));
        }
        for (int i = 0; i < 27; i++) {
            all.add(Color.rgb(i % 3 / 2.0, i / 3 % 3 / 2.0, i / 9 / 2.0));
        }
        if (!kind.opaque()) {
            all.add(Color.rgb(1, 1, 1).withAlpha(0));
            all.add(Color.rgb(0, 0, 0).withAlpha(0.5));
            all.add(Color.rgb(1, 1, 1).withAlpha(0.5));
        }
        kind.contrasts()
                .forEach(n -> Color.parse(n.with()).filter(Color::isOpaque).ifPresent(other -> {
                    double beside = Proof.luminance(other) + 0.05;
                    all.add(grey(Math.max(0, beside / n.atLeast().doubleValue() - 0.05), false));
                    all.add(grey(Math.min(1, beside * n.atLeast().doubleValue() - 0.05), true));
                }));
        ColorKind.Bounds b = kind.bounds();
        if (b != null) {
            double[] l = ends(b.lightness(), 0, 100);
            double[] c = ends(b.chroma(), 0, 0.4);
            double[] h = ends(b.hue(), 0, 360);
            double turn = b.hue() == null ? 360 : ((h[1] - h[0]) % 360 + 360) % 360;
            for (double light : new double[] {l[0], (l[0] + l[1]) / 2, l[1]}) {
                for (double chroma : new double[] {c[0], (c[0] + c[1]) / 2, c[1]}) {
                    for (int i = 0; i <= 12; i++) {
                        Color.parse(String.format(
                                        Locale.ROOT,
                                        "oklch(%.4f %.4f %.3f)",
                                        light / 100,
                                        chroma,
                                        h[0] + turn * i / 12))
                                .ifPresent(x -> all.add(ColorKind.parse(ColorKey.of(x))));
                    }
                }
            }
        }
        return new ArrayList<>(all);
    }

    /** The grey of eight bits next to a luminance, above it or below. */
    private static Color grey(double luminance, boolean above) {
        double channel = new Color(ColorSpace.SRGB_LINEAR, luminance, luminance, luminance, 1)
                        .toGamut()
                        .c0()
                * 255;
        double whole = (above ? Math.ceil(channel - 1e-6) : Math.floor(channel + 1e-6)) / 255;
        return Color.rgb(whole, whole, whole);
    }

    private static double[] ends(ColorKind.Span span, double from, double to) {
        return span == null ? new double[] {from, to} : new double[] {number(span.from()), number(span.to())};
    }

    private static double number(BigDecimal n) {
        return n.doubleValue();
    }
}
