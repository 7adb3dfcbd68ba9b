package org.calmpalette.app.promises;

import jakarta.servlet.http.HttpServletRequest;
import jakarta.servlet.http.HttpServletResponse;
import java.math.BigDecimal;
import java.time.Duration;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import org.calmpalette.app.accounts.SignedIn;
import org.calmpalette.app.frames.FrameAddresses;
import org.calmpalette.app.settings.Trial;
import org.calmpalette.app.themes.OpenTheme;
import org.calmpalette.app.themes.Snapshot;
import org.calmpalette.app.themes.ThemeService;
import org.calmpalette.app.web.Courtesy;
import org.calmpalette.app.web.Go;
import org.calmpalette.app.web.Notices;
import org.calmpalette.app.web.Strip;
import org.calmpalette.app.work.Job;
import org.calmpalette.core.BadInputException;
import org.calmpalette.core.change.Change;
import org.calmpalette.core.promise.Answer;
import org.calmpalette.core.promise.Mend;
import org.calmpalette.core.promise.Mends;
import org.calmpalette.core.promise.Promise;
import org.calmpalette.core.promise.Promises;
import org.calmpalette.core.promise.SafeArea;
import org.calmpalette.core.promise.Variation;
import org.calmpalette.core.promise.WidestLimits;
import org.calmpalette.core.setting.Between;
import org.calmpalette.core.setting.Chosen;
import org.calmpalette.core.setting.ColorKind;
import org.calmpalette.core.setting.Effective;
import org.calmpalette.core.setting.Range;
import org.calmpalette.core.setting.Setting;
import org.calmpalette.core.setting.Thresholds;
import org.calmpalette.core.setting.Value;
import org.calmpalette.core.survey.Finding;
import org.calmpalette.core.theme.Theme;
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

/** What a theme promises: what is kept, what breaks and how, what cannot be told; the case in the frames, and the ways out. */
@Controller
@RequestMapping("/themes/{id}/promises")
class PromisesController {
    private static final Duration PATIENCE = Duration.ofMillis(900);

    private final ThemeService themes;
    private final FrameAddresses addresses;
    private final Notices notices;
    private final Courtesy courtesy;

    PromisesController(ThemeService themes, FrameAddresses addresses, Notices notices, Courtesy courtesy) {
        this.themes = themes;
        this.addresses = addresses;
        this.notices = notices;
        this.courtesy = courtesy;
    }

    @GetMapping
    String promises(
            @PathVariable long id,
            @RequestParam(name = "key", defaultValue = "") String which,
            @RequestParam(defaultValue = "false") boolean kept,
            @RequestParam(defaultValue = "") String page,
            @AuthenticationPrincipal SignedIn me,
            Model model,
            HttpServletRequest request) {
        OpenTheme open = themes.open(id, me);
        Job<List<Answer>> job = themes.promises(open);
        List<Answer> answers = answers(open, job, model);
        if (answers == null) {
            return "promises/working";
        }
        Answer chosen = answers.stream()
                .filter(a -> a.id().equals(which))
                .findFirst()
                .orElse(answers.isEmpty() || answers.get(0).state() == Answer.State.KEPT ? null : answers.get(0));
        String shown = chosen == null || chosen.page().isEmpty() ? page : chosen.page();
        model.addAttribute(
                "strip", Strip.of(open.theme(), addresses.ofSnapshot(open.head().id()), shown, request));
        model.addAttribute("turns", open.read().turns());
        model.addAttribute("unmeasured", themes.unmeasured(open));
        model.addAttribute("told", themes.measuredThen(open));
        PromiseRows rows = PromiseRows.of(id, answers, open.theme().palette(), kept);
        model.addAttribute("rows", rows);
        model.addAttribute("kept", kept);
        model.addAttribute(
                "colors",
                open.theme().palette().settings().stream()
                        .filter(s -> s.kind() instanceof ColorKind)
                        .count());
        for (Answer.State state : Answer.State.values()) {
            model.addAttribute(
                    "count" + state.name(),
                    answers.stream()
                            .filter(a -> a.state() == state && !a.isWaived())
                            .count());
        }
        if (chosen != null) {
            card(open, chosen, model);
        }
        return "promises/promises";
    }

    /** All of it on paper. */
    @GetMapping("/report")
    String report(@PathVariable long id, @AuthenticationPrincipal SignedIn me, Model model) {
        OpenTheme open = themes.open(id, me);
        Job<List<Answer>> job = themes.promises(open);
        List<Answer> answers = answers(open, job, model);
        if (answers == null) {
            return "promises/working";
        }
        model.addAttribute(
                "measured",
                open.theme().pages().size() - themes.unmeasured(open).size());
        model.addAttribute(
                "report", open.read().derived(List.of("report", answers), () -> Report.of(open.theme(), answers)));
        return "promises/report";
    }

    /** What was found, waited for a moment where nothing was yet; null where that takes longer, whose progress is shown then. */
    private List<Answer> answers(OpenTheme open, Job<List<Answer>> job, Model model) {
        model.addAttribute("open", open);
        if (!job.hasEnded() && open.promises().isEmpty()) {
            courtesy.waiting(() -> job.await(PATIENCE));
        }
        // Before they are read: what ends in between is news for whoever looks at what was there before.
        boolean fresh = job.hasEnded();
        List<Answer> answers = open.promises().orElse(null);
        model.addAttribute("fresh", fresh);
        if (answers == null) {
            working(job, model);
        }
        return answers;
    }

    private static void working(Job<List<Answer>> job, Model model) {
        model.addAttribute(
                "failure",
                job.failure().map(f -> f.getMessage() + " " + f.mend()).orElse(""));
        model.addAttribute("progress", job.progress());
    }

    @GetMapping("/progress")
    String progress(
            @PathVariable long id, @AuthenticationPrincipal SignedIn me, Model model, HttpServletResponse response) {
        OpenTheme open = themes.open(id, me);
        Job<List<Answer>> job = themes.promises(open);
        if (job.hasEnded()) {
            response.setHeader("HX-Refresh", "true");
        }
        model.addAttribute("open", open);
        working(job, model);
        return "fragments :: progress";
    }

    /** Nobody's page is taken from under the hand: what is new is shown when one asks for it. */
    @GetMapping("/fresh")
    String fresh(
            @PathVariable long id, @AuthenticationPrincipal SignedIn me, Model model, HttpServletResponse response) {
        OpenTheme open = themes.open(id, me);
        if (!themes.promises(open).hasEnded()) {
            response.setStatus(HttpServletResponse.SC_NO_CONTENT);
        }
        model.addAttribute("open", open);
        return "promises/card :: fresh";
    }

    @PostMapping("/again")
    String again(@PathVariable long id, @AuthenticationPrincipal SignedIn me) {
        themes.promisesAgain(id, me);
        return "redirect:/themes/" + id + "/promises";
    }

    @GetMapping("/card")
    String card(
            @PathVariable long id,
            @RequestParam(name = "key") String which,
            @AuthenticationPrincipal SignedIn me,
            Model model) {
        OpenTheme open = themes.open(id, me);
        model.addAttribute("open", open);
        card(open, find(open, which), model);
        return "promises/card :: card";
    }

    private static Answer find(OpenTheme open, String which) {
        return open.promises().orElse(List.of()).stream()
                .filter(a -> a.id().equals(which))
                .findFirst()
                .orElseThrow(() -> new BadInputException(
                        "This is asked otherwise now: the theme has changed.", "Load the promises again."));
    }

    /** A choice of the case, ready to be shown. @param color for a dot, or empty */
    public record Choice(String key, String label, String value, String color) {}

    private static void card(OpenTheme open, Answer a, Model model) {
        Theme theme = open.theme();
        List<Choice> choices = new ArrayList<>();
        a.values().forEach((key, value) -> {
            Setting s = theme.palette().setting(key).orElse(null);
            String words = s == null ? "" : s.kind().words(value);
            boolean color =
                    s != null && value instanceof Value.Text && s.kind().name().equals("color");
            choices.add(new Choice(
                    key, s == null ? key : s.label(), words.isEmpty() ? "nothing" : words, color ? words : ""));
        });
        model.addAttribute("answer", a);
        model.addAttribute("row", PromiseRows.row(open.id(), a, theme.palette().bands(), ""));
        model.addAttribute("ratio", a.isDistance() ? Answer.distance(a.worst()) + " apart" : a.ratio());
        model.addAttribute("seenWith", a.isDistance() && a.isBroken() ? ", with " + a.why() : "");
        model.addAttribute("choices", choices);
        model.addAttribute("where", Promises.where(theme, a));
        model.addAttribute(
                "isSetting",
                theme.palette().setting(a.selector()).isPresent() && a.page().isEmpty());
        model.addAttribute("isText", a.isMeasured());
        model.addAttribute("needed", Answer.plain(a.needed()));
        model.addAttribute("isApart", a.isAboutTwo());
        model.addAttribute(
                "marks",
                a.element() < 0
                        ? List.of()
                        : List.of(new Painted("[data-calm-at=\"" + a.element() + "\"]", "color", "")));
        List<Answer> alike = a.state() == Answer.State.UNPROVEN
                ? open.promises().orElse(List.of()).stream()
                        .filter(b -> b.state() == a.state() && b.promise() == a.promise() && b != a)
                        .filter(b -> PromiseRows.isSameReason(a, b))
                        .limit(MOST_ALIKE)
                        .toList()
                : List.of();
        model.addAttribute(
                "alike",
                alike.stream()
                        .map(b -> PromiseRows.row(open.id(), b, theme.palette().bands(), ""))
                        .toList());
    }

    private static final int MOST_ALIKE = 60;

    /** What would mend it; asked for by itself, since trying takes a moment. */
    @GetMapping("/mends")
    String mends(
            @PathVariable long id,
            @RequestParam(name = "key") String which,
            @AuthenticationPrincipal SignedIn me,
            Model model) {
        OpenTheme open = themes.open(id, me);
        Answer a = find(open, which);
        model.addAttribute("open", open);
        model.addAttribute("answer", a);
        model.addAttribute("mends", mends(open, a));
        return "promises/card :: mends";
    }

    private static List<Mend> mends(OpenTheme open, Answer a) {
        Map<Variation, List<Finding>> varied = open.read().foundVaried();
        return open.read().derived(List.of("mends", a.id(), varied.keySet()), () -> Mends.of(open.theme(), a, varied));
    }

    private static Mend mend(OpenTheme open, String which, String words) {
        return mends(open, find(open, which)).stream()
                .filter(m -> m.words().equals(words))
                .findFirst()
                .orElseThrow(() -> new BadInputException(
                        "This is no way out any more: the theme has changed.", "Load the promises again."));
    }

    /** The case as the previews show it; or, with a mend, what becomes of the same choices then. */
    @PostMapping("/try")
    @ResponseBody
    Trial attempt(
            @PathVariable long id,
            @RequestParam(name = "key") String which,
            @RequestParam(defaultValue = "") String mend,
            @AuthenticationPrincipal SignedIn me) {
        OpenTheme open = themes.open(id, me);
        try {
            Answer a = find(open, which);
            Theme theme = mend.isEmpty()
                    ? open.theme()
                    : mend(open, which, mend).change().applied(open.theme());
            Map<String, Chosen> choices = theme.palette().chosen(a.values());
            return Trial.of(
                    Effective.of(theme.palette(), choices, theme.media()),
                    addresses.ofSnapshot(open.head().id()),
                    "",
                    null,
                    v -> Effective.defaults(theme.palette(), theme.media()));
        } catch (BadInputException e) {
            return Trial.refused(e.getMessage(), e.mend());
        }
    }

    @PostMapping("/mend")
    String mend(
            @PathVariable long id,
            @RequestParam long base,
            @RequestParam(name = "key") String which,
            @RequestParam(defaultValue = "") String mend,
            @AuthenticationPrincipal SignedIn me) {
        OpenTheme open = themes.open(id, me);
        Mend chosen = mend(open, which, mend);
        // The mend was tried on the snapshot that was seen; the change refuses if the theme has moved on.
        Snapshot made = themes.change(id, base, me, theme -> chosen.change());
        notices.done(made.note());
        return Go.to("/themes/" + id + "/promises");
    }

    /** The widest limits of all settings with which every text is kept. */
    @GetMapping("/limits")
    String limits(@PathVariable long id, @AuthenticationPrincipal SignedIn me, Model model) {
        OpenTheme open = themes.open(id, me);
        model.addAttribute("open", open);
        model.addAttribute(
                "proposal",
                open.read()
                        .derived(
                                "all limits",
                                () -> WidestLimits.of(open.theme(), open.read().texts(), key -> true)));
        return "promises/card :: limits";
    }

    @PostMapping("/limits")
    String limits(
            @PathVariable long id,
            @RequestParam long base,
            @RequestParam(required = false) List<String> key,
            @AuthenticationPrincipal SignedIn me) {
        if (key == null) {
            throw new BadInputException("No setting is ticked.", "Tick those whose limits you want.");
        }
        // Of some alone they are worked out anew, since each was tried on top of those before.
        Snapshot made = themes.change(id, base, me, theme -> {
            Change change = WidestLimits.of(theme, SafeArea.Texts.of(theme), key::contains)
                    .change();
            if (change == null) {
                throw new BadInputException("There is nothing to limit any more.", "Load the promises again.");
            }
            return change;
        });
        notices.done(made.note());
        return Go.to("/themes/" + id + "/promises");
    }

    /** What is to be asked to add a promise about two colours. */
    @GetMapping("/between")
    String between(@PathVariable long id, @AuthenticationPrincipal SignedIn me, Model model) {
        OpenTheme open = themes.open(id, me);
        model.addAttribute("open", open);
        model.addAttribute(
                "colors",
                open.theme().palette().settings().stream()
                        .filter(s -> s.kind() instanceof ColorKind)
                        .toList());
        return "promises/card :: between";
    }

    /** @param back which promise to take back, by its key; empty to give one */
    @PostMapping("/between")
    String between(
            @PathVariable long id,
            @RequestParam long base,
            @RequestParam(defaultValue = "") String one,
            @RequestParam(defaultValue = "") String other,
            @RequestParam(defaultValue = "") String contrast,
            @RequestParam(defaultValue = "") String distance,
            @RequestParam(defaultValue = "") String back,
            @AuthenticationPrincipal SignedIn me) {
        BigDecimal least = number(contrast, "contrast ratio", "Write a number from 1 to 21, or nothing.");
        BigDecimal far = number(distance, "distance", "Write a number up to 1, such as 0.1, or nothing.");
        Snapshot made = themes.change(
                id,
                base,
                me,
                theme -> back.isEmpty()
                        ? Promises.between(theme, new Between(one, other, least, far))
                        : Promises.notBetween(
                                theme,
                                one,
                                other,
                                back.equals(Promise.APART.key()) ? Promise.APART : Promise.DISTINCT));
        notices.done(made.note());
        return Go.to("/themes/" + id + "/promises");
    }

    private static BigDecimal number(String typed, String what, String mend) {
        try {
            return typed.isBlank() ? null : new BigDecimal(typed.strip().replace(',', '.'));
        } catch (NumberFormatException e) {
            throw new BadInputException("“" + typed + "” is no " + what + ".", mend);
        }
    }

    /** How much is promised, to be said otherwise. */
    @GetMapping("/thresholds")
    String thresholds(@PathVariable long id, @AuthenticationPrincipal SignedIn me, Model model) {
        OpenTheme open = themes.open(id, me);
        model.addAttribute("open", open);
        model.addAttribute("levels", Thresholds.Level.values());
        model.addAttribute("least", Thresholds.LEAST);
        model.addAttribute("most", Thresholds.MOST);
        model.addAttribute("seams", Thresholds.SEAMS);
        model.addAttribute("larger", Thresholds.LARGER);
        return "promises/card :: thresholds";
    }

    @PostMapping("/thresholds")
    String thresholds(
            @PathVariable long id,
            @RequestParam long base,
            @RequestParam(defaultValue = "AA") Thresholds.Level level,
            @RequestParam(defaultValue = "") String pictures,
            @RequestParam(required = false) String seam,
            @RequestParam(required = false) String larger,
            @RequestParam(defaultValue = "false") boolean kept,
            @RequestParam(defaultValue = "false") boolean whatever,
            @AuthenticationPrincipal SignedIn me) {
        Snapshot made = themes.change(id, base, me, theme -> {
            Thresholds now = theme.palette().thresholds();
            return Promises.thresholds(
                    theme,
                    new Thresholds(
                            level,
                            kept,
                            whatever,
                            weight(pictures),
                            seam == null ? now.seam() : number(seam, "distance", Thresholds.SEAMS),
                            larger == null ? now.larger() : number(larger, "number of times", Thresholds.LARGER)));
        });
        notices.done(made.note());
        return Go.to("/themes/" + id + "/promises");
    }

    private static BigDecimal number(String typed, String what, Range range) {
        String mend = "Write a number from " + range.lower() + " to " + range.upper() + ".";
        BigDecimal n = number(typed, what, mend);
        if (n == null) {
            throw new BadInputException("The " + what + " is missing.", mend);
        }
        return n;
    }

    private static int weight(String kilobytes) {
        try {
            return Integer.parseInt(kilobytes.strip());
        } catch (NumberFormatException e) {
            throw new BadInputException(
                    "“" + kilobytes + "” is no weight.",
                    "Write a whole number of kB, from " + Thresholds.LEAST + " to " + Thresholds.MOST + ".");
        }
    }

    /** Lets a promise be, with a reason that goes with the theme; or asks for it again. */
    @PostMapping("/waive")
    String waive(
            @PathVariable long id,
            @RequestParam long base,
            @RequestParam(name = "key") String which,
            @RequestParam(defaultValue = "") String note,
            @RequestParam(defaultValue = "false") boolean again,
            @AuthenticationPrincipal SignedIn me) {
        Answer a = find(themes.open(id, me), which);
        Snapshot made = themes.change(id, base, me, theme -> Promises.waive(theme, a, again ? null : note));
        notices.done(made.note());
        return Go.to("/themes/" + id + "/promises");
    }
}
