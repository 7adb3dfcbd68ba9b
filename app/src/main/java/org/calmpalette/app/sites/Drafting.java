package org.calmpalette.app.sites;

import java.util.ArrayList;
import java.util.HashSet;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import java.util.Optional;
import java.util.Set;
import java.util.TreeMap;
import java.util.concurrent.atomic.AtomicReference;
import java.util.stream.Collectors;
import org.calmpalette.app.accounts.SignedIn;
import org.calmpalette.app.web.NotFoundException;
import org.calmpalette.app.web.StaleException;
import org.calmpalette.app.web.Times;
import org.calmpalette.core.BadInputException;
import org.calmpalette.core.language.Language;
import org.calmpalette.core.output.ThemeBuild;
import org.calmpalette.core.setting.Chosen;
import org.calmpalette.core.setting.LeftOut;
import org.calmpalette.core.setting.OwnerWords;
import org.calmpalette.core.setting.Scheme;
import org.calmpalette.core.setting.Setting;
import org.calmpalette.core.setting.Value;
import org.calmpalette.core.theme.Theme;
import org.springframework.stereotype.Service;

/** Changes of a draft: choices of one setting or many, what two windows wrote over each other, and the way back. Nothing of it is live. */
@Service
public class Drafting {
    private static final int LONGEST_NOTE = 400;
    /** So many changes of a draft are looked through for the one that made a choice. */
    private static final int FARTHEST = 200;
    /** So many choices of other windows are kept for a site; of more the oldest goes. */
    private static final int MOST_ASIDE = 50;
    /** Steps back that are kept, if their choices are not longer than {@link #DRAFT_BYTES} together. */
    private static final int MOST_DRAFTS = 1_000;

    private static final long DRAFT_BYTES = 50_000_000;
    private static final int DRAFTS_BETWEEN_LOOKS = 20;

    private final SiteDraftRepository drafts;
    private final EditionRepository editions;
    private final SiteAsideRepository asides;
    private final SiteUploads uploads;
    private final SiteGate gate;

    Drafting(
            SiteDraftRepository drafts,
            EditionRepository editions,
            SiteAsideRepository asides,
            SiteUploads uploads,
            SiteGate gate) {
        this.drafts = drafts;
        this.editions = editions;
        this.asides = asides;
        this.uploads = uploads;
        this.gate = gate;
    }

    /**
     * Chooses a value in the draft. Nothing is live yet.
     *
     * @param band key of the band that it is for, or empty for all that have none of their own
     * @param value null takes the choice back
     * @throws BadInputException with the reason in plain words, if the maker does not allow the value
     */
    public void choose(String slug, String key, String band, Value value, SignedIn me) {
        choose(slug, key, band, value, null, me);
    }

    /** What became of a choice of one window, where another window may have chosen the same. */
    enum Kept {
        KEPT,
        /** It was older than what another window wrote meanwhile, and is put aside. */
        ASIDE,
        /** It is newer than what another window wrote meanwhile, which is put aside. */
        OTHER_ASIDE
    }

    /** @param from what the window knew; null if the choice holds whatever else was chosen meanwhile */
    Kept choose(String slug, String key, String band, Value value, FromWindow from, SignedIn me) {
        AtomicReference<Kept> kept = new AtomicReference<>();
        changeDraft(slug, me, from, (site, theme, choices) -> {
            kept.set(Kept.KEPT);
            Setting setting = theme.palette().setting(key).orElseThrow(NotFoundException::new);
            Map<String, Chosen> after = Choices.with(theme, choices, setting, band, value);
            refused(site, theme, choices, after).ifPresent(why -> {
                throw new BadInputException(Language.say("draft.not-changed", setting.label(), why), "");
            });
            if (from != null) {
                if (drafts.existsBySiteIdAndPageTokenAndPageTurn(site.id(), from.token(), from.turn())
                        || asides.existsBySiteIdAndPageTokenAndPageTurn(site.id(), from.token(), from.turn())) {
                    // A window that is loaded again says once more what it does not know to be kept.
                    return null;
                }
                Value there = Choices.in(choices, key, band);
                Value wanted = Choices.in(after, key, band);
                SiteDraft now = drafts.findById(site.draftId()).orElseThrow();
                boolean unseen = !FromWindow.of(there).equals(from.was()) || now.isBy(from.token(), from.turn());
                if (unseen && !Objects.equals(there, wanted)) {
                    SiteDraft last = lastChange(now, theme, key, band, there);
                    if (last.isBy(from.token(), from.turn())) {
                        // The same window has said something newer already, which came first.
                        return null;
                    }
                    // What nobody has ever chosen is no one else's, however long ago this was entered.
                    boolean untouched = there == null && last.parentId() == null;
                    if (!untouched && !last.isBy(from.token(), 0)) {
                        if (from.typed().isBefore(last.at())) {
                            kept.set(Kept.ASIDE);
                            putAside(new SiteAside(site.id(), key, band, value, me.name(), from.typed()).by(from));
                            return null;
                        }
                        if (there != null) {
                            kept.set(Kept.OTHER_ASIDE);
                            putAside(new SiteAside(site.id(), key, band, there, last.author(), last.at()));
                        }
                    }
                }
            }
            choices.clear();
            choices.putAll(after);
            return value == null
                    ? Language.kept("draft.note.as-made", setting.label())
                    : Language.kept(
                            "draft.note",
                            setting.label(),
                            setting.kind().words(setting.kind().normal(value)));
        });
        return kept.get();
    }

    /** The draft with which a choice became what it is; at most {@value #FARTHEST} changes are looked at. */
    private SiteDraft lastChange(SiteDraft now, Theme theme, String key, String band, Value there) {
        SiteDraft last = now;
        for (int i = 0; i < FARTHEST && last.parentId() != null; i++) {
            SiteDraft before = drafts.findById(last.parentId()).orElseThrow();
            if (!Objects.equals(
                    Choices.in(theme.palette().carried(Choices.read(before.choices())), key, band), there)) {
                return last;
            }
            last = before;
        }
        return last;
    }

    private void putAside(SiteAside aside) {
        List<SiteAside> all = asides.findBySiteIdOrderById(aside.siteId());
        boolean known = all.stream()
                .anyMatch(a -> a.settingKey().equals(aside.settingKey())
                        && a.band().equals(aside.band())
                        && a.value().equals(aside.value()));
        if (!known) {
            asides.save(aside);
            all.stream().limit(Math.max(0, all.size() + 1 - MOST_ASIDE)).forEach(asides::delete);
        }
    }

    /** Chooses what was put aside. */
    public void takeAside(String slug, long id, SignedIn me) {
        SiteAside aside = aside(slug, id, me);
        choose(slug, aside.settingKey(), aside.band(), aside.value(), me);
        asides.delete(aside);
    }

    /** Lets go what was put aside; this cannot be undone. */
    public void dropAside(String slug, long id, SignedIn me) {
        asides.delete(aside(slug, id, me));
    }

    private SiteAside aside(String slug, long id, SignedIn me) {
        Site site = gate.mine(slug, me);
        return asides.findById(id).filter(a -> a.siteId() == site.id()).orElseThrow(NotFoundException::new);
    }

    /** Takes a ready-made set of values over, in place of another one; what the owner chose on their own stays. */
    public void applyScheme(String slug, String key, SignedIn me) {
        changeDraft(slug, me, (site, theme, choices) -> {
            Scheme scheme = theme.palette().schemes().stream()
                    .filter(s -> s.key().equals(key))
                    .findFirst()
                    .orElseThrow(NotFoundException::new);
            Map<String, Chosen> after = scheme.over(theme.palette(), choices);
            refused(site, theme, choices, after).ifPresent(why -> {
                throw new BadInputException(Language.say("draft.not-taken", scheme.label(), why), "");
            });
            List<String> own = Scheme.own(theme.palette(), choices).keySet().stream()
                    .flatMap(k -> theme.palette().setting(k).stream())
                    .map(Setting::label)
                    .toList();
            choices.clear();
            choices.putAll(after);
            return own.isEmpty()
                    ? Language.kept("draft.note.scheme", scheme.label())
                    : Language.kept("draft.note.scheme.own", scheme.label(), String.join(", ", own));
        });
    }

    /** Takes choices from a file over, on top of what was chosen. What may not be chosen is passed over and told, in the owner's words. */
    public List<String> takeOver(String slug, Map<String, Chosen> given, SignedIn me) {
        List<String> told = new ArrayList<>();
        changeDraft(slug, me, (site, theme, choices) -> {
            // Under the keys that the settings have today: what is refused is named by those.
            Map<String, Chosen> carried = theme.palette().carried(given);
            List<LeftOut> left = ThemeBuild.chosen(theme, carried).leftOut();
            OwnerWords words = new OwnerWords(theme.palette());
            told.clear();
            left.forEach(l -> told.add(Language.say(
                    "draft.left",
                    theme.palette().setting(l.key()).map(Setting::label).orElse(l.key()),
                    l.why().said(words))));
            Set<String> refused = left.stream().map(LeftOut::key).collect(Collectors.toSet());
            Map<String, Chosen> after = new TreeMap<>(choices);
            carried.forEach((key, chosen) -> {
                if (!refused.contains(key)) {
                    after.put(key, chosen);
                }
            });
            refused(site, theme, choices, after).ifPresent(why -> {
                throw new BadInputException(Language.say("draft.file-not-taken", why), "");
            });
            choices.clear();
            choices.putAll(after);
            return Language.kept("draft.note.file");
        });
        return told;
    }

    /**
     * Makes settings in the draft what they are live, or as they are made; the way back is undo.
     *
     * @param keys of the settings; empty for all
     * @param made whether they become as made; what is not live is so in any case
     */
    public void putBack(String slug, Set<String> keys, boolean made, SignedIn me) {
        changeDraft(slug, me, (site, theme, choices) -> {
            Map<String, Chosen> live = site.liveId() == null || made
                    ? Map.of()
                    : theme.palette()
                            .carried(Choices.read(editions.findById(site.liveId())
                                    .orElseThrow()
                                    .choices()));
            TreeMap<String, Chosen> after = new TreeMap<>(choices);
            Set<String> all = new HashSet<>(choices.keySet());
            all.addAll(live.keySet());
            all.stream().filter(k -> keys.isEmpty() || keys.contains(k)).forEach(k -> {
                after.remove(k);
                if (live.containsKey(k)) {
                    after.put(k, live.get(k));
                }
            });
            if (!keys.isEmpty()) {
                Choices.refusal(theme, choices, after).ifPresent(why -> {
                    throw new BadInputException(
                            Language.say("draft.not-put-back", why), Language.say("draft.not-put-back.mend"));
                });
            }
            choices.clear();
            choices.putAll(after);
            return Language.kept(made ? "draft.note.made" : "draft.note.live", keys.size());
        });
    }

    private Optional<String> refused(Site site, Theme theme, Map<String, Chosen> before, Map<String, Chosen> after) {
        return Choices.refused(theme, uploads.read(site.id(), site.snapshotId()), before, after);
    }

    private interface DraftChange {
        /** @return a note of what was done, or null if nothing is to be changed */
        String apply(Site site, Theme theme, TreeMap<String, Chosen> choices);
    }

    private void changeDraft(String slug, SignedIn me, DraftChange change) {
        changeDraft(slug, me, null, change);
    }

    private void changeDraft(String slug, SignedIn me, FromWindow from, DraftChange change) {
        gate.changed(slug, me, site -> {
            SiteDraft before = drafts.findById(site.draftId()).orElseThrow();
            Theme read = uploads.read(site.id(), site.snapshotId()).theme();
            Theme theme = read.with(read.palette().spoken());
            TreeMap<String, Chosen> choices = new TreeMap<>(theme.palette().carried(Choices.read(before.choices())));
            String note = change.apply(site, theme, choices);
            String after = Chosen.writeAll(choices);
            if (note != null && !after.equals(before.choices())) {
                SiteDraft next = new SiteDraft(site.id(), before.id(), after, cut(note), me.name());
                site.moveDraft(drafts.save(from == null ? next : next.by(from)).id());
                forgetEarliest(site);
            }
        });
    }

    /** Steps back do not reach for ever; see {@link #MOST_DRAFTS}. */
    private void forgetEarliest(Site site) {
        if (site.draftId() % DRAFTS_BETWEEN_LOOKS == 0) {
            long beyond = drafts.beyond(site.id(), MOST_DRAFTS, DRAFT_BYTES);
            if (beyond > 0) {
                drafts.removeUpTo(site.id(), beyond, site.draftId());
                drafts.firstAfter(site.id(), beyond);
            }
        }
    }

    private static String cut(String note) {
        return note.length() > LONGEST_NOTE ? note.substring(0, LONGEST_NOTE - 1) + "…" : note;
    }

    /** @param base id of the draft that the person saw; nothing is undone if another one is there by now */
    public void undo(String slug, long base, SignedIn me) {
        gate.changed(slug, me, site -> {
            Long parent = at(site, base).parentId();
            if (parent != null) {
                site.moveDraft(parent);
            }
        });
    }

    /** @param base id of the draft that the person saw */
    public void redo(String slug, long base, SignedIn me) {
        gate.changed(slug, me, site -> drafts.findFirstByParentIdOrderByIdDesc(
                        at(site, base).id())
                .ifPresent(next -> site.moveDraft(next.id())));
    }

    private SiteDraft at(Site site, long base) {
        SiteDraft now = drafts.findById(site.draftId()).orElseThrow();
        if (site.draftId() != base) {
            throw new StaleException(
                    Language.say("draft.stale", now.author(), Times.at(now.at(), "HH:mm"), Language.told(now.note())),
                    now.id());
        }
        return now;
    }
}
