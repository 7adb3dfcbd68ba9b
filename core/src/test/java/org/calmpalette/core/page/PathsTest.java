package org.calmpalette.core.page;

import static org.assertj.core.api.Assertions.assertThat;

import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import org.junit.jupiter.params.provider.ValueSource;

class PathsTest {
    @ParameterizedTest
    @CsvSource(
            delimiter = '|',
            nullValues = "-",
            value = {
                "css/a.css | ../img/x.png | img/x.png",
                "index.html | css/a.css?v=2#x | css/a.css",
                "a/b.html | /c.css | c.css",
                "a/b.html | ./c%20d.png | a/c d.png",
                "index.html | ../out.png | -",
                "a/b.html | ../../out.png | -",
                "index.html | https://x.invalid/a.png | -",
                "index.html | //x.invalid/a.png | -",
                "index.html | data:image/gif;a | -",
                "index.html | #here | -",
                "index.html | 100%.png | 100%.png",
                "index.html | a+b.png | a+b.png",
                "a/b.html | ./ | a/index.html",
                "index.html | / | index.html",
                "index.html | javascript:x | -"
            })
    void addressesMeanFilesOfTheThemeOrNone(String from, String address, String path) {
        assertThat(Paths.resolve(from, address).orElse(null)).isEqualTo(path);
    }

    @ParameterizedTest
    @ValueSource(
            strings = {
                "a b.css",
                "100%/a;b#c.css",
                "what?.html",
                "it's (1).png",
                "a\"b.png",
                "\u00e9t\u00e9.png",
                "x&y=z+1.png",
                "[a]{b}|c^`<d>\\e.css"
            })
    void thePathOfAnAddressOfAPathIsThePath(String path) {
        assertThat(Paths.resolve("index.html", Paths.address(path))).hasValue(path.replace('\\', '\\'));
        assertThat(Paths.address(path)).doesNotContain("\"", "'", "(", ")", " ", "#", "?", ";", "<", ">");
    }
}
