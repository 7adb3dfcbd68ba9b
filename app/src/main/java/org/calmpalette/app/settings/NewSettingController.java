package org.calmpalette.app.settings;

import jakarta.servlet.http.HttpServletRequest;
import java.util.List;
import java.util.Set;
import org.calmpalette.app.accounts.SignedIn;
import org.calmpalette.app.frames.FrameAddresses;
import org.calmpalette.app.themes.OpenTheme;
import org.calmpalette.app.themes.Snapshot;
import org.calmpalette.app.themes.ThemeService;
import org.calmpalette.app.web.Go;
import org.calmpalette.app.web.Notices;
import org.calmpalette.core.BadInputException;
import org.calmpalette.core.change.LiftedValue;
import org.calmpalette.core.change.Located;
import org.calmpalette.core.change.PageBinding;
import org.calmpalette.core.change.PaletteChange;
import org.calmpalette.core.page.Page;
import org.calmpalette.core.part.PartSelector;
import org.calmpalette.core.setting.Binding;
import org.calmpalette.core.setting.Effective;
import org.calmpalette.core.setting.Kind;
import org.calmpalette.core.setting.Kinds;
import org.calmpalette.core.setting.Palette;
import org.calmpalette.core.setting.Place;
import org.calmpalette.core.setting.Setting;
import org.calmpalette.core.setting.Value;
import org.calmpalette.core.survey.Proposal;
import org.calmpalette.core.survey.Suggestion;
import org.calmpalette.core.usage.ColorProperties;
import org.calmpalette.core.usage.ColorRow;
import org.calmpalette.core.usage.PageSelector;
import org.calmpalette.core.usage.Painted;
import org.calmpalette.core.usage.Readers;
import org.jsoup.nodes.Element;
import org.springframework.security.core.annotation.AuthenticationPrincipal;
import org.springframework.stereotype.Controller;
import org.springframework.ui.Model;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestMapping;
import org.springframework.web.bind.annotation.RequestParam;

/** Makes settings: from nothing, of a declaration's whole value, or to fill a part of a page. */
@Controller
@RequestMapping("/themes/{id}/settings/new")
class NewSettingController {
    private final ThemeService themes;
    private final FrameAddresses addresses;
    private final Notices notices;

    NewSettingController(ThemeService themes, FrameAddresses addresses, Notices notices) {
        this.themes = themes;
        this.addresses = addresses;
        this.notices = notices;
    }

    /** What a setting is made of: nothing, a declaration, or what of a part it fills. */
    public record Source(String file, int start, int layer, String page, int at, String bind) {
        boolean isDeclaration() {
            return !file.isEmpty();
        }

        boolean isPart() {
            return !bind.isEmpty();
        }

        static Source of(HttpServletRequest request) {
            Fields f = new Fields(request.getParameterMap());
            return new Source(
                    f.text("file"),
                    number(f, "start"),
                    number(f, "layer"),
                    f.text("page"),
                    number(f, "at"),
                    f.text("bind"));
        }

        private static int number(Fields f, String name) {
            return f.text(name).matches("\\d{1,9}") ? Integer.parseInt(f.text(name)) : 0;
        }
    }

    @GetMapping
    String card(
            @PathVariable long id,
            @RequestParam(defaultValue = "") String kind,
            @AuthenticationPrincipal SignedIn me,
            Model model,
            HttpServletRequest request) {
        OpenTheme open = themes.open(id, me);
        Source source = Source.of(request);
        model.addAttribute("open", open);
        model.addAttribute("source", source);
        model.addAttribute(
                "controls",
                Controls.of(open.theme(), addresses.ofSnapshot(open.head().id())));
        model.addAttribute(
                "themeColors",
                open.colors().rows().stream().limit(14).map(ColorRow::value).toList());
        if (source.isDeclaration()) {
            declaration(open, source, kind, model);
        } else if (source.isPart()) {
            part(open, source, model);
        } else if (kind.isEmpty()) {
            model.addAttribute(
                    "kinds",
                    Kinds.names().stream()
                            .filter(n -> !n.equals("items"))
                            .map(Kinds::plain)
                            .toList());
        } else {
            Kind plain = Kinds.plain(kind);
            fresh(
                    open,
                    plain,
                    plain.initial(),
                    new Suggestion(free(open, "new-" + kind), "New " + plain.label(), Place.EVERYWHERE.label()),
                    List.of(),
                    model);
        }
        return "settings/new :: card";
    }

    private static String free(OpenTheme open, String wanted) {
        String key = wanted;
        for (int i = 2;
                open.theme().palette().setting(key).isPresent()
                        || open.colors().customProperties().contains("--" + key);
                i++) {
            key = wanted + "-" + i;
        }
        return key;
    }

    private void declaration(OpenTheme open, Source source, String kind, Model model) {
        Located at = Located.find(open.theme(), source.file(), source.start());
        if (!open.roles().get(source.file()).lasts()) {
            throw new BadInputException(
                    "Edits in " + source.file() + " do not last: "
                            + open.roles().get(source.file()).because() + ".",
                    "Choose “Change it” and write the value into the theme's own stylesheet first; then lift it from there.");
        }
        List<LiftedValue> all = LiftedValue.of(at.declaration().property(), at.value(), source.file());
        LiftedValue lifted = all.stream()
                .filter(l -> l.kind().name().equals(kind) && l.layer() == source.layer())
                .findFirst()
                .or(() -> all.stream().findFirst())
                .orElseThrow(() -> new BadInputException(
                        "No kind of setting can hold " + at.declaration().property() + ": " + at.value() + ".",
                        "Lift its colours one by one from the survey, or write the value in a simpler way."));
        List<Painted> painted = Readers.selector(at.part().sheet(), at.around())
                .map(l -> PageSelector.of(l, at.declaration().property()))
                .orElse(List.of());
        Suggestion suggestion = Suggestion.of(
                painted.isEmpty() ? new Painted("body", at.declaration().property(), "") : painted.get(0),
                Suggestion.comment(open.theme(), source.file(), source.start()),
                Set.of("picture", "background").contains(lifted.kind().name())
                        ? lifted.kind().name()
                        : ColorProperties.role(at.declaration().property()),
                open.read().rendered(),
                open.colors().customProperties());
        model.addAttribute(
                "from",
                source.file() + ", line " + at.line() + ": " + at.declaration().property() + ": " + at.value());
        model.addAttribute("alternatives", all);
        model.addAttribute("lifted", lifted);
        fresh(
                open,
                Proposal.of(
                        lifted.kind(),
                        lifted.value(),
                        open.read().rendered(),
                        open.colors().rows(),
                        painted),
                lifted.value(),
                suggestion,
                painted,
                model);
    }

    private void part(OpenTheme open, Source source, Model model) {
        Page page = open.theme().page(source.page());
        Element e = element(page, source);
        Binding binding = Binding.of("data-setting-" + source.bind())
                .orElseThrow(() -> new BadInputException("There is no such binding.", "Point at the part again."));
        PageBinding.Offer offer = PageBinding.offers(page, e).stream()
                .filter(o -> o.binding() == binding)
                .findFirst()
                .orElseThrow(() -> new BadInputException(
                        "No setting can fill the " + binding.label() + " of this part.",
                        "Choose another aspect of it."));
        List<Painted> painted = List.of(new Painted("[data-calm-at=\"" + source.at() + "\"]", "content", ""));
        Suggestion named = Suggestion.of(
                new Painted(
                        PartSelector.name(e).replaceAll("\\s.*", ""),
                        binding.name().toLowerCase(java.util.Locale.ROOT),
                        ""),
                "",
                open.read().rendered(),
                open.colors().customProperties());
        String base = named.key().replaceAll("-(fill|text|line|shadow|icon|color)(-\\d+)?$", "");
        String key = free(
                open,
                base + "-"
                        + switch (binding) {
                            case TEXT -> "text";
                            case SRC -> "picture";
                            case ALT -> "description";
                            case HREF -> "link";
                            case SHOW -> "shown";
                            case LEVEL -> "level";
                            case ITEMS -> "items";
                        });
        String label = key.replace('-', ' ');
        model.addAttribute("from", source.page() + ", " + PartSelector.name(e) + ": " + binding.label());
        model.addAttribute(
                "fitting",
                open.theme().palette().settings().stream()
                        .filter(s -> s.kind().bindings().contains(binding)
                                && s.kind().name().equals(offer.kind().name()))
                        .toList());
        model.addAttribute(
                "alike",
                PageBinding.alike(open.theme(), page, e, binding).values().stream()
                        .mapToInt(List::size)
                        .sum());
        fresh(
                open,
                Proposal.of(
                        offer.kind(),
                        offer.value(),
                        open.read().rendered(),
                        open.colors().rows(),
                        List.of()),
                offer.value(),
                new Suggestion(
                        key,
                        label.substring(0, 1).toUpperCase(java.util.Locale.ROOT) + label.substring(1),
                        named.place()),
                painted,
                model);
    }

    private static Element element(Page page, Source source) {
        List<Element> all = page.elements();
        if (source.at() < 1 || source.at() >= all.size()) {
            throw new BadInputException("That part is no longer on the page.", "Point at it again.");
        }
        return all.get(source.at());
    }

    private static void fresh(
            OpenTheme open, Kind kind, Value value, Suggestion suggestion, List<Painted> painted, Model model) {
        Palette palette = open.theme().palette();
        Setting s = Setting.of(suggestion.key(), suggestion.label(), "", "", kind, value);
        Palette with = palette.with(s, Place.EVERYWHERE);
        model.addAttribute(
                "card",
                SettingCard.of(with, s, Effective.defaults(with, open.theme().media()), true));
        model.addAttribute("place", suggestion.place());
        model.addAttribute("painted", painted);
    }

    @PostMapping
    String make(
            @PathVariable long id,
            @RequestParam long base,
            @RequestParam(defaultValue = "") String existing,
            @RequestParam(defaultValue = "false") boolean everywhere,
            @AuthenticationPrincipal SignedIn me,
            HttpServletRequest request) {
        SettingForm form = new SettingForm(new Fields(request.getParameterMap()));
        Source source = Source.of(request);
        Snapshot made = themes.changeBeside(id, base, me, theme -> {
            Palette palette = theme.palette();
            if (source.isPart()) {
                Page page = theme.page(source.page());
                Setting setting = existing.isEmpty() ? form.setting(palette, null) : palette.known(existing);
                return PageBinding.bind(
                        theme,
                        page,
                        element(page, source),
                        Binding.of("data-setting-" + source.bind()).orElseThrow(),
                        setting,
                        existing.isEmpty() ? form.place(palette) : null,
                        everywhere);
            }
            Setting setting = form.setting(palette, null);
            return source.isDeclaration()
                    ? LiftedValue.lift(
                            theme, source.file(), source.start(), source.layer(), setting, form.place(palette))
                    : PaletteChange.create(theme, setting, form.place(palette));
        });
        notices.done(made.note());
        return Go.to("/themes/" + id + "/settings?key=" + (existing.isEmpty() ? form.key() : existing));
    }

    /** Lets a part of a page go: it keeps what it says. */
    @PostMapping("/release")
    String release(
            @PathVariable long id,
            @RequestParam long base,
            @AuthenticationPrincipal SignedIn me,
            HttpServletRequest request) {
        Source source = Source.of(request);
        Snapshot made = themes.change(id, base, me, theme -> {
            Page page = theme.page(source.page());
            return PageBinding.release(
                    theme,
                    page,
                    element(page, source),
                    Binding.of("data-setting-" + source.bind()).orElseThrow());
        });
        notices.done(made.note());
        return Go.to("/themes/" + id + "/survey?page="
                + org.springframework.web.util.UriUtils.encodeQueryParam(
                        source.page(), java.nio.charset.StandardCharsets.UTF_8)
                + "&at=" + source.at());
    }
}
