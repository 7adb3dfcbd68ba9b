package org.calmpalette.core.setting;

import java.math.BigDecimal;
import java.util.Arrays;
import org.calmpalette.core.BadInputException;
import org.calmpalette.core.language.Language;

/**
 * What must stay in sight of a picture.
 *
 * @param path of the picture in the theme
 * @param name such as “the ferry”; may be empty
 * @param left where it starts, in hundredths of the picture's width, 0 to 100
 * @param top in hundredths of its height, 0 to 100
 * @param width more than 0, in hundredths of the picture's width
 * @param height more than 0, in hundredths of its height
 */
public record Subject(String path, String name, BigDecimal left, BigDecimal top, BigDecimal width, BigDecimal height) {
    private static final int LONGEST_NUMBER = 12;
    private static final BigDecimal WHOLE = BigDecimal.valueOf(100);

    /** @throws BadInputException if the box is not inside of the picture */
    public Subject {
        boolean inside = left.signum() >= 0
                && top.signum() >= 0
                && width.signum() > 0
                && height.signum() > 0
                && left.add(width).compareTo(WHOLE) <= 0
                && top.add(height).compareTo(WHOLE) <= 0;
        if (!inside) {
            throw new BadInputException(Language.say("subject.outside", path), Language.say("subject.numbers.mend"));
        }
        if (name.length() > Place.LONGEST) {
            throw new BadInputException(
                    "The name of the subject is too long.",
                    "Use up to " + Place.LONGEST + " characters, such as the ferry.");
        }
    }

    /** The same in a picture that has another path now. */
    Subject at(String other) {
        return new Subject(other, name, left, top, width, height);
    }

    Subject named(String other) {
        return new Subject(path, other, left, top, width, height);
    }

    /** In words within a sentence. */
    public String words() {
        return name.isBlank() ? Language.say("subject") : name;
    }

    /** Its box as four numbers with blanks between: left, top, width, height. */
    public String box() {
        return left.toPlainString() + " " + top.toPlainString() + " " + width.toPlainString() + " "
                + height.toPlainString();
    }

    /**
     * @param box as {@link #box} writes it
     * @throws BadInputException if it is not inside of the picture, or no four numbers
     */
    public static Subject boxed(String path, String name, String box) {
        String[] parts = box.strip().split("\\s+");
        try {
            if (parts.length == 4) {
                BigDecimal[] n = new BigDecimal[4];
                for (int i = 0; i < 4; i++) {
                    // A longer number would be dear to reckon with, and means nothing on a screen.
                    n[i] = parts[i].length() > LONGEST_NUMBER ? null : new BigDecimal(parts[i]);
                }
                if (!Arrays.asList(n).contains(null)) {
                    return new Subject(path, name, n[0], n[1], n[2], n[3]);
                }
            }
        } catch (NumberFormatException nonsense) {
            // Told below.
        }
        throw new BadInputException(Language.say("subject.numbers"), Language.say("subject.numbers.mend"));
    }

    static Subject read(JsonEntry e) {
        String path = e.text("path");
        JsonEntry s = e.entry("subject");
        return new Subject(
                path,
                s.optionalText("name").orElse(""),
                part(s, "left"),
                part(s, "top"),
                part(s, "width"),
                part(s, "height"));
    }

    private static BigDecimal part(JsonEntry e, String key) {
        return e.number(key)
                .orElseThrow(() -> JsonEntry.bad(
                        e.at(key), "it is missing", "Write \"" + key + "\": 12.5, in hundredths of the picture."));
    }

    Value.Parts value() {
        return Value.parts(
                "name", name.isEmpty() ? null : name, "left", left, "top", top, "width", width, "height", height);
    }
}
