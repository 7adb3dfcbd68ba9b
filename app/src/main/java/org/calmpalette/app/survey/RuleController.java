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
import org.calmpalette.core.cascade.Fates;
import org.calmpalette.core.change.Change;
import org.calmpalette.core.change.Located;
import org.calmpalette.core.css.Node;
import org.calmpalette.core.part.Excerpt;
import org.calmpalette.core.part.WhyNot;
import org.calmpalette.core.survey.Finding;
import org.calmpalette.core.survey.Survey;
import org.calmpalette.core.usage.PageSelector;
import org.calmpalette.core.usage.Painted;
import org.calmpalette.core.usage.Readers;
import org.springframework.security.core.annotation.AuthenticationPrincipal;
import org.springframework.stereotype.Controller;
import org.springframework.ui.Model;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestMapping;
import org.springframework.web.bind.annotation.RequestParam;

/** A rule with what becomes of each of its declarations, and why one does not win. */
@Controller
@RequestMapping("/themes/{id}/rule")
class RuleController {
    private final ThemeService themes;
    private final Notices notices;

    RuleController(ThemeService themes, Notices notices) {
        this.themes = themes;
        this.notices = notices;
    }

    /**
     * A declaration of the rule.
     *
     * @param state kept, look or breaks, for its sign
     * @param spelling key of the finding that corrects it, or empty
     */
    public record Line(
            String text,
            int number,
            int start,
            String state,
            String word,
            String sentence,
            List<WhyNot> ways,
            String spelling) {}

    @GetMapping
    String card(
            @PathVariable long id,
            @RequestParam String file,
            @RequestParam int start,
            @AuthenticationPrincipal SignedIn me,
            Model model) {
        OpenTheme open = themes.open(id, me);
        Located at = Located.find(open.theme(), file, start);
        Survey survey = open.survey();
        List<Line> lines = new ArrayList<>();
        Node.Rule rule =
                at.around().isEmpty() ? null : at.around().get(at.around().size() - 1);
        for (Node child : rule == null ? List.<Node>of() : rule.children()) {
            if (child instanceof Node.Declaration d) {
                lines.add(line(open, survey, new Located(at.part(), d, at.around())));
            }
        }
        List<Painted> painted = Readers.selector(at.part().sheet(), at.around())
                .map(s -> PageSelector.of(s, at.declaration().property()))
                .orElse(List.of());
        model.addAttribute("open", open);
        model.addAttribute("at", at);
        model.addAttribute("selector", rule == null ? "" : at.part().sheet().prelude(rule));
        model.addAttribute("role", survey.roles().get(file));
        model.addAttribute("lines", lines);
        model.addAttribute("painted", painted);
        model.addAttribute(
                "count",
                open.read()
                        .parts()
                        .count(painted.stream()
                                .map(Painted::selector)
                                .distinct()
                                .toList()));
        model.addAttribute("excerpt", Excerpt.at(at.part().file(), at.nameStart(), at.declarationEnd(), 4));
        return "survey/rule :: card";
    }

    private static Line line(OpenTheme open, Survey survey, Located at) {
        Fates.Fate fate = survey.fates().get(new Fates.Key(at.part().path(), at.nameStart()));
        String text = at.declaration().property() + ": " + at.value()
                + (at.declaration().important() ? " !important" : "");
        if (fate == null) {
            return new Line(
                    text,
                    at.line(),
                    at.nameStart(),
                    "unknown",
                    "not loaded",
                    "No page loads it as a style: its sheet is not linked, its selector is not understood, or it is no style rule.",
                    List.of(),
                    "");
        }
        String spelling = survey.findings().stream()
                .filter(f -> f.kind().isMisspelt()
                        && f.canBeMended()
                        && f.file().equals(at.part().path())
                        && f.line() == at.line())
                .map(Finding::key)
                .findFirst()
                .orElse("");
        String state =
                switch (fate.kind()) {
                    case EVERYWHERE -> "kept";
                    case SOMEWHERE -> "unknown";
                    default -> "breaks";
                };
        String word =
                switch (fate.kind()) {
                    case EVERYWHERE -> "wins everywhere";
                    case SOMEWHERE -> "wins somewhere";
                    case NOWHERE -> "wins nowhere";
                    case MATCHES_NOTHING -> "finds nothing";
                    case NOT_UNDERSTOOD -> "not understood";
                };
        return new Line(
                text,
                at.line(),
                at.nameStart(),
                state,
                word,
                WhyNot.sentence(fate),
                WhyNot.ways(open.read().rendered(), survey.roles(), fate),
                spelling);
    }

    private static Change fix(OpenTheme open, String file, int start, String way) {
        Fates.Fate fate = open.survey().fates().get(new Fates.Key(file, start));
        return fate == null
                ? gone()
                : WhyNot.ways(open.read().rendered(), open.survey().roles(), fate).stream()
                        .filter(w -> w.id().equals(way))
                        .map(WhyNot::fix)
                        .findFirst()
                        .orElseGet(RuleController::gone);
    }

    private static Change gone() {
        throw new BadInputException("That declaration is no longer beaten in this way.", "Open the rule again.");
    }

    @GetMapping("/effect")
    String effect(
            @PathVariable long id,
            @RequestParam String file,
            @RequestParam int start,
            @RequestParam String way,
            @AuthenticationPrincipal SignedIn me,
            Model model) {
        OpenTheme open = themes.open(id, me);
        PartController.preview(open, fix(open, file, start, way), model);
        model.addAttribute("make", true);
        model.addAttribute("open", open);
        model.addAttribute("file", file);
        model.addAttribute("start", start);
        model.addAttribute("way", way);
        return "survey/rule :: effect";
    }

    @PostMapping("/win")
    String win(
            @PathVariable long id,
            @RequestParam long base,
            @RequestParam String file,
            @RequestParam int start,
            @RequestParam String way,
            @AuthenticationPrincipal SignedIn me) {
        OpenTheme open = themes.open(id, me);
        Snapshot made = themes.change(id, base, me, theme -> fix(open, file, start, way));
        notices.done(made.note());
        return Go.to("/themes/" + id + "/survey?view=search&q="
                + PartController.encoded(open.survey()
                        .fates()
                        .get(new Fates.Key(file, start))
                        .declaration()
                        .selector()));
    }
}
