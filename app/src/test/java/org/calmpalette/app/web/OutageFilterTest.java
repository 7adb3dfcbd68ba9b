package org.calmpalette.app.web;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import jakarta.servlet.FilterChain;
import java.nio.charset.StandardCharsets;
import java.sql.SQLTransientConnectionException;
import org.junit.jupiter.api.Test;
import org.springframework.mock.web.MockHttpServletRequest;
import org.springframework.mock.web.MockHttpServletResponse;

/** What is said while the database is gone. */
class OutageFilterTest {
    private final FilterChain gone = (request, response) -> {
        throw new IllegalStateException(new SQLTransientConnectionException("gone"));
    };

    private static String asked(OutageFilter filter, String path, String language, FilterChain chain) throws Exception {
        MockHttpServletRequest request = new MockHttpServletRequest("GET", path);
        request.addHeader("Accept-Language", language);
        MockHttpServletResponse response = new MockHttpServletResponse();
        filter.doFilter(request, response, chain);
        assertThat(response.getStatus()).isEqualTo(503);
        assertThat(response.getHeader("Retry-After")).isNotBlank();
        return new String(response.getContentAsByteArray(), StandardCharsets.UTF_8);
    }

    @Test
    void ownersAreToldInTheirLanguageAndMakersInEnglish() throws Exception {
        Languages languages = new Languages("");
        assertThat(asked(new OutageFilter(languages), "/sites/quay", "de-CH,de;q=0.8", gone))
                .contains("<html lang=\"de\">", "Die Datenbank antwortet nicht");
        assertThat(asked(new OutageFilter(languages), "/themes/1/survey", "de", gone))
                .contains("<html lang=\"en\">", "The database does not answer");
        // For a second nobody asks it again.
        OutageFilter filter = new OutageFilter(languages);
        asked(filter, "/sites", "en", gone);
        assertThat(asked(filter, "/sites", "de", (q, r) -> {
                    throw new AssertionError("asked again");
                }))
                .contains("Gleich wieder da");
    }

    @Test
    void whatIsNoOutageIsNoneOfItsBusiness() throws Exception {
        assertThatThrownBy(() -> new OutageFilter(new Languages(""))
                        .doFilter(
                                new MockHttpServletRequest("GET", "/sites"), new MockHttpServletResponse(), (q, r) -> {
                                    throw new IllegalStateException("another trouble");
                                }))
                .hasMessage("another trouble");
    }
}
