package org.calmpalette.app.settings;

import jakarta.servlet.http.HttpServletRequest;
import java.util.ArrayList;
import java.util.Comparator;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.TreeSet;
import org.calmpalette.app.accounts.SignedIn;
import org.calmpalette.app.frames.FrameAddresses;
import org.calmpalette.app.themes.OpenTheme;
import org.calmpalette.app.themes.Snapshot;
import org.calmpalette.app.themes.ThemeService;
import org.calmpalette.app.web.Go;
import org.calmpalette.app.web.Languages;
import org.calmpalette.app.web.Notices;
import org.calmpalette.app.web.Strip;
import org.calmpalette.core.change.PaletteChange;
import org.calmpalette.core.language.Language;
import org.calmpalette.core.setting.Palette;
import org.calmpalette.core.setting.Translations;
import org.springframework.security.core.annotation.AuthenticationPrincipal;
import org.springframework.stereotype.Controller;
import org.springframework.ui.Model;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestMapping;
import org.springframework.web.bind.annotation.RequestParam;

/** What owners read of a theme, in their languages. */
@Controller
@RequestMapping("/themes/{id}/languages")
class TranslationsController {
    private final ThemeService themes;
    private final FrameAddresses addresses;
    private final Languages languages;
    private final Notices notices;

    TranslationsController(ThemeService themes, FrameAddresses addresses, Languages languages, Notices notices) {
        this.themes = themes;
        this.addresses = addresses;
        this.languages = languages;
        this.notices = notices;
    }

    /**
     * A text in the form.
     *
     * @param word what stands for it; empty if nothing does
     * @param known what stands for it by itself, as a label that comes from us; empty if nothing does
     * @param longest characters that there is room for
     */
    public record Row(String text, String word, String known, int longest) {}

    /** @param name in English, as all of the maker's side */
    public record Choice(String tag, String name, int count) {}

    /** @param tag of the language; empty for the first one */
    @GetMapping
    String look(
            @PathVariable long id,
            @RequestParam(defaultValue = "") String tag,
            @AuthenticationPrincipal SignedIn me,
            Model model,
            HttpServletRequest request) {
        OpenTheme open = themes.open(id, me);
        Palette palette = open.theme().palette();
        TreeSet<String> tags = new TreeSet<>(palette.translations().texts().keySet());
        languages.all().stream().map(Language::tag).filter(t -> !t.equals("en")).forEach(tags::add);
        String asked = tag.strip();
        if (!asked.isEmpty()) {
            // Told like all that is entered, if it is none.
            Translations.checkTag(asked);
            tags.add(asked);
        }
        String shown = asked.isEmpty() ? tags.isEmpty() ? "de" : tags.first() : asked;
        Map<String, String> words = palette.translations().texts().getOrDefault(shown, Map.of());
        Language language = languages.tagged(shown).orElse(Language.english());
        List<String> texts = palette.texts();
        List<Row> rows = new ArrayList<>();
        for (String text : texts) {
            String label = language.label(text);
            rows.add(new Row(
                    text, words.getOrDefault(text, ""), label.equals(text) ? "" : label, palette.longest(text)));
        }
        // What need not be written comes last.
        rows.sort(Comparator.comparing(r -> !r.known().isEmpty()));
        model.addAttribute("open", open);
        model.addAttribute("rows", rows);
        model.addAttribute("tag", shown);
        model.addAttribute("name", name(shown));
        model.addAttribute("spoken", languages.tagged(shown).isPresent());
        model.addAttribute(
                "choices",
                tags.stream()
                        .map(t -> new Choice(t, name(t), count(palette, t)))
                        .toList());
        model.addAttribute(
                "left",
                rows.stream()
                        .filter(r -> r.word().isEmpty() && r.known().isEmpty())
                        .count());
        model.addAttribute(
                "over", words.keySet().stream().filter(t -> !texts.contains(t)).count());
        model.addAttribute(
                "strip", Strip.of(open.theme(), addresses.ofSnapshot(open.head().id()), "", request));
        return "settings/languages";
    }

    private static int count(Palette palette, String tag) {
        return palette.translations().texts().getOrDefault(tag, Map.of()).size();
    }

    private static String name(String tag) {
        return Locale.forLanguageTag(tag).getDisplayName(Locale.ENGLISH);
    }

    /** @param text each text as the theme has it; @param word what stands for it, empty for nothing */
    @PostMapping
    String save(
            @PathVariable long id,
            @RequestParam long base,
            @RequestParam String tag,
            @RequestParam List<String> text,
            @RequestParam List<String> word,
            @AuthenticationPrincipal SignedIn me) {
        Map<String, String> words = new LinkedHashMap<>();
        for (int i = 0; i < Math.min(text.size(), word.size()); i++) {
            words.put(text.get(i), word.get(i));
        }
        Snapshot made = themes.change(id, base, me, theme -> PaletteChange.translated(theme, tag, words));
        notices.done(made.note());
        return Go.to("/themes/" + id + "/languages?tag=" + tag);
    }
}
