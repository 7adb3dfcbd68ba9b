package org.calmpalette.core.setting;

import java.util.Collections;
import java.util.Locale;
import java.util.Map;
import java.util.TreeMap;
import org.calmpalette.core.BadInputException;

/**
 * What a theme's labels and helps are in other languages: for each language, by the text as the theme's own language has it. One text that
 * stands at many settings is translated once; a label that is changed is told in its own language until somebody translates it anew.
 *
 * @param texts by the tag of the language (BCP 47), then by the text
 */
public record Translations(Map<String, Map<String, String>> texts) {
    public static final int MOST_LANGUAGES = 20;
    /** Characters of a translation. */
    public static final int LONGEST = Setting.LONGEST_HELP;

    public static final Translations NONE = new Translations(Map.of());

    /** @throws BadInputException if a tag is no language, or a translation is too long */
    public Translations {
        if (texts.size() > MOST_LANGUAGES) {
            throw new BadInputException(
                    "A theme is translated into at most " + MOST_LANGUAGES + " languages.", "Leave some out.");
        }
        Map<String, Map<String, String>> all = new TreeMap<>();
        texts.forEach((tag, words) -> {
            checkTag(tag);
            words.forEach(Translations::check);
            if (!words.isEmpty()) {
                all.put(tag, Collections.unmodifiableMap(new TreeMap<>(words)));
            }
        });
        texts = Collections.unmodifiableMap(all);
    }

    /** @throws BadInputException if no language has this tag */
    public static void checkTag(String tag) {
        if (!Locale.forLanguageTag(tag).toLanguageTag().equals(tag) || tag.equals("und")) {
            throw new BadInputException(
                    "“" + tag + "” is no tag of a language.", "Write one as HTML does: de, fr or pt-BR.");
        }
    }

    private static void check(String text, String translation) {
        if (translation.isBlank() || translation.length() > LONGEST) {
            throw new BadInputException(
                    "What stands for “" + (text.length() > 40 ? text.substring(0, 40) + "…" : text) + "” is "
                            + (translation.isBlank() ? "empty." : "too long."),
                    "Write 1 to " + LONGEST + " characters, or leave the text out.");
        }
    }

    /** Those for a language: its own, and where it lacks one that of the language without its region. */
    public Map<String, String> in(String tag) {
        String language = Locale.forLanguageTag(tag).getLanguage();
        Map<String, String> all = new TreeMap<>(texts.getOrDefault(language, Map.of()));
        all.putAll(texts.getOrDefault(tag, Map.of()));
        return all;
    }

    /** With one language as it is given here; without it where there is nothing in it. */
    public Translations with(String tag, Map<String, String> words) {
        Map<String, Map<String, String>> all = new TreeMap<>(texts);
        all.put(tag, words);
        return new Translations(all);
    }
}
