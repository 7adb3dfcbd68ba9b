package org.calmpalette.app.sites;

import java.util.Optional;
import java.util.function.Consumer;
import java.util.function.Function;
import org.calmpalette.app.accounts.SignedIn;
import org.calmpalette.app.web.NotFoundException;
import org.springframework.dao.ConcurrencyFailureException;
import org.springframework.stereotype.Component;
import org.springframework.transaction.support.TransactionTemplate;

/** Finds a site for a person who may change it, and lets one change of it happen at a time. */
@Component
class SiteGate {
    private static final int TRIES = 4;

    private final SiteRepository sites;
    private final TransactionTemplate transaction;

    SiteGate(SiteRepository sites, TransactionTemplate transaction) {
        this.sites = sites;
        this.transaction = transaction;
    }

    /** A site that the person may change: one of its owners, or its maker while nobody owns it. */
    Site mine(String slug, SignedIn me) {
        return mine(slug, me, sites::findBySlug);
    }

    private static Site mine(String slug, SignedIn me, Function<String, Optional<Site>> finder) {
        return Optional.of(slug)
                .filter(Site::isSlug)
                .flatMap(finder)
                .filter(s -> s.isOf(me))
                .orElseThrow(NotFoundException::new);
    }

    /**
     * Makes a change of a site. The site is locked first, so whoever comes second waits and then works on what the first one
     * left: a choice concerns one setting, so nobody's is lost, and every state in between can be gone back to.
     */
    void changed(String slug, SignedIn me, Consumer<Site> change) {
        for (int i = 1; ; i++) {
            try {
                transaction.executeWithoutResult(s -> change.accept(mine(slug, me, sites::lock)));
                return;
            } catch (ConcurrencyFailureException e) {
                if (i == TRIES) {
                    throw e;
                }
            }
        }
    }
}
