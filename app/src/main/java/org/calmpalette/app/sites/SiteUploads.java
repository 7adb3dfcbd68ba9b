package org.calmpalette.app.sites;

import java.text.Normalizer;
import java.util.ArrayList;
import java.util.Collections;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;
import java.util.SortedMap;
import java.util.TreeMap;
import org.calmpalette.app.settings.Controls;
import org.calmpalette.app.storage.ContentStore;
import org.calmpalette.app.storage.Hash;
import org.calmpalette.app.storage.TreeFiles;
import org.calmpalette.app.themes.Snapshot;
import org.calmpalette.app.themes.ThemeCache;
import org.calmpalette.app.themes.ThemeService;
import org.calmpalette.app.web.NotFoundException;
import org.calmpalette.core.BadInputException;
import org.calmpalette.core.language.Language;
import org.calmpalette.core.setting.Chosen;
import org.calmpalette.core.setting.OwnPicture;
import org.calmpalette.core.setting.Palette;
import org.calmpalette.core.setting.Subject;
import org.springframework.stereotype.Service;
import org.springframework.transaction.annotation.Transactional;

/**
 * The pictures that owners bring, and a theme as it is for one site: its files with that site's pictures beside them. What is brought
 * never becomes part of the maker's theme, and no other site can name it.
 */
@Service
public class SiteUploads {
    /** Where they are among the files of a site. */
    static final String FOLDER = Controls.OWN;
    /** Pictures on the shelf of a site. */
    public static final int MOST = 100;
    /** Bytes of all pictures of a site, as they are kept. */
    public static final long MOST_BYTES = 60_000_000;

    private static final int LONGEST_NAME = 40;
    private static final int OF_HASH = 16;

    private final SiteUploadRepository uploads;
    private final ContentStore store;
    private final ThemeService themes;

    SiteUploads(SiteUploadRepository uploads, ContentStore store, ThemeService themes) {
        this.uploads = uploads;
        this.store = store;
        this.themes = themes;
    }

    /** A state of a theme with the pictures of a site. */
    public ThemeCache.Read read(long siteId, long snapshotId) {
        Snapshot snapshot = themes.snapshot(snapshotId);
        SortedMap<String, TreeFiles.Entry> own = entries(siteId);
        return own.isEmpty() ? themes.read(snapshot) : themes.read(snapshot, own);
    }

    /** A state of a theme with those pictures of a site that choices name. */
    public ThemeCache.Read read(long siteId, long snapshotId, Map<String, Chosen> choices) {
        Snapshot snapshot = themes.snapshot(snapshotId);
        SortedMap<String, TreeFiles.Entry> own = named(siteId, Chosen.writeAll(choices));
        return own.isEmpty() ? themes.read(snapshot) : themes.read(snapshot, own);
    }

    private SortedMap<String, TreeFiles.Entry> entries(long siteId) {
        SortedMap<String, TreeFiles.Entry> all = new TreeMap<>();
        uploads.findBySiteIdOrderByIdDesc(siteId)
                .forEach(u -> all.put(u.path(), new TreeFiles.Entry(u.hash(), u.size())));
        return all;
    }

    /** Those of a site that its choices name: what visitors get. */
    SortedMap<String, TreeFiles.Entry> named(long siteId, String choices) {
        SortedMap<String, TreeFiles.Entry> all = entries(siteId);
        all.keySet().removeIf(path -> !choices.contains(path));
        return all;
    }

    /** Those on the shelf, the newest first. */
    @Transactional(readOnly = true)
    public List<SiteUpload> shelf(long siteId) {
        return uploads.findBySiteIdOrderByIdDesc(siteId).stream()
                .filter(SiteUpload::isShelved)
                .toList();
    }

    /** What the controls of a site offer: those on the shelf and those that its draft names, by path, with their names. */
    @Transactional(readOnly = true)
    public Map<String, String> offered(long siteId, Map<String, Chosen> draft) {
        String choices = Chosen.writeAll(draft);
        Map<String, String> all = new LinkedHashMap<>();
        uploads.findBySiteIdOrderByIdDesc(siteId).stream()
                .filter(u -> u.isShelved() || choices.contains(u.path()))
                .forEach(u -> all.put(u.path(), u.name()));
        return all;
    }

    /** Those that were taken off the shelf and are there still, the newest first. */
    @Transactional(readOnly = true)
    public List<SiteUpload> off(long siteId) {
        return uploads.findBySiteIdOrderByIdDesc(siteId).stream()
                .filter(u -> !u.isShelved())
                .toList();
    }

    /** Bytes that a site's pictures take, without those that go when room is needed. */
    @Transactional(readOnly = true)
    public long taken(long siteId) {
        return uploads.findBySiteIdOrderByIdDesc(siteId).stream()
                .filter(u -> u.isShelved() || isNamed(siteId, u))
                .mapToLong(SiteUpload::size)
                .sum();
    }

    private boolean isNamed(long siteId, SiteUpload upload) {
        return uploads.isNamed(siteId, upload.path()) > 0;
    }

    /** @throws BadInputException if there is no room for another one, before anything is worked out */
    void checkRoom(long siteId, long more) {
        if (shelf(siteId).size() >= MOST) {
            throw new BadInputException(Language.say("shelf.many", MOST), Language.say("shelf.heavy.mend"));
        }
        if (taken(siteId) + more > MOST_BYTES) {
            throw new BadInputException(
                    Language.say("shelf.heavy", MOST_BYTES / 1_000_000), Language.say("shelf.heavy.mend"));
        }
    }

    /** Keeps a picture; the same one twice is one. The site is locked by the caller. */
    @Transactional
    SiteUpload keep(long siteId, String name, OwnPicture picture, String author) {
        String hash = Hash.of(picture.bytes());
        // People read the last part of a path.
        String path = FOLDER + hash.substring(0, OF_HASH) + "/" + plain(name) + "." + picture.format();
        Optional<SiteUpload> known = uploads.findBySiteIdAndPath(siteId, path);
        if (known.isPresent()) {
            known.get().shelve(true);
            return known.get();
        }
        checkRoom(siteId, picture.bytes().length);
        makeRoom(siteId, picture.bytes().length);
        store.keep(picture.bytes());
        return uploads.save(new SiteUpload(siteId, path, shortened(name), hash, picture, author));
    }

    private static String shortened(String name) {
        String file = name.substring(Math.max(name.lastIndexOf('/'), name.lastIndexOf('\\')) + 1);
        return file.length() > 100 ? file.substring(0, 100) : file;
    }

    private static String plain(String name) {
        String plain = Normalizer.normalize(shortened(name).replaceFirst("\\.[^.]*$", ""), Normalizer.Form.NFD)
                .toLowerCase(Locale.ROOT)
                .replaceAll("\\p{M}", "")
                .replaceAll("[^a-z0-9]+", "-")
                .replaceAll("^-|-$", "");
        return plain.isEmpty() ? "picture" : plain.substring(0, Math.min(LONGEST_NAME, plain.length()));
    }

    /** Takes a picture off the shelf, or puts it back. */
    @Transactional
    SiteUpload shelve(long siteId, long id, boolean offered) {
        SiteUpload upload = uploads.findByIdAndSiteId(id, siteId).orElseThrow(NotFoundException::new);
        if (offered && !upload.isShelved() && shelf(siteId).size() >= MOST) {
            throw new BadInputException(Language.say("shelf.full", MOST), Language.say("shelf.full.mend"));
        }
        upload.shelve(offered);
        return upload;
    }

    /** Marks what must stay in sight of a picture. @param box as {@link Subject#boxed} reads it; empty for nothing */
    @Transactional
    SiteUpload mark(long siteId, long id, String box) {
        SiteUpload upload = uploads.findByIdAndSiteId(id, siteId).orElseThrow(NotFoundException::new);
        upload.mark(box.isBlank() ? null : Subject.boxed(upload.name(), "", box));
        return upload;
    }

    /** What must stay in sight of a picture of a site, brought by its owner or the theme's own. */
    @Transactional(readOnly = true)
    public Optional<Subject> subject(long siteId, Palette palette, String path) {
        return uploads.findBySiteIdAndPath(siteId, path)
                .map(SiteUpload::subject)
                .orElseGet(() -> palette.subject(path));
    }

    /** Of what was taken off the shelf and no step of the draft and no edition names, the oldest goes for good where its room is needed. */
    private void makeRoom(long siteId, long more) {
        List<SiteUpload> off = new ArrayList<>(off(siteId));
        off.removeIf(u -> isNamed(siteId, u));
        Collections.reverse(off);
        long over = taken(siteId) + more - MOST_BYTES;
        over += off.stream().mapToLong(SiteUpload::size).sum();
        for (int i = 0; i < off.size() && (over > 0 || off.size() - i > MOST); i++) {
            over -= off.get(i).size();
            uploads.delete(off.get(i));
        }
    }

    void removeAll(long siteId) {
        uploads.removeAll(siteId);
    }
}
