package org.calmpalette.core.css.selector;

import java.util.List;
import java.util.Locale;
import org.jsoup.nodes.Element;

/** {@code :lang()}: Selectors 4, section 7.2, with extended filtering of RFC 4647. */
final class Language {
    private Language() {}

    static boolean matches(Element element, List<String> ranges) {
        String language = "";
        for (Element e = element; e != null; e = e.parent()) {
            if (e.hasAttr("lang") || e.hasAttr("xml:lang")) {
                language = e.hasAttr("lang") ? e.attr("lang") : e.attr("xml:lang");
                break;
            }
        }
        for (String range : ranges) {
            if (matches(language.toLowerCase(Locale.ROOT), range.toLowerCase(Locale.ROOT))) {
                return true;
            }
        }
        return false;
    }

    private static boolean matches(String language, String range) {
        if (language.isEmpty() || range.isEmpty()) {
            return language.isEmpty() && range.isEmpty();
        }
        String[] have = language.split("-");
        String[] want = range.split("-");
        if (!want[0].equals("*") && !want[0].equals(have[0])) {
            return false;
        }
        int h = 1;
        for (int w = 1; w < want.length; w++) {
            while (!want[w].equals("*") && (h >= have.length || !have[h].equals(want[w]))) {
                if (h >= have.length || have[h].length() == 1) {
                    return false;
                }
                h++;
            }
            h += want[w].equals("*") ? 0 : 1;
        }
        return true;
    }
}
