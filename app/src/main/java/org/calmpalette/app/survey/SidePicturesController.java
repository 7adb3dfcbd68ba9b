package org.calmpalette.app.survey;

import java.util.ArrayList;
import java.util.List;
import org.calmpalette.app.accounts.SignedIn;
import org.calmpalette.app.themes.OpenTheme;
import org.calmpalette.app.themes.Snapshot;
import org.calmpalette.app.themes.ThemeService;
import org.calmpalette.app.web.Go;
import org.calmpalette.app.web.Notices;
import org.calmpalette.core.BadInputException;
import org.calmpalette.core.change.Change;
import org.calmpalette.core.change.SheetRole;
import org.calmpalette.core.page.Page;
import org.calmpalette.core.part.PartSelector;
import org.calmpalette.core.part.SidePictures;
import org.calmpalette.core.render.Rendered;
import org.calmpalette.core.theme.Theme;
import org.springframework.security.core.annotation.AuthenticationPrincipal;
import org.springframework.stereotype.Controller;
import org.springframework.ui.Model;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.ModelAttribute;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestMapping;
import org.springframework.web.bind.annotation.RequestParam;

/** Linked pictures at the side of a part. */
@Controller
@RequestMapping("/themes/{id}/side")
class SidePicturesController {
    private final ThemeService themes;
    private final Notices notices;

    SidePicturesController(ThemeService themes, Notices notices) {
        this.themes = themes;
        this.notices = notices;
    }

    /**
     * What a maker asks for.
     *
     * @param at index of the part on the page
     * @param width of each picture in px, as it was typed
     * @param picture one or two paths; an empty one is none
     */
    public record Form(
            String page,
            int at,
            String side,
            String width,
            List<String> picture,
            List<String> link,
            List<String> words,
            String label,
            String key,
            String place) {
        public Form {
            page = page == null ? "" : page;
            side = side == null ? "right" : side;
            width = width == null ? "" : width.strip();
            picture = picture == null ? List.of() : picture;
            link = link == null ? List.of() : link;
            words = words == null ? List.of() : words;
            label = label == null ? "" : label.strip();
            key = key == null ? "" : key.strip();
            place = place == null ? "" : place;
        }

        private Change change(Rendered rendered) {
            Theme theme = rendered.theme();
            Page there = theme.page(page);
            if (!width.matches("\\d{1,4}")) {
                throw new BadInputException("“" + width + "” is no width.", "Write whole pixels, such as 120.");
            }
            List<SidePictures.Linked> all = new ArrayList<>();
            for (int i = 0; i < picture.size(); i++) {
                if (!picture.get(i).isEmpty()) {
                    all.add(new SidePictures.Linked(
                            picture.get(i), i < link.size() ? link.get(i) : "", i < words.size() ? words.get(i) : ""));
                }
            }
            return new SidePictures(rendered, SheetRole.of(theme))
                    .of(
                            there,
                            ExactChange.part(there, at),
                            side.equals("left") ? SidePictures.Side.LEFT : SidePictures.Side.RIGHT,
                            Integer.parseInt(width),
                            all,
                            label,
                            key,
                            theme.palette().placeCalled(place));
        }
    }

    @GetMapping
    String card(
            @PathVariable long id,
            @ModelAttribute("form") Form form,
            @AuthenticationPrincipal SignedIn me,
            Model model) {
        OpenTheme open = themes.open(id, me);
        Page page = open.read().rendered().theme().page(form.page());
        String key = "side";
        for (int i = 2; isTaken(open.theme(), key); i++) {
            key = "side-" + i + "-picture";
        }
        model.addAttribute("open", open);
        model.addAttribute("pictures", open.theme().pictures());
        model.addAttribute("pages", open.theme().pages());
        model.addAttribute("name", PartSelector.name(ExactChange.part(page, form.at())));
        model.addAttribute(
                "narrowest",
                open.theme()
                        .palette()
                        .bands()
                        .inWords(open.theme().palette().bands().list().get(0)));
        model.addAttribute("key", key);
        return "survey/side :: card";
    }

    private static boolean isTaken(Theme theme, String key) {
        return theme.palette().settings().stream()
                .anyMatch(s -> s.key().equals(key) || s.key().startsWith(key + "-"));
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
        return Go.to("/themes/" + id + "/survey?page=" + PartController.encoded(form.page()));
    }
}
