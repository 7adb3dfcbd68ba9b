package org.calmpalette.core.usage;

import java.util.ArrayList;
import java.util.Comparator;
import java.util.HashSet;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import org.calmpalette.core.color.Color;
import org.calmpalette.core.setting.ColorKey;
import org.calmpalette.core.setting.Derivation;
import org.calmpalette.core.setting.Given;
import org.calmpalette.core.setting.Value;
import org.calmpalette.core.theme.Theme;

/** Which colours of a theme were computed from one of them, so that they can move when it moves. */
public final class ColorFamily {
    /** The two between which a readable text is chosen, unless the theme writes another. */
    private static final String DARK = "#1c1e20";

    private static final String LIGHT = "#ffffff";

    /** Before the words of what a text stands on. */
    public static final String READABLE = "readable on ";

    private ColorFamily() {}

    /**
     * A colour that was computed from the one that was asked about.
     *
     * @param how from that one; {@link Given.Readable} for a text that is dark or light by what it stands on
     * @param ground from that one to what the text stands on; null for all others
     * @param words for people
     * @param drawn whether it stands in a drawing inside of an address
     * @param fit distance in OKLab between what is written and what the derivation gives
     */
    public record Relative(ColorUse use, Given.How how, Given.How ground, String words, boolean drawn, double fit) {
        /** What it becomes when the colour becomes another. */
        public Color of(Color to) {
            Value start = Value.of(ColorKey.of(to));
            Value value = ground == null ? how.of(start) : how.of(ground.of(start));
            return value instanceof Value.Text t ? Color.parse(t.text()).orElse(to) : to;
        }
    }

    /**
     * Every place that writes the colour or one computed from it, as the theme's stylesheets have them, then those in addresses
     * of drawings.
     */
    public static List<Relative> of(Theme theme, Color color) {
        return of(ColorUsage.of(theme), color);
    }

    public static List<Relative> of(ColorUsage.Result survey, Color color) {
        List<ColorUse> uses = new ArrayList<>();
        survey.rows().forEach(r -> uses.addAll(r.uses()));
        Set<ColorUse> drawn = new HashSet<>();
        DrawingColors.of(survey.theme()).forEach(d -> drawn.addAll(d.uses()));
        uses.addAll(drawn.stream()
                .sorted(Comparator.comparing(ColorUse::file).thenComparing(ColorUse::start))
                .toList());
        Derivation.Finder finder = new Derivation.Finder(color);
        Map<String, Color> different = new LinkedHashMap<>();
        uses.forEach(u -> different.putIfAbsent(ColorKey.of(u.color()), u.color()));
        different.values().forEach(finder::hear);
        Map<String, Optional<Derivation>> known = new LinkedHashMap<>();
        different.forEach((key, c) -> known.put(key, finder.of(c)));
        List<Relative> all = new ArrayList<>();
        Map<String, Derivation> grounds = new LinkedHashMap<>();
        for (ColorUse use : uses) {
            known.get(ColorKey.of(use.color())).ifPresent(d -> {
                all.add(new Relative(use, d.how(), null, d.inWords(), drawn.contains(use), d.fit()));
                if (isGround(use.property()) && use.color().isOpaque()) {
                    grounds.putIfAbsent(rule(use), d);
                }
            });
        }
        for (ColorUse use : uses) {
            Derivation ground = grounds.get(rule(use));
            if (use.property().equals("color")
                    && ground != null
                    && known.get(ColorKey.of(use.color())).isEmpty()) {
                readable(use, ground, color).ifPresent(all::add);
            }
        }
        return List.copyOf(all);
    }

    private static boolean isGround(String property) {
        return property.equals("background-color") || property.equals("background");
    }

    private static String rule(ColorUse use) {
        return use.file() + "\n" + use.conditions() + "\n" + use.selector();
    }

    /** A black or white text on the colour or on one of its relatives, if that is what reads best there. */
    private static Optional<Relative> readable(ColorUse use, Derivation ground, Color color) {
        String written = ColorKey.of(use.color());
        boolean light = use.color().isOpaque() && use.color().distance(Color.WHITE) < 0.02;
        boolean dark = use.color().isOpaque() && use.color().distance(Color.BLACK) < 0.3;
        if (!light && !dark) {
            return Optional.empty();
        }
        Given.Readable how = light ? new Given.Readable(DARK, written) : new Given.Readable(written, LIGHT);
        Given.How under = ground.how();
        boolean fits = how.of(under.of(Value.of(ColorKey.of(color)))).equals(Value.of(written));
        return fits
                ? Optional.of(new Relative(use, how, under, READABLE + ground.inWords(), false, 0))
                : Optional.empty();
    }
}
