package org.calmpalette.app.pictures;

import jakarta.servlet.http.HttpServletRequest;
import java.io.IOException;
import java.math.BigDecimal;
import java.math.RoundingMode;
import java.nio.charset.StandardCharsets;
import java.util.Comparator;
import java.util.LinkedHashMap;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.stream.Collectors;
import org.calmpalette.app.accounts.SignedIn;
import org.calmpalette.app.frames.FrameAddresses;
import org.calmpalette.app.themes.OpenTheme;
import org.calmpalette.app.themes.Snapshot;
import org.calmpalette.app.themes.ThemeService;
import org.calmpalette.app.web.Go;
import org.calmpalette.app.web.NotFoundException;
import org.calmpalette.app.web.Notices;
import org.calmpalette.app.web.Pager;
import org.calmpalette.core.BadInputException;
import org.calmpalette.core.background.StripGradient;
import org.calmpalette.core.cascade.Understanding;
import org.calmpalette.core.change.Change;
import org.calmpalette.core.change.PictureChange;
import org.calmpalette.core.color.Tint;
import org.calmpalette.core.page.Paths;
import org.calmpalette.core.part.BackgroundChange;
import org.calmpalette.core.picture.Lighter;
import org.calmpalette.core.picture.PictureSize;
import org.calmpalette.core.render.Measures;
import org.calmpalette.core.setting.Bands;
import org.calmpalette.core.setting.Subject;
import org.calmpalette.core.survey.Anchor;
import org.calmpalette.core.theme.Theme;
import org.calmpalette.core.usage.AbsentPicture;
import org.calmpalette.core.value.BackgroundLayer;
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
import org.springframework.web.util.UriComponentsBuilder;
import org.springframework.web.util.UriUtils;

/** The pictures of a theme, and what every window width shows of them. */
@Controller
@RequestMapping("/themes/{id}")
class PicturesController {
    /** Any layer, to try values on. */
    private static final BackgroundLayer PLAIN = BackgroundLayer.read(new BackgroundLayer.Longhands(
                    "none", "0%", "0%", "auto", "repeat", "padding-box", "border-box", "scroll"))
            .orElseThrow()
            .get(0);

    private final ThemeService themes;
    private final FrameAddresses addresses;
    private final Notices notices;

    PicturesController(ThemeService themes, FrameAddresses addresses, Notices notices) {
        this.themes = themes;
        this.addresses = addresses;
        this.notices = notices;
    }

    /** Pictures on the shelf at a time. */
    private static final int SHELF = 60;

    /** Tiles of pictures that are not there; a page of an imported theme may name thousands. */
    private static final int MOST_ABSENT = 60;

    /** A picture that is named and not there. @param about why, within a line @param where what names it */
    public record Absent(String key, String name, String about, String where) {
        static Absent of(AbsentPicture p) {
            String where = p.addresses().get(0).file() + ", line "
                    + p.addresses().get(0).line();
            return new Absent(
                    p.key(),
                    p.name().isEmpty() ? p.key() : p.name(),
                    p.isOnAnotherHost()
                            ? "on " + p.key().replaceFirst("^[^/]*//", "").replaceFirst("[/?#].*", "")
                            : p.path().isEmpty() ? "outside of the theme" : "missing",
                    p.addresses().size() == 1 ? where : p.addresses().size() + " uses");
        }
    }

    /** A picture on the shelf. @param about its size and weight @param where what names it */
    public record Shelved(String path, String name, String address, String about, String where) {}

    @GetMapping("/pictures")
    String pictures(
            @PathVariable long id,
            @RequestParam(defaultValue = "") String picture,
            @RequestParam(defaultValue = "") String use,
            @RequestParam(defaultValue = "") String page,
            @RequestParam(defaultValue = "-1") int from,
            @RequestParam(defaultValue = "") String find,
            @AuthenticationPrincipal SignedIn me,
            Model model) {
        OpenTheme open = themes.open(id, me);
        String base = addresses.ofSnapshot(open.head().id());
        Map<String, List<String>> uses =
                open.read().derived("uses of pictures", () -> PictureChange.uses(open.theme()));
        Map<String, Measures> measures = themes.measures(open);
        String chosen = uses.containsKey(picture) ? picture : first(open, uses.keySet());
        String sought = find.strip().toLowerCase(Locale.ROOT);
        List<String> found = uses.keySet().stream()
                .filter(p -> p.toLowerCase(Locale.ROOT).contains(sought))
                .toList();
        // The one that is looked at is on the shelf, unless another page of it was asked for.
        Pager pager = Pager.of(from < 0 ? Math.max(0, found.indexOf(chosen)) : from, found.size(), SHELF);
        model.addAttribute("open", open);
        model.addAttribute("base", base);
        model.addAttribute(
                "shelf",
                pager.of(found).stream()
                        .map(p -> new Shelved(
                                p,
                                p.substring(p.lastIndexOf('/') + 1),
                                base + Paths.address(p),
                                about(open, p),
                                where(uses.get(p))))
                        .toList());
        model.addAttribute("pager", pager);
        model.addAttribute("find", find.strip());
        model.addAttribute("many", uses.size() > SHELF);
        model.addAttribute(
                "absent", open.read().derived("absent pictures", () -> AbsentPicture.of(open.theme()).stream()
                        .limit(MOST_ABSENT)
                        .map(Absent::of)
                        .toList()));
        if (!chosen.isEmpty()) {
            PictureLook look = PictureLook.of(open, chosen, use, page, measures);
            model.addAttribute("look", look);
            model.addAttribute(
                    "first",
                    look.swept() == null
                            ? ""
                            : look.swept().mends().stream()
                                    .map(m -> m.values().get("background-position"))
                                    .filter(v -> v != null)
                                    .findFirst()
                                    .orElse(Anchor.ALL.get(0)));
            model.addAttribute(
                    "copies",
                    open.theme().media().copies(chosen).entrySet().stream()
                            .map(c -> c.getKey() + " px, "
                                    + weight(open.theme().files().size(c.getValue())))
                            .toList());
            model.addAttribute("uses", uses.get(chosen));
            model.addAttribute("slots", Slot.of(open.theme(), chosen, look.swept()));
            model.addAttribute("writes", Lighter.writes(chosen));
            model.addAttribute("ways", Tint.Way.values());
            model.addAttribute("recolours", Lighter.recolors(chosen));
            model.addAttribute(
                    "becomesWebp",
                    Lighter.writes(chosen) && !Paths.ending(chosen).equals("webp"));
            model.addAttribute("compresses", Lighter.compresses(chosen));
            model.addAttribute("address", base + Paths.address(chosen));
            model.addAttribute("about", about(open, chosen));
        }
        model.addAttribute(
                "unseen",
                open.theme().pages().stream()
                        .filter(p -> open.read().painted(p).isEmpty())
                        .map(p -> p.source().file())
                        .toList());
        model.addAttribute("anchors", Anchor.ALL);
        model.addAttribute("sizes", PictureLook.Wanted.SIZES);
        model.addAttribute("repeats", PictureLook.Wanted.REPEATS);
        model.addAttribute("turns", open.read().turns());
        model.addAttribute("unmeasured", themes.unmeasured(open));
        return "pictures/pictures";
    }

    /**
     * A band that a picture may be cut for.
     *
     * @param width that the part needs so that dense screens show it sharp, in its pixels; 0 where nobody measured
     */
    public record Slot(String key, String label, int width, int height) {
        static List<Slot> of(Theme theme, String picture, PictureLook.Swept swept) {
            Bands bands = theme.palette().bands();
            return bands.list().stream()
                    .filter(b -> !b.equals(bands.widest())
                            && !theme.palette().naming(picture, b).isEmpty())
                    .map(b -> {
                        double[] room = swept == null ? new double[2] : swept.largest(bands.from(b), b.to());
                        return new Slot(
                                b.key(), b.label() + ", " + bands.inWords(b), (int) Math.ceil(2 * room[0]), (int)
                                        Math.ceil(2 * room[1]));
                    })
                    .toList();
        }
    }

    /** Of all pictures the largest that is a background is looked at first: there is most to say about it. */
    private static String first(OpenTheme open, Set<String> shelf) {
        Set<String> painted = new LinkedHashSet<>();
        open.theme()
                .pages()
                .forEach(p -> open.read().painted(p).orElse(List.of()).forEach(x -> painted.add(x.path())));
        return painted.stream()
                .filter(shelf::contains)
                .max(Comparator.comparingLong(p -> open.theme()
                        .media()
                        .facts(p)
                        .map(f -> (long) f.width() * f.height())
                        .orElse(0L)))
                .orElse(shelf.stream().findFirst().orElse(""));
    }

    private static String where(List<String> uses) {
        return uses.isEmpty() ? "nothing uses it" : uses.size() == 1 ? uses.get(0) : uses.size() + " uses";
    }

    private static String about(OpenTheme open, String path) {
        return open.theme()
                .media()
                .facts(path)
                .map(f -> (f.width() > 0 ? f.width() + " by " + f.height() + ", " : "") + weight(f.bytes()))
                .orElse("");
    }

    static String weight(long bytes) {
        return bytes < 1000
                ? bytes + " B"
                : bytes < 1_000_000
                        ? Math.round(bytes / 1000.0) + " kB"
                        : String.format(Locale.ROOT, "%.1f MB", bytes / 1e6);
    }

    /** The second drawing: the picture with another anchor, size or repeat. */
    @GetMapping("/pictures/try")
    String tried(
            @PathVariable long id,
            @RequestParam(defaultValue = "") String picture,
            @RequestParam(defaultValue = "") String use,
            @RequestParam(defaultValue = "") String page,
            @RequestParam(defaultValue = "left top") String anchor,
            @RequestParam(defaultValue = "auto") String size,
            @RequestParam(defaultValue = "no-repeat") String repeat,
            @AuthenticationPrincipal SignedIn me,
            Model model) {
        OpenTheme open = themes.open(id, me);
        model.addAttribute("open", open);
        Map<String, Measures> measures = themes.measures(open);
        PictureLook look = PictureLook.of(open, picture, use, page, measures);
        if (look.swept() != null) {
            PictureLook.Wanted wanted = wanted(anchor, size, repeat);
            model.addAttribute("look", look);
            model.addAttribute(
                    "tried",
                    PictureLook.tried(
                            open,
                            look.use(),
                            look.subject(),
                            measures.get(look.use().painted().page()),
                            wanted));
        }
        return "pictures/drawing :: tried";
    }

    private static PictureLook.Wanted wanted(String anchor, String size, String repeat) {
        PictureLook.Wanted wanted = new PictureLook.Wanted(anchor.strip(), size.strip(), repeat.strip());
        boolean known = anchor.length() + size.length() + repeat.length() <= 200
                && wanted.on(PLAIN).isPresent();
        if (!known) {
            throw new BadInputException(
                    "“" + anchor + "”, “" + size + "” and “" + repeat + "” do not place a picture.",
                    "Write them as CSS does, in keywords, px and %: center top, 100% auto, repeat-x.");
        }
        return wanted;
    }

    /** Marks what must stay in sight, or takes the mark away. */
    @PostMapping("/pictures/subject")
    String subject(
            @PathVariable long id,
            @RequestParam long base,
            @RequestParam(defaultValue = "") String picture,
            @RequestParam(defaultValue = "") String name,
            @RequestParam(defaultValue = "") String left,
            @RequestParam(defaultValue = "") String top,
            @RequestParam(defaultValue = "") String width,
            @RequestParam(defaultValue = "") String height,
            @RequestParam(defaultValue = "false") boolean remove,
            @AuthenticationPrincipal SignedIn me) {
        Snapshot made = themes.change(id, base, me, theme -> {
            if (!theme.files().has(picture)) {
                throw new BadInputException(
                        "There is no picture " + picture + " in the theme any more.", "Load the page again.");
            }
            if (remove) {
                return Change.of("Nothing is marked in " + picture + " any more")
                        .withPalette(theme, theme.palette().withoutSubject(picture));
            }
            Subject subject = new Subject(
                    picture,
                    name.strip(),
                    number("left", left),
                    number("top", top),
                    number("width", width),
                    number("height", height));
            return Change.of("Marked " + subject.words() + " in " + picture)
                    .withPalette(theme, theme.palette().withSubject(subject));
        });
        notices.done(made.note());
        return back(id, picture, "");
    }

    private static BigDecimal number(String field, String text) {
        try {
            return new BigDecimal(text.strip())
                    .setScale(2, RoundingMode.HALF_UP)
                    .stripTrailingZeros();
        } catch (NumberFormatException e) {
            throw new BadInputException(
                    "The " + field + " of the box is no number.",
                    "Draw the box over the picture, or write hundredths of it, such as 12.5.");
        }
    }

    /** Changes how a picture lies in its box. */
    @PostMapping("/pictures/lay")
    String lay(
            @PathVariable long id,
            @RequestParam long base,
            @RequestParam(defaultValue = "") String picture,
            @RequestParam(defaultValue = "") String use,
            @RequestParam(defaultValue = "") String page,
            @RequestParam Map<String, String> all,
            @AuthenticationPrincipal SignedIn me) {
        Snapshot made = themes.change(id, base, me, theme -> {
            OpenTheme open = themes.open(id, me);
            return lying(open, PictureLook.of(open, picture, use, page, themes.measures(open)), all);
        });
        notices.done(made.note());
        return back(id, picture, page);
    }

    private static Change lying(OpenTheme open, PictureLook look, Map<String, String> given) {
        PictureLook.Use chosen = look.use();
        if (chosen == null) {
            throw new BadInputException(look.path() + " is not a background any more.", "Load the page again.");
        }
        if (given.containsKey("gradient")) {
            return open.read()
                    .gallery()
                    .pixels(look.path())
                    .flatMap(StripGradient::of)
                    .map(g -> BackgroundChange.asGradient(open.read().rendered(), chosen.painted(), g))
                    .orElseThrow(() -> new BadInputException(
                            look.path() + " is no strip that a gradient could stand for.", "Load the page again."));
        }
        Map<String, String> all = new LinkedHashMap<>(given);
        if (given.containsKey("anchor") && look.swept() != null) {
            // The whole form comes; what is as it was is not written anew.
            PictureLook.Wanted now = look.swept().now();
            PictureLook.Wanted then = wanted(
                    given.get("anchor"),
                    given.getOrDefault("size", now.size()),
                    given.getOrDefault("repeat", now.repeat()));
            all.put("background-position", then.anchor().equals(now.anchor()) ? "" : then.anchor());
            all.put("background-size", then.size().equals(now.size()) ? "" : then.size());
            all.put("background-repeat", then.repeat().equals(now.repeat()) ? "" : then.repeat());
        }
        Map<String, String> values = new LinkedHashMap<>();
        for (String property :
                List.of("background-position", "background-size", "background-repeat", "background-color")) {
            Optional.ofNullable(all.get(property)).filter(v -> !v.isBlank()).ifPresent(v -> {
                boolean known = v.length() <= 80
                        && !v.contains(";")
                        && !v.contains("}")
                        && !v.contains("/*")
                        && Understanding.of(property, v) == Understanding.FULL;
                if (!known) {
                    throw new BadInputException(
                            "“" + v + "” is no value of " + property + ".",
                            "Write it as CSS does, such as center top.");
                }
                values.put(property, v.strip());
            });
        }
        if (values.isEmpty()) {
            throw new BadInputException("Nothing was changed.", "Choose another anchor, size or repeat first.");
        }
        String words = values.entrySet().stream()
                .map(e -> e.getKey().replace("background-", "") + " " + e.getValue())
                .collect(Collectors.joining(", "));
        return BackgroundChange.of(
                open.read().rendered(),
                chosen.painted(),
                values,
                look.path() + " in " + chosen.selector() + ": " + words);
    }

    /** What a lighter picture would be, side by side with the one that is there. */
    @GetMapping("/pictures/lighter")
    String lighter(
            @PathVariable long id,
            @RequestParam(defaultValue = "") String picture,
            @RequestParam(defaultValue = "2560") int width,
            @RequestParam(defaultValue = "80") int quality,
            @RequestParam(defaultValue = "false") boolean webp,
            @AuthenticationPrincipal SignedIn me,
            Model model) {
        OpenTheme open = themes.open(id, me);
        model.addAttribute("open", open);
        model.addAttribute("address", addresses.ofSnapshot(open.head().id()) + Paths.address(picture));
        model.addAttribute(
                "then",
                UriComponentsBuilder.fromPath("/themes/" + id + "/pictures/lighter.img")
                        .queryParam("picture", "{picture}")
                        .queryParam("width", width)
                        .queryParam("quality", quality)
                        .queryParam("webp", webp)
                        .encode()
                        .buildAndExpand(picture)
                        .toUriString());
        try {
            byte[] light = light(open, picture, width, quality, webp);
            model.addAttribute("before", about(open, picture));
            model.addAttribute(
                    "after",
                    PictureSize.read(light)
                                    .map(z -> z.width() + " by " + z.height() + ", ")
                                    .orElse("")
                            + weight(light.length));
            long saved = open.theme().files().size(picture) - light.length;
            model.addAttribute(
                    "saved",
                    saved <= 0
                            ? ""
                            : Math.round(100.0 * saved / open.theme().files().size(picture)) + "% lighter");
        } catch (BadInputException e) {
            model.addAttribute("message", e.getMessage() + " " + e.mend());
        }
        return "pictures/lighter";
    }

    /** The lighter picture itself; written by us, so it may be shown under our address. */
    @GetMapping("/pictures/lighter.img")
    ResponseEntity<byte[]> lighterPicture(
            @PathVariable long id,
            @RequestParam(defaultValue = "") String picture,
            @RequestParam(defaultValue = "2560") int width,
            @RequestParam(defaultValue = "80") int quality,
            @RequestParam(defaultValue = "false") boolean webp,
            @AuthenticationPrincipal SignedIn me) {
        byte[] light = light(themes.open(id, me), picture, width, quality, webp);
        return RecolorController.changed(webp ? "then.webp" : picture, light);
    }

    private static byte[] light(OpenTheme open, String picture, int width, int quality, boolean webp) {
        if (!open.theme().pictures().contains(picture)) {
            throw new NotFoundException();
        }
        return open.read()
                .derived(
                        List.of("light", picture, width, quality, webp),
                        () -> webp
                                ? Lighter.asWebp(picture, open.theme().files().read(picture), width, quality)
                                : Lighter.of(picture, open.theme().files().read(picture), width, quality));
    }

    @PostMapping("/pictures/lighten")
    String lighten(
            @PathVariable long id,
            @RequestParam(defaultValue = "0") long base,
            @RequestParam(defaultValue = "") String picture,
            @RequestParam(defaultValue = "2560") int width,
            @RequestParam(defaultValue = "80") int quality,
            @RequestParam(defaultValue = "false") boolean webp,
            @AuthenticationPrincipal SignedIn me) {
        Snapshot made = themes.change(
                id,
                base,
                me,
                theme -> webp
                        ? PictureChange.asWebp(theme, picture, width, quality)
                        : PictureChange.lighter(theme, picture, width, quality));
        notices.done(made.note());
        return back(id, webp ? picture.substring(0, picture.lastIndexOf('.')) + ".webp" : picture, "");
    }

    @PostMapping("/pictures/replace")
    String replace(
            @PathVariable long id,
            @RequestParam(defaultValue = "0") long base,
            @RequestParam(defaultValue = "") String picture,
            @RequestParam MultipartFile file,
            @AuthenticationPrincipal SignedIn me)
            throws IOException {
        themes.stored(id, me);
        byte[] bytes = bytes(file);
        Snapshot made = themes.change(id, base, me, theme -> PictureChange.replaced(theme, picture, name(file), bytes));
        notices.done(made.note());
        return back(id, picture, "");
    }

    @PostMapping("/pictures/add")
    String add(
            @PathVariable long id,
            @RequestParam(defaultValue = "0") long base,
            @RequestParam MultipartFile file,
            @AuthenticationPrincipal SignedIn me)
            throws IOException {
        themes.stored(id, me);
        byte[] bytes = bytes(file);
        Snapshot made = themes.change(id, base, me, theme -> PictureChange.added(theme, name(file), bytes));
        notices.done(made.note());
        return back(id, made.note().replaceFirst("^Added the picture ", ""), "");
    }

    /** Brings the file of a picture that is named and not there. */
    @PostMapping("/pictures/bring")
    String bring(
            @PathVariable long id,
            @RequestParam(defaultValue = "0") long base,
            @RequestParam(defaultValue = "") String absent,
            @RequestParam MultipartFile file,
            @AuthenticationPrincipal SignedIn me)
            throws IOException {
        themes.stored(id, me);
        byte[] bytes = bytes(file);
        Snapshot made = themes.change(id, base, me, theme -> PictureChange.brought(theme, absent, name(file), bytes));
        notices.done(made.note());
        return Go.to("/themes/" + id + "/pictures");
    }

    @PostMapping("/pictures/copies")
    String copies(
            @PathVariable long id,
            @RequestParam(defaultValue = "0") long base,
            @RequestParam(defaultValue = "") String picture,
            @AuthenticationPrincipal SignedIn me) {
        Snapshot made = themes.change(id, base, me, theme -> PictureChange.copied(theme, picture));
        notices.done(made.note());
        return back(id, picture, "");
    }

    @PostMapping("/pictures/rename")
    String rename(
            @PathVariable long id,
            @RequestParam(defaultValue = "0") long base,
            @RequestParam(defaultValue = "") String picture,
            @RequestParam(defaultValue = "") String name,
            @AuthenticationPrincipal SignedIn me) {
        Snapshot made = themes.change(id, base, me, theme -> PictureChange.renamed(theme, picture, name.strip()));
        notices.done(made.note());
        return back(id, picture.substring(0, picture.lastIndexOf('/') + 1) + name.strip(), "");
    }

    @PostMapping("/pictures/remove")
    String remove(
            @PathVariable long id,
            @RequestParam(defaultValue = "0") long base,
            @RequestParam(defaultValue = "") String picture,
            @AuthenticationPrincipal SignedIn me) {
        Snapshot made = themes.change(id, base, me, theme -> PictureChange.removed(theme, picture));
        notices.done(made.note());
        return Go.to("/themes/" + id + "/pictures");
    }

    private static String name(MultipartFile file) {
        return file.getOriginalFilename() == null ? "" : file.getOriginalFilename();
    }

    private static byte[] bytes(MultipartFile file) throws IOException {
        if (file.isEmpty()) {
            throw new BadInputException("No file was chosen.", "Choose a picture.");
        }
        if (file.getSize() > PictureChange.LARGEST) {
            throw new BadInputException(
                    "“" + name(file) + "” is larger than " + PictureChange.LARGEST / 1_000_000 + " MB.",
                    "Make it smaller with a picture editor.");
        }
        return file.getBytes();
    }

    private static String back(long id, String picture, String page) {
        return Go.to(address(id, picture) + (page.isEmpty() ? "" : "&page=" + encoded(page)));
    }

    /** Where a picture is looked at. */
    static String address(long id, String picture) {
        return "/themes/" + id + "/pictures?picture=" + encoded(picture);
    }

    private static String encoded(String text) {
        return UriUtils.encode(text, StandardCharsets.UTF_8);
    }

    /** What was measured of a page, as the file that the command line takes. */
    @GetMapping("/measures")
    ResponseEntity<byte[]> measures(
            @PathVariable long id, @RequestParam(defaultValue = "") String page, @AuthenticationPrincipal SignedIn me) {
        Measures measures = themes.measures(themes.open(id, me)).get(page);
        if (measures == null) {
            throw new NotFoundException();
        }
        return ResponseEntity.ok()
                .contentType(MediaType.APPLICATION_JSON)
                .header(
                        HttpHeaders.CONTENT_DISPOSITION,
                        ContentDisposition.attachment()
                                .filename("measures-" + page.replace('/', '-') + ".json", StandardCharsets.UTF_8)
                                .build()
                                .toString())
                .body(measures.write());
    }

    /** How dark and light it is behind the texts of a page that stand on pictures and gradients; see {@link ThemeService#grounds}. */
    @GetMapping("/grounds")
    @ResponseBody
    Map<Integer, double[]> grounds(
            @PathVariable long id,
            @RequestParam(defaultValue = "") String page,
            @RequestParam(defaultValue = "1440") int width,
            @AuthenticationPrincipal SignedIn me) {
        OpenTheme open = themes.open(id, me);
        return themes.grounds(open.id(), open.read(), null, page, width);
    }

    /**
     * A page that is to be measured with another value of a setting.
     *
     * @param base address of previews with that value
     */
    public record Unvaried(String page, int variation, String base) {}

    /** @param known names what was measured so far */
    public record Left(String known, List<Unvaried> pages) {}

    @GetMapping("/measures/unvaried")
    @ResponseBody
    Left unvaried(@PathVariable long id, @AuthenticationPrincipal SignedIn me) {
        OpenTheme open = themes.open(id, me);
        List<Unvaried> pages = themes.unvaried(open).stream()
                .map(u -> new Unvaried(
                        u.page(),
                        u.variation(),
                        addresses.ofVariation(open.head().id(), u.variation())))
                .toList();
        return new Left(String.valueOf(themes.measuredNow(open)), pages);
    }

    /**
     * Keeps what the maker's browser measured of a page.
     *
     * @param variation with which value of a setting, of the theme as it is now; null for the page as it is made
     */
    @PostMapping("/measures")
    ResponseEntity<Void> keep(
            @PathVariable long id,
            @RequestParam long base,
            @RequestParam(defaultValue = "") String page,
            @RequestParam(required = false) Integer variation,
            HttpServletRequest request,
            @AuthenticationPrincipal SignedIn me)
            throws IOException {
        OpenTheme open = themes.open(id, me);
        Measures measured =
                Measures.read("The measures", request.getInputStream().readNBytes(Measures.LARGEST + 1));
        if (!measured.page().equals(page)) {
            throw new BadInputException(
                    "These are the measures of " + measured.page() + ", not of " + page + ".",
                    "Measure the page again.");
        }
        if (variation == null) {
            themes.keepMeasures(open, base, measured);
        } else if (base == open.head().id()) {
            themes.keepVaried(open, variation, measured);
        }
        return ResponseEntity.noContent().build();
    }
}
