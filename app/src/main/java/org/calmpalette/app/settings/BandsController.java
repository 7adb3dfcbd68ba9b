package org.calmpalette.app.settings;

import jakarta.servlet.http.HttpServletRequest;
import java.util.ArrayList;
import java.util.List;
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
import org.calmpalette.core.setting.Band;
import org.calmpalette.core.setting.Bands;
import org.calmpalette.core.setting.Place;
import org.springframework.security.core.annotation.AuthenticationPrincipal;
import org.springframework.stereotype.Controller;
import org.springframework.ui.Model;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestMapping;
import org.springframework.web.bind.annotation.RequestParam;

/** The bands of a theme: their names and edges. */
@Controller
@RequestMapping("/themes/{id}/bands")
class BandsController {
    private final ThemeService themes;
    private final FrameAddresses addresses;
    private final Notices notices;

    BandsController(ThemeService themes, FrameAddresses addresses, Notices notices) {
        this.themes = themes;
        this.addresses = addresses;
        this.notices = notices;
    }

    /** A band in the form; the key of a new one is empty. */
    public record Row(String key, String label, String to, String widths, long settings) {}

    @GetMapping
    String bands(@PathVariable long id, @AuthenticationPrincipal SignedIn me, Model model, HttpServletRequest request) {
        OpenTheme open = themes.open(id, me);
        Bands bands = open.theme().palette().bands();
        List<Row> rows = new ArrayList<>(bands.list().stream()
                .map(b -> new Row(
                        b.key(),
                        b.label(),
                        b.to() == null ? "" : String.valueOf(b.to()),
                        bands.inWords(b),
                        open.theme().palette().settings().stream()
                                .filter(s -> s.bands().containsKey(b.key()))
                                .count()))
                .toList());
        model.addAttribute("open", open);
        model.addAttribute("rows", rows);
        model.addAttribute("room", rows.size() < Bands.MOST);
        model.addAttribute(
                "strip", Strip.of(open.theme(), addresses.ofSnapshot(open.head().id()), "", request));
        return "settings/bands";
    }

    /** @param key of each band; empty for a new one; @param to where each ends, empty for the widest */
    @PostMapping
    String save(
            @PathVariable long id,
            @RequestParam long base,
            @RequestParam List<String> key,
            @RequestParam List<String> label,
            @RequestParam List<String> to,
            @AuthenticationPrincipal SignedIn me) {
        List<Band> list = new ArrayList<>();
        for (int i = 0; i < label.size(); i++) {
            String name = label.get(i).strip();
            String end = i < to.size() ? to.get(i).strip() : "";
            if (name.isEmpty()) {
                // An emptied name takes the band away.
                continue;
            }
            if (!end.isEmpty() && !end.matches("\\d{1,5}")) {
                throw new BadInputException(
                        "“" + name + "” ends at “" + end + "”, which is no whole number.",
                        "Write the last width that belongs to it, such as 767.");
            }
            String own = i < key.size() ? key.get(i) : "";
            Band band = new Band(
                    own.isEmpty() ? fresh(name, list) : own, name, end.isEmpty() ? null : Integer.valueOf(end));
            list.add(own.isEmpty() ? place(band, list) : list.size(), band);
        }
        Snapshot made = themes.change(id, base, me, theme -> PaletteChange.bands(theme, new Bands(list)));
        notices.done(made.note());
        return Go.to("/themes/" + id + "/bands");
    }

    /** A new band comes before the first one that ends further; those that were there keep their order. */
    private static int place(Band band, List<Band> list) {
        for (int i = 0; i < list.size(); i++) {
            boolean further =
                    list.get(i).to() == null || band.to() != null && list.get(i).to() > band.to();
            if (further && band.to() != null) {
                return i;
            }
        }
        return list.size();
    }

    private static String fresh(String label, List<Band> taken) {
        String plain = Place.keyOf(label).replaceAll("[^a-z0-9-]", "").replaceAll("^[^a-z]+", "");
        String base = plain.isEmpty() ? "band" : plain.substring(0, Math.min(24, plain.length()));
        String key = base;
        for (int i = 2; has(taken, key); i++) {
            key = base + "-" + i;
        }
        return key;
    }

    private static boolean has(List<Band> taken, String key) {
        return taken.stream().anyMatch(b -> b.key().equals(key));
    }
}
