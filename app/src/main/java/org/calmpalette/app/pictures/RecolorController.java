package org.calmpalette.app.pictures;

import jakarta.servlet.http.HttpServletRequest;
import java.util.ArrayList;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Set;
import java.util.function.Function;
import org.calmpalette.app.accounts.SignedIn;
import org.calmpalette.app.frames.FrameAddresses;
import org.calmpalette.app.themes.OpenTheme;
import org.calmpalette.app.themes.ThemeService;
import org.calmpalette.app.web.Go;
import org.calmpalette.app.web.NotFoundException;
import org.calmpalette.app.web.Notices;
import org.calmpalette.core.BadInputException;
import org.calmpalette.core.change.Change;
import org.calmpalette.core.change.Recolored;
import org.calmpalette.core.color.Color;
import org.calmpalette.core.color.Tint;
import org.calmpalette.core.page.Paths;
import org.calmpalette.core.setting.ColorKey;
import org.calmpalette.core.setting.ColorKind;
import org.calmpalette.core.setting.Palette;
import org.calmpalette.core.setting.Setting;
import org.calmpalette.core.theme.Theme;
import org.springframework.http.MediaType;
import org.springframework.http.ResponseEntity;
import org.springframework.security.core.annotation.AuthenticationPrincipal;
import org.springframework.stereotype.Controller;
import org.springframework.ui.Model;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestMapping;
import org.springframework.web.bind.annotation.RequestParam;

/** A theme in other colours: pictures, settings and written colours together, in this theme or as a variant of it. */
@Controller
@RequestMapping("/themes/{id}/pictures/recolor")
class RecolorController {
    private static final AllPictures.Sort RECOLORED = AllPictures.Sort.RECOLORED;

    private final ThemeService themes;
    private final AllPictures all;
    private final FrameAddresses addresses;
    private final Notices notices;

    RecolorController(ThemeService themes, AllPictures all, FrameAddresses addresses, Notices notices) {
        this.themes = themes;
        this.all = all;
        this.addresses = addresses;
        this.notices = notices;
    }

    /** The colours of a setting that become others, before and after. */
    public record Swatch(String key, String label, List<Turn> turns) {}

    /** One colour, before and after. */
    public record Turn(String now, String then) {}

    /** A picture that was written anew. */
    public record Pair(String path, String now, String then) {}

    @GetMapping
    String view(@PathVariable long id, @AuthenticationPrincipal SignedIn me, Model model) {
        fill(themes.open(id, me), model);
        return "pictures/recolor";
    }

    @GetMapping("/progress")
    String progress(@PathVariable long id, @AuthenticationPrincipal SignedIn me, Model model) {
        fill(themes.open(id, me), model);
        return "pictures/recolor :: state";
    }

    private void fill(OpenTheme open, Model model) {
        model.addAttribute("open", open);
        model.addAttribute("ways", Tint.Way.values());
        AllPictures.Asked asked = all.asked(open, RECOLORED).orElse(null);
        model.addAttribute("asked", asked);
        if (asked == null) {
            return;
        }
        Tint tint = ((AllPictures.Recoloring) asked.how()).tint();
        model.addAttribute("tint", tint);
        String base = addresses.ofSnapshot(open.head().id());
        asked.job().result().ifPresent(r -> {
            model.addAttribute(
                    "pairs",
                    r.lighter().stream()
                            .sorted(java.util.Comparator.comparing(AllPictures.Light::path))
                            .map(l -> new Pair(l.path(), base + Paths.address(l.path()), l.hash()))
                            .toList());
            model.addAttribute("unread", r.unread());
        });
        Palette palette = open.theme().palette();
        Set<String> keys = new LinkedHashSet<>();
        palette.settings().stream().filter(Recolored::takes).forEach(s -> keys.add(s.key()));
        Recolored.Turned turned = Recolored.turned(open.theme(), tint, keys);
        model.addAttribute(
                "swatches",
                palette.settings().stream()
                        .filter(s -> turned.keys().contains(s.key()))
                        .map(s -> swatch(s, tint))
                        .filter(s -> !s.turns().isEmpty())
                        .toList());
        model.addAttribute("written", Recolored.written(open.theme()));
        List<String> stays = new ArrayList<>(turned.stays().values());
        stays.addAll(Recolored.staying(open.theme()));
        model.addAttribute("stays", stays);
    }

    private static Swatch swatch(Setting s, Tint tint) {
        return new Swatch(
                s.key(),
                s.label(),
                Recolored.colors(s).stream()
                        .map(now -> new Turn(
                                now, ColorKey.of(tint.of(Color.parse(now).orElse(Color.BLACK)))))
                        .filter(t -> !t.now().equals(t.then()))
                        .toList());
    }

    @PostMapping
    String start(
            @PathVariable long id,
            @RequestParam(defaultValue = "color") String way,
            @RequestParam(defaultValue = "#2b8a3e") String color,
            @RequestParam(defaultValue = "#ffffff") String light,
            @RequestParam(defaultValue = "50") double amount,
            @AuthenticationPrincipal SignedIn me) {
        all.start(
                themes.open(id, me),
                new AllPictures.Recoloring(
                        new Tint(Tint.Way.of(way), ColorKind.parse(color), ColorKind.parse(light), amount)));
        return here(id);
    }

    @PostMapping("/stop")
    String stop(@PathVariable long id, @AuthenticationPrincipal SignedIn me) {
        themes.stored(id, me);
        all.stop(id, RECOLORED);
        return here(id);
    }

    /** A picture in its other colours; written by us, and an SVG among them is no document of ours: it runs and loads nothing. */
    @GetMapping("/picture")
    ResponseEntity<byte[]> picture(
            @PathVariable long id,
            @RequestParam(defaultValue = "") String picture,
            @AuthenticationPrincipal SignedIn me) {
        OpenTheme open = themes.open(id, me);
        byte[] bytes = all.chosen(open, RECOLORED, List.of(picture)).get(picture);
        if (bytes == null) {
            throw new NotFoundException();
        }
        return changed(picture, bytes);
    }

    static ResponseEntity<byte[]> changed(String path, byte[] bytes) {
        return ResponseEntity.ok()
                .contentType(MediaType.parseMediaType(
                        switch (Paths.ending(path)) {
                            case "png" -> "image/png";
                            case "svg" -> "image/svg+xml";
                            case "webp" -> "image/webp";
                            case "gif" -> "image/gif";
                            default -> "image/jpeg";
                        }))
                .header("X-Content-Type-Options", "nosniff")
                .header("Content-Security-Policy", "sandbox; default-src 'none'; style-src 'unsafe-inline'")
                .body(bytes);
    }

    @PostMapping("/keep")
    String keep(
            @PathVariable long id,
            @RequestParam(defaultValue = "0") long base,
            @RequestParam(defaultValue = "false") boolean written,
            @RequestParam(defaultValue = "here") String as,
            @RequestParam(defaultValue = "") String name,
            @AuthenticationPrincipal SignedIn me,
            HttpServletRequest request) {
        OpenTheme open = themes.open(id, me);
        Tint tint = all.asked(open, RECOLORED)
                .map(a -> ((AllPictures.Recoloring) a.how()).tint())
                .orElseThrow(() -> new BadInputException(
                        "The theme has changed since, or it is too long ago.", "Try the colours again."));
        List<String> paths = list(request, "picture");
        Set<String> settings = new LinkedHashSet<>(list(request, "setting"));
        if (!as.equals("here") && name.isBlank()) {
            throw new BadInputException(
                    "It has no name.", "Write one, such as “" + open.stored().name() + ", green”.");
        }
        if (as.equals("scheme")) {
            notices.done(themes.change(
                            id,
                            base,
                            me,
                            theme -> Recolored.scheme(theme, tint, all.chosen(open, RECOLORED, paths), settings, name))
                    .note());
            return Go.to("/themes/" + id + "/schemes");
        }
        Function<Theme, Change> change =
                theme -> Recolored.of(theme, tint, all.chosen(open, RECOLORED, paths), settings, written);
        if (as.equals("here")) {
            notices.done(themes.change(id, base, me, change).note());
            all.forget(id, RECOLORED);
            return Go.to("/themes/" + id + "/pictures");
        }
        long made = themes.variant(id, base, name, me, change).id();
        notices.done("Made the theme “" + name.strip() + "” of this one; this one is as it was.");
        return Go.to("/themes/" + made + "/survey");
    }

    /** Not as a list of strings: a comma in a path would cut it in two. */
    private static List<String> list(HttpServletRequest request, String name) {
        String[] ticked = request.getParameterValues(name);
        return ticked == null ? List.of() : List.of(ticked);
    }

    private static String here(long id) {
        return Go.to("/themes/" + id + "/pictures/recolor");
    }
}
