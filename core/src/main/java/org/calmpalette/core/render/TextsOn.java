package org.calmpalette.core.render;

import java.util.List;
import java.util.Optional;
import java.util.Set;
import org.calmpalette.core.cascade.ElementStyle;
import org.calmpalette.core.cascade.LetterPaint;
import org.calmpalette.core.color.Color;
import org.calmpalette.core.color.Contrast;
import org.jsoup.nodes.Element;

/**
 * How well texts read that stand on the paint of certain elements, at one window width.
 *
 * @param texts how many such texts there are, up to {@link #MOST}
 * @param unknown of how many of them it cannot be told
 * @param worst the text that is furthest below what it needs, or nearest to it; empty if nothing is known of any
 */
public record TextsOn(int texts, int unknown, Optional<Worst> worst) {
    /** Texts that are looked at. */
    public static final int MOST = 60;

    private static final int LONGEST = 40;

    /**
     * @param ratio that 95 of 100 points behind the text reach, 1 to 21
     * @param needed by WCAG 2.2, success criterion 1.4.3
     * @param words the text, shortened
     */
    public record Worst(double ratio, double needed, String words) {
        double share() {
            return ratio / needed;
        }
    }

    /** @param painting the elements on which the texts stand */
    public static TextsOn of(Scenes scenes, Gallery gallery, Set<Element> painting, int width) {
        Ground ground = new Ground(scenes, gallery, true);
        List<Element> elements = scenes.page().elements();
        int texts = 0;
        int unknown = 0;
        Worst worst = null;
        for (int i : scenes.measures().lines().keySet().stream().sorted().toList()) {
            if (i >= elements.size()
                    || texts >= MOST
                    || ground.behind(i, width).stream().noneMatch(painting::contains)) {
                continue;
            }
            ElementStyle style = scenes.styles(width).of(elements.get(i));
            if (style.colorOf("color").orElse(Color.TRANSPARENT).alpha() == 0) {
                continue;
            }
            texts++;
            // A shadow helps a text in a way that no ratio tells.
            boolean shadowed = LetterPaint.isShadowed(style);
            Optional<Ground.Reading> reading =
                    shadowed ? Optional.empty() : ground.under(i, width).reading();
            if (reading.isEmpty()) {
                unknown++;
                continue;
            }
            String words = elements.get(i).ownText().strip();
            Worst here = new Worst(
                    reading.get().low(),
                    Contrast.needed(style.fontSizePx(), style.fontWeight()),
                    words.length() > LONGEST ? words.substring(0, LONGEST) + "…" : words);
            worst = worst == null || here.share() < worst.share() ? here : worst;
        }
        return new TextsOn(texts, unknown, Optional.ofNullable(worst));
    }
}
