package org.calmpalette.app.sites;

import java.text.Normalizer;
import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;
import java.util.concurrent.atomic.AtomicReference;
import org.calmpalette.app.accounts.SignedIn;
import org.calmpalette.app.themes.OpenTheme;
import org.calmpalette.app.themes.ThemeCache;
import org.calmpalette.app.themes.ThemeService;
import org.calmpalette.app.web.NotFoundException;
import org.calmpalette.core.BadInputException;
import org.calmpalette.core.language.Language;
import org.calmpalette.core.output.ThemeBuild;
import org.calmpalette.core.render.Rendered;
import org.calmpalette.core.render.TextsOn;
import org.calmpalette.core.setting.Chosen;
import org.calmpalette.core.setting.LeftOut;
import org.calmpalette.core.setting.OwnPicture;
import org.calmpalette.core.setting.PictureKind;
import org.calmpalette.core.setting.Setting;
import org.calmpalette.core.setting.Value;
import org.calmpalette.core.survey.LostInBands;
import org.calmpalette.core.theme.Theme;
import org.calmpalette.core.usage.Painted;
import org.springframework.stereotype.Service;
import org.springframework.transaction.annotation.Transactional;
import org.springframework.transaction.support.TransactionSynchronization;
import org.springframework.transaction.support.TransactionSynchronizationManager;

/** Sites: who has them, how they are now, and their end. Finds only what belongs to the person who asks. */
@Service
public class SiteService {
    private final SiteRepository sites;
    private final SiteDraftRepository drafts;
    private final EditionRepository editions;
    private final SiteAsideRepository asides;
    private final ThemeService themes;
    private final LiveSites live;
    private final SiteUploads uploads;
    private final DraftLinks links;
    private final SiteGate gate;
    private final SiteOwners owners;

    SiteService(
            SiteRepository sites,
            SiteDraftRepository drafts,
            EditionRepository editions,
            SiteAsideRepository asides,
            ThemeService themes,
            LiveSites live,
            SiteUploads uploads,
            DraftLinks links,
            SiteGate gate,
            SiteOwners owners) {
        this.sites = sites;
        this.drafts = drafts;
        this.editions = editions;
        this.asides = asides;
        this.themes = themes;
        this.live = live;
        this.uploads = uploads;
        this.links = links;
        this.gate = gate;
        this.owners = owners;
    }

    /** An owner's choices at one moment, by key of the setting; what is not in it has its default. */
    public record Draft(long id, long siteId, long snapshotId, Map<String, Chosen> choices) {}

    /**
     * A site with all that its owner's page shows.
     *
     * @param changes how many choices differ from what is live
     * @param asides what other windows wrote and is not among the choices
     */
    public record OpenSite(
            Site site,
            Theme theme,
            Draft draft,
            Edition live,
            boolean canUndo,
            boolean canRedo,
            int changes,
            List<LeftOut> leftOut,
            List<SiteAside> asides) {
        /** True if the next edition brings a newer state of the theme along. */
        public boolean isThemeNewer() {
            return live != null && live.snapshotId() != site.snapshotId();
        }

        public boolean isDirty() {
            return live == null || changes > 0 || isThemeNewer();
        }
    }

    /** The theme of a draft or an edition, with the pictures of its site. */
    public ThemeCache.Read read(Draft draft) {
        return uploads.read(draft.siteId(), draft.snapshotId());
    }

    /** What lies behind texts on pictures with the choices of a draft, see {@link ThemeService#grounds}. */
    Map<Integer, double[]> grounds(OpenSite open, String page, int width) {
        return themes.grounds(
                open.site().themeId(), read(open.draft()), open.draft().choices(), page, width);
    }

    /** How well texts read on the backgrounds of a setting with other choices, see {@link ThemeService#textsOn}. */
    Optional<TextsOn> textsOn(OpenSite open, Map<String, Chosen> choices, Setting setting, String page, int width) {
        ThemeCache.Read read = read(open.draft());
        return themes.textsOn(
                open.site().themeId(), read, new Rendered(read.theme(), choices), painted(read, setting), page, width);
    }

    /** Where the background of a setting loses what was marked of its picture, with other choices; see {@link ThemeService#lost}. */
    Optional<LostInBands> lost(OpenSite open, Map<String, Chosen> choices, Setting setting, Value value, String page) {
        ThemeCache.Read read = read(open.draft());
        String picture = value instanceof Value.Parts p ? p.text("picture") : "";
        return uploads.subject(open.site().id(), read.theme().palette(), picture)
                .flatMap(s -> themes.lost(
                        open.site().themeId(),
                        read,
                        new Rendered(read.theme(), choices),
                        painted(read, setting),
                        page,
                        s));
    }

    private static List<Painted> painted(ThemeCache.Read read, Setting setting) {
        return read.colors().boundTo(setting.key()).stream()
                .flatMap(b -> b.paints().stream())
                .distinct()
                .toList();
    }

    // Pictures of their own

    /**
     * Keeps a picture that an owner brings for a setting.
     *
     * @param x where the middle of what must stay is, 0 to 1
     * @throws BadInputException if it is no picture that is fit for that setting, or there is no room
     */
    OwnUpload bring(String slug, PictureKind kind, String name, byte[] bytes, double x, double y, SignedIn me) {
        Site site = gate.mine(slug, me);
        uploads.checkRoom(site.id(), 0);
        OwnPicture picture = OwnPicture.of(name, bytes, kind, x, y);
        AtomicReference<SiteUpload> kept = new AtomicReference<>();
        gate.changed(slug, me, locked -> kept.set(uploads.keep(locked.id(), name, picture, me.name())));
        return new OwnUpload(kept.get(), picture.told());
    }

    /** @param told what was done to it, in words */
    record OwnUpload(SiteUpload upload, List<String> told) {}

    /** Takes a picture off the shelf, or puts it back. */
    SiteUpload shelve(String slug, long id, boolean offered, SignedIn me) {
        AtomicReference<SiteUpload> done = new AtomicReference<>();
        gate.changed(slug, me, site -> done.set(uploads.shelve(site.id(), id, offered)));
        return done.get();
    }

    /** Marks what must stay in sight of a picture. @param box as {@link SiteUploads#mark} reads it */
    SiteUpload mark(String slug, long id, String box, SignedIn me) {
        AtomicReference<SiteUpload> done = new AtomicReference<>();
        gate.changed(slug, me, site -> done.set(uploads.mark(site.id(), id, box)));
        return done.get();
    }

    // The maker's side

    @Transactional(readOnly = true)
    public List<Site> ofTheme(long themeId, SignedIn maker) {
        return sites.findByThemeIdAndMakerIdOrderByName(themeId, maker.id());
    }

    /**
     * Makes a site of a theme's present state.
     *
     * @param whose {@code me} to keep it, {@code owner} to give it to the owner who signs in as {@code owner}, or
     *     {@code invite} to invite a new one
     */
    @Transactional
    public Site create(OpenTheme theme, String name, String whose, String owner, SignedIn maker) {
        if (name.isBlank() || name.strip().length() > 100) {
            throw new BadInputException(
                    name.isBlank() ? "The site needs a name." : "The name of the site is too long.",
                    "Write up to 100 characters, such as Sallowmere Ferries.");
        }
        Site site = sites.save(
                new Site(freeSlug(name), name.strip(), theme.id(), theme.head().id(), maker.id()));
        SiteDraft first = drafts.save(new SiteDraft(site.id(), null, "{}", "The site was made", maker.name()));
        site.moveDraft(first.id());
        if (whose.equals("owner") && owner.isBlank()) {
            throw new BadInputException("The owner's sign-in name is missing.", "Write it, or choose the invitation.");
        }
        if (!whose.equals("me")) {
            owners.give(site, whose.equals("owner") ? owner : "");
        }
        return site;
    }

    private static final int LONGEST_TRIED = 80;

    /**
     * The site on which a maker tries the owner's side of a theme as it is now. Each maker of a theme has one of their own, made when it is
     * first wanted; what they chose there stays. Nothing goes out by it: it is live only if its maker says so, as every site.
     */
    @Transactional
    public Site tryOut(OpenTheme theme, SignedIn maker) {
        String named = theme.stored().name();
        String name =
                named.substring(0, Math.min(LONGEST_TRIED, named.length())).strip() + ", tried out";
        Site site = sites.findByThemeIdAndMakerIdOrderByName(theme.id(), maker.id()).stream()
                .filter(s -> s.name().equals(name))
                .findFirst()
                .orElseGet(() -> create(theme, name, "me", "", maker));
        update(site.id(), theme, maker);
        return site;
    }

    private String freeSlug(String name) {
        String plain = Normalizer.normalize(name, Normalizer.Form.NFD)
                .toLowerCase(Locale.ROOT)
                .replaceAll("\\p{M}", "")
                .replaceAll("[^a-z0-9]+", "-")
                .replaceAll("^-|-$", "");
        String base = plain.isEmpty() ? "site" : plain.substring(0, Math.min(50, plain.length()));
        String slug = base;
        for (int i = 2; sites.existsBySlug(slug); i++) {
            slug = base + "-" + i;
        }
        return slug;
    }

    /** Lets the next edition of a site use the theme's present state. What is live stays as it is. */
    @Transactional
    public void update(long siteId, OpenTheme theme, SignedIn maker) {
        Site site = locked(siteId, maker);
        if (site.themeId() != theme.id()) {
            throw new NotFoundException();
        }
        site.useSnapshot(theme.head().id());
    }

    /** The choices that are live on a site, for a handover that carries them. */
    @Transactional(readOnly = true)
    public Map<String, Chosen> liveChoices(long siteId, SignedIn maker) {
        Site site = ofMaker(siteId, maker);
        return site.liveId() == null
                ? Map.of()
                : Choices.read(editions.findById(site.liveId()).orElseThrow().choices());
    }

    /** For changes; see {@link #changed}. */
    private Site locked(long siteId, SignedIn maker) {
        return sites.lock(siteId).filter(s -> s.makerId() == maker.id()).orElseThrow(NotFoundException::new);
    }

    private Site ofMaker(long siteId, SignedIn maker) {
        return sites.findById(siteId).filter(s -> s.makerId() == maker.id()).orElseThrow(NotFoundException::new);
    }

    // The owner's side

    @Transactional(readOnly = true)
    public List<Site> mine(SignedIn me) {
        List<Site> all = new ArrayList<>(sites.ownedBy(me.id()));
        all.addAll(sites.keptBy(me.id()));
        return all;
    }

    /** Reads in short steps, not in one transaction: a theme that takes long to read must not hold a connection meanwhile. */
    public OpenSite open(String slug, SignedIn me) {
        return open(gate.mine(slug, me));
    }

    private OpenSite open(Site site) {
        SiteDraft draft = drafts.findById(site.draftId()).orElseThrow();
        Edition live =
                site.liveId() == null ? null : editions.findById(site.liveId()).orElseThrow();
        ThemeCache.Read read = uploads.read(site.id(), site.snapshotId());
        // Labels and helps as the reader's language has them; all else of the theme is shared.
        Language language = Language.spoken();
        Theme theme = read.derived(List.of("spoken", language.tag()), () -> read.theme()
                .with(Language.in(language, read.theme().palette()::spoken)));
        Map<String, Chosen> choices = theme.palette().carried(Choices.read(draft.choices()));
        return new OpenSite(
                site,
                theme,
                new Draft(draft.id(), site.id(), site.snapshotId(), choices),
                live,
                draft.parentId() != null,
                drafts.existsByParentId(draft.id()),
                Choices.differences(
                        choices, live == null ? Map.of() : theme.palette().carried(Choices.read(live.choices()))),
                ThemeBuild.chosen(theme, choices).leftOut(),
                asides.findBySiteIdOrderById(site.id()));
    }

    /** A draft by its id, for previews, whose addresses prove that they may. */
    @Transactional(readOnly = true)
    public Draft draft(long draftId) {
        SiteDraft draft = drafts.findById(draftId).orElseThrow(NotFoundException::new);
        Site site = sites.findById(draft.siteId()).orElseThrow(NotFoundException::new);
        return new Draft(draft.id(), site.id(), site.snapshotId(), Choices.read(draft.choices()));
    }

    /** The draft that a link leads to, as it is now; empty if the link is over or was withdrawn. */
    @Transactional(readOnly = true)
    public Optional<Draft> inHand(long linkId) {
        return links.site(linkId).flatMap(sites::findById).map(site -> draft(site.draftId()));
    }

    /** What went live once, for previews, whose addresses prove that they may. */
    @Transactional(readOnly = true)
    public Draft edition(long editionId) {
        Edition e = editions.findById(editionId).orElseThrow(NotFoundException::new);
        return new Draft(e.id(), e.siteId(), e.snapshotId(), Choices.read(e.choices()));
    }

    // The end

    /**
     * Removes a site with its draft and its editions; its address answers 404 from then on. The theme stays.
     *
     * @param confirmed the site's name, as the person wrote it
     */
    @Transactional
    public void remove(long siteId, String confirmed, SignedIn maker) {
        Site site = locked(siteId, maker);
        if (!site.name().equals(confirmed.strip())) {
            throw new BadInputException(
                    "The site “" + site.name() + "” was not removed: its name was not written.",
                    "Write the name as it stands there. Removing cannot be undone.");
        }
        remove(site);
    }

    private void remove(Site site) {
        drafts.removeAll(site.id());
        asides.removeAll(site.id());
        editions.removeAll(site.id());
        uploads.removeAll(site.id());
        links.withdraw(site.id());
        sites.delete(site);
        TransactionSynchronizationManager.registerSynchronization(new TransactionSynchronization() {
            @Override
            public void afterCommit() {
                live.gone(site.slug());
            }
        });
    }

    /** Sites that are an owner's, among those a maker made: they keep the maker's account from being removed. */
    @Transactional(readOnly = true)
    public List<Site> ownedByOthers(SignedIn maker) {
        return sites.findByMakerIdOrderByName(maker.id()).stream()
                .filter(s -> !s.isKept())
                .toList();
    }

    /** Sites that a maker made and keeps. */
    @Transactional(readOnly = true)
    public List<Site> kept(SignedIn maker) {
        return sites.keptBy(maker.id());
    }

    /** An owner goes: their sites stay live, and those that nobody else owns are their makers' again. */
    @Transactional
    public void ownerGoes(long ownerId) {
        sites.ownedBy(ownerId).forEach(s -> s.leave(ownerId));
    }

    /** A maker goes, and another one has the sites from now on; owners notice nothing. */
    @Transactional
    public void handOver(long from, long to) {
        sites.findByMakerIdOrderByName(from).forEach(s -> s.handTo(to));
    }

    /** A maker works on a theme no longer: their sites of it are another's from now on. */
    @Transactional
    public void handOver(long themeId, long from, long to) {
        sites.findByThemeIdAndMakerIdOrderByName(themeId, from).forEach(s -> s.handTo(to));
    }

    /** A maker goes with the sites that nobody else owns. */
    @Transactional
    public void removeKept(SignedIn maker) {
        kept(maker).forEach(this::remove);
    }
}
