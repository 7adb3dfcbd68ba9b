package org.calmpalette.app.people;

import java.util.List;
import org.calmpalette.app.accounts.Account;
import org.calmpalette.app.accounts.AccountService;
import org.calmpalette.app.accounts.Role;
import org.calmpalette.app.accounts.SignedIn;
import org.calmpalette.app.sites.Site;
import org.calmpalette.app.sites.SiteService;
import org.calmpalette.app.themes.ImportService;
import org.calmpalette.app.themes.StoredTheme;
import org.calmpalette.app.themes.ThemeService;
import org.calmpalette.core.BadInputException;
import org.springframework.stereotype.Service;
import org.springframework.transaction.annotation.Transactional;

/** What becomes of everything that belongs to somebody who leaves. */
@Service
class PeopleService {
    private final AccountService accounts;
    private final ThemeService themes;
    private final SiteService sites;
    private final ImportService imports;

    PeopleService(AccountService accounts, ThemeService themes, SiteService sites, ImportService imports) {
        this.accounts = accounts;
        this.themes = themes;
        this.sites = sites;
        this.imports = imports;
    }

    /**
     * What somebody has.
     *
     * @param themes of a maker alone, by name
     * @param shared themes of a maker on which others work too
     * @param kept sites that a maker has to themselves
     * @param ofOwners sites that a maker made and an owner has
     * @param owned sites of an owner
     */
    record Belongings(
            List<String> themes, List<String> shared, List<Site> kept, List<Site> ofOwners, List<Site> owned) {}

    Belongings of(SignedIn me) {
        if (me.isMaker()) {
            return new Belongings(
                    names(me, false), names(me, true), sites.kept(me), sites.ownedByOthers(me), List.of());
        }
        return new Belongings(List.of(), List.of(), List.of(), List.of(), sites.mine(me));
    }

    private List<String> names(SignedIn me, boolean shared) {
        return themes.own(me).stream()
                .filter(t -> t.others().isEmpty() != shared)
                .map(StoredTheme::name)
                .toList();
    }

    /**
     * Removes an account. An owner's sites stay live and are their makers' again. A maker's themes and sites go to another
     * maker, or are removed, which is refused while one of the sites is an owner's.
     *
     * @param handTo sign-in name of the maker who gets everything; blank to remove it
     */
    @Transactional
    public void remove(SignedIn me, String password, String handTo) {
        accounts.checkRemoval(me, password);
        if (!me.isMaker()) {
            sites.ownerGoes(me.id());
        } else if (!handTo.isBlank()) {
            Account other = accounts.findBySignIn(handTo)
                    .filter(a -> a.role() == Role.MAKER && a.id() != me.id())
                    .orElseThrow(() -> new BadInputException(
                            "No other maker signs in as “" + handTo.strip() + "”.",
                            "Check the name, or invite that maker first."));
            sites.handOver(me.id(), other.id());
            themes.handOver(me.id(), other.id());
        } else {
            List<Site> others = sites.ownedByOthers(me);
            if (!others.isEmpty()) {
                throw new BadInputException(
                        "“" + others.get(0).name() + "”"
                                + (others.size() == 1 ? " belongs" : " and " + (others.size() - 1) + " more belong")
                                + " to an owner, and would lose its theme.",
                        "Name a maker who takes over, or remove the site first, after a word with its owner.");
            }
            sites.removeKept(me);
            themes.removeAll(me.id());
        }
        imports.forget(me.id());
        accounts.remove(me);
    }
}
