package org.calmpalette.app.accounts;

import java.time.Duration;
import java.time.LocalDateTime;
import java.time.ZoneOffset;
import java.util.List;
import java.util.Optional;
import org.calmpalette.app.web.Times;
import org.calmpalette.core.language.Language;
import org.springframework.stereotype.Service;
import org.springframework.transaction.annotation.Propagation;
import org.springframework.transaction.annotation.Transactional;

/**
 * Wrong passwords, on all nodes. After a few of them for one name from one address, that address has to wait before it may try
 * that name again, longer each time; so has an address that tries many names. Nobody can shut the owner of a name out from
 * elsewhere, and the owner is told of the tries.
 */
@Service
public class SignInTries {
    /** Mistakes that anybody makes. */
    static final int FREE = 5;
    /** Of one address with any names: people behind one address share it. */
    static final int FREE_OF_ADDRESS = 60;

    private static final Duration WINDOW = Duration.ofMinutes(30);
    private static final Duration LONGEST = Duration.ofMinutes(5);

    private final SignInAttemptRepository attempts;

    SignInTries(SignInAttemptRepository attempts) {
        this.attempts = attempts;
    }

    private static LocalDateTime now() {
        return LocalDateTime.now(ZoneOffset.UTC);
    }

    /** How long an address has to wait until it may try a name; 0 if it need not. */
    @Transactional(readOnly = true)
    public long secondsToWait(String signIn, String address) {
        String name = key(signIn);
        LocalDateTime since = now().minus(WINDOW);
        List<LocalDateTime> both = attempts.times(name, cut(address), since);
        long wait = left(both, FREE);
        return Math.max(wait, left(attempts.timesOf(cut(address), since), FREE_OF_ADDRESS));
    }

    /** Twice as long with each try beyond the free ones, counted from the last try. */
    private static long left(List<LocalDateTime> latestFirst, int free) {
        int beyond = latestFirst.size() - free;
        if (beyond < 0) {
            return 0;
        }
        Duration wait = Duration.ofSeconds(1L << Math.min(beyond + 1, 20));
        wait = wait.compareTo(LONGEST) > 0 ? LONGEST : wait;
        return Math.max(
                0, Duration.between(now(), latestFirst.get(0).plus(wait)).toSeconds() + 1);
    }

    /** Kept whatever becomes of the work in which it happened. */
    @Transactional(propagation = Propagation.REQUIRES_NEW)
    public void failed(String signIn, String address) {
        attempts.deleteByAtBefore(now().minusDays(30));
        attempts.save(new SignInAttempt(key(signIn), cut(address), now()));
    }

    /** What the owner of a name has to know when they sign in: empty if nobody tried. */
    @Transactional
    public Optional<String> succeeded(String signIn) {
        String name = key(signIn);
        List<LocalDateTime> all = attempts.timesOfName(name);
        attempts.deleteByAccountName(name);
        return all.isEmpty() ? Optional.empty() : Optional.of(told(all));
    }

    private static String told(List<LocalDateTime> latestFirst) {
        String tries = Language.say("account.tries", latestFirst.size(), Times.at(latestFirst.get(0), "d MMM, HH:mm"));
        return latestFirst.size() < FREE ? tries : Language.say("account.tries.many", tries);
    }

    private static String key(String signIn) {
        String name = AccountService.normal(signIn);
        return name.substring(0, Math.min(AccountService.LONGEST_NAME, name.length()));
    }

    private static String cut(String address) {
        String ascii = address == null ? "" : address.replaceAll("[^\\x21-\\x7e]", "");
        return ascii.substring(0, Math.min(64, ascii.length()));
    }
}
