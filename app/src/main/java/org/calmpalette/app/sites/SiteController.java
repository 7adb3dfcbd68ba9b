package org.calmpalette.app.sites;

import jakarta.servlet.http.HttpServletRequest;
import jakarta.servlet.http.HttpServletResponse;
import java.io.IOException;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.TreeMap;
import java.util.stream.Collectors;
import org.calmpalette.app.accounts.SignedIn;
import org.calmpalette.app.frames.FrameAddresses;
import org.calmpalette.app.settings.Answer;
import org.calmpalette.app.settings.Area;
import org.calmpalette.app.settings.Behind;
import org.calmpalette.app.settings.Controls;
import org.calmpalette.app.settings.Fields;
import org.calmpalette.app.settings.SafePart;
import org.calmpalette.app.settings.Trial;
import org.calmpalette.app.themes.ThemeCache;
import org.calmpalette.app.web.NotFoundException;
import org.calmpalette.app.web.Notices;
import org.calmpalette.app.web.Strip;
import org.calmpalette.core.BadInputException;
import org.calmpalette.core.language.Language;
import org.calmpalette.core.output.BoundPage;
import org.calmpalette.core.output.ThemeBuild;
import org.calmpalette.core.promise.Links;
import org.calmpalette.core.promise.SafeArea;
import org.calmpalette.core.setting.Band;
import org.calmpalette.core.setting.Bands;
import org.calmpalette.core.setting.Chosen;
import org.calmpalette.core.setting.ColorKind;
import org.calmpalette.core.setting.Effective;
import org.calmpalette.core.setting.Given;
import org.calmpalette.core.setting.LinkKind;
import org.calmpalette.core.setting.Palette;
import org.calmpalette.core.setting.Place;
import org.calmpalette.core.setting.Scheme;
import org.calmpalette.core.setting.Setting;
import org.calmpalette.core.setting.Value;
import org.calmpalette.core.theme.Theme;
import org.springframework.http.HttpStatus;
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

/** The owner's side: places and questions, and what is answered. */
@Controller
@RequestMapping("/sites")
class SiteController {
    private static final long LARGEST_CHOICES = 500_000;

    private final SiteService sites;

    private final Drafting drafting;

    private final SiteUploads uploads;

    private final FrameAddresses addresses;

    private final Notices notices;

    SiteController(
            SiteService sites, Drafting drafting, SiteUploads uploads, FrameAddresses addresses, Notices notices) {

        this.sites = sites;
        this.uploads = uploads;
        this.drafting = drafting;
        this.addresses = addresses;
        this.notices = notices;
    }

    @GetMapping
    String list(@AuthenticationPrincipal SignedIn me, Model model) {
        List<Site> mine = sites.mine(me);
        if (mine.size() == 1 && !me.isMaker()) {
            return "redirect:/sites/" + mine.get(0).slug();
        }
        model.addAttribute("sites", mine);
        return "sites/sites";
    }

    @GetMapping("/{slug}")
    String site(@PathVariable String slug, @AuthenticationPrincipal SignedIn me, Model model) {
        // Before anything is read: what is kept later is not in it.
        model.addAttribute("now", System.currentTimeMillis());
        SiteService.OpenSite open = sites.open(slug, me);
        fill(open, model, me);
        model.addAttribute(
                "describes",
                BoundPage.descriptions(open.theme()).entrySet().stream()
                        .map(e -> e.getKey() + "=" + e.getValue())
                        .collect(Collectors.joining(" ")));
        return "sites/site";
    }

    private void fill(SiteService.OpenSite open, Model model, SignedIn me) {
        fill(open, model, "", me);
    }

    /** @param wanted key of a place whose questions are asked for; empty for the first one */
    private void fill(SiteService.OpenSite open, Model model, String wanted, SignedIn me) {
        fillState(open, model);
        model.addAttribute("dropped", dropped(open));
        model.addAttribute("asked", Questions.of(open, sites.read(open.draft()).colors(), wanted, me));
        Palette palette = open.theme().palette();
        model.addAttribute("schemes", palette.schemes());
        Optional<Scheme> on = Scheme.on(palette, palette.carried(open.draft().choices()));
        model.addAttribute("schemeOn", on.map(Scheme::key).orElse(""));
        model.addAttribute(
                "departures",
                on.map(s -> s.departures(
                                ThemeBuild.chosen(open.theme(), open.draft().choices())))
                        .orElse(List.of()));
    }

    /** Choices that the theme no longer allows, each with what holds instead. */
    static List<String> dropped(SiteService.OpenSite open) {
        Palette palette = open.theme().palette();
        Effective values = ThemeBuild.chosen(open.theme(), open.draft().choices());
        return open.leftOut().stream()
                .flatMap(l -> palette
                        .setting(l.key())
                        .map(s -> Language.say(
                                "site.dropped.one",
                                s.label(),
                                l.value(),
                                Controls.said(s, values.words(s, palette.bands().widest()))))
                        .stream())
                .distinct()
                .toList();
    }

    /** What the state in the head of the page shows, without the questions. */
    private void fillState(SiteService.OpenSite open, Model model) {
        model.addAttribute("open", open);
        Strip strip = Strip.of(open.theme(), addresses.ofDraft(open.draft().id()), "index.html", null);
        model.addAttribute("strip", strip);
        model.addAttribute(
                "controls",
                Controls.of(open.theme(), strip.base())
                        .forOwners(
                                "/sites/" + open.site().slug() + "/pictures",
                                uploads.offered(open.site().id(), open.draft().choices())));
    }

    /** The questions of one place, which did not come with the page. */
    @GetMapping("/{slug}/places/{place}")
    String place(
            @PathVariable String slug, @PathVariable String place, @AuthenticationPrincipal SignedIn me, Model model) {
        SiteService.OpenSite open = sites.open(slug, me);
        fillState(open, model);
        model.addAttribute(
                "a",
                Questions.of(open, sites.read(open.draft()).colors(), place, me).stream()
                        .filter(a -> a.place().key().equals(place))
                        .findFirst()
                        .orElseThrow(NotFoundException::new));
        return "sites/site :: opened";
    }

    /** Answers with the state of the draft; the slip itself stays, so that focus and scrolling stay too. */
    @PostMapping("/{slug}/choose")
    String choose(
            @PathVariable String slug,
            @RequestParam String key,
            @RequestParam(defaultValue = "") String band,
            @AuthenticationPrincipal SignedIn me,
            Model model,
            HttpServletRequest request,
            HttpServletResponse response) {
        SiteService.OpenSite open = sites.open(slug, me);
        Setting setting = open.theme().palette().setting(key).orElseThrow(NotFoundException::new);
        Answer answer = Answer.read(setting.kind(), new Fields(request.getParameterMap()), now(open, setting, band));
        FromWindow from = FromWindow.read(request).orElse(null);
        Drafting.Kept kept = drafting.choose(slug, key, band, answer.value(), from, me);
        SiteService.OpenSite now = sites.open(slug, me);
        response.setHeader("X-Now", String.valueOf(System.currentTimeMillis()));
        response.setHeader("X-Was", FromWindow.of(Choices.in(now.draft().choices(), key, band)));
        if (answer.fault() != null) {
            // The other fields are kept, so the state is another one.
            fillState(now, model);
            response.setStatus(HttpStatus.UNPROCESSABLE_CONTENT.value());
            model.addAttribute("message", answer.fault().getMessage());
            model.addAttribute(
                    "mend", Language.say("site.others-kept", answer.fault().mend()));
            return "sites/site :: refused-and-state";
        }
        boolean othersAsked = open.theme().palette().settings().stream()
                .anyMatch(x -> x.shown() != null && x.shown().key().equals(key));
        if (othersAsked || kept != Drafting.Kept.KEPT) {
            // Other questions come or go with this one, or there is something to be said of it.
            fill(now, model, setting.place(), me);
            model.addAttribute(
                    "told",
                    switch (kept) {
                        case KEPT -> null;
                        case ASIDE -> Language.say("site.aside", setting.label());
                        case OTHER_ASIDE -> Language.say("site.other-aside", setting.label());
                    });
            response.setHeader("HX-Retarget", "#slip");
            response.setHeader("HX-Reswap", "innerHTML");
            return "sites/site :: slip-and-state";
        }
        fillState(now, model);
        return "sites/site :: state";
    }

    /** What the fields of a question show now. */
    private static Map<String, String> now(SiteService.OpenSite open, Setting setting, String band) {
        Bands bands = open.theme().palette().bands();
        return setting.kind()
                .fields(ThemeBuild.chosen(open.theme(), open.draft().choices())
                        .value(setting, bands.band(band).orElse(bands.widest())));
    }

    /** Chooses what another window wrote. */
    @PostMapping("/{slug}/asides/{id}/take")
    String takeAside(
            @PathVariable String slug, @PathVariable long id, @AuthenticationPrincipal SignedIn me, Model model) {
        drafting.takeAside(slug, id, me);
        return slip(slug, me, model);
    }

    @PostMapping("/{slug}/asides/{id}/let-go")
    String dropAside(
            @PathVariable String slug, @PathVariable long id, @AuthenticationPrincipal SignedIn me, Model model) {
        drafting.dropAside(slug, id, me);
        return slip(slug, me, model);
    }

    /** Takes a choice back: the setting is as the maker made it, or in a band as everywhere. */
    @PostMapping("/{slug}/as-made")
    String asMade(
            @PathVariable String slug,
            @RequestParam String key,
            @RequestParam(defaultValue = "") String band,
            @AuthenticationPrincipal SignedIn me,
            Model model) {
        drafting.choose(slug, key, band, null, me);
        return slip(slug, me, model);
    }

    @PostMapping("/{slug}/scheme")
    String scheme(
            @PathVariable String slug, @RequestParam String scheme, @AuthenticationPrincipal SignedIn me, Model model) {
        drafting.applyScheme(slug, scheme, me);
        return slip(slug, me, model);
    }

    /** What the preview shows while a value is tried; nothing is kept. */
    @PostMapping("/{slug}/try")
    @ResponseBody
    Trial attempt(
            @PathVariable String slug,
            @RequestParam String key,
            @RequestParam(defaultValue = "") String band,
            @AuthenticationPrincipal SignedIn me,
            HttpServletRequest request) {
        SiteService.OpenSite open = sites.open(slug, me);
        Theme theme = open.theme();
        Setting setting = theme.palette().setting(key).orElseThrow(NotFoundException::new);
        String address = addresses.ofDraft(open.draft().id());
        try {
            Answer answer =
                    Answer.read(setting.kind(), new Fields(request.getParameterMap()), now(open, setting, band));
            Value value = answer.value();
            Map<String, Chosen> before = open.draft().choices();
            Map<String, Chosen> after = Choices.with(theme, before, setting, band, value);
            Optional<String> refused = Choices.refused(theme, sites.read(open.draft()), before, after);
            String refusal = answer.fault() == null
                    ? refused.orElse(nowhere(theme, setting, value))
                    : answer.fault().getMessage() + " " + answer.fault().mend();
            return Trial.of(
                    ThemeBuild.chosen(theme, refused.isEmpty() ? after : before),
                    address,
                    refusal,
                    setting,
                    v -> forced(theme, after, setting, v));
        } catch (BadInputException e) {
            return Trial.refused(e.getMessage() + " " + e.mend(), "");
        }
    }

    /** The colours of a question with which all words can be read, as all else is in the draft. */
    @GetMapping("/{slug}/area")
    @ResponseBody
    Area area(
            @PathVariable String slug,
            @RequestParam String key,
            @RequestParam(defaultValue = "-1") int saturation,
            @RequestParam(defaultValue = "") String at,
            @AuthenticationPrincipal SignedIn me) {
        SiteService.OpenSite open = sites.open(slug, me);
        Setting setting = open.theme()
                .palette()
                .setting(key)
                .filter(s -> s.kind() instanceof ColorKind)
                .orElseThrow(NotFoundException::new);
        Effective now = ThemeBuild.chosen(open.theme(), open.draft().choices());
        ThemeCache.Read read = sites.read(open.draft());
        SafeArea safe = read.theme().palette().thresholds().whatever()
                ? read.derived(List.of("area", key), () -> read.texts().around(setting))
                : read.derived(List.of("area", key, open.draft().choices()), () -> read.texts()
                        .around(setting, now));
        return Area.of(safe, setting, now, true, saturation, at);
    }

    /** The safe parts of sliders and lists, of all questions or of those of a place, as all else is in the draft. */
    @GetMapping("/{slug}/safe")
    @ResponseBody
    List<SafePart> safe(
            @PathVariable String slug,
            @RequestParam(defaultValue = "") String place,
            @AuthenticationPrincipal SignedIn me) {
        SiteService.OpenSite open = sites.open(slug, me);
        Effective now = ThemeBuild.chosen(open.theme(), open.draft().choices());
        List<Setting> asked = open.theme().palette().settings().stream()
                .filter(s -> (place.isEmpty() || s.place().equals(place)) && now.isAsked(s))
                .toList();
        return SafePart.of(sites.read(open.draft()), asked, open.draft().choices());
    }

    /** What a visitor meets behind a link that leads to nothing; it is kept all the same, since the page may come yet. Empty for others. */
    private static String nowhere(Theme theme, Setting setting, Value value) {
        return setting.kind() instanceof LinkKind && value instanceof Value.Text link
                ? Links.leadingNowhere(theme, setting.key(), link.text()).stream()
                        .findFirst()
                        .map(why -> Language.say(
                                "draft.no-page",
                                why,
                                theme.pages().stream()
                                        .map(p -> p.source().file())
                                        .limit(8)
                                        .collect(Collectors.joining(", "))))
                        .orElse("")
                : "";
    }

    /** How well texts read on a background that is tried; nothing is kept. */
    @PostMapping("/{slug}/behind")
    @ResponseBody
    Behind behind(
            @PathVariable String slug,
            @RequestParam String key,
            @RequestParam(defaultValue = "") String band,
            @RequestParam String page,
            @RequestParam(defaultValue = "1440") int width,
            @RequestParam(defaultValue = "false") boolean least,
            @AuthenticationPrincipal SignedIn me,
            HttpServletRequest request) {
        SiteService.OpenSite open = sites.open(slug, me);
        Setting setting = open.theme().palette().setting(key).orElseThrow(NotFoundException::new);
        Value value = setting.kind().read(new Fields(request.getParameterMap()).of("v"));
        Map<String, Chosen> before = open.draft().choices();
        Behind texts = Behind.of(
                setting.kind(),
                value,
                least,
                v -> sites.textsOn(open, Choices.with(open.theme(), before, setting, band, v), setting, page, width));
        return texts.with(
                sites.lost(open, Choices.with(open.theme(), before, setting, band, value), setting, value, page)
                        .map(Behind.Lost::of)
                        .orElse(null));
    }

    /** The values if a setting were something else, allowed or not. */
    private static Effective forced(Theme theme, Map<String, Chosen> choices, Setting setting, Value value) {
        Map<String, Chosen> others = new TreeMap<>(choices);
        others.remove(setting.key());
        Palette palette = theme.palette()
                .replacing(setting.withGiven(new Given.Fixed(value)).withBands(Map.of()), Place.EVERYWHERE);
        return Effective.of(palette, others, theme.media());
    }

    /**
     * How well texts read on each colour that may be chosen, for all questions at once, or for all of one place.
     *
     * @param css what the preview shows now
     */
    public record Judged(String css, List<JudgedColor> colors) {}

    /** @param candidates what each colour changes of that; see {@link Trial} */
    public record JudgedColor(String key, Map<String, String> candidates, List<String> probes, String now) {}

    @PostMapping("/{slug}/judge")
    @ResponseBody
    Judged judge(
            @PathVariable String slug,
            @RequestParam(defaultValue = "") String place,
            @AuthenticationPrincipal SignedIn me) {
        SiteService.OpenSite open = sites.open(slug, me);
        Theme theme = open.theme();
        Map<String, Chosen> choices = open.draft().choices();
        Effective now = ThemeBuild.chosen(theme, choices);
        List<JudgedColor> colors = new ArrayList<>();
        for (Setting s : theme.palette().settings()) {
            if (s.kind() instanceof ColorKind && (place.isEmpty() || s.place().equals(place)) && now.isAsked(s)) {
                Trial.Colors judged = Trial.Colors.of(
                        now, addresses.ofDraft(open.draft().id()), s, true, v -> forced(theme, choices, s, v));
                colors.add(new JudgedColor(s.key(), judged.candidates(), judged.probes(), judged.now()));
            }
        }
        return new Judged(Trial.shown(now, addresses.ofDraft(open.draft().id())), colors);
    }

    /** How dark and light it is behind the texts of a page that stand on pictures and gradients, with the choices of the draft. */
    @GetMapping("/{slug}/grounds")
    @ResponseBody
    Map<Integer, double[]> grounds(
            @PathVariable String slug,
            @RequestParam(defaultValue = "") String page,
            @RequestParam(defaultValue = "1440") int width,
            @AuthenticationPrincipal SignedIn me) {
        SiteService.OpenSite open = sites.open(slug, me);
        return sites.grounds(open, page, width);
    }

    /** An owner's choices as a file, to keep or to build with. */
    @GetMapping("/{slug}/choices.json")
    ResponseEntity<String> choices(@PathVariable String slug, @AuthenticationPrincipal SignedIn me) {
        return ResponseEntity.ok()
                .header("Content-Type", "application/json;charset=utf-8")
                .header("Content-Disposition", "attachment; filename=\"" + slug + "-choices.json\"")
                .body(Chosen.writeAll(sites.open(slug, me).draft().choices()));
    }

    @PostMapping("/{slug}/choices.json")
    String takeOver(@PathVariable String slug, @RequestParam MultipartFile file, @AuthenticationPrincipal SignedIn me)
            throws IOException {
        String name = file.getOriginalFilename() == null ? Language.say("draft.file") : file.getOriginalFilename();
        if (file.getSize() > LARGEST_CHOICES) {
            throw new BadInputException(
                    Language.say("draft.file.large", name, LARGEST_CHOICES / 1000),
                    Language.say("draft.file.large.mend"));
        }
        List<String> left = drafting.takeOver(slug, Chosen.readAll(file.getBytes(), name), me);
        notices.done(left.isEmpty() ? Language.say("done.choices") : Language.say("done.choices.but", left.get(0)));
        return "redirect:/sites/" + slug;
    }

    @PostMapping("/{slug}/undo")
    String undo(@PathVariable String slug, @RequestParam long base, @AuthenticationPrincipal SignedIn me, Model model) {
        drafting.undo(slug, base, me);
        return slip(slug, me, model);
    }

    @PostMapping("/{slug}/redo")
    String redo(@PathVariable String slug, @RequestParam long base, @AuthenticationPrincipal SignedIn me, Model model) {
        drafting.redo(slug, base, me);
        return slip(slug, me, model);
    }

    /** A place with what was chosen in it, or is otherwise than it is live. */
    public record Backs(String label, List<Back> backs) {}

    /** @param were words for what it is live, and as made */
    public record Back(String key, String label, String now, String were) {}

    /** Asks what is to be put back. */
    @GetMapping("/{slug}/put-back")
    String putBack(@PathVariable String slug, @AuthenticationPrincipal SignedIn me, Model model) {
        SiteService.OpenSite open = sites.open(slug, me);
        Palette palette = open.theme().palette();
        Map<String, Chosen> draft = open.draft().choices();
        Map<String, Chosen> live = open.live() == null ? Map.of() : palette.carried(Choices.chosenIn(open.live()));
        Effective now = ThemeBuild.chosen(open.theme(), draft);
        Effective seen = ThemeBuild.chosen(open.theme(), live);
        Effective made = ThemeBuild.defaults(open.theme());
        Band widest = palette.bands().widest();
        List<Backs> places = new ArrayList<>();
        for (Place place : palette.places()) {
            List<Back> backs = palette.settingsIn(place).stream()
                    .filter(s -> draft.containsKey(s.key()) || live.containsKey(s.key()))
                    .map(s -> new Back(
                            s.key(),
                            s.label(),
                            Controls.said(s, now.words(s, widest)),
                            were(
                                    open.live() == null ? "" : Controls.said(s, seen.words(s, widest)),
                                    Controls.said(s, made.words(s, widest)),
                                    draft.getOrDefault(s.key(), new Chosen(null, Map.of())))))
                    .toList();
            if (!backs.isEmpty()) {
                places.add(new Backs(place.label(), backs));
            }
        }
        model.addAttribute("open", open);
        model.addAttribute("places", places);
        return "sites/site :: put-back";
    }

    /** @param live what it is live, or empty */
    private static String were(String live, String made, Chosen chosen) {
        String both =
                live.isEmpty() ? Language.say("put-back.were", made) : Language.say("put-back.were.live", live, made);
        return chosen.bands().isEmpty() ? both : Language.say("put-back.widths", both);
    }

    /** @param key of the settings; none for all, but where some were to be ticked */
    @PostMapping("/{slug}/put-back")
    String putBack(
            @PathVariable String slug,
            @RequestParam(required = false) List<String> key,
            @RequestParam(defaultValue = "live") String to,
            @RequestParam(defaultValue = "false") boolean ticked,
            @AuthenticationPrincipal SignedIn me,
            Model model) {
        if (ticked && key == null) {
            throw new BadInputException(Language.say("put-back.none"), Language.say("put-back.none.mend"));
        }
        drafting.putBack(slug, key == null ? Set.of() : Set.copyOf(key), to.equals("made"), me);
        return slip(slug, me, model);
    }

    private String slip(String slug, SignedIn me, Model model) {
        fill(sites.open(slug, me), model, me);
        return "sites/site :: slip-and-state";
    }
}
