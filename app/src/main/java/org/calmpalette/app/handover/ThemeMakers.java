package org.calmpalette.app.handover;

import java.time.LocalDateTime;
import java.time.ZoneOffset;
import java.time.temporal.ChronoUnit;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import org.calmpalette.app.accounts.Account;
import org.calmpalette.app.accounts.AccountService;
import org.calmpalette.app.accounts.SignedIn;
import org.calmpalette.app.accounts.Tokens;
import org.calmpalette.app.sites.SiteService;
import org.calmpalette.app.themes.StoredTheme;
import org.calmpalette.app.themes.ThemeService;
import org.calmpalette.app.web.NotFoundException;
import org.calmpalette.core.BadInputException;
import org.springframework.jdbc.core.simple.JdbcClient;
import org.springframework.stereotype.Service;
import org.springframework.transaction.annotation.Transactional;

/**
 * Several makers on one theme. All of them change it alike, and each keeps the sites that they made of it; whose it is may remove it and
 * take others off.
 */
@Service
class ThemeMakers {
    /** Makers of a theme. */
    static final int MOST = 12;
    /** Days that an invitation is open. */
    static final int DAYS = 14;

    private final ThemeService themes;
    private final SiteService sites;
    private final AccountService accounts;
    private final JdbcClient database;

    ThemeMakers(ThemeService themes, SiteService sites, AccountService accounts, JdbcClient database) {
        this.themes = themes;
        this.sites = sites;
        this.accounts = accounts;
        this.database = database;
    }

    /** @param until in UTC */
    record Invitation(String token, LocalDateTime until) {}

    /** A theme that an invitation leads to. @param by the maker whose it is */
    record Invited(StoredTheme theme, String by) {}

    private static LocalDateTime now() {
        return LocalDateTime.now(ZoneOffset.UTC);
    }

    /** The one whose it is first, the others by name. */
    List<Account> of(StoredTheme theme) {
        List<Account> all = new ArrayList<>();
        accounts.find(theme.makerId()).ifPresent(all::add);
        all.addAll(accounts.all(theme.others()));
        return all;
    }

    Optional<Invitation> invitation(StoredTheme theme) {
        return database.sql("select token, until from theme_invitation where theme_id = ? and until > ?")
                .params(theme.id(), now())
                .query((row, n) -> new Invitation(
                        row.getString("token"), row.getTimestamp("until").toLocalDateTime()))
                .optional();
    }

    /** Makes an invitation in the place of the one that was open. @throws BadInputException if as many work on it as may */
    @Transactional
    public void invite(long id, SignedIn me) {
        checkRoom(themes.stored(id, me));
        database.sql("replace into theme_invitation (theme_id, token, until) values (?, ?, ?)")
                .params(id, Tokens.random(), now().plusDays(DAYS).truncatedTo(ChronoUnit.MINUTES))
                .update();
    }

    private static void checkRoom(StoredTheme theme) {
        if (theme.others().size() + 1 >= MOST) {
            throw new BadInputException(
                    MOST + " makers work on this theme, as many as may.", "Somebody has to leave it first.");
        }
    }

    @Transactional
    public void withdraw(long id, SignedIn me) {
        themes.stored(id, me);
        database.sql("delete from theme_invitation where theme_id = ?")
                .param(id)
                .update();
    }

    /** Leaves a theme of another maker; the sites that one made of it are that maker's from then on. */
    @Transactional
    public String leave(long id, SignedIn me) {
        StoredTheme theme = themes.stored(id, me);
        if (theme.makerId() == me.id()) {
            throw new BadInputException(
                    "The theme is yours.", "Hand all that is yours on under your account, or remove the theme.");
        }
        goes(theme, me.id());
        return theme.name();
    }

    /** Takes another maker off a theme of one's own. @return who works on it no longer */
    @Transactional
    public String takeOff(long id, long maker, SignedIn me) {
        StoredTheme theme = themes.stored(id, me);
        if (theme.makerId() != me.id() || !theme.others().contains(maker)) {
            throw new NotFoundException();
        }
        goes(theme, maker);
        return accounts.find(maker).map(Account::name).orElse("");
    }

    private void goes(StoredTheme theme, long maker) {
        themes.unshare(theme.id(), maker);
        sites.handOver(theme.id(), maker, theme.makerId());
    }

    /** @throws BadInputException if the invitation was used, is over, or was withdrawn */
    Invited invited(String token) {
        return theme(token)
                .map(t -> new Invited(
                        t, accounts.find(t.makerId()).map(Account::name).orElse("")))
                .orElseThrow(AccountService::used);
    }

    private Optional<StoredTheme> theme(String token) {
        return !Tokens.isToken(token)
                ? Optional.empty()
                : database.sql("select theme_id from theme_invitation where token = ? and until > ?")
                        .params(token, now())
                        .query(Long.class)
                        .optional()
                        .flatMap(themes::invitedTo);
    }

    /** @return id of the theme */
    @Transactional
    public long join(String token, SignedIn me) {
        StoredTheme theme = theme(token).orElseThrow(AccountService::used);
        checkRoom(theme);
        // Of two who open it at once, the second finds it used.
        if (database.sql("delete from theme_invitation where token = ? and until > ?")
                        .params(token, now())
                        .update()
                == 0) {
            throw AccountService.used();
        }
        themes.share(theme.id(), me.id());
        return theme.id();
    }
}
