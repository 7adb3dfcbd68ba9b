package org.calmpalette.app.settings;

import jakarta.servlet.http.HttpServletRequest;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import org.calmpalette.app.accounts.SignedIn;
import org.calmpalette.app.frames.FrameAddresses;
import org.calmpalette.app.themes.OpenTheme;
import org.calmpalette.app.themes.Snapshot;
import org.calmpalette.app.themes.ThemeService;
import org.calmpalette.app.web.Go;
import org.calmpalette.app.web.Notices;
import org.calmpalette.app.web.Strip;
import org.calmpalette.core.BadInputException;
import org.calmpalette.core.change.PaletteChange;
import org.calmpalette.core.output.ThemeBuild;
import org.calmpalette.core.setting.Band;
import org.calmpalette.core.setting.Chosen;
import org.calmpalette.core.setting.Effective;
import org.calmpalette.core.setting.LeftOut;
import org.calmpalette.core.setting.Palette;
import org.calmpalette.core.setting.Place;
import org.calmpalette.core.setting.Scheme;
import org.calmpalette.core.setting.Setting;
import org.calmpalette.core.theme.Theme;
import org.springframework.security.core.annotation.AuthenticationPrincipal;
import org.springframework.stereotype.Controller;
import org.springframework.ui.Model;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestMapping;
import org.springframework.web.bind.annotation.RequestParam;
import org.springframework.web.bind.annotation.ResponseBody;

/** Schemes: named sets of values, ready-made for an owner. */
@Controller
@RequestMapping("/themes/{id}/schemes")
class SchemesController {
    private final ThemeService themes;
    private final FrameAddresses addresses;
    private final Notices notices;

    SchemesController(ThemeService themes, FrameAddresses addresses, Notices notices) {
        this.themes = themes;
        this.addresses = addresses;
        this.notices = notices;
    }

    /** A setting in a scheme: whether the scheme sets it, and to what. */
    public record Line(Setting setting, boolean set, Map<String, String> fields, String words) {}

    @GetMapping
    String schemes(
            @PathVariable long id,
            @RequestParam(defaultValue = "") String key,
            @AuthenticationPrincipal SignedIn me,
            Model model,
            HttpServletRequest request) {
        OpenTheme open = themes.open(id, me);
        Palette palette = open.theme().palette();
        Scheme chosen = palette.schemes().stream()
                .filter(s -> s.key().equals(key))
                .findFirst()
                .orElse(
                        key.equals("another") || palette.schemes().isEmpty()
                                ? null
                                : palette.schemes().get(0));
        Effective values = ThemeBuild.chosen(open.theme(), chosen == null ? Map.of() : chosen.values());
        Band widest = palette.bands().widest();
        model.addAttribute("open", open);
        model.addAttribute("chosen", chosen);
        model.addAttribute("problems", values.leftOut());
        model.addAttribute(
                "lines",
                palette.settings().stream()
                        .map(s -> new Line(
                                s,
                                chosen != null && chosen.values().containsKey(s.key()),
                                s.kind().fields(values.value(s, widest)),
                                values.words(s, widest)))
                        .toList());
        model.addAttribute(
                "controls",
                Controls.of(open.theme(), addresses.ofSnapshot(open.head().id())));
        model.addAttribute(
                "strip", Strip.of(open.theme(), addresses.ofSnapshot(open.head().id()), "", request));
        return "settings/schemes";
    }

    /** The values that are ticked in the form; values for bands that a scheme has stay. */
    private static Map<String, Chosen> values(Palette palette, Scheme before, Fields fields) {
        Map<String, Chosen> values = new LinkedHashMap<>();
        for (Setting s : palette.settings()) {
            if (fields.all("sets").contains(s.key())) {
                Chosen was = before == null
                        ? new Chosen(null, Map.of())
                        : before.values().getOrDefault(s.key(), new Chosen(null, Map.of()));
                try {
                    values.put(s.key(), was.with("", s.kind().read(fields.of("s." + s.key()))));
                } catch (BadInputException e) {
                    throw new BadInputException("“" + s.label() + "”: " + e.getMessage(), e.mend());
                }
            }
        }
        return values;
    }

    @PostMapping
    String save(
            @PathVariable long id,
            @RequestParam long base,
            @RequestParam(defaultValue = "") String key,
            @RequestParam String label,
            @AuthenticationPrincipal SignedIn me,
            HttpServletRequest request) {
        Fields fields = new Fields(request.getParameterMap());
        String name = label.strip();
        if (name.isEmpty() || name.length() > Setting.LONGEST_LABEL) {
            throw new BadInputException(
                    "The scheme needs a name.",
                    "Write up to " + Setting.LONGEST_LABEL + " characters, such as Autumn.");
        }
        String[] made = new String[1];
        Snapshot snapshot = themes.change(id, base, me, theme -> {
            List<Scheme> all = new ArrayList<>(theme.palette().schemes());
            Scheme before =
                    all.stream().filter(s -> s.key().equals(key)).findFirst().orElse(null);
            Map<String, Chosen> values = values(theme.palette(), before, fields);
            if (values.isEmpty()) {
                throw new BadInputException("The scheme sets nothing.", "Tick what it sets.");
            }
            Scheme scheme = new Scheme(before == null ? fresh(name, all) : key, name, values);
            made[0] = scheme.key();
            if (before == null) {
                all.add(scheme);
            } else {
                all.set(all.indexOf(before), scheme);
            }
            return PaletteChange.schemes(
                    theme,
                    all,
                    (before == null ? "New scheme “" : "Scheme “") + name + "”, sets " + values.size()
                            + (values.size() == 1 ? " value" : " values"));
        });
        notices.done(snapshot.note());
        return Go.to("/themes/" + id + "/schemes?key=" + made[0]);
    }

    private static String fresh(String label, List<Scheme> taken) {
        String base = Place.keyOf(label);
        String key = base;
        for (int i = 2; has(taken, key); i++) {
            key = base + "-" + i;
        }
        return key;
    }

    private static boolean has(List<Scheme> taken, String key) {
        return key.equals("another") || taken.stream().anyMatch(s -> s.key().equals(key));
    }

    @PostMapping("/remove")
    String remove(
            @PathVariable long id,
            @RequestParam long base,
            @RequestParam String key,
            @AuthenticationPrincipal SignedIn me) {
        Snapshot made = themes.change(id, base, me, theme -> {
            List<Scheme> all = new ArrayList<>(theme.palette().schemes());
            Scheme gone = all.stream()
                    .filter(s -> s.key().equals(key))
                    .findFirst()
                    .orElseThrow(() -> new BadInputException("That scheme is gone already.", "Load the page again."));
            all.remove(gone);
            return PaletteChange.schemes(theme, all, "Removed the scheme “" + gone.label() + "”");
        });
        notices.done(made.note());
        return Go.to("/themes/" + id + "/schemes");
    }

    /** What the previews show with what is ticked. */
    @PostMapping("/try")
    @ResponseBody
    Trial attempt(
            @PathVariable long id,
            @RequestParam(defaultValue = "") String key,
            @AuthenticationPrincipal SignedIn me,
            HttpServletRequest request) {
        OpenTheme open = themes.open(id, me);
        Theme theme = open.theme();
        try {
            Scheme before = theme.palette().schemes().stream()
                    .filter(s -> s.key().equals(key))
                    .findFirst()
                    .orElse(null);
            Effective values =
                    ThemeBuild.chosen(theme, values(theme.palette(), before, new Fields(request.getParameterMap())));
            String refusal = values.leftOut().stream()
                    .findFirst()
                    .map(l -> said(theme, l))
                    .orElse("");
            return Trial.of(values, addresses.ofSnapshot(open.head().id()), refusal, null, v -> values);
        } catch (BadInputException e) {
            return Trial.refused(e.getMessage(), e.mend());
        }
    }

    private static String said(Theme theme, LeftOut left) {
        return theme.palette().setting(left.key()).map(Setting::label).orElse(left.key()) + ", " + left.value() + ": "
                + left.why().words();
    }
}
