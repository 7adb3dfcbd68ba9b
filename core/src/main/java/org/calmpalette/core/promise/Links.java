package org.calmpalette.core.promise;

import java.util.HashSet;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Set;
import org.calmpalette.core.language.Language;
import org.calmpalette.core.page.Page;
import org.calmpalette.core.page.Paths;
import org.calmpalette.core.setting.Binding;
import org.calmpalette.core.theme.Theme;

/** Where links of a theme lead. */
public final class Links {
    private Links() {}

    /** Why the links that a setting fills would lead to nothing; empty if all of them lead somewhere, or elsewhere. */
    public static List<String> leadingNowhere(Theme theme, String key, String href) {
        Set<String> all = new LinkedHashSet<>();
        for (Page page : theme.pages()) {
            boolean there = page.elements().stream()
                    .anyMatch(e -> e.attr(Binding.HREF.attribute()).equals(key));
            String why = there ? leadsNowhere(theme, page, href) : "";
            if (!why.isEmpty()) {
                all.add(why);
            }
        }
        return List.copyOf(all);
    }

    /** Why a link on a page leads to nothing; empty where it leads somewhere, or elsewhere. */
    static String leadsNowhere(Theme theme, Page page, String href) {
        String to = href.strip();
        if (to.isEmpty() || to.matches("(?s)[A-Za-z][A-Za-z0-9+.-]*:.*") || to.startsWith("//") || to.equals("#")) {
            return "";
        }
        int hash = to.indexOf('#');
        String path = (hash < 0 ? to : to.substring(0, hash)).replaceFirst("(?s)\\?.*", "");
        String anchor = hash < 0 ? "" : to.substring(hash + 1);
        Page target = page;
        if (!path.isEmpty()) {
            String resolved = Paths.resolve(page.source().file(), path).orElse(null);
            if (resolved == null) {
                return "";
            }
            String file = theme.files().has(resolved)
                    ? resolved
                    : resolved.endsWith("/") || resolved.isEmpty() ? resolved + "index.html" : resolved + "/index.html";
            if (!theme.files().has(file)) {
                return Language.say("link.no-page", path);
            }
            target = theme.pages().stream()
                    .filter(p -> p.source().file().equals(file))
                    .findFirst()
                    .orElse(null);
        }
        Set<String> ids = new HashSet<>();
        if (target != null) {
            target.elements().forEach(e -> {
                ids.add(e.id());
                ids.add(e.attr("name"));
            });
        }
        // “top” is there without an element (HTML, scroll to the fragment).
        return anchor.isEmpty() || target == null || ids.contains(anchor) || anchor.equalsIgnoreCase("top")
                ? ""
                : Language.say("link.no-anchor", anchor);
    }
}
