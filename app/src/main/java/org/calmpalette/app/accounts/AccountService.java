package org.calmpalette.app.accounts;

import java.time.LocalDateTime;
import java.time.ZoneOffset;
import java.util.Locale;
import java.util.Optional;
import org.calmpalette.app.CalmProperties;
import org.calmpalette.core.BadInputException;
import org.springframework.context.event.EventListener;
import org.springframework.security.authentication.LockedException;
import org.springframework.security.authentication.event.AuthenticationFailureBadCredentialsEvent;
import org.springframework.security.authentication.event.AuthenticationSuccessEvent;
import org.springframework.security.core.userdetails.UserDetailsService;
import org.springframework.security.core.userdetails.UsernameNotFoundException;
import org.springframework.security.crypto.password.PasswordEncoder;
import org.springframework.stereotype.Service;
import org.springframework.transaction.annotation.Transactional;

/** Who there is, and who may sign in. */
@Service
public class AccountService implements UserDetailsService {
  public static final int SHORTEST_PASSWORD = 10;
  /** BCrypt looks at no more than 72 bytes. */
  private static final int LONGEST_PASSWORD = 72;
  private static final int MOST_FAILURES = 8;
  static final int WAIT_MINUTES = 10;

  private final AccountRepository accounts;
  private final SignInAttemptRepository attempts;
  private final PasswordEncoder passwords;
  private final CalmProperties calm;

  AccountService(AccountRepository accounts, SignInAttemptRepository attempts, PasswordEncoder passwords,
      CalmProperties calm) {
    this.accounts = accounts;
    this.attempts = attempts;
    this.passwords = passwords;
    this.calm = calm;
  }

  @Override
  @Transactional(readOnly = true)
  public SignedIn loadUserByUsername(String signIn) {
    String name = normal(signIn);
    if (attempts.countByAccountNameAndAtAfter(name, now().minusMinutes(WAIT_MINUTES)) >= MOST_FAILURES) {
      throw new LockedException("too many attempts");
    }
    // The people of the demo exist only while the application runs with its demo.
    return accounts.findByAccountName(name).filter(a -> !a.isDemo() || calm.demo()).map(SignedIn::of)
        .orElseThrow(() -> new UsernameNotFoundException("unknown"));
  }

  @EventListener
  @Transactional
  public void failed(AuthenticationFailureBadCredentialsEvent event) {
    String name = normal(event.getAuthentication().getName());
    attempts.deleteByAtBefore(now().minusDays(1));
    attempts.save(new SignInAttempt(name.substring(0, Math.min(120, name.length())), now()));
  }

  @EventListener
  @Transactional
  public void succeeded(AuthenticationSuccessEvent event) {
    attempts.deleteByAccountName(normal(event.getAuthentication().getName()));
  }

  private static String normal(String signIn) {
    return signIn.strip().toLowerCase(Locale.ROOT);
  }

  private static LocalDateTime now() {
    return LocalDateTime.now(ZoneOffset.UTC);
  }

  @Transactional(readOnly = true)
  public boolean isEmpty() {
    return accounts.count() == 0;
  }

  @Transactional(readOnly = true)
  public Optional<Account> find(long id) {
    return accounts.findById(id);
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
    if (!normal.matches("[\\p{L}\\p{N}._@+-]{2,120}")) {
      throw new BadInputException("“" + signIn.strip() + "” cannot be a sign-in name.",
          "Use letters, digits, dots and hyphens, at least two.");
    }
    if (name.isBlank() || name.length() > 120) {
      throw new BadInputException("The name is missing.", "Write how others know you.");
    }
    if (password.length() < SHORTEST_PASSWORD
        || password.getBytes(java.nio.charset.StandardCharsets.UTF_8).length > LONGEST_PASSWORD) {
      throw new BadInputException("The password has too few or too many characters.",
          "Use " + SHORTEST_PASSWORD + " to " + LONGEST_PASSWORD + " characters.");
    }
    if (accounts.findByAccountName(normal).isPresent()) {
      throw new BadInputException("The sign-in name “" + normal + "” is taken.", "Choose another one.");
    }
    return SignedIn.of(accounts.save(new Account(normal, name.strip(), passwords.encode(password), role, demo)));
  }
}
