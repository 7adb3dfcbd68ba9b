package org.calmpalette.app.survey;

import java.time.Duration;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Locale;
import java.util.Set;
import org.calmpalette.app.accounts.SignedIn;
import org.calmpalette.app.themes.OpenTheme;
import org.calmpalette.app.themes.Snapshot;
import org.calmpalette.app.themes.ThemeService;
import org.calmpalette.app.web.Go;
import org.calmpalette.app.web.Notices;
import org.calmpalette.core.BadInputException;
import org.calmpalette.core.page.Page;
import org.calmpalette.core.part.PartSelector;
import org.calmpalette.core.recipe.PartGroup;
import org.calmpalette.core.render.Rendered;
import org.calmpalette.core.setting.Setting;
import org.calmpalette.core.survey.PageParts;
import org.springframework.security.core.annotation.AuthenticationPrincipal;
import org.springframework.stereotype.Controller;
import org.springframework.ui.Model;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestMapping;
import org.springframework.web.bind.annotation.RequestParam;

/** The header, hero or content column of a page as a group of settings: what was found, what would be bound, and taking it. */
@Controller
@RequestMapping("/themes/{id}/parts")
class PartGroupController {
    private final ThemeService themes;
    private final Takings takings;
    private final Notices notices;

    /** As long as nobody minds to wait for a page. */
    private static final Duration PATIENCE = Duration.ofMillis(700);

    PartGroupController(ThemeService themes, Takings takings, Notices notices) {
        this.themes = themes;
        this.takings = takings;
        this.notices = notices;
    }

    @GetMapping
    String card(
            @PathVariable long id,
            @RequestParam(defaultValue = "") String page,
            @RequestParam(defaultValue = "") String as,
            @RequestParam(defaultValue = "0") int at,
            @AuthenticationPrincipal SignedIn me,
            Model model) {
        OpenTheme open = themes.open(id, me);
        PartGroup group = group(open.read().rendered(), open, page, as, at);
        model.addAttribute("open", open);
        model.addAttribute("page", page);
        model.addAttribute("as", as);
        model.addAttribute("at", at);
        model.addAttribute("kind", kind(as));
        model.addAttribute("kinds", List.of(PageParts.Kind.values()));
        model.addAttribute("name", PartSelector.name(group.element()));
        model.addAttribute("offers", group.offers());
        model.addAttribute("marks", PageParting.marks(at));
        return "survey/parts :: card";
    }

    private static PageParts.Kind kind(String as) {
        try {
            return PageParts.Kind.valueOf(as.toUpperCase(Locale.ROOT));
        } catch (IllegalArgumentException e) {
            throw new BadInputException("There is no such kind of part.", "Choose header, hero or content column.");
        }
    }

    private PartGroup group(Rendered rendered, OpenTheme open, String page, String as, int at) {
        Page there = rendered.page(page)
                .orElseThrow(() ->
                        new BadInputException("There is no page " + page + " in this theme.", "Load the page again."));
        return new PartGroup(rendered, there, themes.measures(open).get(page), kind(as), at);
    }

    /** Nothing moves when a setting decides what a rule decided, so what was measured holds for what is there now. */
    private void keepMeasures(OpenTheme before, OpenTheme after) {
        themes.measures(before).forEach((path, measured) -> {
            int were = elements(before, path);
            if (were > 0 && were == elements(after, path)) {
                themes.keepMeasures(after, measured);
            }
        });
    }

    private static int elements(OpenTheme open, String path) {
        return open.read().rendered().page(path).map(p -> p.elements().size()).orElse(0);
    }

    @PostMapping
    String take(
            @PathVariable long id,
            @RequestParam long base,
            @RequestParam(defaultValue = "") String page,
            @RequestParam(defaultValue = "") String as,
            @RequestParam(defaultValue = "0") int at,
            @RequestParam(defaultValue = "") String name,
            @RequestParam(required = false) List<String> offer,
            @AuthenticationPrincipal SignedIn me) {
        Set<String> ids = new LinkedHashSet<>(offer == null ? List.of() : offer);
        OpenTheme open = themes.open(id, me);
        Taking taking = takings.start(
                open,
                me,
                page,
                job -> themes.change(id, base, me, theme -> group(new Rendered(theme), open, page, as, at)
                        .take(ids, name, job::at)));
        return taking.endsWithin(PATIENCE) ? ended(taking, me) : Go.to("/themes/" + id + "/parts/taking");
    }

    /** Whoever took much waits here; small parts are taken before anybody would see it. */
    @GetMapping("/taking")
    String waiting(@PathVariable long id, @AuthenticationPrincipal SignedIn me, Model model) {
        return told(id, me, model, "survey/taking");
    }

    @GetMapping("/taking/progress")
    String progress(@PathVariable long id, @AuthenticationPrincipal SignedIn me, Model model) {
        return told(id, me, model, "survey/taking :: progress");
    }

    private String told(long id, SignedIn me, Model model, String view) {
        OpenTheme open = themes.open(id, me);
        Taking taking = takings.of(id, me).orElse(null);
        if (taking == null || taking.isStopped()) {
            return Go.to("/themes/" + id + "/survey?view=parts");
        }
        if (taking.isDone()) {
            return ended(taking, me);
        }
        model.addAttribute("open", open);
        model.addAttribute("progress", taking.progress());
        model.addAttribute("failure", taking.failure());
        model.addAttribute(
                "back", "/themes/" + id + "/survey?view=parts&page=" + PartController.encoded(taking.page()));
        return view;
    }

    @PostMapping("/taking/stop")
    String stop(@PathVariable long id, @AuthenticationPrincipal SignedIn me) {
        themes.stored(id, me);
        takings.of(id, me).ifPresent(Taking::stop);
        return Go.to("/themes/" + id + "/survey?view=parts");
    }

    /** @throws RuntimeException the reason, if nothing was taken */
    private String ended(Taking taking, SignedIn me) {
        Snapshot made = taking.made();
        takings.forget(taking, me);
        OpenTheme open = taking.before();
        keepMeasures(open, themes.open(open.id(), me));
        notices.done(made.note());
        return Go.to("/themes/" + open.id() + "/settings?key="
                + themes.read(made).theme().palette().settings().stream()
                        .map(Setting::key)
                        .filter(key -> open.theme().palette().setting(key).isEmpty())
                        .findFirst()
                        .orElse("")
                + "&page=" + PartController.encoded(taking.page()));
    }
}
