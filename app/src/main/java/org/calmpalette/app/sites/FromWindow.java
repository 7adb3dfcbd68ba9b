package org.calmpalette.app.sites;

import jakarta.servlet.http.HttpServletRequest;
import java.time.Instant;
import java.time.LocalDateTime;
import java.time.ZoneOffset;
import java.util.Map;
import java.util.Optional;
import org.calmpalette.app.storage.Hash;
import org.calmpalette.core.setting.Chosen;
import org.calmpalette.core.setting.Value;

/**
 * What a window says of a choice that it sends, so that two windows do not write over each other without a sign.
 *
 * @param token names the page as it was loaded, 16 characters
 * @param turn grows with each choice of that page
 * @param was token of the choice that it replaces, as the page knew it; see {@link #of(Value)}
 * @param typed when it was entered, in UTC by our clock
 */
record FromWindow(String token, int turn, String was, LocalDateTime typed) {
    /** What the fields {@code page}, {@code turn}, {@code was} and {@code typed} (ms since 1970) say; empty if one is not there or wrong. */
    static Optional<FromWindow> read(HttpServletRequest request) {
        String token = request.getParameter("page");
        String turn = request.getParameter("turn");
        String was = request.getParameter("was");
        String typed = request.getParameter("typed");
        if (token == null
                || !token.matches("[a-z0-9]{16}")
                || turn == null
                || !turn.matches("\\d{1,9}")
                || was == null
                || !was.matches("([0-9a-f]{16})?")
                || typed == null
                || !typed.matches("\\d{1,15}")) {
            return Optional.empty();
        }
        // Nothing is entered later than it arrives, whatever a clock says.
        Instant at = Instant.ofEpochMilli(Math.min(System.currentTimeMillis(), Long.parseLong(typed)));
        return Optional.of(
                new FromWindow(token, Integer.parseInt(turn), was, LocalDateTime.ofInstant(at, ZoneOffset.UTC)));
    }

    /** Names a choice; empty if there is none. The same choice has the same name. */
    static String of(Value choice) {
        return choice == null
                ? ""
                : Hash.of(Chosen.writeAll(Map.of("v", Chosen.of(choice)))).substring(0, 16);
    }
}
