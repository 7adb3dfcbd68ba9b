package org.calmpalette.app.accounts;

import java.util.Collection;
import java.util.List;
import org.springframework.security.core.GrantedAuthority;
import org.springframework.security.core.authority.SimpleGrantedAuthority;
import org.springframework.security.core.userdetails.UserDetails;

/** The person behind a request, as the session keeps them. */
public record SignedIn(long id, String signIn, String name, Role role, String passwordHash) implements UserDetails {
    static SignedIn of(Account account) {
        return new SignedIn(account.id(), account.signIn(), account.name(), account.role(), account.passwordHash());
    }

    public boolean isMaker() {
        return role == Role.MAKER;
    }

    @Override
    public Collection<? extends GrantedAuthority> getAuthorities() {
        return List.of(new SimpleGrantedAuthority("ROLE_" + role.name()));
    }

    @Override
    public String getPassword() {
        return passwordHash;
    }

    @Override
    public String getUsername() {
        return signIn;
    }

    @Override
    public String toString() {
        // Records print all their parts; a password's hash belongs into no log.
        return "SignedIn[" + signIn + "]";
    }
}
