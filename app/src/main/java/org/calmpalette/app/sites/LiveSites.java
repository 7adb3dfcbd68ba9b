package org.calmpalette.app.sites;

import com.github.benmanes.caffeine.cache.Cache;
import com.github.benmanes.caffeine.cache.Caffeine;
import com.github.benmanes.caffeine.cache.LoadingCache;
import java.io.ByteArrayOutputStream;
import java.io.IOException;
import java.io.UncheckedIOException;
import java.nio.charset.StandardCharsets;
import java.time.Duration;
import java.util.ArrayList;
import java.util.Collections;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.SortedMap;
import java.util.TreeMap;
import java.util.concurrent.TimeUnit;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import java.util.zip.GZIPOutputStream;
import org.calmpalette.app.storage.ContentStore;
import org.calmpalette.app.storage.Hash;
import org.calmpalette.app.storage.TreeFiles;
import org.calmpalette.app.themes.Snapshot;
import org.calmpalette.app.themes.ThemeService;
import org.calmpalette.app.web.ContentTypes;
import org.calmpalette.core.css.Edit;
import org.calmpalette.core.output.ThemeBuild;
import org.calmpalette.core.page.Page;
import org.calmpalette.core.page.Paths;
import org.calmpalette.core.setting.Chosen;
import org.calmpalette.core.setting.Effective;
import org.calmpalette.core.setting.Palette;
import org.calmpalette.core.theme.Theme;
import org.jsoup.nodes.Element;
import org.springframework.scheduling.annotation.Scheduled;
import org.springframework.stereotype.Service;
import org.springframework.transaction.support.TransactionTemplate;

/**
 * What visitors get. It is built once, when an edition goes live, and kept as contents that never change; from then on a
 * visitor's request is a look-up. What was asked for lately is in memory, so it is served even while the database is gone.
 */
@Service
public class LiveSites {
    /** Bytes of files in memory. */
    private static final long IN_MEMORY = 40_000_000;
    /** Files larger than this are read from the database piece by piece and are not kept in memory. */
    static final int LARGE = 1_000_000;
    /** How long another node may take until it shows what went live here. */
    private static final Duration FRESH = Duration.ofSeconds(1);

    private static final Pattern HREF =
            Pattern.compile("\\bhref\\s*=\\s*(\"[^\"]*\"|'[^']*'|[^\\s>\"']+)", Pattern.CASE_INSENSITIVE);

    private final SiteRepository sites;
    private final EditionRepository editions;
    private final ContentStore store;
    private final TransactionTemplate transaction;
    private final ThemeService themes;
    private final SiteUploads uploads;
    private final LoadingCache<String, Live> live;
    private final Cache<String, SortedMap<String, TreeFiles.Entry>> hashed = Caffeine.newBuilder()
            .maximumWeight(2_000_000)
            .<String, SortedMap<String, TreeFiles.Entry>>weigher((key, files) -> key.length() + files.size() * 80)
            .build();
    private final Cache<String, Bytes> bytes = Caffeine.newBuilder()
            .maximumWeight(IN_MEMORY)
            .<String, Bytes>weigher((hash, b) -> 200 + b.plain().length + b.packed().length)
            .build();

    LiveSites(
            SiteRepository sites,
            EditionRepository editions,
            ContentStore store,
            TransactionTemplate transaction,
            ThemeService themes,
            SiteUploads uploads) {
        this.uploads = uploads;
        this.sites = sites;
        this.editions = editions;
        this.store = store;
        this.transaction = transaction;
        this.themes = themes;
        // Only sites that exist get in, so nobody can fill it by asking for others.
        this.live = Caffeine.newBuilder()
                .maximumWeight(2_000_000)
                .<String, Live>weigher((slug, l) -> 200 + l.files().size() * 80)
                .refreshAfterWrite(FRESH)
                .build(this::load);
    }

    /**
     * A site as it is live.
     *
     * @param files what visitors get, by path; empty while nothing is live
     * @param first the page that stands for the site where there is no index.html, or null
     */
    record Live(boolean isLive, SortedMap<String, TreeFiles.Entry> files, String first) {}

    /**
     * @param packed the same with gzip, or empty where that gains nothing
     * @param type media type, with the encoding where a page does not name it
     * @param film whether it is a page with a film that starts by itself
     */
    record Bytes(byte[] plain, byte[] packed, String type, boolean film) {}

    private static final Pattern MOVES = Pattern.compile("<video\\b[^>]*\\bautoplay\\b", Pattern.CASE_INSENSITIVE);

    /** What is live under an address; empty if there is no such site. */
    Optional<Live> live(String slug) {
        return Optional.ofNullable(live.get(slug));
    }

    private Live load(String slug) {
        Site site = sites.findBySlug(slug).orElse(null);
        if (site == null) {
            return null;
        }
        if (site.liveId() == null) {
            return new Live(false, Collections.emptySortedMap(), null);
        }
        SortedMap<String, TreeFiles.Entry> files =
                files(site, editions.findById(site.liveId()).orElseThrow());
        String first = files.keySet().stream().filter(Paths::isPage).findFirst().orElse(null);
        return new Live(true, files, first);
    }

    /** The files of the edition with this palette.css; earlier ones stay, for pages that are still open somewhere. */
    Optional<TreeFiles.Entry> palette(String slug, String hash) {
        return edition(slug, "p" + hash, site -> editions.findFirstBySiteIdAndPaletteHashOrderByIdDesc(site.id(), hash))
                .map(files -> files.get(Theme.PALETTE_CSS));
    }

    /** A file of the edition whose files have this hash together. */
    Optional<TreeFiles.Entry> file(String slug, String filesHash, String path) {
        return edition(
                        slug,
                        "f" + filesHash,
                        site -> editions.findFirstBySiteIdAndFilesHashOrderByIdDesc(site.id(), filesHash))
                .map(files -> files.get(path));
    }

    private interface Finder {
        Optional<Edition> find(Site site);
    }

    private Optional<SortedMap<String, TreeFiles.Entry>> edition(String slug, String hash, Finder finder) {
        String key = slug + "/" + hash;
        SortedMap<String, TreeFiles.Entry> known = hashed.getIfPresent(key);
        if (known != null) {
            return Optional.of(known);
        }
        Site site = sites.findBySlug(slug).orElse(null);
        Optional<SortedMap<String, TreeFiles.Entry>> found = site == null
                ? Optional.empty()
                : finder.find(site).filter(e -> !e.isReleased()).map(e -> files(site, e));
        found.ifPresent(files -> hashed.put(key, files));
        return found;
    }

    private SortedMap<String, TreeFiles.Entry> files(Site site, Edition edition) {
        String tree = edition.liveTree() != null
                ? edition.liveTree()
                : transaction.execute(s -> {
                    Edition again = editions.findById(edition.id()).orElseThrow();
                    if (again.liveTree() == null) {
                        build(site, again);
                    }
                    return again.liveTree();
                });
        return store.tree(tree).entries();
    }

    /** Editions that went live before what is live was kept are built now, so that their hashed addresses are found. */
    @Scheduled(initialDelay = 20, timeUnit = TimeUnit.SECONDS)
    void buildEarlier() {
        for (Site site : sites.findAll()) {
            for (long id : editions.notBuilt(site.id())) {
                files(site, editions.findById(id).orElseThrow());
            }
        }
    }

    /** The bytes of a file that is not {@link #LARGE}. */
    Bytes bytes(String path, TreeFiles.Entry entry) {
        return bytes.get(Paths.ending(path) + entry.hash(), hash -> {
            byte[] plain = store.read(entry.hash());
            byte[] packed = ContentTypes.isText(path) ? packed(plain) : new byte[0];
            return new Bytes(
                    plain,
                    packed.length < plain.length * 9L / 10 ? packed : new byte[0],
                    Paths.isPage(path) ? ContentTypes.ofPage(plain) : ContentTypes.servedOf(path),
                    Paths.isPage(path)
                            && MOVES.matcher(new String(plain, StandardCharsets.ISO_8859_1))
                                    .find());
        });
    }

    byte[] piece(TreeFiles.Entry entry, long from, int count) {
        return store.read(entry.hash(), from, count);
    }

    private static byte[] packed(byte[] plain) {
        ByteArrayOutputStream out = new ByteArrayOutputStream(plain.length / 3 + 64);
        try (GZIPOutputStream gzip = new GZIPOutputStream(out)) {
            gzip.write(plain);
        } catch (IOException e) {
            throw new UncheckedIOException(e);
        }
        return out.toByteArray();
    }

    /**
     * Takes what went live into memory, so that the next visitor gets it, and gets it even if the database goes now: its pages and
     * stylesheets; pictures come when they are asked for.
     */
    void wentLive(String slug) {
        Live now = load(slug);
        if (now == null) {
            return;
        }
        live.put(slug, now);
        long room = IN_MEMORY / 4;
        for (Map.Entry<String, TreeFiles.Entry> e : now.files().entrySet()) {
            boolean wanted = Paths.isPage(e.getKey()) || Paths.isStylesheet(e.getKey());
            if (wanted && e.getValue().size() <= LARGE && room > 0) {
                room -= e.getValue().size();
                bytes(e.getKey(), e.getValue());
            }
        }
    }

    /** Forgets a site that is gone. */
    void gone(String slug) {
        live.invalidate(slug);
        hashed.asMap().keySet().removeIf(k -> k.startsWith(slug + "/"));
    }

    /** Makes all that visitors of an edition get, inside the caller's transaction. */
    void build(Site site, Edition edition) {
        Snapshot snapshot = themes.snapshot(edition.snapshotId());
        Theme theme = uploads.read(site.id(), snapshot.id()).theme();
        String settings = ThemeBuild.settingsCss(theme);
        String filesHash = Hash.of(snapshot.treeHash() + settings).substring(0, 24);
        Map<String, Chosen> choices = Choices.chosenIn(edition);
        Effective values = ThemeBuild.chosen(theme, choices);
        SortedMap<String, byte[]> made = new TreeMap<>();
        made.put(Theme.SETTINGS_CSS, settings.getBytes(StandardCharsets.UTF_8));
        made.put(Theme.PALETTE_CSS, edition.paletteCss().getBytes(StandardCharsets.UTF_8));
        for (Page page : theme.pages()) {
            Page filled = ThemeBuild.lean(
                    Page.read(page.source().file(), ThemeBuild.finished(page, values)),
                    theme.palette().bands());
            made.put(
                    page.source().file(),
                    filled.source()
                            .withEdits(addresses(filled, "/at/" + site.slug(), filesHash, edition.paletteHash())));
        }
        TreeMap<String, TreeFiles.Entry> files = new TreeMap<>(uploads.named(site.id(), edition.choices()));
        files.putAll(store.tree(snapshot.treeHash()).entries());
        files.remove(Palette.FILE);
        files.keySet().removeIf(path -> Theme.isOfSection(theme.files(), path));
        made.forEach((path, contents) -> files.put(path, new TreeFiles.Entry(store.keep(contents), contents.length)));
        edition.build(store.keepTree(files), filesHash);
    }

    /** Points the page's stylesheet links at their hashed addresses. */
    private static List<Edit> addresses(Page page, String base, String filesHash, String paletteHash) {
        List<Edit> edits = new ArrayList<>();
        String text = page.source().text();
        for (Element link : page.document().select("link[rel~=(?i)\\bstylesheet\\b][href]")) {
            int start = link.sourceRange().startPos();
            Matcher href = HREF.matcher(text)
                    .region(Math.max(0, start), link.sourceRange().endPos());
            String target =
                    Paths.resolve(page.source().file(), link.attr("href")).orElse("");
            if (start < 0 || target.isEmpty() || !href.find()) {
                continue;
            }
            String address = target.equals(Theme.PALETTE_CSS)
                    ? base + "/palette." + paletteHash + ".css"
                    : base + "/files/" + filesHash + "/" + Paths.address(target);
            edits.add(new Edit(href.start(1), href.end(1), "\"" + address + "\""));
        }
        return edits;
    }
}
