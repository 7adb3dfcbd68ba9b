package org.calmpalette.app.web;

import static org.assertj.core.api.Assertions.assertThat;

import jakarta.servlet.http.Cookie;
import java.time.LocalDateTime;
import java.util.Optional;
import org.junit.jupiter.api.AfterEach;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import org.junit.jupiter.params.provider.ValueSource;
import org.springframework.mock.web.MockHttpServletRequest;
import org.springframework.web.context.request.RequestContextHolder;
import org.springframework.web.context.request.ServletRequestAttributes;

class TimesTest {
    private static final LocalDateTime LATE = LocalDateTime.of(2026, 3, 31, 23, 40);

    @AfterEach
    void nobodyAsks() {
        RequestContextHolder.resetRequestAttributes();
    }

    /** Zones with and without summer time, half hours, and beyond midnight both ways; offsets from memory of the IANA database. */
    @ParameterizedTest
    @CsvSource({
        "Europe%2FLondon, '1 Apr, 00:40'",
        "Asia/Kolkata, '1 Apr, 05:10'",
        "America%2FLos_Angeles, '31 Mar, 16:40'",
        "UTC, '31 Mar, 23:40'"
    })
    void theClockOfWhoReadsCounts(String told, String words) {
        MockHttpServletRequest request = new MockHttpServletRequest();
        request.setCookies(new Cookie("other", "x"), new Cookie(Times.COOKIE, told));
        RequestContextHolder.setRequestAttributes(new ServletRequestAttributes(request));
        assertThat(Times.at(LATE, "d MMM, HH:mm")).isEqualTo(words);
    }

    @Test
    void whereNobodyToldAZoneItIsUtcAndSaysSo() {
        assertThat(Times.at(LATE, "HH:mm")).isEqualTo("23:40 UTC");
        RequestContextHolder.setRequestAttributes(new ServletRequestAttributes(new MockHttpServletRequest()));
        assertThat(Times.at(LATE, "d MMM yyyy, HH:mm")).isEqualTo("31 Mar 2026, 23:40 UTC");
    }

    @ParameterizedTest
    @ValueSource(strings = {"", "Nowhere/At_All", "%zz", "../../etc/passwd", "+99:00", "<script>"})
    void whatIsNoZoneIsNotTakenForOne(String told) {
        assertThat(Times.zone(told)).isEqualTo(Optional.empty());
        assertThat(Times.zone("x".repeat(5_000))).isEmpty();
    }
}
