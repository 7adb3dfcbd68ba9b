package org.calmpalette.app.accounts;

import jakarta.servlet.ServletException;
import jakarta.servlet.http.HttpServletRequest;
import java.text.Normalizer;
import java.util.Collection;
import java.util.Comparator;
import java.util.List;
import java.util.Locale;
import java.util.Optional;
import org.calmpalette.app.CalmProperties;
import org.calmpalette.app.web.NotFoundException;
import org.calmpalette.app.web.TooManyException;
import org.calmpalette.core.BadInputException;
import org.calmpalette.core.language.Language;
import org.springframework.boot.context.event.ApplicationStartedEvent;
import org.springframework.context.event.EventListener;
import org.springframework.dao.DataIntegrityViolationException;
import org.springframework.security.core.userdetails.UserDetailsService;
import org.springframework.security.core.userdetails.UsernameNotFoundException;
import org.springframework.security.crypto.password.PasswordEncoder;
import org.springframework.session.FindByIndexNameSessionRepository;
import org.springframework.session.Session;
import org.springframework.stereotype.Service;
import org.springframework.transaction.annotation.Transactional;

/** Who there is, and who may sign in. */
@Service
public class AccountService implements UserDetailsService {
    public static final int SHORTEST_PASSWORD = 10;
    /** BCrypt looks at no more than 72 bytes. */
    private static final int LONGEST_PASSWORD = 72;
    /** Characters of a sign-in name: the sessions keep it, and their table has no more. */
    public static final int LONGEST_NAME = 100;
    /** Characters of the name that others know somebody by. */
    public static final int LONGEST_CALLED = 100;

    /** Open ones of one maker. */
    static final int MOST_INVITATIONS = 20;

    private final SignInTries tries;
    private final PasswordLinks links;
    private final AccountRepository accounts;
    private final MakerInvitationRepository invitations;
    private final FindByIndexNameSessionRepository<? extends Session> sessions;
    private final PasswordEncoder passwords;
    private final CalmProperties calm;

    AccountService(
            AccountRepository accounts,
            MakerInvitationRepository invitations,
            PasswordEncoder passwords,
            CalmProperties calm,
            SignInTries tries,
            PasswordLinks links,
            FindByIndexNameSessionRepository<? extends Session> sessions) {
        this.accounts = accounts;
        this.invitations = invitations;
        this.sessions = sessions;
        this.passwords = passwords;
        this.calm = calm;
        this.tries = tries;
        this.links = links;
    }

    @Override
    @Transactional(readOnly = true)
    public SignedIn loadUserByUsername(String signIn) {
        // The people of the demo exist only while the application runs with its demo.
        return accounts.findByAccountName(normal(signIn))
                .filter(a -> !a.isDemo() || calm.demo())
                .map(SignedIn::of)
                .orElseThrow(() -> new UsernameNotFoundException("unknown"));
    }

    /** A name as it is compared everywhere: without blanks around it, in lower case, accents in their one short spelling. */
    static String normal(String signIn) {
        return Normalizer.normalize(signIn.strip(), Normalizer.Form.NFC).toLowerCase(Locale.ROOT);
    }

    @Transactional(readOnly = true)
    public boolean isEmpty() {
        return accounts.count() == 0;
    }

    @Transactional(readOnly = true)
    public Optional<Account> find(long id) {
        return accounts.findById(id);
    }

    /** Those of some accounts that there are, by name. */
    @Transactional(readOnly = true)
    public List<Account> all(Collection<Long> ids) {
        return accounts.findAllById(ids).stream()
                .sorted(Comparator.comparing(Account::name, String.CASE_INSENSITIVE_ORDER)
                        .thenComparing(Account::id))
                .toList();
    }

    @Transactional(readOnly = true)
    public Optional<Account> findBySignIn(String signIn) {
        return accounts.findByAccountName(normal(signIn));
    }

    /**
     * Makes an account.
     *
     * @throws BadInputException if the name is taken or something is missing or too short
     */
    @Transactional
    public SignedIn create(String signIn, String name, String password, Role role) {
        return create(signIn, name, password, role, false);
    }

    /** Makes a sign-in of the demo, or gives it the password of this start. */
    @Transactional
    public SignedIn demo(String signIn, String name, Role role) {
        Optional<Account> there = accounts.findByAccountName(signIn);
        if (there.isPresent()) {
            Account account = there.get();
            if (!passwords.matches(calm.demoPassword(), account.passwordHash())) {
                account.setPasswordHash(passwords.encode(calm.demoPassword()));
            }
            return SignedIn.of(account);
        }
        return create(signIn, name, calm.demoPassword(), role, true);
    }

    private SignedIn create(String signIn, String name, String password, Role role, boolean demo) {
        String normal = normal(signIn);
        if (!normal.matches("[\\p{L}\\p{M}\\p{N}._@+-]{2," + LONGEST_NAME + "}")) {
            throw new BadInputException(
                    Language.say(
                            "account.sign-in.cannot", normal.length() > 40 ? normal.substring(0, 40) + "…" : normal),
                    Language.say("account.sign-in.cannot.mend", LONGEST_NAME));
        }
        String called = called(name);
        checkPassword(password, normal, demo);
        if (accounts.findByAccountName(normal).isPresent()) {
            throw taken(normal);
        }
        if (accounts.existsByLikeness(Lookalike.of(normal))) {
            throw new BadInputException(
                    Language.say("account.sign-in.alike", normal), Language.say("account.sign-in.alike.mend"));
        }
        try {
            return SignedIn.of(
                    accounts.saveAndFlush(new Account(normal, called, passwords.encode(password), role, demo)));
        } catch (DataIntegrityViolationException atTheSameMoment) {
            throw taken(normal);
        }
    }

    private static String called(String name) {
        String called = Normalizer.normalize(name.strip(), Normalizer.Form.NFC);
        if (called.isEmpty() || called.length() > LONGEST_CALLED) {
            throw new BadInputException(
                    Language.say(called.isEmpty() ? "account.name.none" : "account.name.long"),
                    Language.say("account.name.mend", LONGEST_CALLED));
        }
        return called;
    }

    private static BadInputException taken(String name) {
        return new BadInputException(
                Language.say("account.sign-in.taken", name), Language.say("account.sign-in.taken.mend"));
    }

    /** @param demo whether it is the one of the demo, which whoever runs it chooses */
    private static void checkPassword(String password, String signIn, boolean demo) {
        if (password.length() < SHORTEST_PASSWORD
                || password.getBytes(java.nio.charset.StandardCharsets.UTF_8).length > LONGEST_PASSWORD) {
            throw new BadInputException(
                    Language.say("account.password.length"),
                    Language.say("account.password.length.mend", SHORTEST_PASSWORD, LONGEST_PASSWORD));
        }
        if (!demo && CommonPasswords.has(password, signIn)) {
            throw new BadInputException(
                    Language.say("account.password.common"), Language.say("account.password.common.mend"));
        }
    }

    // What people change about their own accounts

    /**
     * Changes a password. All other sessions of the person end.
     *
     * @param session id of the session that stays
     */
    @Transactional
    public void changePassword(SignedIn me, String now, String next, String session) {
        Account account = own(me, now);
        if (next.equals(now)) {
            throw new BadInputException(
                    Language.say("account.password.same"), Language.say("account.password.same.mend"));
        }
        checkPassword(next, account.signIn(), false);
        account.setPasswordHash(passwords.encode(next));
        endSessions(account.signIn(), session);
    }

    /** Changes how others know somebody. What they did before keeps the name that they had. @return the person as they are now */
    @Transactional
    public SignedIn rename(SignedIn me, String name) {
        Account account = accounts.findById(me.id()).orElseThrow(NotFoundException::new);
        if (account.isDemo()) {
            throw ofDemo();
        }
        account.setName(called(name));
        return SignedIn.of(account);
    }

    private static BadInputException ofDemo() {
        return new BadInputException(Language.say("account.demo"), Language.say("account.demo.mend"));
    }

    // Forgotten passwords

    /** Hours that a link for a new password is open. */
    public static final int HOURS = 24;

    /** Makes a link by which somebody writes a new password, in the place of one that was open. @return what stands in it */
    @Transactional
    public String passwordLink(Account account) {
        if (account.isDemo()) {
            throw ofDemo();
        }
        return links.make(account.id(), HOURS);
    }

    /** Whose password a link renews; empty if it was used or is over. */
    @Transactional(readOnly = true)
    public Optional<Account> renewing(String token) {
        return links.account(token).flatMap(accounts::findById);
    }

    /** Writes another password by a link, which is used then. All sessions of that person end. */
    @Transactional
    public void renew(String token, String next) {
        Account account = renewing(token).orElseThrow(AccountService::overOrUsed);
        checkPassword(next, account.signIn(), false);
        // Of two who send it at once, the second finds it used.
        if (!links.use(token)) {
            throw overOrUsed();
        }
        account.setPasswordHash(passwords.encode(next));
        endSessions(account.signIn(), "");
    }

    /** What is said of a link for a password that opens nothing. */
    public static BadInputException overOrUsed() {
        return new BadInputException(Language.say("account.link.over"), Language.say("account.link.over.mend"));
    }

    /** Names that were there before are compared as those that come. */
    @EventListener(ApplicationStartedEvent.class)
    @Transactional
    public void fillLikenesses() {
        accounts.findByLikenessIsNull().forEach(Account::setLikeness);
    }

    /** Where somebody is who has signed in and is asked for the password once more: no address of the network, and nobody else's. */
    static String inside(SignedIn me) {
        return "signed-in-" + me.id();
    }

    private Account own(SignedIn me, String password) {
        long wait = tries.secondsToWait(me.signIn(), inside(me));
        if (wait > 0) {
            throw new TooManyException(Language.say("account.password.tries"), wait);
        }
        Account account = accounts.findById(me.id()).orElseThrow(NotFoundException::new);
        if (account.isDemo()) {
            throw ofDemo();
        }
        if (!passwords.matches(password, account.passwordHash())) {
            tries.failed(me.signIn(), inside(me));
            throw new BadInputException(
                    Language.say("account.password.wrong"), Language.say("account.password.wrong.mend"));
        }
        return account;
    }

    /** Checks that somebody may be removed: their own password, and not one of the demo. */
    @Transactional(readOnly = true)
    public void checkRemoval(SignedIn me, String password) {
        own(me, password);
    }

    /** Removes an account from which nothing hangs any more, and ends its sessions. */
    @Transactional
    public void remove(SignedIn me) {
        accounts.deleteById(me.id());
        endSessions(me.signIn(), "");
    }

    private void endSessions(String signIn, String but) {
        sessions.findByPrincipalName(signIn).keySet().stream()
                .filter(id -> !id.equals(but))
                .forEach(sessions::deleteById);
    }

    /** The people of the demo have no business where the demo does not run: what sessions they have end. */
    @Transactional
    public void endDemoSessions() {
        accounts.findByDemoTrue().forEach(a -> endSessions(a.signIn(), ""));
    }

    // Makers

    @Transactional(readOnly = true)
    public List<Account> makers() {
        return accounts.findByRoleOrderByName(Role.MAKER);
    }

    @Transactional(readOnly = true)
    public List<MakerInvitation> invitations(SignedIn maker) {
        return invitations.findByMadeByOrderByAtDesc(maker.id());
    }

    /** Makes an invitation for another maker, which works once. @throws BadInputException if as many are open as may be */
    @Transactional
    public void inviteMaker(SignedIn maker) {
        if (invitations.findByMadeByOrderByAtDesc(maker.id()).size() >= MOST_INVITATIONS) {
            throw new BadInputException(
                    MOST_INVITATIONS + " of your invitations are open, as many as may be.",
                    "Withdraw one that nobody will use.");
        }
        invitations.save(new MakerInvitation(Tokens.random(), maker.id()));
    }

    @Transactional
    public void withdraw(String token, SignedIn maker) {
        invitation(token).filter(i -> i.madeBy() == maker.id()).ifPresent(invitations::delete);
    }

    /** Who made an invitation; empty if there is none, or it was used. */
    @Transactional(readOnly = true)
    public Optional<String> invitedBy(String token) {
        return invitation(token).flatMap(i -> accounts.findById(i.madeBy())).map(Account::name);
    }

    private Optional<MakerInvitation> invitation(String token) {
        return Tokens.isToken(token) ? invitations.findById(token) : Optional.empty();
    }

    /**
     * Signs somebody in who has just made an account, unless somebody else is signed in there, who stays.
     *
     * @param to the page that follows
     * @return where to go
     */
    public static String signIn(HttpServletRequest request, String signIn, String password, String to)
            throws ServletException {
        if (request.getRemoteUser() != null) {
            return "redirect:/sign-in?made";
        }
        request.login(signIn, password);
        return "redirect:" + to;
    }

    /** What is said of an invitation that opens nothing. */
    public static BadInputException used() {
        return new BadInputException(
                Language.say("account.invitation.over"), Language.say("account.invitation.over.mend"));
    }

    /** Makes a maker's account from an invitation. */
    @Transactional
    public void joinAsMaker(String token, String signIn, String name, String password) {
        // Of two who open one invitation at once, the second finds it used.
        if (!Tokens.isToken(token) || invitations.use(token) == 0) {
            throw used();
        }
        create(signIn, name, password, Role.MAKER, false);
    }
}
