package org.calmpalette.core.cascade;

import java.io.IOException;
import java.io.InputStream;
import java.io.UncheckedIOException;
import java.nio.charset.StandardCharsets;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.HashSet;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Set;
import java.util.TreeSet;
import org.calmpalette.core.color.NamedColors;
import org.calmpalette.core.value.ComponentValue;

/** Whether browsers understand a declaration, and what a misspelt one may mean. */
public enum Understanding {
    FULL,
    /** The property is none that browsers know. */
    UNKNOWN_PROPERTY,
    /** The property is known, its value is not valid. Only values of properties that are computed here are looked at. */
    INVALID_VALUE;

    private static final Map<String, Set<String>> KEYWORDS = read();
    private static final Set<String> WIDE = Set.of("initial", "inherit", "unset", "revert", "revert-layer");

    public static Understanding of(String property, String value) {
        if (property.startsWith("--")) {
            return FULL;
        }
        if (!Properties.isKnown(property)) {
            return UNKNOWN_PROPERTY;
        }
        return CustomProperties.mentions(value) || Expansion.of(property, value).isPresent() ? FULL : INVALID_VALUE;
    }

    /** All names of CSS properties. */
    public static Set<String> properties() {
        return Properties.names();
    }

    /** The longhands that a property sets: those of a shorthand, else itself. */
    public static List<String> longhands(String property) {
        return Properties.longhands(property);
    }

    /** The longhands on the page's own sides that a property may set, whichever way the text runs; none for what is no property. */
    public static Set<String> sides(String property) {
        Set<String> all = new TreeSet<>();
        for (String longhand : Properties.isKnown(property) ? longhands(property) : List.<String>of()) {
            all.add(Properties.physical(longhand, false));
            all.add(Properties.physical(longhand, true));
        }
        return all;
    }

    /** True for a property with another browser maker's prefix: unknown here on purpose. */
    public static boolean isPrefixed(String property) {
        return property.startsWith("-");
    }

    /**
     * The words of a value that are no keyword of the property.
     *
     * @return empty if all are, or if the property takes names of an author's own
     */
    public static List<String> strangeWords(String property, String value) {
        Set<String> keywords = KEYWORDS.get(property);
        List<String> strange = new ArrayList<>();
        if (keywords == null || CustomProperties.mentions(value)) {
            return strange;
        }
        for (ComponentValue p : ComponentValue.read(value)) {
            if (p.kind() == ComponentValue.Kind.IDENT) {
                String word = p.name().toLowerCase(Locale.ROOT);
                boolean color = keywords.contains("<color>") && Expansion.isColor(p);
                if (!keywords.contains(word) && !WIDE.contains(word) && !word.startsWith("-") && !color) {
                    strange.add(p.text());
                }
            }
        }
        return strange;
    }

    /** What a word of a value of the property may be, names of colours among them. */
    public static Set<String> words(String property) {
        Set<String> words = new HashSet<>(KEYWORDS.getOrDefault(property, Set.of()));
        if (words.remove("<color>")) {
            words.addAll(NamedColors.names());
        }
        return words;
    }

    private static Map<String, Set<String>> read() {
        try (InputStream in = Understanding.class.getResourceAsStream("keywords.txt")) {
            Map<String, Set<String>> read = new HashMap<>();
            new String(in.readAllBytes(), StandardCharsets.UTF_8)
                    .lines()
                    .filter(l -> !l.startsWith("#"))
                    .forEach(l -> {
                        int colon = l.indexOf(':');
                        read.put(
                                l.substring(0, colon),
                                Set.of(l.substring(colon + 1).strip().split(" ")));
                    });
            return read;
        } catch (IOException e) {
            throw new UncheckedIOException(e);
        }
    }
}
