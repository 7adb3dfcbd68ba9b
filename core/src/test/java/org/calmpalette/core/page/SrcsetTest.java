package org.calmpalette.core.page;

import static org.assertj.core.api.Assertions.assertThat;

import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

/** HTML Standard, section 4.8.4.3.10, with cases in the manner of the web platform tests for it. */
class SrcsetTest {
    @ParameterizedTest
    @CsvSource(
            delimiter = '|',
            ignoreLeadingAndTrailingWhitespace = false,
            value = {
                "a.png|a.png ", "a.png 2x|a.png 2x", "a.png 1x, b.png 2x|a.png 1x;b.png 2x", "a.png,b.png|a.png,b.png ",
                        "a.png, b.png|a.png ;b.png ", " , a.png 100w ,, b.png|a.png 100w;b.png ",
                "data:,a ( , data:,b 1x, ), data:,c|data:,a ( , data:,b 1x, );data:,c ", "a.png,|a.png ",
                        "a.png,,,|a.png ", "data:image/gif;base64,R0lG,AA 1x, b|data:image/gif;base64,R0lG,AA 1x;b ",
                        ",|", "a 1x,b|a 1x;b ",
                "a   640w\t480h , b|a 640w\t480h;b "
            })
    void candidates(String srcset, String expected) {
        String read = String.join(
                ";",
                Srcset.read(srcset.replace("\\t", "\t")).stream()
                        .map(c -> c.url() + " " + c.descriptors())
                        .toList());
        assertThat(read).isEqualTo(expected == null ? "" : expected);
    }

    @Test
    void addressesAreFoundWhereTheyStand() {
        String srcset = "\n  small.jpg 480w,\n  large.jpg 960w";
        assertThat(Srcset.read(srcset))
                .allSatisfy(
                        c -> assertThat(srcset.substring(c.start(), c.end())).isEqualTo(c.url()))
                .hasSize(2);
        assertThat(Srcset.read("")).isEmpty();
    }
}
