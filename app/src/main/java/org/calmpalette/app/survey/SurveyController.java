package org.calmpalette.app.survey;

import jakarta.servlet.http.HttpServletRequest;
import java.time.Duration;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.function.Function;
import org.calmpalette.app.accounts.SignedIn;
import org.calmpalette.app.frames.FrameAddresses;
import org.calmpalette.app.settings.Controls;
import org.calmpalette.app.settings.Fields;
import org.calmpalette.app.settings.SettingForm;
import org.calmpalette.app.themes.OpenTheme;
import org.calmpalette.app.themes.Snapshot;
import org.calmpalette.app.themes.ThemeService;
import org.calmpalette.app.web.Go;
import org.calmpalette.app.web.Notices;
import org.calmpalette.app.web.Pager;
import org.calmpalette.app.web.Strip;
import org.calmpalette.core.BadInputException;
import org.calmpalette.core.BeyondLimitException;
import org.calmpalette.core.Budget;
import org.calmpalette.core.change.Change;
import org.calmpalette.core.change.Lift;
import org.calmpalette.core.change.Reach;
import org.calmpalette.core.part.ColorsInSight;
import org.calmpalette.core.render.Measures;
import org.calmpalette.core.setting.ColorKey;
import org.calmpalette.core.setting.ColorKind;
import org.calmpalette.core.setting.Value;
import org.calmpalette.core.survey.Finding;
import org.calmpalette.core.survey.Proposal;
import org.calmpalette.core.survey.Search;
import org.calmpalette.core.survey.Suggestion;
import org.calmpalette.core.survey.Survey;
import org.calmpalette.core.theme.Theme;
import org.calmpalette.core.usage.ColorFamily;
import org.calmpalette.core.usage.ColorRow;
import org.calmpalette.core.usage.ColorUse;
import org.calmpalette.core.usage.NearColors;
import org.calmpalette.core.usage.Painted;
import org.springframework.security.core.annotation.AuthenticationPrincipal;
import org.springframework.stereotype.Controller;
import org.springframework.ui.Model;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestMapping;
import org.springframework.web.bind.annotation.RequestParam;
import org.thymeleaf.util.StringUtils;

/** What is fixed in a theme and what is wrong with it; lifting colours into settings. */
@Controller
@RequestMapping("/themes/{id}")
class SurveyController {
    /** Uses of one colour that its card lists. */
    private static final int MOST_USES = 200;

    private static final Duration PATIENCE = Duration.ofMillis(900);

    private final ThemeService themes;
    private final FrameAddresses addresses;
    private final Notices notices;

    SurveyController(ThemeService themes, FrameAddresses addresses, Notices notices) {
        this.themes = themes;
        this.addresses = addresses;
        this.notices = notices;
    }

    /** A row of the ledger, ready to be written: templates are slow at putting texts together. */
    public record Listed(String value, String words, String spellings, int uses, String selector, String where) {
        private static final int LONGEST = 44;
        private static final int LONGEST_SELECTOR = 300;
        /** What the page itself searches while one types. */
        private static final int LONGEST_WORDS = 4_000;

        static Listed of(ColorRow row) {
            ColorUse first = row.uses().get(0);
            String spellings = String.join("   ", row.spellings());
            return new Listed(
                    row.value(),
                    StringUtils.abbreviate(row.words(), LONGEST_WORDS),
                    StringUtils.abbreviate(spellings, LONGEST),
                    row.uses().size(),
                    StringUtils.abbreviate(first.selector(), LONGEST_SELECTOR),
                    first.property() + ", " + first.file() + ":" + first.line());
        }
    }

    private static final Map<String, String> PAINTS = Map.of(
            "fill", "Backgrounds", "text", "Texts", "line", "Borders and lines", "icon", "Icons", "shadow", "Shadows");

    /** Rows under what they paint, or all under one empty heading. */
    private static Map<String, List<Listed>> listed(List<ColorRow> rows, String by, ColorsInSight sight) {
        Map<String, List<Listed>> all = new LinkedHashMap<>();
        if (!by.equals("paint")) {
            if (!rows.isEmpty()) {
                all.put("", rows.stream().map(Listed::of).toList());
            }
            return all;
        }
        sight.byRole(rows)
                .forEach((role, list) ->
                        all.put(PAINTS.get(role), list.stream().map(Listed::of).toList()));
        return all;
    }

    @GetMapping
    String theme(@PathVariable long id, @AuthenticationPrincipal SignedIn me) {
        themes.stored(id, me);
        return "redirect:/themes/" + id + "/survey";
    }

    @GetMapping("/survey")
    String survey(
            @PathVariable long id,
            @RequestParam(defaultValue = "") String row,
            @RequestParam(defaultValue = "colours") String view,
            @RequestParam(defaultValue = "") String page,
            @RequestParam(defaultValue = "") String q,
            @RequestParam(defaultValue = "0") int from,
            @RequestParam(defaultValue = "") String find,
            @RequestParam(defaultValue = "uses") String by,
            @RequestParam(defaultValue = "false") boolean all,
            @AuthenticationPrincipal SignedIn me,
            Model model,
            HttpServletRequest request) {
        OpenTheme open = themes.open(id, me);
        model.addAttribute("open", open);
        Optional<Survey> survey = open.read().surveyWithin(PATIENCE);
        if (survey.isEmpty()) {
            model.addAttribute("failure", open.read().failure());
            model.addAttribute("progress", open.read().progress());
            return "survey/working";
        }
        model.addAttribute("view", view);
        model.addAttribute("unfolded", all);
        model.addAttribute("by", by);
        model.addAttribute(
                "strip", Strip.of(open.theme(), addresses.ofSnapshot(open.head().id()), page, request));
        model.addAttribute("turns", open.read().turns());
        model.addAttribute("unmeasured", themes.unmeasured(open));
        List<ColorRow> rows = open.colors().rows();
        model.addAttribute("colorCount", rows.size());
        List<Finding> findings = open.findings();
        model.addAttribute("findingCount", findings.size());
        model.addAttribute("find", find);
        String wanted = find.strip().toLowerCase(Locale.ROOT);
        switch (view) {
            case "findings" -> {
                List<Finding> found = wanted.isEmpty()
                        ? findings
                        : findings.stream()
                                .filter(f -> (f.kind().heading() + " " + f.message() + " " + f.file())
                                        .toLowerCase(Locale.ROOT)
                                        .contains(wanted))
                                .toList();
                // The search field goes to the server as long as not everything is listed.
                Pager pager = Pager.of(from, found.size());
                model.addAttribute(
                        "pager",
                        wanted.isEmpty()
                                ? pager
                                : new Pager(pager.from(), pager.size(), Math.max(found.size(), Pager.SIZE + 1)));
                model.addAttribute("groups", groups(pager.of(found)));
                model.addAttribute("dismissals", open.dismissed().values());
            }
            case "search" -> search(open, q, model);
            case "parts" -> parts(open, page, model);
            default -> {
                List<ColorRow> found = wanted.isEmpty()
                        ? rows
                        : rows.stream()
                                .filter(r -> (r.value() + " " + r.words())
                                        .toLowerCase(Locale.ROOT)
                                        .contains(wanted))
                                .toList();
                ColorRow chosen = rows.stream()
                        .filter(r -> r.value().equals(row))
                        .findFirst()
                        .orElse(null);
                ColorsInSight sight = open.read()
                        .derived(
                                "colours in sight",
                                () -> ColorsInSight.of(rows, open.read().parts()));
                // One that is asked for, or searched, is shown wherever it is.
                boolean folded = wanted.isEmpty()
                        && !all
                        && !sight.onPages().isEmpty()
                        && (chosen == null || sight.onPages().contains(chosen.value()));
                List<ColorRow> kept = folded
                        ? found.stream()
                                .filter(r -> sight.onPages().contains(r.value()))
                                .toList()
                        : found;
                if (by.equals("paint")) {
                    kept = sight.byRole(kept).values().stream()
                            .flatMap(List::stream)
                            .toList();
                }
                model.addAttribute("folded", folded ? found.size() - kept.size() : 0);
                Pager pager = Pager.of(chosen == null ? from : Math.max(0, kept.indexOf(chosen)), kept.size());
                List<ColorRow> shown = pager.of(kept);
                chosen = chosen == null && !shown.isEmpty() ? shown.get(0) : chosen;
                model.addAttribute("pager", pager);
                model.addAttribute("listed", listed(shown, by, sight));
                model.addAttribute("plot", Plot.of(open.colors()));
                if (chosen != null) {
                    card(open, chosen, model);
                }
            }
        }
        return "survey/survey";
    }

    /** How far a survey in the background is; loads the page again when it is ready. */
    @GetMapping("/survey/progress")
    String progress(
            @PathVariable long id,
            @AuthenticationPrincipal SignedIn me,
            Model model,
            jakarta.servlet.http.HttpServletResponse response) {
        OpenTheme open = themes.open(id, me);
        if (open.read().surveyWithin(Duration.ZERO).isPresent()
                || !open.read().failure().isEmpty()) {
            response.setHeader("HX-Refresh", "true");
        }
        model.addAttribute("open", open);
        model.addAttribute("failure", "");
        model.addAttribute("progress", open.read().progress());
        return "fragments :: progress";
    }

    @PostMapping("/survey/again")
    String again(@PathVariable long id, @AuthenticationPrincipal SignedIn me) {
        themes.surveyAgain(id, me);
        return "redirect:/themes/" + id + "/survey";
    }

    private static Map<Finding.Group, List<Finding>> groups(List<Finding> findings) {
        Map<Finding.Group, List<Finding>> groups = new LinkedHashMap<>();
        for (Finding f : findings) {
            groups.computeIfAbsent(f.group(), k -> new java.util.ArrayList<>()).add(f);
        }
        return groups;
    }

    @GetMapping("/survey/search")
    String search(
            @PathVariable long id,
            @RequestParam(defaultValue = "") String q,
            @AuthenticationPrincipal SignedIn me,
            Model model) {
        OpenTheme open = themes.open(id, me);
        model.addAttribute("open", open);
        search(open, q, model);
        return "survey/survey :: hits";
    }

    private void parts(OpenTheme open, String wanted, Model model) {
        Map<String, Measures> measures = themes.measures(open);
        open.theme().pages().stream()
                .filter(p -> wanted.isEmpty() || p.source().file().equals(wanted))
                .findFirst()
                .or(() -> open.theme().pages().stream().findFirst())
                .ifPresentOrElse(
                        p -> {
                            model.addAttribute("partsPage", p.source().file());
                            model.addAttribute(
                                    "measured", measures.containsKey(p.source().file()));
                            model.addAttribute("parts", PageParting.of(open, p, measures));
                        },
                        () -> {
                            model.addAttribute("partsPage", "");
                            model.addAttribute("measured", true);
                            model.addAttribute("parts", List.of());
                        });
    }

    private static void search(OpenTheme open, String q, Model model) {
        model.addAttribute("q", q);
        model.addAttribute("found", Search.of(open.theme(), q));
        // Sheets inside of pages and style attributes are the maker's without question.
        model.addAttribute(
                "sheets",
                open.theme().sheets().stream()
                        .filter(s -> s.offset() == 0)
                        .map(s -> Map.entry(s.path(), open.roles().get(s.path())))
                        .distinct()
                        .toList());
    }

    @GetMapping("/survey/card")
    String card(@PathVariable long id, @RequestParam String row, @AuthenticationPrincipal SignedIn me, Model model) {
        OpenTheme open = themes.open(id, me);
        model.addAttribute("open", open);
        open.colors().rows().stream()
                .filter(r -> r.value().equals(row))
                .findFirst()
                .ifPresent(chosen -> card(open, chosen, model));
        return "survey/survey :: card";
    }

    private void card(OpenTheme open, ColorRow row, Model model) {
        List<ColorUse> liftable = row.uses().stream()
                .filter(ColorUse::isLiftable)
                .limit(MOST_USES)
                .toList();
        model.addAttribute("row", row);
        model.addAttribute(
                "uses", row.uses().subList(0, Math.min(MOST_USES, row.uses().size())));
        model.addAttribute("moreUses", Math.max(0, row.uses().size() - MOST_USES));
        // Where an edit does not last, one is told before it is made.
        model.addAttribute(
                "unlasting",
                row.uses().stream()
                        .map(ColorUse::file)
                        .distinct()
                        .filter(f -> !open.roles().get(f).lasts())
                        .map(f -> Map.entry(f, open.roles().get(f).because()))
                        .toList());
        relatives(open, row, model);
        model.addAttribute(
                "suggestion",
                Suggestion.of(
                        liftable.isEmpty() ? row.uses().subList(0, 1) : liftable,
                        open.read().rendered(),
                        open.colors().customProperties()));
        model.addAttribute(
                "painted",
                row.uses().stream()
                        .limit(MOST_USES)
                        .flatMap(u -> u.paints().stream())
                        .toList());
        List<Painted> painted = row.uses().stream()
                .limit(MOST_USES)
                .flatMap(u -> u.paints().stream())
                .distinct()
                .toList();
        model.addAttribute(
                "kind",
                Proposal.of(
                        ColorKind.ANY,
                        Value.of(row.value()),
                        open.read().rendered(),
                        open.colors().rows(),
                        painted));
        model.addAttribute(
                "controls",
                Controls.of(open.theme(), addresses.ofSnapshot(open.head().id())));
        model.addAttribute(
                "themeColors",
                open.colors().rows().stream().limit(14).map(ColorRow::value).toList());
    }

    /** Read as they were sent: their words have commas, at which lists of parameters are cut. */
    private static Set<String> relatives(HttpServletRequest request) {
        String[] sent = request.getParameterValues("relative");
        return sent == null ? Set.of() : new LinkedHashSet<>(List.of(sent));
    }

    /**
     * Colours that were computed from one in one way.
     *
     * @param value the first of them, as it is written
     * @param fits whether nobody can tell it from what is written
     * @param drawn how many of the uses stand in drawings inside of addresses
     */
    public record Relatives(String words, String value, int uses, List<Painted> paints, boolean fits, int drawn) {}

    private static void relatives(OpenTheme open, ColorRow row, Model model) {
        Map<String, List<ColorFamily.Relative>> groups = new LinkedHashMap<>();
        for (ColorFamily.Relative r : ColorFamily.of(open.colors(), row.color())) {
            if (r.use().isLiftable() && (r.drawn() || !r.words().equals("same"))) {
                groups.computeIfAbsent(r.words(), k -> new ArrayList<>()).add(r);
            }
        }
        model.addAttribute(
                "relatives",
                groups.entrySet().stream()
                        .map(e -> new Relatives(
                                e.getKey(),
                                ColorKey.of(e.getValue().get(0).use().color()),
                                e.getValue().size(),
                                e.getValue().stream()
                                        .limit(MOST_USES)
                                        .flatMap(r -> r.use().paints().stream())
                                        .distinct()
                                        .toList(),
                                e.getValue().stream().allMatch(r -> r.fit() < NearColors.NEAR),
                                (int) e.getValue().stream()
                                        .filter(ColorFamily.Relative::drawn)
                                        .count()))
                        .toList());
    }

    @PostMapping("/lift")
    String lift(
            @PathVariable long id,
            @RequestParam long base,
            @RequestParam(required = false) Set<String> use,
            @RequestParam(defaultValue = "") String rest,
            @AuthenticationPrincipal SignedIn me,
            HttpServletRequest request) {
        SettingForm form = new SettingForm(new Fields(request.getParameterMap()));
        Set<String> uses = uses(themes.open(id, me), use, rest);
        Function<Theme, Change> lifted = theme -> lift(theme, uses, form, request);
        // Of uses that nobody saw only the newest state tells where they are.
        Snapshot made =
                rest.isEmpty() ? themes.changeBeside(id, base, me, lifted) : themes.change(id, base, me, lifted);
        notices.done(made.note());
        return Go.to("/themes/" + id + "/settings?key=" + form.key());
    }

    /** How far the setting would reach, tried with another colour. */
    @PostMapping("/lift/try")
    String tryLift(
            @PathVariable long id,
            @RequestParam(required = false) Set<String> use,
            @RequestParam(defaultValue = "") String rest,
            @AuthenticationPrincipal SignedIn me,
            HttpServletRequest request,
            Model model) {
        OpenTheme open = themes.open(id, me);
        SettingForm form = new SettingForm(new Fields(request.getParameterMap()));
        Set<String> uses = uses(open, use, rest);
        try {
            model.addAttribute("reach", Budget.within(TRIED, () -> Reach.of(
                            open.read().rendered(), lift(open.theme(), uses, form, request), form.key())
                    .inWords()));
        } catch (BeyondLimitException e) {
            model.addAttribute("reach", "Not tried with another colour: that takes too long in a theme of this size.");
        } catch (BadInputException e) {
            model.addAttribute("reach", e.getMessage() + " " + e.mend());
        }
        return "survey/survey :: reach";
    }

    /** Processor time for it: the card is there without it. */
    private static final Duration TRIED = Duration.ofMillis(1_200);

    private static Set<String> uses(OpenTheme open, Set<String> ticked, String rest) {
        Set<String> uses = new LinkedHashSet<>(ticked == null ? Set.of() : ticked);
        open.colors().rows().stream()
                .filter(r -> r.value().equals(rest))
                .flatMap(r -> r.uses().stream().skip(MOST_USES))
                .filter(ColorUse::isLiftable)
                .forEach(u -> uses.add(u.id()));
        return uses;
    }

    private static Change lift(Theme theme, Set<String> uses, SettingForm form, HttpServletRequest request) {
        return Lift.lift(
                theme, uses, form.setting(theme.palette(), null), form.place(theme.palette()), relatives(request));
    }
}
