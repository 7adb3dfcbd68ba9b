package org.calmpalette.app.survey;

import java.util.Comparator;
import java.util.List;
import org.calmpalette.app.accounts.SignedIn;
import org.calmpalette.app.themes.OpenTheme;
import org.calmpalette.app.themes.Snapshot;
import org.calmpalette.app.themes.ThemeService;
import org.calmpalette.app.web.Go;
import org.calmpalette.app.web.Notices;
import org.calmpalette.core.change.Change;
import org.calmpalette.core.change.SheetRole;
import org.calmpalette.core.page.Page;
import org.calmpalette.core.part.Banner;
import org.calmpalette.core.part.PartSelector;
import org.calmpalette.core.render.Rendered;
import org.calmpalette.core.setting.MediaFacts;
import org.calmpalette.core.setting.PictureKind;
import org.calmpalette.core.setting.Place;
import org.calmpalette.core.setting.Setting;
import org.calmpalette.core.setting.Value;
import org.calmpalette.core.theme.Theme;
import org.jsoup.nodes.Element;
import org.springframework.security.core.annotation.AuthenticationPrincipal;
import org.springframework.stereotype.Controller;
import org.springframework.ui.Model;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.ModelAttribute;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestMapping;
import org.springframework.web.bind.annotation.RequestParam;

/** A picture in place of a title. */
@Controller
@RequestMapping("/themes/{id}/banner")
class BannerController {
    private final ThemeService themes;
    private final Notices notices;

    BannerController(ThemeService themes, Notices notices) {
        this.themes = themes;
        this.notices = notices;
    }

    /**
     * What a maker asks for.
     *
     * @param at index of the title on the page
     * @param fixed whether owners may not change the picture
     */
    public record Form(
            String page,
            int at,
            String picture,
            Boolean everywhere,
            Boolean fixed,
            String label,
            String key,
            String place) {
        public Form {
            page = page == null ? "" : page;
            everywhere = everywhere != null && everywhere;
            fixed = fixed != null && fixed;
            picture = picture == null ? "" : picture;
            label = label == null ? "" : label.strip();
            key = key == null ? "" : key.strip();
            place = place == null ? "" : place;
        }

        private Change change(Rendered rendered) {
            Theme theme = rendered.theme();
            Page there = theme.page(page);
            Place where = theme.palette().placeCalled(place);
            Setting setting =
                    fixed ? null : Setting.of(key, label, "", where.key(), PictureKind.ANY, Value.of(picture));
            return new Banner(rendered, SheetRole.of(theme))
                    .of(there, ExactChange.part(there, at), picture, setting, where, everywhere);
        }
    }

    @GetMapping
    String card(
            @PathVariable long id,
            @ModelAttribute("form") Form form,
            @AuthenticationPrincipal SignedIn me,
            Model model) {
        OpenTheme open = themes.open(id, me);
        Theme theme = open.theme();
        Page page = open.read().rendered().theme().page(form.page());
        Element title = ExactChange.part(page, form.at());
        String behind = new Banner(open.read().rendered(), open.roles())
                .behind(page, title)
                .orElse("");
        // The widest in shape first: a banner is wide.
        List<String> pictures = theme.pictures().stream()
                .filter(p -> theme.media().facts(p).filter(f -> f.width() > 0).isPresent())
                .sorted(Comparator.<String, Boolean>comparing(p -> !p.equals(behind))
                        .thenComparing(p ->
                                -theme.media().facts(p).map(MediaFacts::shape).orElse(0.0)))
                .toList();
        String key = "banner";
        for (int i = 2; theme.palette().setting(key).isPresent(); i++) {
            key = "banner-" + i;
        }
        model.addAttribute("open", open);
        model.addAttribute("pictures", pictures);
        model.addAttribute("name", PartSelector.name(title));
        model.addAttribute("words", title.text());
        model.addAttribute("key", key);
        return "survey/banner :: card";
    }

    /** The exact change; nothing is made. */
    @GetMapping("/effect")
    String effect(
            @PathVariable long id,
            @ModelAttribute("form") Form form,
            @AuthenticationPrincipal SignedIn me,
            Model model) {
        return ExactChange.shown(themes.open(id, me), form::change, model);
    }

    @PostMapping
    String put(
            @PathVariable long id,
            @RequestParam long base,
            @ModelAttribute("form") Form form,
            @AuthenticationPrincipal SignedIn me) {
        Snapshot made = themes.change(id, base, me, theme -> form.change(new Rendered(theme)));
        notices.done(made.note());
        return Go.to("/themes/" + id + (form.fixed() ? "/survey?" : "/settings?key=" + form.key() + "&") + "page="
                + PartController.encoded(form.page()));
    }
}
