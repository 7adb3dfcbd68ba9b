package org.calmpalette.app.survey;

import java.time.Duration;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import org.calmpalette.app.accounts.SignedIn;
import org.calmpalette.app.themes.OpenTheme;
import org.calmpalette.app.themes.Snapshot;
import org.calmpalette.app.themes.ThemeService;
import org.calmpalette.app.web.Go;
import org.calmpalette.app.web.Notices;
import org.calmpalette.core.BadInputException;
import org.calmpalette.core.BeyondLimitException;
import org.calmpalette.core.Budget;
import org.calmpalette.core.cascade.Explanation;
import org.calmpalette.core.change.Change;
import org.calmpalette.core.change.Difference;
import org.calmpalette.core.change.PageBinding;
import org.calmpalette.core.change.Trial;
import org.calmpalette.core.page.Page;
import org.calmpalette.core.part.Banner;
import org.calmpalette.core.part.PartChange;
import org.calmpalette.core.part.PartContrast;
import org.calmpalette.core.part.PartLook;
import org.calmpalette.core.part.ScriptClass;
import org.calmpalette.core.part.SidePictures;
import org.calmpalette.core.part.StepWords;
import org.calmpalette.core.part.UtilityClass;
import org.calmpalette.core.render.Rendered;
import org.calmpalette.core.survey.Suggestion;
import org.calmpalette.core.usage.Painted;
import org.springframework.security.core.annotation.AuthenticationPrincipal;
import org.springframework.stereotype.Controller;
import org.springframework.ui.Model;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestMapping;
import org.springframework.web.bind.annotation.RequestParam;
import org.springframework.web.util.UriUtils;
import org.thymeleaf.util.StringUtils;

/** Why a part of a page looks so, and changing it from there. */
@Controller
@RequestMapping("/themes/{id}/part")
class PartController {
    /** A part that more declarations try to paint is seldom read to the end. */
    private static final int MOST_BEATEN = 60;
    /** Of a processor, for what a text stands on at all widths. */
    private static final Duration READING = Duration.ofMillis(1_500);

    private final ThemeService themes;
    private final Notices notices;

    PartController(ThemeService themes, Notices notices) {
        this.themes = themes;
        this.notices = notices;
    }

    /** One that was beaten, as a sentence, with what its place is called. */
    public record Beaten(String sentence, String file, int start) {}

    /** @param shown the strongest of {@code all} */
    public record AllBeaten(int all, List<Beaten> shown) {
        public int more() {
            return all - shown.size();
        }
    }

    @GetMapping
    String look(
            @PathVariable long id,
            PartForm form,
            @RequestParam(defaultValue = "") String seen,
            @AuthenticationPrincipal SignedIn me,
            Model model) {
        OpenTheme open = themes.open(id, me);
        model.addAttribute("open", open);
        PartLook look = look(open, form);
        Map<String, AllBeaten> beaten = new HashMap<>();
        look.aspects().forEach(a -> beaten.put(a.id(), beaten(a.explanation())));
        Page page = form.page(open.read().rendered());
        model.addAttribute("offers", PageBinding.offers(page, page.elements().get(form.index())));
        model.addAttribute(
                "titled", Banner.holder(page, page.elements().get(form.index())).isPresent());
        model.addAttribute("sided", SidePictures.mayHave(page, page.elements().get(form.index())));
        model.addAttribute("worded", page.elements().get(form.index()).hasText());
        model.addAttribute("roles", open.roles());
        model.addAttribute("look", look);
        model.addAttribute("beaten", beaten);
        model.addAttribute("chosen", opened(look, seen));
        model.addAttribute("states", List.of("hover", "focus", "active", "current"));
        model.addAttribute("on", form.states());
        model.addAttribute("width", form.windowWidth());
        return "survey/part :: card";
    }

    /** What the text of a part stands on, which takes longer than the rest. */
    @GetMapping("/reads")
    String reads(@PathVariable long id, PartForm form, @AuthenticationPrincipal SignedIn me, Model model) {
        OpenTheme open = themes.open(id, me);
        Page page = form.page(open.read().rendered());
        if (form.index() < 1 || form.index() >= page.elements().size()) {
            throw new BadInputException("That part is no longer on the page.", "Point at it again.");
        }
        String path = page.source().file();
        StringBuilder again =
                new StringBuilder("/themes/" + id + "/part/reads?page=" + encoded(path) + "&at=" + form.index());
        form.states().forEach(s -> again.append("&state=").append(encoded(s)));
        model.addAttribute("again", again.toString());
        model.addAttribute("at", form.index());
        model.addAttribute("page", path);
        try {
            Budget.within(READING, () -> reads(open, page, form, model));
        } catch (BeyondLimitException tooMuch) {
            model.addAttribute("message", tooMuch.getMessage());
        }
        return "survey/part :: reads";
    }

    private PartContrast reads(OpenTheme open, Page page, PartForm form, Model model) {
        PartContrast reads = PartContrast.of(
                open.read().rendered(),
                open.read().gallery(),
                page,
                form.index(),
                Optional.ofNullable(themes.measures(open).get(page.source().file())),
                form.states());
        model.addAttribute("scripted", scripted(open, page, form, reads));
        reads.worst().ifPresent(w -> {
            model.addAttribute("ratio", ContrastWords.ratio(w.ratio()));
            model.addAttribute("said", ContrastWords.worst(reads));
        });
        model.addAttribute("untold", ContrastWords.untold(reads));
        model.addAttribute(
                "measurable",
                reads.untold().filter(PartContrast.Why.NOT_MEASURED::equals).isPresent());
        model.addAttribute("reads", reads);
        return reads;
    }

    /** What a class that a script puts on makes of it, in colours alone: where boxes lie then nobody has measured. */
    private static List<String> scripted(OpenTheme open, Page page, PartForm form, PartContrast without) {
        List<String> all = new ArrayList<>();
        for (ScriptClass s : ScriptClass.of(open.theme(), page)) {
            if (s.reaches(form.index())) {
                PartContrast.of(
                                open.read().rendered(),
                                open.read().gallery(),
                                s.page(),
                                form.index(),
                                Optional.empty(),
                                form.states())
                        .worst()
                        .filter(w -> without.worst().stream().noneMatch(w::isSameAs))
                        .ifPresent(w -> all.add("With the class “" + s.name() + "”, which a script sets: "
                                + ContrastWords.ratio(w.ratio()) + " to 1 at worst, " + w.text() + " on " + w.ground()
                                + " in a window of " + w.width() + " px."));
            }
        }
        return all;
    }

    /** What is opened first: what one saw at the point that was clicked, a picture before the colour under it; else its fill. */
    private static String opened(PartLook look, String seen) {
        List<String> ids = look.aspects().stream().map(PartLook.Aspect::id).toList();
        for (String id : seen.equals("background")
                ? List.of("picture", "background")
                : seen.equals("border") ? List.of("border") : List.<String>of()) {
            if (ids.contains(id)) {
                return id;
            }
        }
        return look.aspects().stream()
                .filter(a -> a.id().equals("fill") || a.id().endsWith("background") && a.isColor())
                .findFirst()
                .or(() -> look.aspects().stream().findFirst())
                .map(PartLook.Aspect::id)
                .orElse("");
    }

    private static PartLook look(OpenTheme open, PartForm form) {
        Rendered rendered = open.read().rendered();
        Page page = form.page(rendered);
        if (form.index() < 1 || form.index() >= page.elements().size()) {
            throw new BadInputException("That part is no longer on the page.", "Point at it again.");
        }
        return PartLook.of(
                rendered, open.read().readers(), open.read().parts(), page, form.index(), form.window(), form.states());
    }

    private static AllBeaten beaten(Explanation e) {
        List<Beaten> all = new ArrayList<>();
        for (Explanation.Cause c :
                e.beaten().subList(0, Math.min(MOST_BEATEN, e.beaten().size()))) {
            String browser = c.isInTheme() ? " in " + c.file() + ", line " + c.line() : "";
            all.add(new Beaten(
                    StringUtils.abbreviate(c.selector(), 300) + " { " + c.property() + ": "
                            + StringUtils.abbreviate(c.written(), 300) + (c.important() ? " !important" : "") + " }"
                            + browser + ": " + StepWords.ofTheLoser(c.because()),
                    c.isInTheme() ? c.file() : "",
                    c.start()));
        }
        return new AllBeaten(e.beaten().size(), all);
    }

    /** The form for a change of one aspect, with the exact difference. */
    @GetMapping("/change")
    String change(
            @PathVariable long id,
            PartForm form,
            @RequestParam String aspect,
            @AuthenticationPrincipal SignedIn me,
            Model model) {
        OpenTheme open = themes.open(id, me);
        PartLook look = look(open, form);
        PartLook.Aspect chosen = aspect(look, aspect);
        Page page = form.page(open.read().rendered());
        model.addAttribute("open", open);
        model.addAttribute("look", look);
        model.addAttribute("a", chosen);
        model.addAttribute("on", form.states());
        model.addAttribute("followed", PartChange.followed(open.theme(), chosen.property()));
        model.addAttribute(
                "reach",
                form.reach() == null || form.reach().isEmpty()
                        ? chosen.reaches().get(0).id()
                        : form.reach());
        String side =
                chosen.property().replaceFirst("^(border|margin|padding)-", "").replaceFirst("-color$", "");
        model.addAttribute(
                "sides",
                List.of("top", "right", "bottom", "left").contains(side)
                                && !chosen.id().endsWith("border")
                        ? List.of(side)
                        : List.of());
        model.addAttribute("sided", chosen.property().matches("(border|margin|padding)-.*"));
        model.addAttribute("width", form.windowWidth());
        model.addAttribute("what", form.what() == null ? "setting" : form.what());
        model.addAttribute(
                "utilities",
                UtilityClass.of(open.read().rendered(), page, page.elements().get(form.index()), chosen.property()));
        Painted painted =
                chosen.reaches().isEmpty() || chosen.reaches().get(0).painted().isEmpty()
                        ? new Painted("body", chosen.property(), "")
                        : chosen.reaches().get(0).painted().get(0);
        model.addAttribute(
                "suggestion",
                Suggestion.of(
                        painted,
                        comment(open, chosen),
                        open.read().rendered(),
                        open.colors().customProperties()));
        return "survey/part :: change";
    }

    private static String comment(OpenTheme open, PartLook.Aspect aspect) {
        Explanation.Cause w = aspect.explanation().winner();
        return w == null || !w.isInTheme() ? "" : Suggestion.comment(open.theme(), w.file(), w.start());
    }

    private static PartLook.Aspect aspect(PartLook look, String id) {
        return look.aspect(id)
                .orElseThrow(() -> new BadInputException("The part has no such side any more.", "Point at it again."));
    }

    private static String color(PartLook.Aspect aspect) {
        return aspect.color() == null ? "#ffffff" : aspect.color();
    }

    /** The exact difference of a change, and what it changes on the pages; nothing is made. */
    @GetMapping("/preview")
    String preview(
            @PathVariable long id,
            PartForm form,
            @RequestParam String aspect,
            @AuthenticationPrincipal SignedIn me,
            Model model) {
        OpenTheme open = themes.open(id, me);
        try {
            Change fix = form.fix(open.read().rendered(), color(aspect(look(open, form), aspect)));
            preview(open, fix, model);
        } catch (BadInputException e) {
            model.addAttribute("message", e.getMessage());
            model.addAttribute("mend", e.mend());
        }
        return "survey/part :: preview";
    }

    static void preview(OpenTheme open, Change fix, Model model) {
        Rendered rendered = open.read().rendered();
        model.addAttribute("title", fix.note());
        model.addAttribute("differences", Difference.of(rendered.theme(), fix));
        Trial trial = fix.isEmpty() ? null : Trial.of(rendered, fix);
        model.addAttribute("trial", trial);
    }

    @PostMapping
    String make(
            @PathVariable long id,
            @RequestParam long base,
            PartForm form,
            @RequestParam String aspect,
            @AuthenticationPrincipal SignedIn me) {
        Snapshot made = themes.change(id, base, me, theme -> {
            Rendered rendered = new Rendered(theme);
            OpenTheme open = themes.open(id, me);
            return form.fix(rendered, color(aspect(look(open, form), aspect)));
        });
        notices.done(made.note());
        return Go.to(
                "setting".equals(form.what())
                        ? "/themes/" + id + "/settings?key=" + form.key().strip() + "&page=" + encoded(form.page())
                        : "/themes/" + id + "/survey?page=" + encoded(form.page()) + "&at=" + form.index());
    }

    static String encoded(String text) {
        return UriUtils.encodeQueryParam(text, java.nio.charset.StandardCharsets.UTF_8);
    }
}
