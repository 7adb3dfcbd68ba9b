package org.calmpalette.core.change;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.List;
import java.util.stream.Collectors;
import java.util.stream.IntStream;
import net.jqwik.api.ForAll;
import net.jqwik.api.Property;
import net.jqwik.api.constraints.Chars;
import net.jqwik.api.constraints.StringLength;
import org.calmpalette.core.css.Edit;
import org.junit.jupiter.api.Test;

class BetweenTest {
    private static String applied(String a, List<Edit> edits) {
        StringBuilder out = new StringBuilder();
        int at = 0;
        for (Edit e : edits) {
            out.append(a, at, e.start()).append(e.replacement());
            at = e.end();
        }
        return out.append(a.substring(at)).toString();
    }

    @Property(tries = 500)
    void editsMakeOneTextOfTheOther(
            @ForAll @Chars({'a', 'b', '\n', '\r'}) @StringLength(max = 40) String a,
            @ForAll @Chars({'a', 'b', '\n', '\r'}) @StringLength(max = 40) String b) {
        assertThat(applied(a, Between.edits(a, b))).isEqualTo(b);
    }

    /** Lines have more names than a char has values. */
    @Test
    void changesFarDownInAVeryLongFileAreFound() {
        String a = IntStream.range(0, 200_000)
                .mapToObj(i -> ".r" + i + " { top: 1px }\n")
                .collect(Collectors.joining());
        String b = a.replace(".r69000 { top: 1px }", ".r69000 { top: 2px }")
                .replace(".r199000 { top: 1px }\n", "")
                .replace(".r70000 {", ".new { left: 0 }\n.r70000 {");
        List<Edit> edits = Between.edits(a, b);
        assertThat(edits).hasSize(3);
        assertThat(applied(a, edits)).isEqualTo(b);
        // Everything is in another order: one change, and at once.
        String turned = IntStream.range(0, 60_000)
                .mapToObj(i -> ".r" + (60_000 - i) + " { top: 1px }\n")
                .collect(Collectors.joining());
        assertThat(applied(a, Between.edits(a, turned))).isEqualTo(turned);
    }

    @Test
    void ofLinesThatChangedOnlyWhatDiffersIsReplaced() {
        String a = "p { color: red; /* é */ }\r\nq { margin: 0 }\r\n";
        List<Edit> edits = Between.edits(a, "p { color: var(--x, red); /* é */ }\r\nq { margin: 0 }\r\ni {}\r\n");
        assertThat(edits).hasSize(2);
        assertThat(edits.get(0)).isEqualTo(new Edit(11, 14, "var(--x, red)"));
        assertThat(edits.get(1)).isEqualTo(new Edit(a.length(), a.length(), "i {}\r\n"));
        assertThat(Between.edits(a, a)).isEmpty();
    }
}
