package org.calmpalette.app.sites;

import java.time.LocalDateTime;
import java.time.ZoneOffset;
import java.time.temporal.ChronoUnit;
import java.util.List;
import java.util.Optional;
import org.calmpalette.app.accounts.Account;
import org.calmpalette.app.accounts.AccountService;
import org.calmpalette.app.accounts.Role;
import org.calmpalette.app.accounts.SignedIn;
import org.calmpalette.app.accounts.Tokens;
import org.calmpalette.app.web.NotFoundException;
import org.calmpalette.core.BadInputException;
import org.calmpalette.core.language.Language;
import org.springframework.stereotype.Service;
import org.springframework.transaction.annotation.Transactional;

/** Who has a site: several people may, whoever has it may ask one more in and may leave, and its maker may do both for them. */
@Service
public class SiteOwners {
    /** People who have one site. */
    public static final int MOST = 12;
    /** Days that an invitation is open. */
    public static final int DAYS = 14;

    private final SiteRepository sites;
    private final AccountService accounts;
    private final SiteGate gate;

    SiteOwners(SiteRepository sites, AccountService accounts, SiteGate gate) {
        this.sites = sites;
        this.accounts = accounts;
        this.gate = gate;
    }

    /** Those who have a site, by name. */
    @Transactional(readOnly = true)
    public List<Account> of(Site site) {
        return accounts.all(site.owners());
    }

    // The maker's side

    /**
     * Gives a site to an owner who has an account, or makes an invitation for one who has none.
     *
     * @param signIn sign-in name of the owner; blank for an invitation
     * @throws BadInputException if no owner signs in so, or as many have the site as may
     */
    @Transactional
    public void give(long siteId, String signIn, SignedIn maker) {
        give(ofMaker(siteId, maker), signIn);
    }

    void give(Site site, String signIn) {
        if (signIn.isBlank()) {
            invite(site);
            return;
        }
        Account owner = accounts.findBySignIn(signIn)
                .filter(a -> a.role() == Role.OWNER)
                .orElseThrow(() -> new BadInputException(
                        "No owner signs in as “" + signIn.strip() + "”.",
                        "Check the name, or leave the field empty to get an invitation that a new owner opens."));
        add(site, owner.id());
    }

    /** @return who has the site no longer */
    @Transactional
    public String takeOff(long siteId, long ownerId, SignedIn maker) {
        Site site = ofMaker(siteId, maker);
        Account owner = owner(site, ownerId);
        site.leave(ownerId);
        return owner.name();
    }

    @Transactional
    public void withdraw(long siteId, SignedIn maker) {
        ofMaker(siteId, maker).withdrawInvitation();
    }

    /** A link by which an owner who has forgotten the password writes another one. */
    public record Renewal(String name, String token) {}

    /**
     * Makes a link for a new password. Only for owners all of whose sites are this maker's: who has such a link is that owner.
     *
     * @throws BadInputException if the owner has a site of another maker too, or belongs to the demo
     */
    @Transactional
    public Renewal renewal(long siteId, long ownerId, SignedIn maker) {
        Account owner = owner(ofMaker(siteId, maker), ownerId);
        if (sites.ownedBy(ownerId).stream().anyMatch(s -> s.makerId() != maker.id())) {
            throw new BadInputException(
                    owner.name() + " has a site of another maker too, so no maker alone may renew the password.",
                    "Ask whoever runs Calm Palette: ./calm password " + owner.signIn() + " makes the link.");
        }
        return new Renewal(owner.name(), accounts.passwordLink(owner));
    }

    private static void checkRoom(Site site) {
        if (site.owners().size() >= MOST) {
            throw new BadInputException(Language.say("people.full.site", MOST), Language.say("people.full.mend"));
        }
    }

    private void add(Site site, long owner) {
        if (!site.owners().contains(owner)) {
            checkRoom(site);
            site.add(owner);
        }
    }

    private static void invite(Site site) {
        checkRoom(site);
        site.invite(
                Tokens.random(),
                LocalDateTime.now(ZoneOffset.UTC).plusDays(DAYS).truncatedTo(ChronoUnit.MINUTES));
    }

    private Site ofMaker(long siteId, SignedIn maker) {
        return sites.lock(siteId).filter(s -> s.makerId() == maker.id()).orElseThrow(NotFoundException::new);
    }

    private Account owner(Site site, long ownerId) {
        return Optional.of(ownerId)
                .filter(site.owners()::contains)
                .flatMap(accounts::find)
                .orElseThrow(NotFoundException::new);
    }

    // The owners' side

    /** A site that the person has. */
    Site mine(String slug, SignedIn me) {
        return gate.mine(slug, me);
    }

    /** Makes an invitation in the place of the one that was open. */
    void invite(String slug, SignedIn me) {
        gate.changed(slug, me, SiteOwners::invite);
    }

    void withdraw(String slug, SignedIn me) {
        gate.changed(slug, me, Site::withdrawInvitation);
    }

    /** Leaves a site to those who have it too, or to its maker. */
    void leave(String slug, SignedIn me) {
        gate.changed(slug, me, site -> {
            if (site.isKept()) {
                throw new BadInputException(Language.say("people.kept"), Language.say("people.leave.kept.mend"));
            }
            site.leave(me.id());
        });
    }

    // Joining

    @Transactional(readOnly = true)
    public Site invited(String token) {
        return stillInvited(token).orElseThrow(AccountService::used);
    }

    /** The site of an invitation; empty if it was used, is over, or was withdrawn. */
    @Transactional(readOnly = true)
    public Optional<Site> stillInvited(String token) {
        return Optional.of(token)
                .filter(Tokens::isToken)
                .flatMap(sites::findByInvitation)
                .filter(s -> s.invitation() != null);
    }

    /** Makes an owner's account from an invitation and gives them the site. */
    @Transactional
    public void join(String token, String signIn, String name, String password) {
        Site site = taken(token);
        add(site, accounts.create(signIn, name, password, Role.OWNER).id());
    }

    /** Gives the site of an invitation to an owner who has an account. @return its address's name */
    @Transactional
    public String join(String token, SignedIn me) {
        if (me.isMaker()) {
            throw new BadInputException(Language.say("join.maker"), Language.say("join.maker.mend"));
        }
        Site site = taken(token);
        add(site, me.id());
        return site.slug();
    }

    /** Of two who open one invitation at once, the second finds it used. */
    private Site taken(String token) {
        Site site = Optional.of(token)
                .filter(Tokens::isToken)
                .flatMap(sites::lockInvited)
                .filter(s -> s.invitation() != null)
                .orElseThrow(AccountService::used);
        site.withdrawInvitation();
        return site;
    }
}
