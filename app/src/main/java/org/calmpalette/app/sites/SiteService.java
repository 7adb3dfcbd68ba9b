package org.calmpalette.app.sites;

import java.nio.charset.StandardCharsets;
import java.security.SecureRandom;
import java.text.Normalizer;
import java.time.format.DateTimeFormatter;
import java.util.ArrayList;
import java.util.Base64;
import java.util.HashSet;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Objects;
import java.util.Optional;
import java.util.Set;
import java.util.TreeMap;
import java.util.concurrent.atomic.AtomicBoolean;
import java.util.concurrent.atomic.AtomicReference;
import java.util.function.Consumer;
import java.util.function.Function;
import java.util.function.Predicate;
import java.util.stream.Collectors;
import org.calmpalette.app.accounts.Account;
import org.calmpalette.app.accounts.AccountService;
import org.calmpalette.app.accounts.Role;
import org.calmpalette.app.accounts.SignedIn;
import org.calmpalette.app.storage.Hash;
import org.calmpalette.app.themes.OpenTheme;
import org.calmpalette.app.themes.ThemeCache;
import org.calmpalette.app.themes.ThemeService;
import org.calmpalette.app.web.NotFoundException;
import org.calmpalette.app.web.StaleException;
import org.calmpalette.core.BadInputException;
import org.calmpalette.core.output.ThemeBuild;
import org.calmpalette.core.render.Rendered;
import org.calmpalette.core.render.TextsOn;
import org.calmpalette.core.setting.Chosen;
import org.calmpalette.core.setting.Effective;
import org.calmpalette.core.setting.Given;
import org.calmpalette.core.setting.LeftOut;
import org.calmpalette.core.setting.OwnPicture;
import org.calmpalette.core.setting.OwnerWords;
import org.calmpalette.core.setting.PictureKind;
import org.calmpalette.core.setting.Refusal;
import org.calmpalette.core.setting.Scheme;
import org.calmpalette.core.setting.Setting;
import org.calmpalette.core.setting.Value;
import org.calmpalette.core.theme.Theme;
import org.calmpalette.core.usage.Painted;
import org.springframework.dao.ConcurrencyFailureException;
import org.springframework.stereotype.Service;
import org.springframework.transaction.annotation.Transactional;
import org.springframework.transaction.support.TransactionSynchronization;
import org.springframework.transaction.support.TransactionSynchronizationManager;
import org.springframework.transaction.support.TransactionTemplate;

/** Sites: what owners choose, what is live, and the way back. Finds only what belongs to the person who asks. */
@Service
public class SiteService {
    private static final int TRIES = 4;
    private static final int LONGEST_NOTE = 400;
    /** So many changes of a draft are looked through for the one that made a choice. */
    private static final int FARTHEST = 200;
    /** So many choices of other windows are kept for a site; of more the oldest goes. */
    private static final int MOST_ASIDE = 50;
    /** Steps back that are kept, if their choices are not longer than {@link #DRAFT_BYTES} together. */
    private static final int MOST_DRAFTS = 1_000;

    private static final long DRAFT_BYTES = 50_000_000;
    private static final int DRAFTS_BETWEEN_LOOKS = 20;
    /** Editions of which everything that visitors get is kept; pages that were opened before still find their stylesheets. */
    private static final int BUILT_EDITIONS = 50;
    /** Editions that can be taken back. */
    private static final int MOST_EDITIONS = 500;

    private static final DateTimeFormatter TIME = DateTimeFormatter.ofPattern("HH:mm 'UTC'");
    private static final SecureRandom RANDOM = new SecureRandom();

    private final SiteRepository sites;
    private final SiteDraftRepository drafts;
    private final EditionRepository editions;
    private final SiteAsideRepository asides;
    private final ThemeService themes;
    private final AccountService accounts;
    private final TransactionTemplate transaction;
    private final LiveSites live;
    private final SiteUploads uploads;
    private final DraftLinks links;

    SiteService(
            SiteRepository sites,
            SiteDraftRepository drafts,
            EditionRepository editions,
            SiteAsideRepository asides,
            ThemeService themes,
            AccountService accounts,
            TransactionTemplate transaction,
            LiveSites live,
            SiteUploads uploads,
            DraftLinks links) {
        this.uploads = uploads;
        this.links = links;
        this.sites = sites;
        this.drafts = drafts;
        this.editions = editions;
        this.asides = asides;
        this.themes = themes;
        this.accounts = accounts;
        this.transaction = transaction;
        this.live = live;
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
        List<Painted> painted = read.colors().boundTo(setting.key()).stream()
                .flatMap(b -> b.paints().stream())
                .distinct()
                .toList();
        return themes.textsOn(open.site().themeId(), read, new Rendered(read.theme(), choices), painted, page, width);
    }

    // Pictures of their own

    /**
     * Keeps a picture that an owner brings for a setting.
     *
     * @param x where the middle of what must stay is, 0 to 1
     * @throws BadInputException if it is no picture that is fit for that setting, or there is no room
     */
    OwnUpload bring(String slug, PictureKind kind, String name, byte[] bytes, double x, double y, SignedIn me) {
        Site site = mine(slug, me);
        uploads.checkRoom(site.id(), 0);
        OwnPicture picture = OwnPicture.of(name, bytes, kind, x, y);
        AtomicReference<SiteUpload> kept = new AtomicReference<>();
        changed(slug, me, locked -> kept.set(uploads.keep(locked.id(), name, picture, me.name())));
        return new OwnUpload(kept.get(), picture.told());
    }

    /** @param told what was done to it, in words */
    record OwnUpload(SiteUpload upload, List<String> told) {}

    /** Takes a picture off the shelf. */
    SiteUpload takeOff(String slug, long id, SignedIn me) {
        AtomicReference<SiteUpload> done = new AtomicReference<>();
        changed(slug, me, site -> done.set(uploads.remove(site.id(), id)));
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
            give(site.id(), whose.equals("owner") ? owner : "", maker);
        }
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

    /**
     * Gives a site to an owner who has an account, or makes an invitation for one who has none.
     *
     * @param signIn sign-in name of the owner; blank for an invitation
     */
    @Transactional
    public void give(long siteId, String signIn, SignedIn maker) {
        Site site = locked(siteId, maker);
        if (signIn.isBlank()) {
            byte[] token = new byte[32];
            RANDOM.nextBytes(token);
            site.invite(Base64.getUrlEncoder().withoutPadding().encodeToString(token));
            return;
        }
        Account owner = accounts.findBySignIn(signIn)
                .filter(a -> a.role() == Role.OWNER)
                .orElseThrow(() -> new BadInputException(
                        "No owner signs in as “" + signIn.strip() + "”.",
                        "Check the name, or leave the field empty to get an invitation that a new owner opens."));
        site.give(owner.id());
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
                : choices(editions.findById(site.liveId()).orElseThrow().choices());
    }

    /** For changes; see {@link #changed}. */
    private Site locked(long siteId, SignedIn maker) {
        return sites.lock(siteId).filter(s -> s.makerId() == maker.id()).orElseThrow(NotFoundException::new);
    }

    private Site ofMaker(long siteId, SignedIn maker) {
        return sites.findById(siteId).filter(s -> s.makerId() == maker.id()).orElseThrow(NotFoundException::new);
    }

    @Transactional(readOnly = true)
    public String ownerName(Site site) {
        return site.ownerId() == null
                ? ""
                : accounts.find(site.ownerId()).map(Account::name).orElse("");
    }

    // Joining

    @Transactional(readOnly = true)
    public Site invited(String token) {
        return stillInvited(token).orElseThrow(AccountService::used);
    }

    /** The site of an invitation; empty if it was used or withdrawn. */
    @Transactional(readOnly = true)
    public Optional<Site> stillInvited(String token) {
        return Optional.of(token).filter(Site::isInvitation).flatMap(sites::findByInvitation);
    }

    /** Makes an owner's account from an invitation and gives them the site. */
    @Transactional
    public void join(String token, String signIn, String name, String password) {
        // Of two who open one invitation at once, the second finds it used.
        Site site = Optional.of(token)
                .filter(Site::isInvitation)
                .flatMap(sites::lockInvited)
                .orElseThrow(AccountService::used);
        site.give(accounts.create(signIn, name, password, Role.OWNER).id());
    }

    // The owner's side

    @Transactional(readOnly = true)
    public List<Site> mine(SignedIn me) {
        List<Site> all = new ArrayList<>(sites.findByOwnerIdOrderByName(me.id()));
        all.addAll(sites.findByMakerIdAndOwnerIdIsNullOrderByName(me.id()));
        return all;
    }

    /** A site that the person may change: its owner, or its maker while nobody owns it. */
    private Site mine(String slug, SignedIn me) {
        return mine(slug, me, sites::findBySlug);
    }

    private static Site mine(String slug, SignedIn me, Function<String, Optional<Site>> finder) {
        return Optional.of(slug)
                .filter(Site::isSlug)
                .flatMap(finder)
                .filter(s -> s.ownerId() == null ? s.makerId() == me.id() : s.ownerId() == me.id())
                .orElseThrow(NotFoundException::new);
    }

    /** Reads in short steps, not in one transaction: a theme that takes long to read must not hold a connection meanwhile. */
    public OpenSite open(String slug, SignedIn me) {
        return open(mine(slug, me));
    }

    private OpenSite open(Site site) {
        SiteDraft draft = drafts.findById(site.draftId()).orElseThrow();
        Edition live =
                site.liveId() == null ? null : editions.findById(site.liveId()).orElseThrow();
        Theme theme = uploads.read(site.id(), site.snapshotId()).theme();
        Map<String, Chosen> choices = theme.palette().carried(choices(draft.choices()));
        return new OpenSite(
                site,
                theme,
                new Draft(draft.id(), site.id(), site.snapshotId(), choices),
                live,
                draft.parentId() != null,
                drafts.existsByParentId(draft.id()),
                differences(choices, live == null ? Map.of() : theme.palette().carried(choices(live.choices()))),
                ThemeBuild.chosen(theme, choices).leftOut(),
                asides.findBySiteIdOrderById(site.id()));
    }

    private static int differences(Map<String, Chosen> a, Map<String, Chosen> b) {
        TreeMap<String, Chosen> all = new TreeMap<>(a);
        b.forEach(all::putIfAbsent);
        return (int) all.keySet().stream()
                .filter(k -> !Objects.equals(a.get(k), b.get(k)))
                .count();
    }

    /** A draft by its id, for previews, whose addresses prove that they may. */
    @Transactional(readOnly = true)
    public Draft draft(long draftId) {
        SiteDraft draft = drafts.findById(draftId).orElseThrow(NotFoundException::new);
        Site site = sites.findById(draft.siteId()).orElseThrow(NotFoundException::new);
        return new Draft(draft.id(), site.id(), site.snapshotId(), choices(draft.choices()));
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
        return new Draft(e.id(), e.siteId(), e.snapshotId(), choices(e.choices()));
    }

    /** An edition by its number. */
    @Transactional(readOnly = true)
    public Edition edition(String slug, int number, SignedIn me) {
        return editions.findBySiteIdAndNumber(mine(slug, me).id(), number).orElseThrow(NotFoundException::new);
    }

    /** What going live with choices on a state of the theme would change for visitors. */
    Review review(OpenSite open, long snapshotId, Map<String, Chosen> wanted) {
        ThemeCache.Read next = uploads.read(open.site().id(), snapshotId);
        return open.live() == null
                ? Review.of(next, Map.of(), next, wanted)
                : Review.of(
                        uploads.read(open.site().id(), open.live().snapshotId()),
                        choices(open.live().choices()),
                        next,
                        wanted);
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
            Map<String, Chosen> after = with(theme, choices, setting, band, value);
            refusal(theme, choices, after).ifPresent(why -> {
                throw new BadInputException(setting.label() + " was not changed. " + why, "");
            });
            if (from != null) {
                if (drafts.existsBySiteIdAndPageTokenAndPageTurn(site.id(), from.token(), from.turn())
                        || asides.existsBySiteIdAndPageTokenAndPageTurn(site.id(), from.token(), from.turn())) {
                    // A window that is loaded again says once more what it does not know to be kept.
                    return null;
                }
                Value there = in(choices, key, band);
                Value wanted = in(after, key, band);
                SiteDraft now = drafts.findById(site.draftId()).orElseThrow();
                boolean unseen = !FromWindow.of(there).equals(from.was()) || now.isBy(from.token(), from.turn());
                if (unseen && !Objects.equals(there, wanted)) {
                    SiteDraft last = lastChange(now, theme, key, band, there);
                    if (last.isBy(from.token(), from.turn())) {
                        // The same window has said something newer already, which came first.
                        return null;
                    }
                    if (!last.isBy(from.token(), 0)) {
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
            return setting.label()
                    + (value == null
                            ? ": as made"
                            : ": " + setting.kind().words(setting.kind().normal(value)));
        });
        return kept.get();
    }

    static Value in(Map<String, Chosen> choices, String key, String band) {
        return choices.getOrDefault(key, new Chosen(null, Map.of())).in(band);
    }

    /** The draft with which a choice became what it is; at most {@value #FARTHEST} changes are looked at. */
    private SiteDraft lastChange(SiteDraft now, Theme theme, String key, String band, Value there) {
        SiteDraft last = now;
        for (int i = 0; i < FARTHEST && last.parentId() != null; i++) {
            SiteDraft before = drafts.findById(last.parentId()).orElseThrow();
            if (!Objects.equals(in(theme.palette().carried(choices(before.choices())), key, band), there)) {
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
        Site site = mine(slug, me);
        return asides.findById(id).filter(a -> a.siteId() == site.id()).orElseThrow(NotFoundException::new);
    }

    /** The choices with one more; what is as the maker made it is no choice. */
    static Map<String, Chosen> with(
            Theme theme, Map<String, Chosen> choices, Setting setting, String band, Value value) {
        if (!band.isEmpty()
                && (!setting.perBand() || theme.palette().bands().band(band).isEmpty())) {
            throw new BadInputException(setting.label() + " is the same at every width.", "Load the page again.");
        }
        Map<String, Chosen> after = new TreeMap<>(choices);
        Chosen now = choices.getOrDefault(setting.key(), new Chosen(null, Map.of()));
        Value normal = value == null ? null : setting.kind().normal(value);
        boolean asMade = band.isEmpty()
                && normal != null
                && setting.given() instanceof Given.Fixed f
                && f.value().equals(normal);
        Chosen next = now.with(band, asMade ? null : normal);
        if (next.isEmpty()) {
            after.remove(setting.key());
        } else {
            after.put(setting.key(), next);
        }
        return after;
    }

    /** Why choices are refused that were not refused before: a value that is not allowed, or one that breaks another. */
    static Optional<String> refusal(Theme theme, Map<String, Chosen> before, Map<String, Chosen> after) {
        List<LeftOut> known = ThemeBuild.chosen(theme, before).leftOut();
        Optional<String> left = ThemeBuild.chosen(theme, after).leftOut().stream()
                .filter(l -> !known.contains(l))
                .findFirst()
                .map(l -> said(theme, l.key(), l.value(), l.why()));
        if (left.isPresent()) {
            return left;
        }
        List<String> broken = ThemeBuild.chosen(theme, before).problems().stream()
                .map(p -> p.setting().key() + p.band().key())
                .toList();
        Effective was = ThemeBuild.chosen(theme, before);
        return ThemeBuild.chosen(theme, after).problems().stream()
                .filter(p -> !broken.contains(p.setting().key() + p.band().key()))
                .findFirst()
                .map(p -> was.value(p.setting(), p.band()).equals(p.value())
                        ? "It does not go with " + p.setting().label() + ", which is "
                                + p.setting().kind().words(p.value()) + ". "
                                + p.why().said(new OwnerWords(theme.palette()))
                        : said(theme, p.setting().key(), p.setting().kind().words(p.value()), p.why()));
    }

    private static String said(Theme theme, String key, String value, Refusal why) {
        String words = why.said(new OwnerWords(theme.palette()));
        return theme.palette()
                .setting(key)
                .map(s -> s.label() + " would be " + value + ". " + words)
                .orElse(words);
    }

    /** Takes a ready-made set of values over, in place of another one; what the owner chose on their own stays. */
    public void applyScheme(String slug, String key, SignedIn me) {
        changeDraft(slug, me, (site, theme, choices) -> {
            Scheme scheme = theme.palette().schemes().stream()
                    .filter(s -> s.key().equals(key))
                    .findFirst()
                    .orElseThrow(NotFoundException::new);
            Map<String, Chosen> after = scheme.over(theme.palette(), choices);
            refusal(theme, choices, after).ifPresent(why -> {
                throw new BadInputException("“" + scheme.label() + "” was not taken over. " + why, "");
            });
            List<String> own = Scheme.own(theme.palette(), choices).keySet().stream()
                    .flatMap(k -> theme.palette().setting(k).stream())
                    .map(Setting::label)
                    .toList();
            choices.clear();
            choices.putAll(after);
            return "Took over “" + scheme.label() + "”"
                    + (own.isEmpty() ? "" : "; what you chose yourself stays: " + String.join(", ", own));
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
            left.forEach(l -> told.add(
                    theme.palette().setting(l.key()).map(Setting::label).orElse(l.key()) + ": "
                            + l.why().said(words)));
            Set<String> refused = left.stream().map(LeftOut::key).collect(Collectors.toSet());
            Map<String, Chosen> after = new TreeMap<>(choices);
            carried.forEach((key, chosen) -> {
                if (!refused.contains(key)) {
                    after.put(key, chosen);
                }
            });
            refusal(theme, choices, after).ifPresent(why -> {
                throw new BadInputException("The choices of the file were not taken over. " + why, "");
            });
            choices.clear();
            choices.putAll(after);
            return "Took over choices from a file";
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
                            .carried(choices(editions.findById(site.liveId())
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
                refusal(theme, choices, after).ifPresent(why -> {
                    throw new BadInputException("Nothing was put back. " + why, "Tick what belongs together as well.");
                });
            }
            choices.clear();
            choices.putAll(after);
            return (keys.isEmpty() ? "All" : count(keys.size()))
                    + (made ? " put back as made" : " put back to what is live");
        });
    }

    private static String count(int n) {
        return n == 1 ? "1 choice" : n + " choices";
    }

    private interface DraftChange {
        /** @return a note of what was done, or null if nothing is to be changed */
        String apply(Site site, Theme theme, TreeMap<String, Chosen> choices);
    }

    private void changeDraft(String slug, SignedIn me, DraftChange change) {
        changeDraft(slug, me, null, change);
    }

    private void changeDraft(String slug, SignedIn me, FromWindow from, DraftChange change) {
        changed(slug, me, site -> {
            SiteDraft before = drafts.findById(site.draftId()).orElseThrow();
            Theme theme = uploads.read(site.id(), site.snapshotId()).theme();
            TreeMap<String, Chosen> choices = new TreeMap<>(theme.palette().carried(choices(before.choices())));
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
        changed(slug, me, site -> {
            Long parent = at(site, base).parentId();
            if (parent != null) {
                site.moveDraft(parent);
            }
        });
    }

    /** @param base id of the draft that the person saw */
    public void redo(String slug, long base, SignedIn me) {
        changed(slug, me, site -> drafts.findFirstByParentIdOrderByIdDesc(
                        at(site, base).id())
                .ifPresent(next -> site.moveDraft(next.id())));
    }

    private SiteDraft at(Site site, long base) {
        SiteDraft now = drafts.findById(site.draftId()).orElseThrow();
        if (site.draftId() != base) {
            throw new StaleException(
                    "Your choices have changed since this page was opened: " + now.author() + ", "
                            + TIME.format(now.at()) + ", “" + now.note() + "”.",
                    now.id());
        }
        return now;
    }

    /**
     * Makes a change of a site. The site is locked first, so whoever comes second waits and then works on what the first one
     * left: a choice concerns one setting, so nobody's is lost, and every state in between can be gone back to.
     */
    private void changed(String slug, SignedIn me, Consumer<Site> change) {
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

    /**
     * Makes the draft an edition, as {@link #goLive(String, SignedIn)}, if it is still what the person has looked at.
     *
     * @param base id of the draft that they saw
     * @param snapshot id of the state of the theme with which they saw it
     * @return whether it was
     */
    public boolean goLive(String slug, long base, long snapshot, SignedIn me) {
        return goLive(slug, site -> site.draftId() == base && site.snapshotId() == snapshot, me);
    }

    /**
     * Makes the draft an edition, which visitors see from now on. A choice that the theme no longer allows is kept in it and not shown; it
     * is for the caller to say so. What is live already does not become another edition, so
     * pressing twice is pressing once.
     */
    public void goLive(String slug, SignedIn me) {
        goLive(slug, site -> true, me);
    }

    /** @param still asked once the site is locked: whether it is what the person wants live */
    private boolean goLive(String slug, Predicate<Site> still, SignedIn me) {
        // Read before the site is locked, so that others need not wait for it.
        Site seen = mine(slug, me);
        uploads.read(seen.id(), seen.snapshotId());
        AtomicBoolean was = new AtomicBoolean();
        changed(slug, me, site -> {
            was.set(still.test(site));
            if (!was.get()) {
                return;
            }
            Theme theme = uploads.read(site.id(), site.snapshotId()).theme();
            Map<String, Chosen> choices =
                    theme.palette().carried(draft(site.draftId()).choices());
            Edition now = site.liveId() == null
                    ? null
                    : editions.findById(site.liveId()).orElseThrow();
            String written = Chosen.writeAll(choices);
            if (now != null
                    && now.snapshotId() == site.snapshotId()
                    && now.choices().equals(written)) {
                return;
            }
            publish(site, site.snapshotId(), written, ThemeBuild.paletteCss(theme, choices), "", me);
        });
        if (was.get()) {
            live.wentLive(slug);
        }
        return was.get();
    }

    /** Makes an earlier edition live again, as a new edition. The draft stays as it is. */
    public void takeBack(String slug, int number, SignedIn me) {
        changed(slug, me, site -> {
            Edition old = editions.findBySiteIdAndNumber(site.id(), number).orElseThrow(NotFoundException::new);
            Edition now = site.liveId() == null
                    ? null
                    : editions.findById(site.liveId()).orElseThrow();
            if (now != null
                    && now.snapshotId() == old.snapshotId()
                    && now.choices().equals(old.choices())) {
                return;
            }
            publish(site, old.snapshotId(), old.choices(), old.paletteCss(), "Edition " + number + " again", me);
        });
        live.wentLive(slug);
    }

    private void publish(Site site, long snapshotId, String choices, String css, String note, SignedIn me) {
        Edition edition = new Edition(
                site.id(), editions.newest(site.id()) + 1, snapshotId, choices, css, Hash.of(css), note, me.name());
        live.build(site, edition);
        site.moveLive(editions.save(edition).id());
        editions.release(site.id(), edition.number() - BUILT_EDITIONS);
        editions.removeUpTo(site.id(), edition.number() - MOST_EDITIONS);
    }

    /** What an edition's choices are, for the pages that they fill. */
    public static Map<String, Chosen> chosenIn(Edition edition) {
        return Chosen.readAll(edition.choices().getBytes(StandardCharsets.UTF_8), "choices");
    }

    public List<EditionRepository.Line> editions(String slug, SignedIn me) {
        return editions.lines(mine(slug, me).id());
    }

    private static TreeMap<String, Chosen> choices(String text) {
        return new TreeMap<>(Chosen.readAll(text.getBytes(StandardCharsets.UTF_8), "choices"));
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
                .filter(s -> s.ownerId() != null)
                .toList();
    }

    /** Sites that a maker made and keeps. */
    @Transactional(readOnly = true)
    public List<Site> kept(SignedIn maker) {
        return sites.findByMakerIdAndOwnerIdIsNullOrderByName(maker.id());
    }

    /** An owner goes: their sites stay live and are their makers' again. */
    @Transactional
    public void ownerGoes(long ownerId) {
        sites.findByOwnerIdOrderByName(ownerId).forEach(Site::takeBack);
    }

    /** A maker goes, and another one has the sites from now on; owners notice nothing. */
    @Transactional
    public void handOver(long from, long to) {
        sites.findByMakerIdOrderByName(from).forEach(s -> s.handTo(to));
    }

    /** A maker goes with the sites that nobody else owns. */
    @Transactional
    public void removeKept(SignedIn maker) {
        kept(maker).forEach(this::remove);
    }
}
