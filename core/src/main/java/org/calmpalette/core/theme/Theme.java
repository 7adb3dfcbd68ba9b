package org.calmpalette.core.theme;

import java.nio.charset.Charset;
import java.nio.charset.StandardCharsets;
import java.util.ArrayList;
import java.util.Comparator;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.stream.Stream;
import org.calmpalette.core.BadInputException;
import org.calmpalette.core.css.SourceText;
import org.calmpalette.core.css.Stylesheet;
import org.calmpalette.core.language.Language;
import org.calmpalette.core.page.Page;
import org.calmpalette.core.page.Paths;
import org.calmpalette.core.setting.Media;
import org.calmpalette.core.setting.Palette;
import org.calmpalette.core.setting.PaletteJson;
import org.calmpalette.core.setting.PictureKind;
import org.jsoup.nodes.Element;

/**
 * A theme at one moment: its files, read.
 *
 * @param pages in order of path, {@code index.html} first
 * @param sheets those that are files, in order of path, then those inside pages
 * @param attributes the declarations of style attributes, page by page; no part of {@link #sheets}, since they have no rules and stand
 *     in no order of the cascade
 * @param media what is known of the pictures and videos
 * @param aside files that are kept but not looked at, in order of path
 */
public record Theme(
        ThemeFiles files,
        Palette palette,
        List<Page> pages,
        List<ThemeSheet> sheets,
        List<ThemeSheet> attributes,
        Media media,
        List<SetAside> aside) {
    public static final String SETTINGS_CSS = "settings.css";
    public static final String PALETTE_CSS = "palette.css";
    /** Made by us from palette.json, and made again at every build: not part of what a maker wrote. */
    private static final Set<String> GENERATED = Set.of(SETTINGS_CSS, PALETTE_CSS);

    /** Sections that stand on no page yet have a folder each in here, with this file. */
    public static final String SECTIONS = "sections/";

    public static final String SECTION = "section.json";

    /** Whether a file belongs to such a section: it is kept, and is neither page nor stylesheet of the theme. */
    public static boolean isOfSection(ThemeFiles files, String path) {
        int end = path.startsWith(SECTIONS) ? path.indexOf('/', SECTIONS.length()) : -1;
        return end > 0 && files.has(path.substring(0, end + 1) + SECTION);
    }

    /** Whether a file is made at every build. */
    public static boolean isGenerated(String path) {
        return GENERATED.contains(path);
    }

    /** @throws org.calmpalette.core.BadInputException if palette.json cannot be understood */
    public static Theme read(ThemeFiles files, String name) {
        // What is told of it is kept with it, whoever reads it first.
        return Language.in(
                Language.english(),
                () -> read(files, palette(files, name), new Reading(files, null, Set.of()), new ThemeMedia(files)));
    }

    private static Palette palette(ThemeFiles files, String name) {
        if (files.has(Palette.FILE)) {
            if (files.size(Palette.FILE) > Limits.PALETTE) {
                throw new BadInputException(
                        "palette.json is larger than " + Limits.PALETTE / 1_000_000 + " MB.",
                        "Leave out what is not about settings; a theme has up to 500.");
            }
            return PaletteJson.read(files.read(Palette.FILE), name);
        }
        return Palette.empty(name);
    }

    private static Theme read(ThemeFiles files, Palette palette, Reading reading, Media media) {
        // Pages first: a sheet that names no encoding is read as the page that loads it.
        files.paths().stream().filter(Paths::isPage).forEach(reading::read);
        files.paths().stream().filter(path -> !Paths.isPage(path)).forEach(reading::read);
        reading.sheets.addAll(reading.embedded);
        reading.aside.sort(Comparator.comparing(SetAside::path));
        return new Theme(
                files,
                palette,
                List.copyOf(reading.pages),
                List.copyOf(reading.sheets),
                List.copyOf(reading.attributes),
                media,
                List.copyOf(reading.aside));
    }

    /** A page by its path. @throws BadInputException if there is none */
    public Page page(String path) {
        return pages.stream()
                .filter(p -> p.source().file().equals(path))
                .findFirst()
                .orElseThrow(() ->
                        new BadInputException("There is no page " + path + " in this theme.", "Load the page again."));
    }

    /** With other settings; the files stay as they are. */
    public Theme with(Palette now) {
        return new Theme(files, now, pages, sheets, attributes, media, aside);
    }

    /**
     * With other files, of which only those that differ are read; what was read of the others is shared with this theme.
     *
     * @param now all of its files
     * @param touched paths of those that came, went or hold other bytes; all others hold what they did
     * @throws org.calmpalette.core.BadInputException if palette.json cannot be understood
     */
    public Theme with(ThemeFiles now, Set<String> touched) {
        return Language.in(
                Language.english(),
                () -> read(
                        now,
                        touched.contains(Palette.FILE) ? palette(now, palette.name()) : palette,
                        new Reading(now, this, touched),
                        media instanceof ThemeMedia known ? known.with(now, touched) : new ThemeMedia(now)));
    }

    /** Everything that declares: {@link #sheets}, then {@link #attributes}. */
    public List<ThemeSheet> declaring() {
        return Stream.concat(sheets.stream(), attributes.stream()).toList();
    }

    /** Paths of the pictures that it holds, in order. */
    public List<String> pictures() {
        return media.paths().stream()
                .filter(p -> PictureKind.FORMATS.contains(Paths.ending(p).replace("jpeg", "jpg")))
                .toList();
    }

    /** A file that is not looked at; empty if it is, or is not there. */
    public Optional<SetAside> aside(String path) {
        return aside.stream().filter(a -> a.path().equals(path)).findFirst();
    }

    /** Reads pages and stylesheets as far as the limits go. */
    private static final class Reading {
        private final ThemeFiles files;
        private final Limits limits = new Limits();
        private final List<Page> pages = new ArrayList<>();
        private final List<ThemeSheet> sheets = new ArrayList<>();
        private final List<ThemeSheet> embedded = new ArrayList<>();
        private final List<ThemeSheet> attributes = new ArrayList<>();
        private final List<SetAside> aside = new ArrayList<>();
        private final Set<String> touched;
        private final Map<String, Page> readPages = new HashMap<>();
        private final Map<String, ThemeSheet> readSheets = new HashMap<>();
        private final Map<String, List<ThemeSheet>> readInside = new HashMap<>();
        private final Map<String, List<ThemeSheet>> readAttributes = new HashMap<>();
        /** The encodings of pages as they were; null where no page differs, and nothing was read before. */
        private Around before;
        /** Those as they are now, once all pages are read. */
        private Around around;

        /**
         * @param known what was read before; null for nothing
         * @param touched paths of the files that are not as they were then
         */
        Reading(ThemeFiles files, Theme known, Set<String> touched) {
            this.files = files;
            this.touched = touched;
            if (known == null) {
                return;
            }
            known.pages.forEach(p -> readPages.put(p.source().file(), p));
            known.sheets.forEach(s -> {
                if (Paths.isPage(s.path())) {
                    readInside.computeIfAbsent(s.path(), x -> new ArrayList<>()).add(s);
                } else {
                    readSheets.put(s.path(), s);
                }
            });
            known.attributes.forEach(a -> readAttributes
                    .computeIfAbsent(a.path(), x -> new ArrayList<>())
                    .add(a));
            if (touched.stream().anyMatch(Paths::isPage)) {
                before = Around.of(known.pages);
            }
        }

        void read(String path) {
            if (isOfSection(files, path)) {
                return;
            }
            try {
                if (Paths.isPage(path)) {
                    page(path);
                } else if (Paths.isStylesheet(path) && !GENERATED.contains(path)) {
                    sheet(path);
                }
            } catch (SourceText.UnreadableException e) {
                aside.add(Limits.unread(path, e));
            }
        }

        private void sheet(String path) {
            if (files.size(path) > Limits.SHEET) {
                aside.add(Limits.large(path, files.size(path), Limits.SHEET));
                return;
            }
            ThemeSheet sheet = readSheets.get(path);
            boolean same = sheet != null
                    && !touched.contains(path)
                    && (before == null || before.encoding(path).equals(around().encoding(path)));
            if (!same) {
                SourceText text = SourceText.stylesheet(path, files.read(path), around().encoding(path));
                sheet = new ThemeSheet(text, Stylesheet.read(text), 0);
            }
            SetAside beyond = limits.sheet(path, sheet.sheet());
            if (beyond == null) {
                sheets.add(sheet);
            } else {
                aside.add(beyond);
            }
        }

        private Around around() {
            around = around == null ? Around.of(pages) : around;
            return around;
        }

        private void page(String path) {
            if (files.size(path) > Limits.PAGE) {
                aside.add(Limits.large(path, files.size(path), Limits.PAGE));
                return;
            }
            Page known = touched.contains(path) ? null : readPages.get(path);
            Page page = known != null
                    ? known
                    : Page.read(path, files.read(path), Limits.ELEMENTS).orElse(null);
            SetAside beyond = page == null ? Limits.manyElements(path) : limits.page(path, page);
            List<ThemeSheet> inside = new ArrayList<>();
            if (beyond == null) {
                inside.addAll(known != null ? readInside.getOrDefault(path, List.of()) : embedded(page));
            }
            for (ThemeSheet sheet : inside) {
                beyond = beyond == null ? limits.sheet(path, sheet.sheet()) : beyond;
            }
            if (beyond != null) {
                aside.add(beyond);
                return;
            }
            pages.add(path.equals("index.html") ? 0 : pages.size(), page);
            embedded.addAll(inside);
            attributes.addAll(known != null ? readAttributes.getOrDefault(path, List.of()) : attributes(page));
        }

        private static List<ThemeSheet> embedded(Page page) {
            return page.styles().stream()
                    .map(span -> new ThemeSheet(page.source(), Stylesheet.read(text(page, span)), span.start()))
                    .toList();
        }

        private static List<ThemeSheet> attributes(Page page) {
            return page.styleAttributes().stream()
                    .map(span ->
                            new ThemeSheet(page.source(), Stylesheet.readAttribute(text(page, span)), span.start()))
                    .toList();
        }

        private static SourceText text(Page page, Page.Span span) {
            return SourceText.of(page.source().file(), page.source().text().substring(span.start(), span.end()));
        }
    }

    /**
     * The encodings in which stylesheets are read that name none.
     *
     * @param linked that of the first page that links a sheet, by the sheet's path
     * @param other for one that only other sheets load: that of all pages if they agree
     */
    private record Around(Map<String, Charset> linked, Charset other) {
        static Around of(List<Page> pages) {
            Map<String, Charset> linked = new HashMap<>();
            for (Page page : pages) {
                for (Element link : page.document().select("link[href][rel~=(?i)stylesheet]")) {
                    Paths.resolve(page.source().file(), link.attr("href"))
                            .ifPresent(p -> linked.putIfAbsent(p, page.source().charset()));
                }
            }
            List<Charset> all =
                    pages.stream().map(p -> p.source().charset()).distinct().toList();
            return new Around(linked, all.size() == 1 ? all.get(0) : StandardCharsets.UTF_8);
        }

        Charset encoding(String path) {
            return linked.getOrDefault(path, other);
        }
    }
}
