package org.calmpalette.app.web;

import com.ibm.icu.text.DateTimePatternGenerator;
import jakarta.servlet.http.Cookie;
import java.net.URLDecoder;
import java.nio.charset.StandardCharsets;
import java.time.DateTimeException;
import java.time.LocalDateTime;
import java.time.ZoneId;
import java.time.ZoneOffset;
import java.time.format.DateTimeFormatter;
import java.util.Locale;
import java.util.Optional;
import org.calmpalette.core.language.Language;
import org.springframework.stereotype.Component;
import org.springframework.web.context.request.RequestContextHolder;
import org.springframework.web.context.request.ServletRequestAttributes;

/**
 * Times as the clock of whoever reads them shows them. The browser tells its time zone in a cookie, by the name that the IANA database
 * gives it; where none is told, as in work in the background, times are in UTC and say so.
 */
@Component("times")
public class Times {
    /** Set by {@code page.js}. */
    static final String COOKIE = "calm-zone";
    /** The longest name in the database has 32 characters. */
    private static final int LONGEST = 64;

    /**
     * @param utc a time in UTC
     * @param pattern of {@link DateTimeFormatter}, in English; another language has the same parts in its own way
     */
    public static String at(LocalDateTime utc, String pattern) {
        return in(zone(), utc, pattern);
    }

    /** For templates. */
    public String of(LocalDateTime utc, String pattern) {
        return at(utc, pattern);
    }

    static String in(Optional<ZoneId> zone, LocalDateTime utc, String pattern) {
        Locale locale = Language.spoken().locale();
        DateTimeFormatter words = DateTimeFormatter.ofPattern(
                locale.equals(Locale.ENGLISH)
                        ? pattern
                        : DateTimePatternGenerator.getInstance(locale).getBestPattern(pattern.replaceAll("[ ,:]", "")),
                locale);
        return zone.map(z -> words.format(utc.atZone(ZoneOffset.UTC).withZoneSameInstant(z)))
                .orElseGet(() -> words.format(utc) + " UTC");
    }

    private static Optional<ZoneId> zone() {
        if (RequestContextHolder.getRequestAttributes() instanceof ServletRequestAttributes asked
                && asked.getRequest().getCookies() != null) {
            for (Cookie cookie : asked.getRequest().getCookies()) {
                if (cookie.getName().equals(COOKIE)) {
                    return zone(cookie.getValue());
                }
            }
        }
        return Optional.empty();
    }

    /** What a browser told; empty where that is no zone. */
    static Optional<ZoneId> zone(String told) {
        try {
            return told.length() > LONGEST
                    ? Optional.empty()
                    : Optional.of(ZoneId.of(URLDecoder.decode(told, StandardCharsets.UTF_8)));
        } catch (DateTimeException | IllegalArgumentException nonsense) {
            return Optional.empty();
        }
    }
}
