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
    /** Chromium passes over a comma at the end of a border; no specification has it, and no other browser is known to. */
    private static final Pattern TRAILING = Pattern.compile("border(-\\w+)?: .* ,");

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
            if (there && TRAILING.matcher(all.get(i)).matches()) {
                continue;
            }
            if (ValidityAccess.valid(pair[0], pair[1]) != there) {
                wrong.add(all.get(i) + " is " + (there ? "valid" : "not valid") + " in Chromium");
            }
        }
        assertThat(wrong).isEmpty();
        assertThat(valid).as("valid ones of %d", all.size()).isBetween(all.size() / 3, all.size() * 3 / 4);
    }
}
