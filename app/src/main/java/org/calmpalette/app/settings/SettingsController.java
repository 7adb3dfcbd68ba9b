package org.calmpalette.app.settings;

import jakarta.servlet.http.HttpServletRequest;
import java.nio.charset.StandardCharsets;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.function.Function;
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
import org.calmpalette.core.change.PageBinding;
import org.calmpalette.core.change.PaletteChange;
import org.calmpalette.core.color.Color;
import org.calmpalette.core.output.ThemeBuild;
import org.calmpalette.core.page.Page;
import org.calmpalette.core.part.Landmarks;
import org.calmpalette.core.promise.Answer;
import org.calmpalette.core.promise.Mend;
import org.calmpalette.core.promise.SafeArea;
import org.calmpalette.core.promise.SafeValues;
import org.calmpalette.core.render.Rendered;
import org.calmpalette.core.render.TextsOn;
import org.calmpalette.core.setting.ColorKind;
import org.calmpalette.core.setting.Effective;
import org.calmpalette.core.setting.Given;
import org.calmpalette.core.setting.Palette;
import org.calmpalette.core.setting.Place;
import org.calmpalette.core.setting.Setting;
import org.calmpalette.core.setting.Value;
import org.calmpalette.core.theme.Theme;
import org.calmpalette.core.usage.BoundUse;
import org.calmpalette.core.usage.ColorRow;
import org.calmpalette.core.usage.Painted;
import org.springframework.security.core.annotation.AuthenticationPrincipal;
import org.springframework.stereotype.Controller;
import org.springframework.ui.Model;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestMapping;
import org.springframework.web.bind.annotation.RequestParam;
import org.springframework.web.bind.annotation.ResponseBody;
import org.springframework.web.util.UriUtils;

/** The maker's desk: a theme's settings with what each paints and what an owner may choose. */
@Controller
@RequestMapping("/themes/{id}/settings")
class SettingsController {
    private final ThemeService themes;
    private final FrameAddresses addresses;
    private final Notices notices;

    SettingsController(ThemeService themes, FrameAddresses addresses, Notices notices) {
        this.themes = themes;
        this.addresses = addresses;
        this.notices = notices;
    }

    /**
     * A row of the ledger, ready to be written: templates are slow at putting texts together.
     *
     * @param color for a dot, or empty
     * @param bands the value in each narrower band, empty where it is the same
     * @param address of the desk with this row chosen, and of its card
     */
    public record Row(
            String key,
            String label,
            String value,
            String color,
            List<String> bands,
            List<String> swatches,
            String allowed,
            boolean perBand,
            int paints,
            boolean follows,
            String words,
            String address,
            String card,
            Breaks breaks) {}

    /**
     * Promises that a choice of a setting breaks, as far as they are known.
     *
     * @param address of the first of them, or empty
     */
    public record Breaks(int count, String address) {
        static final Breaks NONE = new Breaks(0, "");
    }

    /** By the keys of the settings whose choices break them. */
    private static Map<String, Breaks> breaks(OpenTheme open) {
        Map<String, Breaks> all = new LinkedHashMap<>();
        open.promises().orElse(List.of()).stream().filter(Answer::isBroken).forEach(a -> a.values()
                .keySet()
                .forEach(key -> all.merge(
                        key,
                        new Breaks(
                                1,
                                "/themes/" + open.id() + "/promises?key="
                                        + UriUtils.encodeQueryParam(a.id(), StandardCharsets.UTF_8)),
                        (first, more) -> new Breaks(first.count() + 1, first.address()))));
        return all;
    }

    /** A place with its rows. */
    public record Group(String label, List<Row> rows) {}

    @GetMapping
    String settings(
            @PathVariable long id,
            @RequestParam(defaultValue = "") String key,
            @RequestParam(defaultValue = "") String page,
            @AuthenticationPrincipal SignedIn me,
            Model model,
            HttpServletRequest request) {
        OpenTheme open = themes.open(id, me);
        model.addAttribute("open", open);
        model.addAttribute(
                "strip", Strip.of(open.theme(), addresses.ofSnapshot(open.head().id()), page, request));
        model.addAttribute("groups", groups(open));
        List<Setting> settings = open.theme().palette().settings();
        Setting chosen = open.theme().palette().setting(key).orElse(settings.isEmpty() ? null : settings.get(0));
        if (chosen != null) {
            card(open, chosen, model);
        }
        return "settings/settings";
    }

    @GetMapping("/card")
    String card(@PathVariable long id, @RequestParam String key, @AuthenticationPrincipal SignedIn me, Model model) {
        OpenTheme open = themes.open(id, me);
        model.addAttribute("open", open);
        open.theme().palette().setting(key).ifPresent(s -> card(open, s, model));
        return "settings/card :: card";
    }

    void card(OpenTheme open, Setting setting, Model model) {
        List<BoundUse> bound = open.colors().boundTo(setting.key());
        List<PageBinding.Use> fills = PageBinding.uses(open.theme(), setting.key());
        List<Painted> painted = painted(open, setting);
        int pages = 0;
        int parts = 0;
        for (Page page : open.theme().pages()) {
            int count = Landmarks.count(painted, page);
            parts += count;
            pages += count > 0 ? 1 : 0;
        }
        Effective values = ThemeBuild.defaults(open.theme());
        model.addAttribute("card", SettingCard.of(open.theme().palette(), setting, values, false));
        model.addAttribute(
                "controls",
                Controls.of(open.theme(), addresses.ofSnapshot(open.head().id())));
        model.addAttribute("bound", bound);
        model.addAttribute("fills", fills);
        model.addAttribute("painted", painted);
        model.addAttribute("parts", parts);
        model.addAttribute("pagesPainted", pages);
        model.addAttribute(
                "value", values.words(setting, open.theme().palette().bands().widest()));
        model.addAttribute(
                "themeColors",
                open.colors().rows().stream().limit(14).map(ColorRow::value).toList());
    }

    /** The parts of pages that a setting paints or fills. */
    static List<Painted> painted(OpenTheme open, Setting setting) {
        List<Painted> all = new ArrayList<>(open.colors().boundTo(setting.key()).stream()
                .flatMap(b -> b.paints().stream())
                .distinct()
                .toList());
        setting.kind()
                .bindings()
                .forEach(b -> all.add(new Painted("[" + b.attribute() + "=\"" + setting.key() + "\"]", "content", "")));
        return all;
    }

    private static List<Group> groups(OpenTheme open) {
        Palette palette = open.theme().palette();
        Effective values = ThemeBuild.defaults(open.theme());
        Map<String, Integer> counts = open.read().paints(s -> painted(open, s));
        Map<String, Breaks> breaks = breaks(open);
        Map<String, List<Row>> byPlace = new LinkedHashMap<>();
        palette.places().forEach(p -> byPlace.put(p.key(), new ArrayList<>()));
        for (Setting s : palette.settings()) {
            byPlace.computeIfAbsent(s.place(), p -> new ArrayList<>())
                    .add(row(
                            open,
                            s,
                            values,
                            counts.getOrDefault(s.key(), 0),
                            breaks.getOrDefault(s.key(), Breaks.NONE)));
        }
        List<Group> groups = new ArrayList<>();
        byPlace.forEach((place, rows) -> {
            if (!rows.isEmpty()) {
                groups.add(new Group(palette.placeLabel(place), rows));
            }
        });
        return groups;
    }

    private static Row row(OpenTheme open, Setting s, Effective values, int paints, Breaks breaks) {
        Palette palette = open.theme().palette();
        var bands = palette.bands();
        Value v = values.value(s, bands.widest());
        List<String> others = bands.list().stream()
                .filter(b -> b != bands.widest())
                .map(b -> values.value(s, b).equals(v) ? "" : brief(values.words(s, b), 24))
                .toList();
        ColorKind color = s.kind() instanceof ColorKind c ? c : null;
        boolean follows = s.given() instanceof Given.Follows;
        String shown = s.given() instanceof Given.Follows f
                ? palette.said(f)
                : s.kind().words(v);
        String here = "/themes/" + open.id() + "/settings";
        String query = "?key=" + UriUtils.encodeQueryParam(s.key(), StandardCharsets.UTF_8);
        return new Row(
                s.key(),
                s.label(),
                brief(shown, 40),
                color == null ? "" : color.words(v),
                others,
                color == null ? List.of() : color.swatches(),
                s.shown() != null && s.shown().isNever()
                        ? "not asked"
                        : brief(s.kind().inWords(), 70),
                s.perBand(),
                paints,
                follows,
                String.join(
                        " ",
                        s.label(),
                        s.key(),
                        shown,
                        palette.placeLabel(s.place()),
                        s.kind().label()),
                here + query,
                here + "/card" + query,
                breaks);
    }

    private static String brief(String text, int most) {
        return text.length() <= most ? text : text.substring(0, most - 1) + "…";
    }

    /** What the previews show while the card is filled in. */
    @PostMapping("/try")
    @ResponseBody
    Trial attempt(@PathVariable long id, @AuthenticationPrincipal SignedIn me, HttpServletRequest request) {
        OpenTheme open = themes.open(id, me);
        try {
            return attempt(
                    open.theme(),
                    new SettingForm(new Fields(request.getParameterMap())),
                    addresses.ofSnapshot(open.head().id()));
        } catch (BadInputException e) {
            return Trial.refused(e.getMessage(), e.mend());
        }
    }

    private static Trial attempt(Theme theme, SettingForm form, String address) {
        Palette palette = theme.palette();
        Setting before = palette.setting(form.key()).orElse(null);
        Setting wanted = form.setting(palette, before);
        Place place = form.place(palette);
        Palette after = before == null ? palette.with(wanted, place) : palette.replacing(wanted.readAs(before), place);
        Effective values = Effective.defaults(after, theme.media());
        String refusal = values.problems().stream()
                .findFirst()
                .map(p -> "“" + p.setting().label() + "”: " + p.why().words())
                .orElse("");
        return Trial.of(
                values,
                address,
                refusal,
                wanted,
                v -> Effective.defaults(
                        after.replacing(
                                after.known(wanted.key())
                                        .withGiven(new Given.Fixed(v))
                                        .withBands(Map.of()),
                                place),
                        theme.media()));
    }

    /** How well texts read on a background that is tried. */
    @PostMapping("/behind")
    @ResponseBody
    Behind behind(
            @PathVariable long id,
            @RequestParam String page,
            @RequestParam(defaultValue = "1440") int width,
            @RequestParam(defaultValue = "false") boolean least,
            @AuthenticationPrincipal SignedIn me,
            HttpServletRequest request) {
        OpenTheme open = themes.open(id, me);
        SettingForm form = new SettingForm(new Fields(request.getParameterMap()));
        Setting before = open.theme().palette().setting(form.key()).orElse(null);
        if (before == null) {
            return Behind.UNKNOWN;
        }
        Setting tried = form.setting(open.theme().palette(), before).readAs(before);
        Function<Setting, Optional<TextsOn>> seen = s -> themes.textsOn(
                id,
                open.read(),
                new Rendered(open.theme()
                        .with(open.theme()
                                .palette()
                                .replacing(s, form.place(open.theme().palette())))),
                painted(open, before),
                page,
                width);
        return tried.given() instanceof Given.Fixed f && tried.bands().isEmpty()
                ? Behind.of(tried.kind(), f.value(), least, v -> seen.apply(tried.withGiven(new Given.Fixed(v))))
                : Behind.of(tried.kind(), null, false, v -> seen.apply(tried));
    }

    /** The colours that are safe whatever else is chosen. */
    @GetMapping("/area")
    @ResponseBody
    Area area(
            @PathVariable long id,
            @RequestParam String key,
            @RequestParam(defaultValue = "-1") int saturation,
            @RequestParam(defaultValue = "") String at,
            @AuthenticationPrincipal SignedIn me) {
        OpenTheme open = themes.open(id, me);
        Setting setting = color(open, key);
        return Area.of(safe(open, setting), setting, ThemeBuild.defaults(open.theme()), false, saturation, at);
    }

    /** The safe part of a slider or a list, while all else is as made. */
    @GetMapping("/safe")
    @ResponseBody
    List<SafePart> safe(@PathVariable long id, @RequestParam String key, @AuthenticationPrincipal SignedIn me) {
        OpenTheme open = themes.open(id, me);
        Setting setting = open.theme().palette().setting(key).orElseThrow(NotFoundException::new);
        return SafePart.of(open.read(), List.of(setting), Map.of());
    }

    private static Setting color(OpenTheme open, String key) {
        return open.theme()
                .palette()
                .setting(key)
                .filter(s -> s.kind() instanceof ColorKind)
                .orElseThrow(NotFoundException::new);
    }

    private static Color made(OpenTheme open, Setting setting) {
        return ColorKind.parse(ThemeBuild.defaults(open.theme())
                .words(setting, open.theme().palette().bands().widest()));
    }

    private static SafeArea safe(OpenTheme open, Setting setting) {
        return open.read().derived(List.of("area", setting.key()), () -> open.read()
                .texts()
                .around(setting));
    }

    /** Limits with which all that can be chosen is safe; asked for by itself, since trying takes a moment. */
    @GetMapping("/limits")
    String limits(@PathVariable long id, @RequestParam String key, @AuthenticationPrincipal SignedIn me, Model model) {
        OpenTheme open = themes.open(id, me);
        Setting setting = open.theme().palette().setting(key).orElseThrow(NotFoundException::new);
        model.addAttribute("open", open);
        model.addAttribute("s", setting);
        model.addAttribute("ways", limits(open, setting));
        if (setting.kind() instanceof ColorKind) {
            model.addAttribute("unsafe", safe(open, setting).isBrokenBySomeChoice());
            model.addAttribute("outside", !safe(open, setting).keeps(made(open, setting)));
        } else {
            Optional<SafeValues> values = values(open, setting).filter(SafeValues::matters);
            model.addAttribute("unsafe", values.isPresent());
            model.addAttribute("outside", values.filter(v -> !v.isSafeNow()).isPresent());
        }
        return "settings/card :: limits";
    }

    private static List<Mend> limits(OpenTheme open, Setting setting) {
        return open.read()
                .derived(
                        List.of("limits", setting.key()),
                        () -> setting.kind() instanceof ColorKind
                                ? safe(open, setting).limits()
                                : values(open, setting).flatMap(SafeValues::limit).stream()
                                        .toList());
    }

    private static Optional<SafeValues> values(OpenTheme open, Setting setting) {
        return SafeValues.of(open.read().texts(), setting, "", Map.of());
    }

    @PostMapping("/limit")
    String limit(
            @PathVariable long id,
            @RequestParam long base,
            @RequestParam String key,
            @RequestParam(defaultValue = "") String way,
            @AuthenticationPrincipal SignedIn me) {
        OpenTheme open = themes.open(id, me);
        Setting setting = open.theme().palette().setting(key).orElseThrow(NotFoundException::new);
        Mend chosen = limits(open, setting).stream()
                .filter(m -> m.words().equals(way))
                .findFirst()
                .orElseThrow(() -> new BadInputException(
                        "That is not offered any more.", "Choose among the limits that are shown now."));
        // It was tried on the snapshot that was seen; the change refuses if the theme has moved on.
        return done(id, themes.change(id, base, me, theme -> chosen.change()), key);
    }

    @PostMapping
    String save(
            @PathVariable long id,
            @RequestParam long base,
            @AuthenticationPrincipal SignedIn me,
            HttpServletRequest request) {
        SettingForm form = new SettingForm(new Fields(request.getParameterMap()));
        Snapshot made = themes.changeBeside(
                id,
                base,
                me,
                theme -> PaletteChange.edit(
                        theme,
                        form.setting(theme.palette(), theme.palette().known(form.key())),
                        form.place(theme.palette())));
        return done(id, made, form.key());
    }

    private String done(long id, Snapshot made, String key) {
        notices.done(made.note());
        return Go.to("/themes/" + id + "/settings" + (key.isEmpty() ? "" : "?key=" + key));
    }

    @PostMapping("/remove")
    String remove(
            @PathVariable long id,
            @RequestParam long base,
            @RequestParam List<String> key,
            @AuthenticationPrincipal SignedIn me) {
        return done(id, themes.change(id, base, me, theme -> PaletteChange.remove(theme, key)), "");
    }

    @PostMapping("/duplicate")
    String duplicate(
            @PathVariable long id,
            @RequestParam long base,
            @RequestParam String key,
            @AuthenticationPrincipal SignedIn me) {
        Snapshot made = themes.change(id, base, me, theme -> PaletteChange.duplicate(theme, key));
        List<Setting> all = themes.open(id, me).theme().palette().settings();
        int at = all.indexOf(
                all.stream().filter(s -> s.key().equals(key)).findFirst().orElseThrow());
        return done(id, made, all.get(at + 1).key());
    }

    @PostMapping("/rename")
    String rename(
            @PathVariable long id,
            @RequestParam long base,
            @RequestParam String key,
            @RequestParam String to,
            @AuthenticationPrincipal SignedIn me) {
        return done(id, themes.change(id, base, me, theme -> PaletteChange.rename(theme, key, to.strip())), to.strip());
    }

    /** @param before key of the setting that it is to stand before, or empty for the end of its place */
    @PostMapping("/move")
    String move(
            @PathVariable long id,
            @RequestParam long base,
            @RequestParam String key,
            @RequestParam(defaultValue = "") String before,
            @AuthenticationPrincipal SignedIn me) {
        return done(id, themes.change(id, base, me, theme -> PaletteChange.move(theme, key, before)), key);
    }

    /** The same for all that are ticked. */
    @PostMapping("/each")
    String each(
            @PathVariable long id,
            @RequestParam long base,
            @RequestParam(required = false) List<String> key,
            @RequestParam String what,
            @RequestParam(defaultValue = "") String place,
            @AuthenticationPrincipal SignedIn me) {
        if (key == null || key.isEmpty()) {
            throw new BadInputException("No setting is ticked.", "Tick those that are to change.");
        }
        Snapshot made = themes.change(id, base, me, theme -> switch (what) {
            case "place" -> {
                Place to = SettingForm.place(theme.palette(), place.strip());
                yield PaletteChange.each(
                        theme, key, s -> s.withPlace(to.key()), to, "Moved " + count(key) + " to “" + to.label() + "”");
            }
            case "perBand" ->
                PaletteChange.each(
                        theme, key, s -> s.withPerBand(true), null, count(key) + " may differ from band to band");
            case "sameInBands" ->
                PaletteChange.each(
                        theme,
                        key,
                        s -> s.withPerBand(false).withBands(Map.of()),
                        null,
                        count(key) + " are the same in all bands");
            case "remove" -> PaletteChange.remove(theme, key);
            default -> throw new BadInputException("There is no such change.", "Choose one of the list.");
        });
        return done(id, made, what.equals("remove") ? "" : key.get(0));
    }

    private static String count(List<String> keys) {
        return keys.size() == 1 ? "1 setting" : keys.size() + " settings";
    }
}
