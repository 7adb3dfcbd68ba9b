package org.calmpalette.app.accounts;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;
import static org.mockito.ArgumentMatchers.any;
import static org.mockito.ArgumentMatchers.eq;
import static org.mockito.Mockito.mock;
import static org.mockito.Mockito.when;

import java.util.Optional;
import org.calmpalette.app.CalmProperties;
import org.calmpalette.core.BadInputException;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.springframework.security.authentication.LockedException;
import org.springframework.security.core.userdetails.UsernameNotFoundException;
import org.springframework.security.crypto.factory.PasswordEncoderFactories;
import org.springframework.security.crypto.password.PasswordEncoder;

class AccountServiceTest {
  private final AccountRepository accounts = mock(AccountRepository.class);
  private final SignInAttemptRepository attempts = mock(SignInAttemptRepository.class);
  private final PasswordEncoder passwords = PasswordEncoderFactories.createDelegatingPasswordEncoder();

  @BeforeEach
  void keepWhatIsSaved() {
    when(accounts.save(any())).thenAnswer(call -> {
      Account account = call.getArgument(0);
      Account kept = mock(Account.class);
      when(kept.id()).thenReturn(7L);
      when(kept.signIn()).thenReturn(account.signIn());
      when(kept.name()).thenReturn(account.name());
      when(kept.role()).thenReturn(account.role());
      when(kept.passwordHash()).thenReturn(account.passwordHash());
      return kept;
    });
  }

  private AccountService service(boolean demo) {
    return new AccountService(accounts, attempts, passwords, new CalmProperties(demo, "a-demo-password", ""));
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
    assertThatThrownBy(() -> service.create("m", "M", "long enough words", Role.MAKER)).isInstanceOf(BadInputException.class);
    assertThatThrownBy(() -> service.create("a b", "M", "long enough words", Role.MAKER)).hasMessageContaining("a b");
    assertThatThrownBy(() -> service.create("mara", " ", "long enough words", Role.MAKER)).hasMessageContaining("name is missing");
    assertThatThrownBy(() -> service.create("mara", "M", "short", Role.MAKER)).hasMessageContaining("password");
    assertThatThrownBy(() -> service.create("mara", "M", "\u00e4".repeat(40), Role.MAKER)).as("80 bytes").hasMessageContaining("password");
    when(accounts.findByAccountName("mara")).thenReturn(Optional.of(mock(Account.class)));
    assertThatThrownBy(() -> service.create("Mara", "M", "long enough words", Role.MAKER)).hasMessageContaining("taken");
  }

  @Test
  void thePeopleOfTheDemoExistOnlyWithTheDemo() {
    Account ida = mock(Account.class);
    when(ida.id()).thenReturn(1L);
    when(ida.isDemo()).thenReturn(true);
    when(accounts.findByAccountName("ida")).thenReturn(Optional.of(ida));
    assertThat(service(true).loadUserByUsername("IDA").id()).isEqualTo(1);
    assertThatThrownBy(() -> service(false).loadUserByUsername("ida")).isInstanceOf(UsernameNotFoundException.class);
  }

  @Test
  void manyFailuresLockANameForAWhile() {
    when(attempts.countByAccountNameAndAtAfter(eq("ida"), any())).thenReturn(8L);
    assertThatThrownBy(() -> service(true).loadUserByUsername("ida")).isInstanceOf(LockedException.class);
    assertThatThrownBy(() -> service(true).loadUserByUsername("other")).isInstanceOf(UsernameNotFoundException.class);
  }
}
