package org.calmpalette.app.sections;

import com.github.benmanes.caffeine.cache.Cache;
import com.github.benmanes.caffeine.cache.Caffeine;
import jakarta.servlet.http.HttpServletRequest;
import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.time.Duration;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.TreeMap;
import java.util.TreeSet;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import java.util.stream.IntStream;
import java.util.stream.Stream;
import org.calmpalette.app.accounts.SignedIn;
import org.calmpalette.app.frames.FrameAddresses;
import org.calmpalette.app.themes.OpenTheme;
import org.calmpalette.app.themes.Snapshot;
import org.calmpalette.app.themes.ThemeService;
import org.calmpalette.app.web.Go;
import org.calmpalette.app.web.NotFoundException;
import org.calmpalette.app.web.Notices;
import org.calmpalette.app.web.Strip;
import org.calmpalette.core.BadInputException;
import org.calmpalette.core.intake.ThemeZip;
import org.calmpalette.core.page.Page;
import org.calmpalette.core.render.Rendered;
import org.calmpalette.core.section.Blocks;
import org.calmpalette.core.section.OwnSections;
import org.calmpalette.core.section.SectionKit;
import org.calmpalette.core.section.Sections;
import org.calmpalette.core.section.Shelf;
import org.calmpalette.core.setting.Binding;
import org.calmpalette.core.setting.Kinds;
import org.calmpalette.core.setting.Place;
import org.calmpalette.core.setting.Setting;
import org.calmpalette.core.survey.Finding;
import org.calmpalette.core.survey.SectionFindings;
import org.calmpalette.core.theme.Theme;
import org.calmpalette.core.theme.ThemeFiles;
import org.calmpalette.core.usage.Painted;
import org.jsoup.nodes.Element;
import org.springframework.http.ContentDisposition;
import org.springframework.http.HttpHeaders;
import org.springframework.http.MediaType;
import org.springframework.http.ResponseEntity;
import org.springframework.security.core.annotation.AuthenticationPrincipal;
import org.springframework.stereotype.Controller;
import org.springframework.ui.Model;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestMapping;
import org.springframework.web.bind.annotation.RequestParam;
import org.springframework.web.bind.annotation.ResponseBody;
import org.springframework.web.multipart.MultipartFile;
import org.springframework.web.servlet.mvc.method.annotation.StreamingResponseBody;
import org.springframework.web.util.UriUtils;
import tools.jackson.databind.json.JsonMapper;

/** Sections: a shelf of them, those on a page and their order, and those that the theme keeps. */
@Controller
@RequestMapping("/themes/{id}/sections")
class SectionsController {
    /** Bytes of a section that is brought in. */
    private static final long LARGEST = 20_000_000;

    private final ThemeService themes;
    private final FrameAddresses addresses;
    private final Notices notices;

    /** What somebody is typing, by what it looks like. */
    private record Trial(long theme, long account, String kit, String shown) {}

    private static final int MOST_OFFERED = 1_000;
    private static final long TRIALS = 8_000_000;

    private final Cache<Trial, String> trials = Caffeine.newBuilder()
            .maximumWeight(TRIALS)
            .<Trial, String>weigher((trial, page) -> page.length())
            .expireAfterAccess(Duration.ofMinutes(30))
            .build();

    SectionsController(ThemeService themes, FrameAddresses addresses, Notices notices) {
        this.themes = themes;
        this.addresses = addresses;
        this.notices = notices;
    }

    /** One on the shelf. @param own whether the theme keeps it */
    public record Kit(String key, String label, String about, int settings, boolean own) {
        static Kit of(SectionKit k, boolean own) {
            return new Kit(k.key(), k.label(), k.about(), k.settings().size(), own);
        }
    }

    /**
     * A block of the page.
     *
     * @param first key of its first setting, or empty
     * @param made what it was made from, or empty
     * @param inside whether it stands in the page's main
     * @param depth how many open containers it stands in
     * @param moves whether it is no frame of the page and no cell
     * @param precedes whether a section may go before it
     * @param holds whether a section may go into it
     * @param opens whether it may be looked into, and {@code open} whether it is
     * @param up and down whether it can go there
     */
    public record Row(
            int at,
            String name,
            String words,
            String made,
            int settings,
            String first,
            boolean inside,
            int depth,
            boolean moves,
            boolean precedes,
            boolean holds,
            boolean opens,
            boolean open,
            boolean up,
            boolean down) {
        /** Of the indents that the style has. */
        public int indent() {
            return Math.min(depth, 4);
        }

        /** What stands for the place after the last that it holds. */
        public int end() {
            return Blocks.endOf(at);
        }
    }

    @GetMapping
    String view(
            @PathVariable long id,
            @RequestParam(defaultValue = "") String page,
            @RequestParam(defaultValue = "") String kit,
            @RequestParam(defaultValue = "") String name,
            @RequestParam(defaultValue = "0") int in,
            @AuthenticationPrincipal SignedIn me,
            Model model,
            HttpServletRequest request) {
        OpenTheme open = themes.open(id, me);
        Theme theme = open.theme();
        Strip strip = Strip.of(theme, addresses.ofSnapshot(open.head().id()), page, request);
        List<Kit> kits = new ArrayList<>();
        try {
            SectionKit.of(theme.files()).forEach(k -> kits.add(Kit.of(k, true)));
        } catch (BadInputException e) {
            model.addAttribute("broken", e.getMessage() + " " + e.mend());
        }
        Shelf.kits().stream()
                .filter(k -> kits.stream().noneMatch(o -> o.key().equals(k.key())))
                .forEach(k -> kits.add(Kit.of(k, false)));
        boolean known = Sections.names(theme).contains(name);
        model.addAttribute("open", open);
        model.addAttribute("strip", strip);
        model.addAttribute("name", known ? name : "");
        model.addAttribute("title", known ? theme.palette().placeLabel(name) : "Sections");
        model.addAttribute(
                "marked", known ? List.of(new Painted("[data-section=\"" + name + "\"]", "content", "")) : List.of());
        model.addAttribute("kits", kits);
        model.addAttribute(
                "chosen",
                kits.stream().anyMatch(k -> k.key().equals(kit))
                        ? kit
                        : kits.get(0).key());
        Optional<Page> shown = theme.pages().stream()
                .filter(p -> p.source().file().equals(strip.page()))
                .findFirst();
        model.addAttribute("column", shown.filter(Blocks::hasMain).isPresent());
        List<Blocks.Block> blocks = shown.map(p -> Blocks.of(theme, p, in)).orElse(List.of());
        List<Row> rows = rows(theme, blocks, kits);
        model.addAttribute("asked", in);
        model.addAttribute("rows", rows);
        model.addAttribute("unlisted", blocks.size() - rows.size());
        return "sections/sections";
    }

    /** Of the parts that are no sections so many are listed; all sections are. */
    private static final int MOST_PARTS = 200;

    private static List<Row> rows(Theme theme, List<Blocks.Block> blocks, List<Kit> kits) {
        return IntStream.range(0, blocks.size())
                .filter(i -> i < MOST_PARTS || blocks.get(i).isSection())
                .mapToObj(i -> {
                    Blocks.Block b = blocks.get(i);
                    List<Setting> own = theme.palette().settings().stream()
                            .filter(s -> b.isSection() && s.place().equals(b.name()))
                            .toList();
                    return new Row(
                            b.at(),
                            b.name(),
                            b.words(),
                            kits.stream()
                                    .filter(k -> k.key().equals(b.kind()))
                                    .findFirst()
                                    .map(Kit::label)
                                    .orElse(b.kind()),
                            own.size(),
                            own.isEmpty() ? "" : own.get(0).key(),
                            b.inside(),
                            b.depth(),
                            b.sort() == Blocks.Sort.PART,
                            b.sort() != Blocks.Sort.CELL,
                            b.canBeFilled(),
                            b.holds(),
                            b.open(),
                            Blocks.canMove(blocks, i, -1),
                            Blocks.canMove(blocks, i, 1));
                })
                .toList();
    }

    /** A section by itself, to be looked at: nothing in it runs or loads, and it is an origin of its own. */
    @GetMapping("/kit/{kit}")
    ResponseEntity<byte[]> specimen(
            @PathVariable long id,
            @PathVariable String kit,
            @RequestParam(defaultValue = "") String tried,
            @AuthenticationPrincipal SignedIn me) {
        OpenTheme open = themes.open(id, me);
        String page = trials.getIfPresent(new Trial(id, me.id(), kit, tried));
        if (page == null) {
            SectionKit known = known(open.theme(), kit);
            page = open.read().derived("specimen of " + kit, () -> Sections.specimen(known));
        }
        return ResponseEntity.ok()
                .contentType(new MediaType(MediaType.TEXT_HTML, StandardCharsets.UTF_8))
                .header("X-Content-Type-Options", "nosniff")
                .header(
                        "Content-Security-Policy",
                        "sandbox; default-src 'none'; style-src 'unsafe-inline'; img-src data:; media-src data:; frame-ancestors 'self'")
                .body(page.getBytes(StandardCharsets.UTF_8));
    }

    private static SectionKit known(Theme theme, String key) {
        List<SectionKit> all = new ArrayList<>(SectionKit.of(theme.files()));
        all.addAll(Shelf.kits());
        return all.stream().filter(k -> k.key().equals(key)).findFirst().orElseThrow(NotFoundException::new);
    }

    @PostMapping("/put")
    String put(
            @PathVariable long id,
            @RequestParam long base,
            @RequestParam(defaultValue = "") String page,
            @RequestParam(defaultValue = "") String kit,
            @RequestParam(defaultValue = "") String name,
            @RequestParam(defaultValue = "0") int before,
            @AuthenticationPrincipal SignedIn me) {
        Snapshot made = themes.change(
                id, base, me, theme -> Sections.put(theme, known(theme, kit), theme.page(page), name, before));
        return done(id, page, made, name(made));
    }

    /** The section that a change put on a page: of all settings its come last. */
    private String name(Snapshot made) {
        List<Place> places = themes.read(made).theme().palette().places();
        return places.isEmpty() ? "" : places.get(places.size() - 1).key();
    }

    @PostMapping("/move")
    String move(
            @PathVariable long id,
            @RequestParam long base,
            @RequestParam(defaultValue = "") String page,
            @RequestParam(defaultValue = "0") int at,
            @RequestParam(defaultValue = "1") int by,
            @AuthenticationPrincipal SignedIn me) {
        Snapshot made =
                themes.change(id, base, me, theme -> Blocks.moved(theme, theme.page(page), at, by < 0 ? -1 : 1));
        return done(id, page, made, "");
    }

    /** Where a row was dragged to. */
    @PostMapping("/place")
    String place(
            @PathVariable long id,
            @RequestParam long base,
            @RequestParam(defaultValue = "") String page,
            @RequestParam(defaultValue = "") String key,
            @RequestParam(defaultValue = "") String before,
            @AuthenticationPrincipal SignedIn me) {
        Snapshot made = themes.change(
                id,
                base,
                me,
                theme -> Blocks.placed(theme, theme.page(page), at(theme, page, key), at(theme, page, before)));
        return done(id, page, made, key.startsWith(ROW) ? "" : key);
    }

    /** Rows of what is no section are named by their place. */
    private static final String ROW = "at:";

    private static int at(Theme theme, String page, String row) {
        if (row.startsWith(ROW)) {
            String at = row.substring(ROW.length());
            return at.matches("\\d{1,6}") ? Integer.parseInt(at) : -1;
        }
        return Blocks.of(theme, theme.page(page)).stream()
                .filter(b -> b.isSection() && b.name().equals(row))
                .mapToInt(Blocks.Block::at)
                .findFirst()
                .orElse(-1);
    }

    @PostMapping("/copy")
    String copy(
            @PathVariable long id,
            @RequestParam long base,
            @RequestParam(defaultValue = "") String page,
            @RequestParam(defaultValue = "") String name,
            @AuthenticationPrincipal SignedIn me) {
        Snapshot made = themes.change(id, base, me, theme -> {
            Page there = theme.page(page);
            String kind = Blocks.of(theme, there).stream()
                    .filter(b -> b.name().equals(name))
                    .findFirst()
                    .map(Blocks.Block::kind)
                    .orElse("");
            return Sections.copied(theme, known(theme, kind), there, name);
        });
        return done(id, page, made, name(made));
    }

    @PostMapping("/remove")
    String remove(
            @PathVariable long id,
            @RequestParam long base,
            @RequestParam(defaultValue = "") String page,
            @RequestParam(defaultValue = "") String name,
            @AuthenticationPrincipal SignedIn me) {
        Snapshot made = themes.change(id, base, me, theme -> Sections.removed(theme, theme.page(page), name));
        return done(id, page, made, "");
    }

    private String done(long id, String page, Snapshot made, String name) {
        notices.done(made.note());
        return Go.to(
                "/themes/" + id + "/sections?page=" + encoded(page) + (name.isEmpty() ? "" : "&name=" + encoded(name)));
    }

    /** Takes a section of the shelf, or one that the theme keeps, into the theme under another name. */
    @PostMapping("/take")
    String take(
            @PathVariable long id,
            @RequestParam long base,
            @RequestParam(defaultValue = "") String kit,
            @RequestParam(defaultValue = "") String name,
            @AuthenticationPrincipal SignedIn me) {
        Snapshot made = themes.change(id, base, me, theme -> {
            SectionKit from = known(theme, kit);
            return OwnSections.taken(theme, from, name.isBlank() ? from.label() + ", own" : name.strip());
        });
        notices.done(made.note());
        return Go.to("/themes/" + id + "/sections/own/" + newest(made));
    }

    /** The section that a change put into the theme: the one that the note names. */
    private String newest(Snapshot made) {
        return SectionKit.of(themes.read(made).theme().files()).stream()
                .filter(k -> made.note().contains("“" + k.label() + "”"))
                .map(SectionKit::key)
                .max(java.util.Comparator.comparingInt(String::length).thenComparing(k -> k))
                .orElse("");
    }

    /** Makes a section of a part that was pointed at. */
    @PostMapping("/from")
    String from(
            @PathVariable long id,
            @RequestParam long base,
            @RequestParam(defaultValue = "") String page,
            @RequestParam(defaultValue = "0") int at,
            @RequestParam(defaultValue = "") String name,
            @AuthenticationPrincipal SignedIn me) {
        Snapshot made = themes.change(id, base, me, theme -> {
            Page there = theme.page(page);
            String label = name.strip();
            if (label.isEmpty() && at > 0 && at < there.elements().size()) {
                Element heading = there.elements().get(at).selectFirst("h1, h2, h3, h4");
                String words = heading == null ? "" : heading.text().strip();
                label = words.isEmpty() ? "Part of " + page : words.length() > 40 ? words.substring(0, 40) : words;
            }
            return OwnSections.from(new Rendered(theme), there, at, label);
        });
        notices.done(made.note());
        return Go.to("/themes/" + id + "/sections/own/" + newest(made));
    }

    /** A section as files, to be taken to another theme. */
    @GetMapping("/{kit}.zip")
    ResponseEntity<StreamingResponseBody> zip(
            @PathVariable long id, @PathVariable String kit, @AuthenticationPrincipal SignedIn me) {
        SectionKit known = known(themes.open(id, me).theme(), kit);
        TreeMap<String, byte[]> files = new TreeMap<>();
        known.files(known.json(known.label()))
                .forEach((path, bytes) -> files.put(path.substring(SectionKit.FOLDER.length()), bytes));
        return ResponseEntity.ok()
                .header(HttpHeaders.CONTENT_TYPE, "application/zip")
                .header(
                        HttpHeaders.CONTENT_DISPOSITION,
                        ContentDisposition.attachment()
                                .filename("section-" + kit + ".zip", StandardCharsets.UTF_8)
                                .build()
                                .toString())
                .body(out -> ThemeZip.write(ThemeFiles.of(files), out));
    }

    @PostMapping("/bring")
    String bring(
            @PathVariable long id,
            @RequestParam(defaultValue = "0") long base,
            @RequestParam MultipartFile file,
            @AuthenticationPrincipal SignedIn me)
            throws IOException {
        themes.stored(id, me);
        String name = file.getOriginalFilename() == null ? "section" : file.getOriginalFilename();
        if (file.isEmpty() || file.getSize() > LARGEST) {
            throw new BadInputException(
                    file.isEmpty()
                            ? "No file was chosen."
                            : "“" + name + "” is larger than " + LARGEST / 1_000_000 + " MB.",
                    "Choose the zip of one section.");
        }
        TreeMap<String, byte[]> files = new TreeMap<>();
        Path zip = Files.createTempFile("section", ".zip");
        try {
            file.transferTo(zip);
            ThemeZip.read(zip, name, files::put, (done, total, at) -> {});
        } finally {
            Files.delete(zip);
        }
        String wanted = name.replaceFirst("(?i)\\.zip$", "").replaceFirst("^section-", "");
        Snapshot made = themes.change(id, base, me, theme -> OwnSections.brought(theme, files, wanted));
        notices.done(made.note());
        return Go.to("/themes/" + id + "/sections");
    }

    @GetMapping("/own/{kit}")
    String edit(@PathVariable long id, @PathVariable String kit, @AuthenticationPrincipal SignedIn me, Model model) {
        OpenTheme open = themes.open(id, me);
        Theme theme = open.theme();
        String folder = SectionKit.FOLDER + kit + "/";
        if (!theme.files().has(folder + SectionKit.JSON)) {
            throw new NotFoundException();
        }
        model.addAttribute("open", open);
        model.addAttribute("kit", kit);
        model.addAttribute(
                "label",
                SectionKit.of(theme.files()).stream()
                        .filter(k -> k.key().equals(kit))
                        .findFirst()
                        .map(SectionKit::label)
                        .orElse(kit));
        model.addAttribute("known", known(theme));
        model.addAttribute("html", text(theme, folder + SectionKit.HTML));
        model.addAttribute("css", text(theme, folder + SectionKit.CSS));
        model.addAttribute("json", text(theme, folder + SectionKit.JSON));
        return "sections/edit";
    }

    /** What whoever edits a section can write: what the theme has, and what there is of settings. */
    private static String known(Theme theme) {
        Set<String> classes = new TreeSet<>();
        theme.pages().forEach(p -> p.document().getAllElements().forEach(e -> classes.addAll(e.classNames())));
        Set<String> properties = new TreeSet<>(theme.palette().properties().keySet());
        return JsonMapper.shared()
                .writeValueAsString(Map.of(
                        "classes", classes.stream().limit(MOST_OFFERED).toList(),
                        "properties", properties.stream().limit(MOST_OFFERED).toList(),
                        "bindings",
                                Arrays.stream(Binding.values())
                                        .flatMap(b -> b == Binding.ITEMS
                                                ? Stream.of(b.attribute())
                                                : Stream.of(b.attribute(), b.itemAttribute()))
                                        .toList(),
                        "kinds", Kinds.names()));
    }

    /**
     * What came of trying a section while it is typed.
     *
     * @param shown names what is shown of it then; empty if it cannot be used
     * @param file that a trouble is in, or what the survey would find
     * @param line from 1, or 0 where none is told
     * @param message what is the matter and how to mend it; empty if nothing is
     */
    public record Tried(String shown, String file, int line, String message) {}

    private static final Pattern AT =
            Pattern.compile("^(section\\.(?:html|css|json))(?:, line (\\d+))?.*", Pattern.DOTALL);

    @PostMapping(value = "/own/{kit}/try", produces = MediaType.APPLICATION_JSON_VALUE)
    @ResponseBody
    Tried tried(
            @PathVariable long id,
            @PathVariable String kit,
            @RequestParam(defaultValue = "") String html,
            @RequestParam(defaultValue = "") String css,
            @RequestParam(defaultValue = "") String json,
            @AuthenticationPrincipal SignedIn me) {
        OpenTheme open = themes.open(id, me);
        try {
            SectionKit typed = OwnSections.typed(
                    open.theme(),
                    kit,
                    json.replace("\r\n", "\n"),
                    html.replace("\r\n", "\n"),
                    css.replace("\r\n", "\n"));
            String page = Sections.specimen(typed);
            String shown = Integer.toHexString(page.hashCode());
            trials.put(new Trial(id, me.id(), kit, shown), page);
            // What is wrong with what can be used: told at its line, and kept if its maker wants it so.
            List<Finding> findings = SectionFindings.of(typed, json.replace("\r\n", "\n"));
            if (findings.isEmpty()) {
                return new Tried(shown, "", 0, "");
            }
            Finding first = findings.get(0);
            return new Tried(
                    shown,
                    first.file(),
                    first.line(),
                    first.file() + ", line " + first.line() + ": " + first.message() + " " + first.mend()
                            + (findings.size() == 1 ? "" : " And " + (findings.size() - 1) + " more."));
        } catch (BadInputException e) {
            Matcher at = AT.matcher(e.getMessage());
            boolean told = at.matches();
            return new Tried(
                    "",
                    told ? at.group(1) : "",
                    told && at.group(2) != null ? Integer.parseInt(at.group(2)) : 0,
                    e.getMessage() + " " + e.mend());
        }
    }

    private static String text(Theme theme, String path) {
        return theme.files().has(path) ? new String(theme.files().read(path), StandardCharsets.UTF_8) : "";
    }

    @PostMapping("/own/{kit}")
    String keep(
            @PathVariable long id,
            @PathVariable String kit,
            @RequestParam long base,
            @RequestParam(defaultValue = "") String html,
            @RequestParam(defaultValue = "") String css,
            @RequestParam(defaultValue = "") String json,
            @AuthenticationPrincipal SignedIn me) {
        Snapshot made = themes.change(
                id,
                base,
                me,
                theme -> OwnSections.kept(
                        theme, kit, json.replace("\r\n", "\n"), html.replace("\r\n", "\n"), css.replace("\r\n", "\n")));
        notices.done(made.note());
        return Go.to("/themes/" + id + "/sections/own/" + kit);
    }

    private static String encoded(String text) {
        return UriUtils.encodeQueryParam(text, StandardCharsets.UTF_8);
    }
}
