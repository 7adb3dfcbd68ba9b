package org.calmpalette.app.themes;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.List;
import org.calmpalette.app.accounts.SignedIn;
import org.calmpalette.app.frames.FrameAddresses;
import org.calmpalette.app.web.Go;
import org.calmpalette.app.web.Notices;
import org.calmpalette.core.BadInputException;
import org.calmpalette.core.page.Paths;
import org.springframework.security.core.annotation.AuthenticationPrincipal;
import org.springframework.stereotype.Controller;
import org.springframework.ui.Model;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestHeader;
import org.springframework.web.bind.annotation.RequestMapping;
import org.springframework.web.bind.annotation.RequestParam;
import org.springframework.web.multipart.MultipartFile;

/** The list of themes, bringing one in, and its history. */
@Controller
@RequestMapping("/themes")
class ThemesController {
    private final ThemeService themes;
    private final ImportService imports;
    private final OwnThemes ownThemes;
    private final FrameAddresses addresses;
    private final Notices notices;
    private final Kept kept;
    private final TakingBack takingBack;

    ThemesController(
            ThemeService themes,
            ImportService imports,
            OwnThemes ownThemes,
            FrameAddresses addresses,
            Notices notices,
            Kept kept,
            TakingBack takingBack) {
        this.kept = kept;
        this.takingBack = takingBack;
        this.themes = themes;
        this.imports = imports;
        this.ownThemes = ownThemes;
        this.addresses = addresses;
        this.notices = notices;
    }

    /** A theme in the list, with the address of its first page's preview; null where it has no page. */
    public record Listed(ThemeService.Listed theme, String picture) {}

    @GetMapping
    String list(@AuthenticationPrincipal SignedIn me, Model model) {
        model.addAttribute(
                "themes",
                themes.all(me).stream()
                        .map(t -> new Listed(
                                t,
                                t.first().isEmpty()
                                        ? null
                                        : addresses.ofSnapshot(t.head().id()) + Paths.address(t.first())))
                        .toList());
        model.addAttribute("kept", kept.of(me.id()));
        return "themes/themes";
    }

    @PostMapping
    String bringIn(@RequestParam MultipartFile file, @AuthenticationPrincipal SignedIn me) throws IOException {
        String name = file.getOriginalFilename() == null ? "" : file.getOriginalFilename();
        if (file.isEmpty()) {
            throw new BadInputException(
                    name.isEmpty() ? "No file was chosen." : "“" + name + "” is empty.",
                    "Choose a zip with the theme's folder, or a stylesheet.");
        }
        Path upload = Files.createTempFile("calm-upload-", ".bin");
        file.transferTo(upload);
        return "redirect:/themes/reading/" + imports.start(upload, name, me);
    }

    @PostMapping("/starter")
    String starter(@AuthenticationPrincipal SignedIn me) throws IOException {
        StoredTheme theme = ownThemes.bringIn(OwnThemes.STARTER, me);
        notices.done("Made a copy of the starter theme");
        return "redirect:/themes/" + theme.id() + "/settings";
    }

    @GetMapping("/reading/{job}")
    String reading(
            @PathVariable String job,
            @AuthenticationPrincipal SignedIn me,
            Model model,
            @RequestHeader(name = "HX-Request", required = false) String htmx) {
        ImportJob now = imports.job(job, me);
        if (now.isDone()) {
            return Go.to("/themes/" + now.themeId() + "/survey");
        }
        model.addAttribute("job", now);
        return htmx == null ? "themes/reading" : "themes/reading :: progress";
    }

    @GetMapping("/{id}/history")
    String history(@PathVariable long id, @AuthenticationPrincipal SignedIn me, Model model) {
        OpenTheme open = themes.open(id, me);
        List<Snapshot> history = themes.history(id, me);
        model.addAttribute("open", open);
        model.addAttribute("snapshots", history);
        model.addAttribute("alone", takingBack.possible(history, open.head()));
        model.addAttribute("kept", kept.of(me.id()));
        model.addAttribute("earlier", themes.earlier(id, me));
        model.addAttribute("newest", Kept.NEWEST);
        return "themes/history";
    }

    @PostMapping("/{id}/undo")
    String undo(
            @PathVariable long id,
            @RequestParam long base,
            @AuthenticationPrincipal SignedIn me,
            @RequestHeader(name = "Referer", required = false) String from) {
        notices.done("Undone: " + themes.undo(id, base, me).note());
        return "redirect:" + backTo(id, from);
    }

    @PostMapping("/{id}/redo")
    String redo(
            @PathVariable long id,
            @RequestParam long base,
            @AuthenticationPrincipal SignedIn me,
            @RequestHeader(name = "Referer", required = false) String from) {
        notices.done("Done again: " + themes.redo(id, base, me).note());
        return "redirect:" + backTo(id, from);
    }

    /** The view of this theme that the person came from. */
    private static String backTo(long id, String from) {
        String theme = "/themes/" + id + "/";
        int at = from == null ? -1 : from.indexOf(theme);
        String view = at < 0 ? "survey" : from.substring(at + theme.length()).replaceAll("#.*$", "");
        return theme + (view.matches("[a-z]+(\\?[\\w%&=.+/-]*)?") ? view : "survey");
    }

    @PostMapping("/{id}/points")
    String point(
            @PathVariable long id,
            @RequestParam long snapshot,
            @RequestParam String name,
            @AuthenticationPrincipal SignedIn me) {
        themes.namePoint(id, snapshot, name, me);
        notices.done("Set the restore point “" + name.strip() + "”");
        return "redirect:/themes/" + id + "/history";
    }

    @PostMapping("/{id}/back")
    String goBack(
            @PathVariable long id,
            @RequestParam long base,
            @RequestParam long to,
            @AuthenticationPrincipal SignedIn me) {
        notices.done(themes.goBack(id, base, to, me).note());
        return "redirect:/themes/" + id + "/history";
    }

    @PostMapping("/{id}/history/take-back")
    String takeBack(
            @PathVariable long id,
            @RequestParam long base,
            @RequestParam long which,
            @AuthenticationPrincipal SignedIn me) {
        notices.done(takingBack.takeBack(id, base, which, me).note());
        return "redirect:/themes/" + id + "/history";
    }

    @PostMapping("/{id}/history/earlier")
    String removeEarlier(@PathVariable long id, @RequestParam long base, @AuthenticationPrincipal SignedIn me) {
        Kept.Earlier went = themes.removeEarlier(id, base, me);
        notices.done(
                went.states() == 0
                        ? "There is no earlier state to remove"
                        : "Removed " + went.states() + (went.states() == 1 ? " earlier state, " : " earlier states, ")
                                + went.words());
        return "redirect:/themes/" + id + "/history";
    }

    @PostMapping("/{id}/remove")
    String remove(@PathVariable long id, @AuthenticationPrincipal SignedIn me) {
        String name = themes.stored(id, me).name();
        themes.remove(id, me);
        notices.done("Removed the theme " + name);
        return "redirect:/themes";
    }
}
