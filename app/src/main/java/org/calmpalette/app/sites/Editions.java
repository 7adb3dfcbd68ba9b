package org.calmpalette.app.sites;

import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.concurrent.atomic.AtomicBoolean;
import java.util.function.Predicate;
import org.calmpalette.app.accounts.SignedIn;
import org.calmpalette.app.storage.Hash;
import org.calmpalette.app.themes.ThemeCache;
import org.calmpalette.app.web.NotFoundException;
import org.calmpalette.core.BadInputException;
import org.calmpalette.core.language.Language;
import org.calmpalette.core.output.Handover;
import org.calmpalette.core.output.ThemeBuild;
import org.calmpalette.core.setting.Chosen;
import org.calmpalette.core.theme.Theme;
import org.calmpalette.core.theme.ThemeFiles;
import org.springframework.stereotype.Service;
import org.springframework.transaction.annotation.Transactional;

/** What goes live, what did, and taking it back. */
@Service
public class Editions {
    /** Editions of which everything that visitors get is kept; pages that were opened before still find their stylesheets. */
    private static final int BUILT_EDITIONS = 50;
    /** Editions that can be taken back. */
    private static final int MOST_EDITIONS = 500;

    private final SiteDraftRepository drafts;
    private final EditionRepository editions;
    private final SiteUploads uploads;
    private final LiveSites live;
    private final SiteGate gate;

    Editions(
            SiteDraftRepository drafts,
            EditionRepository editions,
            SiteUploads uploads,
            LiveSites live,
            SiteGate gate) {
        this.drafts = drafts;
        this.editions = editions;
        this.uploads = uploads;
        this.live = live;
        this.gate = gate;
    }

    /** An edition by its number. */
    @Transactional(readOnly = true)
    public Edition edition(String slug, int number, SignedIn me) {
        return editions.findBySiteIdAndNumber(gate.mine(slug, me).id(), number).orElseThrow(NotFoundException::new);
    }

    /**
     * What choices on a state of the theme make otherwise than an edition for visitors.
     *
     * @param now null for nothing, where the site is not live yet
     */
    Review review(SiteService.OpenSite open, Edition now, long snapshotId, Map<String, Chosen> wanted) {
        ThemeCache.Read next = uploads.read(open.site().id(), snapshotId);
        return now == null
                ? Review.of(next, Map.of(), next, wanted, false)
                : Review.of(
                        uploads.read(open.site().id(), now.snapshotId()),
                        Choices.read(now.choices()),
                        next,
                        wanted,
                        now.snapshotId() != snapshotId);
    }

    /**
     * Makes the draft an edition, as {@link #goLive(String, SignedIn)}, if it is still what the person has looked at.
     *
     * @param base id of the draft that they saw
     * @param snapshot id of the state of the theme with which they saw it
     * @param word by which they find the edition again; may be empty
     * @return whether it was
     */
    public boolean goLive(String slug, long base, long snapshot, String word, SignedIn me) {
        if (word.strip().length() > Edition.LONGEST_WORD) {
            throw new BadInputException(
                    Language.say("edition.word.long"), Language.say("edition.word.long.mend", Edition.LONGEST_WORD));
        }
        return goLive(slug, site -> site.draftId() == base && site.snapshotId() == snapshot, word.strip(), me);
    }

    /**
     * Makes the draft an edition, which visitors see from now on. A choice that the theme no longer allows is kept in it and not shown; it
     * is for the caller to say so. What is live already does not become another edition, so
     * pressing twice is pressing once.
     */
    public void goLive(String slug, SignedIn me) {
        goLive(slug, site -> true, "", me);
    }

    /** @param still asked once the site is locked: whether it is what the person wants live */
    private boolean goLive(String slug, Predicate<Site> still, String word, SignedIn me) {
        // Read before the site is locked, so that others need not wait for it.
        Site seen = gate.mine(slug, me);
        uploads.read(seen.id(), seen.snapshotId());
        AtomicBoolean was = new AtomicBoolean();
        gate.changed(slug, me, site -> {
            was.set(still.test(site));
            if (!was.get()) {
                return;
            }
            Theme theme = uploads.read(site.id(), site.snapshotId()).theme();
            Map<String, Chosen> choices = theme.palette()
                    .carried(Choices.read(
                            drafts.findById(site.draftId()).orElseThrow().choices()));
            Edition now = site.liveId() == null
                    ? null
                    : editions.findById(site.liveId()).orElseThrow();
            String written = Chosen.writeAll(choices);
            if (now != null
                    && now.snapshotId() == site.snapshotId()
                    && now.choices().equals(written)) {
                return;
            }
            publish(site, site.snapshotId(), written, ThemeBuild.paletteCss(theme, choices), "", word, me);
        });
        if (was.get()) {
            live.wentLive(slug);
        }
        return was.get();
    }

    /** Makes an earlier edition live again, as a new edition. The draft stays as it is. */
    public void takeBack(String slug, int number, SignedIn me) {
        gate.changed(slug, me, site -> {
            Edition old = editions.findBySiteIdAndNumber(site.id(), number).orElseThrow(NotFoundException::new);
            Edition now = site.liveId() == null
                    ? null
                    : editions.findById(site.liveId()).orElseThrow();
            if (now != null
                    && now.snapshotId() == old.snapshotId()
                    && now.choices().equals(old.choices())) {
                return;
            }
            publish(
                    site,
                    old.snapshotId(),
                    old.choices(),
                    old.paletteCss(),
                    Language.kept("edition.again", number),
                    "",
                    me);
        });
        live.wentLive(slug);
    }

    private void publish(
            Site site, long snapshotId, String choices, String css, String note, String word, SignedIn me) {
        Edition edition = new Edition(
                site.id(),
                editions.newest(site.id()) + 1,
                snapshotId,
                choices,
                css,
                Hash.of(css),
                note,
                changed(site, snapshotId, choices),
                word,
                me.name());
        live.build(site, edition);
        site.moveLive(editions.save(edition).id());
        editions.release(site.id(), edition.number() - BUILT_EDITIONS);
        editions.removeUpTo(site.id(), edition.number() - MOST_EDITIONS);
    }

    /** What an edition makes otherwise than the one that is live. */
    private String changed(Site site, long snapshotId, String choices) {
        if (site.liveId() == null) {
            return "";
        }
        Edition now = editions.findById(site.liveId()).orElseThrow();
        String words = Review.changes(
                uploads.read(site.id(), now.snapshotId()).theme(),
                Choices.chosenIn(now),
                uploads.read(site.id(), snapshotId).theme(),
                Choices.read(choices));
        return now.snapshotId() == snapshotId
                ? words
                : words.isEmpty() ? Language.say("edition.newer") : Language.say("edition.newer.and", words);
    }

    /** What is live as files for any web server: the handover of the theme as it went live, with what was chosen. @throws NotFoundException if nothing is */
    public ThemeFiles files(String slug, SignedIn me) {
        Site site = gate.mine(slug, me);
        Edition now =
                Optional.ofNullable(site.liveId()).flatMap(editions::findById).orElseThrow(NotFoundException::new);
        Map<String, Chosen> choices = Choices.chosenIn(now);
        // What is handed over is written for whoever runs it, in one language.
        return Language.in(
                Language.english(),
                () -> Handover.files(
                        uploads.read(site.id(), now.snapshotId(), choices).theme(), choices));
    }

    /** The newest first. */
    public List<EditionRepository.Line> all(String slug, SignedIn me) {
        return editions.lines(gate.mine(slug, me).id());
    }
}
