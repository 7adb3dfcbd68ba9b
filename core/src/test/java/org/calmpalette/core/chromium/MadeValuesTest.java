package org.calmpalette.core.chromium;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.ArrayList;
import java.util.List;
import java.util.regex.Pattern;
import org.calmpalette.core.Generated;
import org.calmpalette.core.cascade.ValidityAccess;
import org.junit.jupiter.api.Tag;
import org.junit.jupiter.api.Test;

/** Which declarations are valid, of those that are made from the syntaxes of all properties that are computed, as Chromium has it. */
@Tag("generated")
public class MadeValuesTest {
    /** Chromium passes over a comma after a part of a border; no specification has it, and no other browser is known to. */
    private static final Pattern COMMA = Pattern.compile("border(-\\w+)*: .* ,.*");

    /** A colour in the old notation and the same once more is one colour for it: found by asking, and in no specification. */
    private static final Pattern TWICE = Pattern.compile("[\\w-]+: (rgba\\(.*\\)) \\1");

    private static final String SIZE = "(?:-?[\\d.]+[a-z%]*|(?:calc|clamp|max|min)\\([^()]*(?:\\([^()]*\\)[^()]*)*\\))";
    private static final String MIXED = "(?:calc\\(10% \\+ 2px\\)|clamp\\(1px, 2%, 3em\\))";

    /** Sizes of a radial gradient that add a length to a share are not valid for it; CSS Images 3, section 3.2.1, allows them. */
    private static final Pattern MIXED_SIZE =
            Pattern.compile("radial-gradient\\((?:ellipse )?(?:" + MIXED + " " + SIZE + "|" + SIZE + " " + MIXED + ")");

    /** It wants the colour of a stop before its places; CSS Images 4, section 3.5.1, has them in any order. */
    private static final Pattern PLACE_FIRST = Pattern.compile("(?:, |\\()" + SIZE + "(?: " + SIZE
            + ")? (?:#\\w|(?:red|currentcolor|canvastext|transparent|rgba?\\(|oklch\\()\\b)");

    private static boolean isOtherwiseInChromium(String declaration, boolean there) {
        return there
                ? COMMA.matcher(declaration).matches()
                        || TWICE.matcher(declaration).matches()
                : MIXED_SIZE.matcher(declaration).find()
                        || declaration.contains("gradient(")
                                && PLACE_FIRST.matcher(declaration).find();
    }

    public static List<String> declarations() {
        return new MadeValues("/syntaxes/values.txt", Generated.random(51)).declarations(Generated.times(4_000));
    }

    public static String question(List<String> list) {
        return "made " + list.size() + " " + Answers.hash(list.toArray(String[]::new));
    }

    @Test
    void whatIsMadeFromTheSyntaxesIsValidWhereItIsInChromium() {
        List<String> all = declarations();
        List<String> theirs = Answers.read("values").to(question(all));
        List<String> wrong = new ArrayList<>();
        int valid = 0;
        for (int i = 0; i < all.size(); i++) {
            String[] pair = all.get(i).split(": ", 2);
            boolean there = theirs.get(i).equals("true");
            valid += there ? 1 : 0;
            if (ValidityAccess.valid(pair[0], pair[1]) != there && !isOtherwiseInChromium(all.get(i), there)) {
                wrong.add(all.get(i) + " is " + (there ? "valid" : "not valid") + " in Chromium");
            }
        }
        assertThat(wrong).isEmpty();
        assertThat(valid).as("valid ones of %d", all.size()).isBetween(all.size() / 3, all.size() * 3 / 4);
    }
}
