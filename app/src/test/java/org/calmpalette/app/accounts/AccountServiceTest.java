package org.calmpalette.app.accounts;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;
import static org.mockito.ArgumentMatchers.any;
import static org.mockito.Mockito.doReturn;
import static org.mockito.Mockito.doThrow;
import static org.mockito.Mockito.mock;
import static org.mockito.Mockito.never;
import static org.mockito.Mockito.spy;
import static org.mockito.Mockito.verify;
import static org.mockito.Mockito.when;

import java.util.Collections;
import java.util.Map;
import java.util.Optional;
import org.calmpalette.app.CalmProperties;
import org.calmpalette.app.web.TooManyException;
import org.calmpalette.core.BadInputException;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import org.springframework.dao.DataIntegrityViolationException;
import org.springframework.security.core.userdetails.UsernameNotFoundException;
import org.springframework.security.crypto.factory.PasswordEncoderFactories;
import org.springframework.security.crypto.password.PasswordEncoder;
import org.springframework.session.FindByIndexNameSessionRepository;
import org.springframework.session.Session;

class AccountServiceTest {
    private final AccountRepository accounts = mock(AccountRepository.class);
    private final MakerInvitationRepository invitations = mock(MakerInvitationRepository.class);

    private final PasswordLinks links = mock(PasswordLinks.class);
    private final SignInTries tries = mock(SignInTries.class);

    @SuppressWarnings("unchecked")
    private final FindByIndexNameSessionRepository<Session> sessions = mock(FindByIndexNameSessionRepository.class);

    private final PasswordEncoder passwords = PasswordEncoderFactories.createDelegatingPasswordEncoder();

    @BeforeEach
    void keepWhatIsSaved() {
        when(accounts.saveAndFlush(any())).thenAnswer(call -> {
            Account account = spy((Account) call.getArgument(0));
            doReturn(7L).when(account).id();
            return account;
        });
    }

    private AccountService service(boolean demo) {
        return new AccountService(
                accounts,
                invitations,
                passwords,
                new CalmProperties(demo, "a-demo-password", ""),
                tries,
                links,
                sessions);
    }

    @Test
    void passwordsAreKeptAsHashesAndNamesInOneSpelling() {
        SignedIn made = service(false).create(" Mara.Vey ", "Mara Vey", "long enough words", Role.OWNER);
        assertThat(made.signIn()).isEqualTo("mara.vey");
        assertThat(made.getPassword()).startsWith("{bcrypt}").doesNotContain("enough");
        assertThat(passwords.matches("long enough words", made.getPassword())).isTrue();
        assertThat(made.toString()).doesNotContain("bcrypt");
        assertThat(made.getAuthorities()).extracting("authority").containsExactly("ROLE_OWNER");
    }

    @Test
    void unusableAccountsAreRefusedWithTheMend() {
        AccountService service = service(false);
        assertThatThrownBy(() -> service.create("m", "M", "long enough words", Role.MAKER))
                .isInstanceOf(BadInputException.class);
        assertThatThrownBy(() -> service.create("a b", "M", "long enough words", Role.MAKER))
                .hasMessageContaining("a b");
        assertThatThrownBy(() -> service.create("mara", " ", "long enough words", Role.MAKER))
                .hasMessageContaining("name is missing");
        assertThatThrownBy(() -> service.create("mara", "M", "short", Role.MAKER))
                .hasMessageContaining("password");
        assertThatThrownBy(() -> service.create("mara", "M", "\u00e4".repeat(40), Role.MAKER))
                .as("80 bytes")
                .hasMessageContaining("password");
        when(accounts.findByAccountName("mara")).thenReturn(Optional.of(mock(Account.class)));
        assertThatThrownBy(() -> service.create("Mara", "M", "long enough words", Role.MAKER))
                .hasMessageContaining("taken");
    }

    @Test
    void thePeopleOfTheDemoExistOnlyWithTheDemo() {
        Account ida = mock(Account.class);
        when(ida.id()).thenReturn(1L);
        when(ida.isDemo()).thenReturn(true);
        when(accounts.findByAccountName("ida")).thenReturn(Optional.of(ida));
        assertThat(service(true).loadUserByUsername("IDA").id()).isEqualTo(1);
        assertThatThrownBy(() -> service(false).loadUserByUsername("ida"))
                .isInstanceOf(UsernameNotFoundException.class);
    }

    @Test
    void namesAreComparedInOneSpelling() {
        SignedIn made = service(false).create("P\u0061\u0301ula", "P", "long enough words", Role.OWNER);
        assertThat(made.signIn())
                .as("an accent of its own and one in the letter are one name")
                .isEqualTo("p\u00e1ula");
        assertThat(service(false)
                        .create("a".repeat(100), "A", "long enough words", Role.OWNER)
                        .signIn())
                .hasSize(100);
        assertThatThrownBy(() -> service(false).create("a".repeat(101), "A", "long enough words", Role.OWNER))
                .hasMessageContaining("cannot be a sign-in name");
        assertThatThrownBy(() -> service(false).create("mara", "A".repeat(101), "long enough words", Role.OWNER))
                .hasMessageContaining("too long");
    }

    @Test
    void whoLosesARaceForANameIsToldSo() {
        doThrow(new DataIntegrityViolationException("duplicate")).when(accounts).saveAndFlush(any());
        assertThatThrownBy(() -> service(false).create("mara", "M", "long enough words", Role.OWNER))
                .isInstanceOf(BadInputException.class)
                .hasMessageContaining("taken");
    }

    @Test
    void aChangedPasswordEndsAllOtherSessions() {
        Account mara = mock(Account.class);
        when(mara.signIn()).thenReturn("mara");
        String hash = passwords.encode("long enough words");
        when(mara.passwordHash()).thenReturn(hash);
        when(accounts.findById(7L)).thenReturn(Optional.of(mara));
        when(sessions.findByPrincipalName("mara"))
                .thenReturn(Map.of("this", mock(Session.class), "other", mock(Session.class)));
        SignedIn me = new SignedIn(7, "mara", "M", Role.MAKER, "");
        assertThatThrownBy(() -> service(true).changePassword(me, "not that one", "another long one", "this"))
                .hasMessageContaining("another one");
        assertThatThrownBy(() -> service(true).changePassword(me, "long enough words", "short", "this"))
                .hasMessageContaining("too few");
        service(true).changePassword(me, "long enough words", "another long one", "this");
        verify(sessions).deleteById("other");
        verify(sessions, never()).deleteById("this");
        when(mara.isDemo()).thenReturn(true);
        assertThatThrownBy(() -> service(true).changePassword(me, "long enough words", "another long one", "this"))
                .hasMessageContaining("demo");
    }

    @ParameterizedTest
    @CsvSource({
        "jonas, jönas",
        "jonas, jοnas",
        "jonas, јonas",
        "paul, pаul",
        "harm, harrn",
        "ida, ıda",
        "lena.0, lena.o",
        "zoe, zoë"
    })
    void namesThatLookTheSameAreOne(String known, String other) {
        assertThat(Lookalike.of(other)).isEqualTo(Lookalike.of(known));
        when(accounts.existsByLikeness(Lookalike.of(known))).thenReturn(true);
        assertThatThrownBy(() -> service(false).create(other, "N", "long enough words", Role.OWNER))
                .isInstanceOf(BadInputException.class)
                .hasMessageContaining("looks like the sign-in name of somebody");
        verify(accounts, never()).saveAndFlush(any());
    }

    @ParameterizedTest
    @CsvSource({"jonas, jonah", "ida, ada", "owner-123, owner-124", "lena, lina"})
    void namesThatLookOtherwiseAreOthers(String one, String other) {
        assertThat(Lookalike.of(other)).isNotEqualTo(Lookalike.of(one));
    }

    @Test
    void wrongCurrentPasswordsAreCountedAndHaveToWait() {
        SignedIn me = service(false).create("mara", "Mara", "long enough words", Role.OWNER);
        Account account = new Account("mara", "Mara", me.getPassword(), Role.OWNER, false);
        when(accounts.findById(me.id())).thenReturn(Optional.of(account));
        assertThatThrownBy(() -> service(false).checkRemoval(me, "another one")).isInstanceOf(BadInputException.class);
        verify(tries).failed("mara", AccountService.inside(me));
        when(tries.secondsToWait("mara", AccountService.inside(me))).thenReturn(8L);
        assertThatThrownBy(() -> service(false).checkRemoval(me, "long enough words"))
                .isInstanceOfSatisfying(
                        TooManyException.class, e -> assertThat(e.seconds()).isEqualTo(8));
    }

    @Test
    void aMakerHasSoManyOpenInvitationsAndNoMore() {
        SignedIn maker = service(false).create("mara", "Mara", "long enough words", Role.MAKER);
        when(invitations.findByMadeByOrderByAtDesc(maker.id()))
                .thenReturn(Collections.nCopies(AccountService.MOST_INVITATIONS, mock(MakerInvitation.class)));
        assertThatThrownBy(() -> service(false).inviteMaker(maker))
                .isInstanceOf(BadInputException.class)
                .hasMessageContaining("20 of your invitations are open");
    }
}
