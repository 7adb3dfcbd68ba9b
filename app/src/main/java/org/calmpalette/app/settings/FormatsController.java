package org.calmpalette.app.settings;

import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.util.ArrayList;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Set;
import org.calmpalette.app.accounts.SignedIn;
import org.calmpalette.app.themes.OpenTheme;
import org.calmpalette.app.themes.Snapshot;
import org.calmpalette.app.themes.ThemeService;
import org.calmpalette.app.web.Go;
import org.calmpalette.app.web.Notices;
import org.calmpalette.core.BadInputException;
import org.calmpalette.core.change.Change;
import org.calmpalette.core.formats.SettingSource;
import org.calmpalette.core.setting.Given;
import org.calmpalette.core.setting.Palette;
import org.calmpalette.core.setting.Place;
import org.calmpalette.core.setting.Setting;
import org.springframework.http.HttpHeaders;
import org.springframework.http.ResponseEntity;
import org.springframework.security.core.annotation.AuthenticationPrincipal;
import org.springframework.stereotype.Controller;
import org.springframework.ui.Model;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestMapping;
import org.springframework.web.bind.annotation.RequestParam;
import org.springframework.web.multipart.MultipartFile;

/** Settings in open formats: given out, and taken in from design tokens and preprocessors' variables. */
@Controller
@RequestMapping("/themes/{id}/formats")
class FormatsController {
    /** Its text goes to the browser and back in a form, and a server takes 2 MB of one with every quotation mark escaped. */
    private static final int LARGEST = 500_000;

    private final ThemeService themes;
    private final Notices notices;

    FormatsController(ThemeService themes, Notices notices) {
        this.themes = themes;
        this.notices = notices;
    }

    /** A setting that a file offers; {@code taken} says why it cannot come in, or is empty. */
    public record Offered(Setting setting, String words, String place, String taken) {}

    @GetMapping
    String formats(@PathVariable long id, @AuthenticationPrincipal SignedIn me, Model model) {
        OpenTheme open = themes.open(id, me);
        model.addAttribute("open", open);
        model.addAttribute(
                "sources",
                open.theme().files().paths().stream()
                        .filter(SettingSource::isReadable)
                        .filter(p -> !p.equals(Palette.FILE))
                        .toList());
        return "settings/formats";
    }

    @GetMapping("/{name}")
    ResponseEntity<byte[]> file(
            @PathVariable long id, @PathVariable String name, @AuthenticationPrincipal SignedIn me) {
        OpenTheme open = themes.open(id, me);
        byte[] bytes =
                SettingSource.written(open.theme(), name).orElseThrow(org.calmpalette.app.web.NotFoundException::new);
        return ResponseEntity.ok()
                .header(
                        HttpHeaders.CONTENT_TYPE,
                        name.endsWith(".json") ? "application/json" : "text/plain;charset=utf-8")
                .header(HttpHeaders.CONTENT_DISPOSITION, "attachment; filename=\"" + name + "\"")
                .body(bytes);
    }

    /** Shows what a file offers; nothing is taken in yet. */
    @PostMapping("/read")
    String read(
            @PathVariable long id,
            @RequestParam(required = false) MultipartFile file,
            @RequestParam(defaultValue = "") String own,
            @AuthenticationPrincipal SignedIn me,
            Model model)
            throws IOException {
        OpenTheme open = themes.open(id, me);
        boolean uploaded = file != null && !file.isEmpty();
        if (!uploaded && !open.theme().files().has(own)) {
            throw new BadInputException(
                    "No file is chosen.", "Choose a .json file with tokens, or a .scss or .less file.");
        }
        String name = uploaded ? String.valueOf(file.getOriginalFilename()) : own;
        byte[] bytes = uploaded ? file.getBytes() : open.theme().files().read(own);
        if (bytes.length > LARGEST) {
            throw new BadInputException(name + " is larger than " + LARGEST / 1_000 + " kB.", "Split it.");
        }
        SettingSource.Read read = SettingSource.read(open.theme(), name, bytes);
        model.addAttribute("open", open);
        model.addAttribute("name", name);
        model.addAttribute("text", new String(bytes, StandardCharsets.UTF_8));
        model.addAttribute("read", read);
        model.addAttribute(
                "offered",
                read.settings().stream()
                        .map(s -> new Offered(
                                s,
                                read.words(s),
                                read.placeLabel(s.place()),
                                open.theme().palette().setting(s.key()).isPresent()
                                        ? "there is a setting with this key"
                                        : open.colors().customProperties().contains("--" + s.key())
                                                ? "the stylesheets use this custom property"
                                                : ""))
                        .toList());
        return "settings/offered";
    }

    /** Takes chosen settings in. */
    @PostMapping
    String take(
            @PathVariable long id,
            @RequestParam long base,
            @RequestParam String name,
            @RequestParam String text,
            @RequestParam(required = false) List<String> key,
            @AuthenticationPrincipal SignedIn me) {
        Set<String> wanted = key == null ? Set.of() : new LinkedHashSet<>(key);
        if (wanted.isEmpty()) {
            throw new BadInputException("Nothing is ticked.", "Tick the settings that are to come in.");
        }
        Snapshot made = themes.change(id, base, me, theme -> {
            SettingSource.Read read = SettingSource.read(theme, name, text.getBytes(StandardCharsets.UTF_8));
            Palette palette = theme.palette();
            List<Setting> all = new ArrayList<>(palette.settings());
            for (Setting s : read.settings()) {
                if (wanted.contains(s.key())) {
                    palette = palette.withPlace(read.place(s.place()).orElse(Place.EVERYWHERE));
                    all.add(independent(s, wanted, palette, read));
                }
            }
            return Change.of("Took " + wanted.size() + (wanted.size() == 1 ? " setting" : " settings") + " in from "
                            + name)
                    .withPalette(theme, palette.withSettings(all));
        });
        notices.done(made.note());
        return Go.to("/themes/" + id + "/settings");
    }

    /** What a setting follows may have been left behind; then it gets the value itself. */
    private static Setting independent(Setting s, Set<String> wanted, Palette palette, SettingSource.Read read) {
        boolean left = s.following().stream()
                .anyMatch(f ->
                        !wanted.contains(f.key()) && palette.setting(f.key()).isEmpty());
        return left ? s.withGiven(new Given.Fixed(read.value(s))).withBands(java.util.Map.of()) : s;
    }
}
