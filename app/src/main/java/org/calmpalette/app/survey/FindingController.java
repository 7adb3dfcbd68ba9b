package org.calmpalette.app.survey;

import java.util.List;
import org.calmpalette.app.accounts.SignedIn;
import org.calmpalette.app.themes.OpenTheme;
import org.calmpalette.app.themes.Snapshot;
import org.calmpalette.app.themes.ThemeService;
import org.calmpalette.app.web.Go;
import org.calmpalette.app.web.Notices;
import org.calmpalette.core.BadInputException;
import org.calmpalette.core.change.Change;
import org.calmpalette.core.change.Trial;
import org.calmpalette.core.page.Paths;
import org.calmpalette.core.part.Excerpt;
import org.calmpalette.core.survey.Finding;
import org.calmpalette.core.theme.Theme;
import org.springframework.security.core.annotation.AuthenticationPrincipal;
import org.springframework.stereotype.Controller;
import org.springframework.ui.Model;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestMapping;
import org.springframework.web.bind.annotation.RequestParam;

/** Findings one by one: their place, their mend, and letting them stand. */
@Controller
@RequestMapping("/themes/{id}/finding")
class FindingController {
    private final ThemeService themes;
    private final Notices notices;

    FindingController(ThemeService themes, Notices notices) {
        this.themes = themes;
        this.notices = notices;
    }

    @GetMapping
    String card(@PathVariable long id, @RequestParam String key, @AuthenticationPrincipal SignedIn me, Model model) {
        OpenTheme open = themes.open(id, me);
        Finding finding = find(open, key);
        model.addAttribute("open", open);
        model.addAttribute("finding", finding);
        model.addAttribute("excerpt", excerpt(open.theme(), finding));
        long same = open.findings().stream()
                .filter(f -> f.kind() == finding.kind() && f.canBeMended())
                .count();
        model.addAttribute("same", same);
        // A page's finding is shown on that page; a stylesheet's on whichever is open.
        model.addAttribute("onPage", Paths.isPage(finding.file()) ? finding.file() : "");
        return "survey/finding :: card";
    }

    private static Excerpt excerpt(Theme theme, Finding f) {
        return theme.sheets().stream()
                .filter(s -> s.path().equals(f.file()))
                .map(s -> s.file())
                .findFirst()
                .or(() -> theme.pages().stream()
                        .map(p -> p.source())
                        .filter(s -> s.file().equals(f.file()))
                        .findFirst())
                .map(text -> f.column() > 0
                        ? Excerpt.at(
                                text,
                                text.lineStart(f.line()) + f.column() - 1,
                                text.lineStart(f.line()) + f.column() - 1,
                                3)
                        : Excerpt.around(text, f.line(), f.line(), 3))
                .orElse(null);
    }

    private static Finding find(OpenTheme open, String key) {
        return open.finding(key)
                .orElseThrow(() -> new BadInputException(
                        "This finding is gone: it was mended, or its place has changed.", "Load the survey again."));
    }

    /** What the mend would do; asked for by itself, since trying it takes a moment. */
    @GetMapping("/effect")
    String effect(
            @PathVariable long id,
            @RequestParam String key,
            @RequestParam(defaultValue = "false") boolean all,
            @AuthenticationPrincipal SignedIn me,
            Model model) {
        OpenTheme open = themes.open(id, me);
        try {
            PartController.preview(open, fix(open, key, all), model);
        } catch (BadInputException e) {
            model.addAttribute("message", e.getMessage());
            model.addAttribute("mend", e.mend());
        }
        return "survey/part :: preview";
    }

    private static Change fix(OpenTheme open, String key, boolean all) {
        Finding finding = find(open, key);
        if (!finding.canBeMended()) {
            throw new BadInputException("This needs a decision of yours.", finding.mend());
        }
        if (!all) {
            return finding.fix().get();
        }
        List<Change> fixes = open.findings().stream()
                .filter(f -> f.kind() == finding.kind() && f.canBeMended())
                .map(f -> f.fix().get())
                .toList();
        List<Change> kept = finding.kind().isQuiet() ? Trial.quiet(open.read().rendered(), fixes) : fixes;
        if (kept.isEmpty()) {
            throw new BadInputException(
                    "Each of them would change how something looks.",
                    "Look at them one by one: the trial of each tells what.");
        }
        String count = kept.size() == fixes.size()
                ? "mended all " + fixes.size()
                : "mended " + kept.size() + " of " + fixes.size() + "; the others would change how something looks";
        return Change.all(finding.kind().heading() + ": " + count, kept);
    }

    @PostMapping("/mend")
    String mend(
            @PathVariable long id,
            @RequestParam long base,
            @RequestParam String key,
            @RequestParam(defaultValue = "false") boolean all,
            @AuthenticationPrincipal SignedIn me) {
        OpenTheme open = themes.open(id, me);
        // The finding is of the snapshot that was seen; the change refuses if the theme has moved on.
        Snapshot made = themes.change(id, base, me, theme -> fix(open, key, all));
        notices.done(made.note());
        return Go.to("/themes/" + id + "/survey?view=findings");
    }

    @PostMapping("/dismiss")
    String dismiss(
            @PathVariable long id,
            @RequestParam String key,
            @RequestParam(defaultValue = "") String note,
            @AuthenticationPrincipal SignedIn me) {
        themes.dismiss(id, find(themes.open(id, me), key), note, me);
        notices.done("The finding is dismissed and stays so; it is listed at the end");
        return Go.to("/themes/" + id + "/survey?view=findings");
    }

    @PostMapping("/take-back")
    String takeBack(@PathVariable long id, @RequestParam String key, @AuthenticationPrincipal SignedIn me) {
        themes.takeBack(id, key, me);
        notices.done("The finding is listed again");
        return Go.to("/themes/" + id + "/survey?view=findings");
    }
}
