package org.calmpalette.core.cascade;

import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import java.util.Optional;
import java.util.Set;
import org.calmpalette.core.color.Color;
import org.calmpalette.core.value.ComponentValue;

/** What paints the letters of a text besides their colour: shadows (CSS Text Decoration 3, section 4) and a fill. Both are inherited. */
public final class LetterPaint {
    private static final Set<String> HANDED = Set.of("inherit", "unset");

    private LetterPaint() {}

    /** What is declared on the element, or on the nearest around it of which anything is said. */
    private static Optional<String> declared(ElementStyle style, String longhand) {
        for (ElementStyle at = style; at != null; at = at.parent()) {
            Optional<String> own =
                    at.winner(longhand).map(w -> w.value().strip().toLowerCase(Locale.ROOT));
            if (own.filter(v -> !HANDED.contains(v)).isPresent()) {
                return own.filter(v -> !v.equals("initial"));
            }
        }
        return Optional.empty();
    }

    private static Optional<String> shadow(ElementStyle style) {
        return declared(style, "text-shadow").filter(v -> !v.equals("none"));
    }

    public static boolean isShadowed(ElementStyle style) {
        return shadow(style).isPresent();
    }

    /** Whether the letters are filled with something else than their colour. */
    public static boolean isFilled(ElementStyle style) {
        return declared(style, "-webkit-text-fill-color")
                .filter(v -> !v.equals("currentcolor"))
                .isPresent();
    }

    /** The colours of all shadows, none for a text without; empty where one is not told, or is that of the text. */
    public static Optional<List<Color>> shadows(ElementStyle style) {
        List<Color> all = new ArrayList<>();
        for (List<ComponentValue> one :
                ComponentValue.commaSeparated(ComponentValue.read(shadow(style).orElse("")))) {
            Optional<Color> color = one.stream()
                    .map(ComponentValue::text)
                    .filter(t -> !t.equals("currentcolor"))
                    .map(style::color)
                    .flatMap(Optional::stream)
                    .findFirst();
            if (color.isPresent()) {
                all.add(color.get());
            } else if (!one.isEmpty()) {
                return Optional.empty();
            }
        }
        return Optional.of(all);
    }
}
