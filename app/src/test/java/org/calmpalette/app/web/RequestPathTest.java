package org.calmpalette.app.web;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.List;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.ValueSource;
import org.springframework.mock.web.MockHttpServletRequest;

class RequestPathTest {
    @Test
    void namesAreReadAsTheyAreWritten() {
        assertThat(RequestPath.segments("/at/site/a%3Bb%23c.css")).hasValue(List.of("at", "site", "a;b#c.css"));
        assertThat(RequestPath.segments("/at/site/100%25.html")).hasValue(List.of("at", "site", "100%.html"));
        assertThat(RequestPath.segments("/at/site/a;b.css")).hasValue(List.of("at", "site", "a;b.css"));
        assertThat(RequestPath.segments("/at/site/")).hasValue(List.of("at", "site", ""));
        assertThat(RequestPath.segments("/%C3%A9t%C3%A9+1")).hasValue(List.of("\u00e9t\u00e9+1"));
    }

    @ParameterizedTest
    @ValueSource(
            strings = {
                "/a/../b",
                "/a/%2e%2E/b",
                "/a/%2Fetc",
                "/a/%5Cetc",
                "/a/%00",
                "/a/%0d%0a",
                "/a/%ff",
                "/a/%C3",
                "/a/%zz",
                "/a/%2",
                "/a/\u00e9",
                "/a/."
            })
    void whatNoFileIsCalledIsNoPath(String uri) {
        assertThat(RequestPath.segments(uri)).isEmpty();
    }

    /** A log may be read by many; what stands in a link opens something. */
    @Test
    void whatOpensSomethingIsInNoLog() {
        String token = "aZ0-_".repeat(8) + "xyz";
        assertThat(RequestPath.told("/password/" + token)).isEqualTo("/password/…");
        assertThat(RequestPath.told("/join/" + token + "/as-me")).isEqualTo("/join/…/as-me");
        assertThat(RequestPath.told("/frame/t1-zz-" + "a".repeat(43) + "/index.html"))
                .isEqualTo("/frame/t1-zz-…/index.html");
        assertThat(RequestPath.told("/themes/12/settings")).isEqualTo("/themes/12/settings");
    }

    @Test
    void theOriginIsWrittenAsBrowsersWriteIt() {
        MockHttpServletRequest request = new MockHttpServletRequest();
        request.setScheme("https");
        request.setServerName("sites.invalid");
        request.setServerPort(443);
        assertThat(RequestPath.origin(request)).isEqualTo("https://sites.invalid");
        request.setScheme("http");
        assertThat(RequestPath.origin(request)).isEqualTo("http://sites.invalid:443");
    }
}
