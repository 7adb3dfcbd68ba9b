package org.calmpalette.core.setting;

import java.util.Collections;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.regex.Pattern;
import org.calmpalette.core.BadInputException;

/**
 * A named value that an owner may change.
 *
 * @param key the custom property's name without the two dashes
 * @param label what the owner reads
 * @param help a sentence for the owner, may be empty
 * @param place key of the place the setting belongs to
 * @param given the default, at every window width that has none of its own
 * @param bands defaults of single bands, by the band's key
 * @param perBand whether the owner may choose for each band
 * @param shown when the owner is asked, or null for always
 * @param former keys that the setting had before: what owners chose under them still counts
 * @param drawings SVG in addresses of stylesheets that have the colour, read from {@code --key-drawing-1} and so on
 * @param triple whether stylesheets also read the colour as {@code red, green, blue} numbers, from {@code --key-rgb}
 */
public record Setting(
        String key,
        String label,
        String help,
        String place,
        Kind kind,
        Given given,
        Map<String, Given> bands,
        boolean perBand,
        Shown shown,
        boolean triple,
        List<Drawing> drawings,
        List<String> former) {
    public static final int LONGEST_KEY = 60;
    public static final int LONGEST_LABEL = 80;
    public static final int LONGEST_HELP = 400;
    private static final Pattern KEY = Pattern.compile("[a-z_][a-z0-9_-]*", Pattern.CASE_INSENSITIVE);

    /**
     * The owner is asked only while another setting has one of some values. What was chosen stays chosen meanwhile.
     *
     * @param key of the other setting
     */
    public record Shown(String key, List<Value> is) {
        /** The owner is never asked: what follows another setting goes with it. */
        public static final Shown NEVER = new Shown("", List.of());

        public boolean isNever() {
            return key.isEmpty();
        }

        public Shown {
            is = List.copyOf(is);
        }
    }

    /** @throws BadInputException if a part cannot be used; the message names the part */
    public Setting {
        checkKey(key);
        if (label.isBlank() || label.length() > LONGEST_LABEL) {
            throw new BadInputException(
                    "The label is " + (label.isBlank() ? "empty" : "too long") + ".",
                    "Write what the owner should read, in at most " + LONGEST_LABEL + " characters.");
        }
        if (help.length() > LONGEST_HELP) {
            throw new BadInputException("The help is too long.", "Say it in at most " + LONGEST_HELP + " characters.");
        }
        given = normal(kind, given, "The default");
        Map<String, Given> each = new LinkedHashMap<>();
        for (Map.Entry<String, Given> e : bands.entrySet()) {
            each.put(e.getKey(), normal(kind, e.getValue(), "The default for " + e.getKey()));
        }
        bands = Collections.unmodifiableMap(each);
        triple = triple && kind instanceof ColorKind;
        drawings = kind instanceof ColorKind ? List.copyOf(drawings) : List.of();
        former = List.copyOf(former);
    }

    private static Given normal(Kind kind, Given given, String which) {
        if (!(given instanceof Given.Fixed fixed)) {
            boolean fits = kind instanceof ColorKind || ((Given.Follows) given).how() instanceof Given.Same;
            if (!fits) {
                throw new BadInputException(
                        which + " is made of a colour, but this is a " + kind.label() + ".",
                        "Let it be the same as another one.");
            }
            return given;
        }
        try {
            return new Given.Fixed(kind.normal(fixed.value()));
        } catch (BadInputException e) {
            throw new BadInputException(which + ": " + e.getMessage(), e.mend());
        }
    }

    /** A setting that is the same at every width and always asked for. */
    public static Setting of(String key, String label, String help, String place, Kind kind, Value value) {
        return new Setting(
                key,
                label,
                help,
                place,
                kind,
                new Given.Fixed(value),
                Map.of(),
                false,
                null,
                false,
                List.of(),
                List.of());
    }

    /** @throws BadInputException if no custom property can have this name */
    public static void checkKey(String key) {
        if (!KEY.matcher(key).matches() || key.length() > LONGEST_KEY) {
            throw new BadInputException(
                    "“" + key + "” cannot be the name of a custom property.",
                    "Use letters, digits and hyphens, with a letter first, at most " + LONGEST_KEY
                            + " characters: notice-badge-fill.");
        }
    }

    /** The name of the custom property. */
    public String property() {
        return "--" + key;
    }

    /** The name of the custom property that holds the colour as numbers, if stylesheets read it. */
    public String tripleProperty() {
        return property() + "-rgb";
    }

    /** The name of the custom property that holds a drawing, counted from 0. */
    public String drawingProperty(int index) {
        return property() + "-drawing-" + (index + 1);
    }

    /** What a maker gives for a band. */
    public Given givenIn(Band band) {
        return bands.getOrDefault(band.key(), given);
    }

    /** Everything that the defaults follow. */
    public List<Given.Follows> following() {
        return java.util.stream.Stream.concat(java.util.stream.Stream.of(given), bands.values().stream())
                .filter(Given.Follows.class::isInstance)
                .map(Given.Follows.class::cast)
                .distinct()
                .toList();
    }

    /** A colour as {@code red, green, blue} from 0 to 255. */
    public static String triple(String color) {
        int[] b = ColorKind.parse(color).bytes();
        return b[0] + ", " + b[1] + ", " + b[2];
    }

    /** With another key; the one it had is remembered. */
    public Setting withKey(String other) {
        List<String> before = new java.util.ArrayList<>(former);
        before.remove(other);
        before.add(key);
        return new Setting(other, label, help, place, kind, given, bands, perBand, shown, triple, drawings, before);
    }

    /** With what owners read of it. */
    Setting withTexts(String otherLabel, String otherHelp, Kind otherKind) {
        return new Setting(
                key,
                otherLabel,
                otherHelp.length() <= LONGEST_HELP ? otherHelp : help,
                place,
                otherKind,
                given,
                bands,
                perBand,
                shown,
                triple,
                drawings,
                former);
    }

    public Setting withPlace(String other) {
        return new Setting(key, label, help, other, kind, given, bands, perBand, shown, triple, drawings, former);
    }

    public Setting withKind(Kind other) {
        return new Setting(key, label, help, place, other, given, bands, perBand, shown, triple, drawings, former);
    }

    public Setting withGiven(Given other) {
        return new Setting(key, label, help, place, kind, other, bands, perBand, shown, triple, drawings, former);
    }

    /** A choice for every window: where the maker made it otherwise for some of them too, as far as an owner may choose there. */
    public Chosen chosen(Value v) {
        Map<String, Value> own = new java.util.TreeMap<>();
        if (perBand) {
            bands.keySet().forEach(band -> own.put(band, v));
        }
        return new Chosen(v, own);
    }

    public Setting withBands(Map<String, Given> others) {
        return new Setting(key, label, help, place, kind, given, others, perBand, shown, triple, drawings, former);
    }

    public Setting withPerBand(boolean may) {
        return new Setting(key, label, help, place, kind, given, bands, may, shown, triple, drawings, former);
    }

    public Setting withShown(Shown when) {
        return new Setting(key, label, help, place, kind, given, bands, perBand, when, triple, drawings, former);
    }

    public Setting withTriple(boolean reads) {
        return new Setting(key, label, help, place, kind, given, bands, perBand, shown, reads, drawings, former);
    }

    public Setting withDrawings(List<Drawing> others) {
        return new Setting(key, label, help, place, kind, given, bands, perBand, shown, triple, others, former);
    }

    /** Read by stylesheets in the same ways as before. */
    public Setting readAs(Setting before) {
        return withTriple(before.triple()).withDrawings(before.drawings());
    }
}
