package org.calmpalette.app.frames;

import static org.assertj.core.api.Assertions.assertThat;

import java.nio.charset.StandardCharsets;
import org.calmpalette.core.page.Page;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.ValueSource;

class FramePageTest {
    private static String cleaned(String html) {
        Page page = Page.read("index.html", html.getBytes(StandardCharsets.UTF_8));
        return FramePage.of(page, page, null, "n");
    }

    @ParameterizedTest
    @ValueSource(
            strings = {
                "<script>evil()</script>",
                "<SCRIPT src=evil.js></SCRIPT>",
                "<p onclick=evil()>x</p>",
                "<body ONLOAD=evil()>",
                "<a href='javascript:evil()'>x</a>",
                "<a href=' java&#9;script:evil()'>x</a>",
                "<a href='&#106;avascript:evil()'>x</a>",
                "<iframe src=evil></iframe>",
                "<object data=evil></object>",
                "<embed src=evil>",
                "<base href=//evil>",
                "<meta http-equiv=refresh content='0;url=evil'>",
                "<svg><script>evil()</script></svg>",
                "<svg onload=evil()></svg>",
                "<svg><a xlink:href='javascript:evil()'>x</a></svg>",
                "<form><button formaction='javascript:evil()'>x</button></form>",
                "<link rel=preload href=evil>",
                "<link rel=import href=evil>",
                "<a ping=evil href=a.html>x</a>",
                "<svg><animate attributeName=href values='javascript:evil()'/></svg>",
                "<a href='data:text/html,evil'>x</a>"
            })
    void nothingThatRunsOrLeadsAwayIsLeft(String html) {
        assertThat(cleaned("<p>stays</p>" + html)).contains("stays").doesNotContain("evil");
    }

    @Test
    void whatPaintsStays() {
        String html =
                "<link rel=stylesheet href=a.css><style>p{color:red}</style><p class=x style=\"color: blue\" data-a=1>t<a href=\"b.html#c\">l</a><img src=\"data:image/gif;base64,AA\">";
        assertThat(cleaned(html))
                .contains("href=\"a.css\"")
                .contains("p{color:red}")
                .contains("style=\"color: blue\"")
                .contains("data-a=\"1\"")
                .contains("b.html#c")
                .contains("data:image/gif");
    }
}
