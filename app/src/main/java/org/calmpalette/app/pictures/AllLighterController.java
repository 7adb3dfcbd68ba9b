package org.calmpalette.app.pictures;

import jakarta.servlet.http.HttpServletRequest;
import java.util.List;
import org.calmpalette.app.accounts.SignedIn;
import org.calmpalette.app.themes.OpenTheme;
import org.calmpalette.app.themes.Snapshot;
import org.calmpalette.app.themes.ThemeService;
import org.calmpalette.app.web.Go;
import org.calmpalette.app.web.Notices;
import org.calmpalette.core.change.PictureChange;
import org.springframework.security.core.annotation.AuthenticationPrincipal;
import org.springframework.stereotype.Controller;
import org.springframework.ui.Model;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestMapping;
import org.springframework.web.bind.annotation.RequestParam;

/** All pictures of a theme made lighter at once: asked for, watched, stopped, kept. */
@Controller
@RequestMapping("/themes/{id}/pictures/all")
class AllLighterController {
    private static final AllPictures.Sort LIGHTER = AllPictures.Sort.LIGHTER;

    private final ThemeService themes;
    private final AllPictures all;
    private final Notices notices;

    AllLighterController(ThemeService themes, AllPictures all, Notices notices) {
        this.themes = themes;
        this.all = all;
        this.notices = notices;
    }

    @GetMapping
    String view(@PathVariable long id, @AuthenticationPrincipal SignedIn me, Model model) {
        fill(themes.open(id, me), model);
        return "pictures/all";
    }

    /** How far it is; the whole view once it has ended. */
    @GetMapping("/progress")
    String progress(@PathVariable long id, @AuthenticationPrincipal SignedIn me, Model model) {
        fill(themes.open(id, me), model);
        return "pictures/all :: state";
    }

    private void fill(OpenTheme open, Model model) {
        model.addAttribute("open", open);
        model.addAttribute("asked", all.asked(open, LIGHTER).orElse(null));
        model.addAttribute("count", open.theme().pictures().size());
    }

    @PostMapping
    String start(
            @PathVariable long id,
            @RequestParam(defaultValue = "2560") int width,
            @RequestParam(defaultValue = "80") int quality,
            @AuthenticationPrincipal SignedIn me) {
        all.start(themes.open(id, me), new AllPictures.Lightening(width, quality));
        return here(id);
    }

    @PostMapping("/stop")
    String stop(@PathVariable long id, @AuthenticationPrincipal SignedIn me) {
        themes.stored(id, me);
        all.stop(id, LIGHTER);
        return here(id);
    }

    @PostMapping("/keep")
    String keep(
            @PathVariable long id,
            @RequestParam(defaultValue = "0") long base,
            @AuthenticationPrincipal SignedIn me,
            HttpServletRequest request) {
        // Not as a list of strings: a comma in a path would cut it in two.
        String[] ticked = request.getParameterValues("picture");
        List<String> paths = ticked == null ? List.of() : List.of(ticked);
        OpenTheme open = themes.open(id, me);
        Snapshot made =
                themes.change(id, base, me, theme -> PictureChange.lighter(theme, all.chosen(open, LIGHTER, paths)));
        all.forget(id, LIGHTER);
        notices.done(made.note());
        return Go.to("/themes/" + id + "/pictures");
    }

    private static String here(long id) {
        return Go.to("/themes/" + id + "/pictures/all");
    }
}
