package org.calmpalette.core.section;

import java.util.LinkedHashSet;
import java.util.Map;
import java.util.Set;
import java.util.TreeMap;
import java.util.regex.Pattern;
import org.calmpalette.core.page.StartTag;
import org.jsoup.nodes.Attribute;
import org.jsoup.nodes.Element;

/**
 * The identifiers in the markup of a section, each behind the section's name, so that two copies on a page do not meet: an identifier is
 * there once in a document (HTML, section 3.2.6), and what points to it in the section goes on doing so.
 */
final class Identifiers {
    static final Identifiers NONE = new Identifiers(Set.of(), "");

    /** Attributes that hold one identifier, or several with spaces between them (HTML, index of attributes; WAI-ARIA 1.2, 6.6). */
    private static final Set<String> REFERENCES = Set.of(
            "for",
            "form",
            "list",
            "headers",
            "popovertarget",
            "commandfor",
            "aria-activedescendant",
            "aria-controls",
            "aria-describedby",
            "aria-details",
            "aria-errormessage",
            "aria-flowto",
            "aria-labelledby",
            "aria-owns");

    /** Elements of which those with one name are a group, or that are found by their name. */
    private static final Set<String> NAMED = Set.of("details", "map");

    /** What cannot be written in an attribute as it is, is left alone. */
    private static final Pattern PLAIN = Pattern.compile("[^\\s\"'&<>()\\\\]+");

    private static final Pattern FRAGMENT = Pattern.compile("url\\(\\s*([\"']?)#([^\"')\\s]+)\\1\\s*\\)");

    private final Set<String> known;
    private final String prefix;

    private Identifiers(Set<String> known, String prefix) {
        this.known = known;
        this.prefix = prefix;
    }

    /** @param name of the section on its page */
    static Identifiers of(Element root, String name) {
        Set<String> known = new LinkedHashSet<>();
        for (Element e : root.getAllElements()) {
            known.add(e.id());
            known.add(NAMED.contains(e.normalName()) ? e.attr("name") : "");
        }
        known.removeIf(id -> !PLAIN.matcher(id).matches());
        return new Identifiers(known, name + "-");
    }

    /** What an identifier is called on the page. */
    String named(String id) {
        return known.contains(id) ? prefix + id : id;
    }

    /** Addresses of places in the section, as they are on the page, by their own. */
    Map<String, String> anchors() {
        Map<String, String> all = new TreeMap<>();
        known.forEach(id -> all.put("#" + id, "#" + prefix + id));
        return all;
    }

    /** A start tag with what its attributes name, as that is called on the page. */
    StartTag in(StartTag tag, Element e) {
        StartTag now = tag;
        for (Attribute a : e.attributes()) {
            String key = a.getKey();
            String to = a.getValue();
            if (key.equals("id") || key.equals("name") && NAMED.contains(e.normalName())) {
                to = named(to);
            } else if (REFERENCES.contains(key)) {
                String[] words = to.split("(?<=\\s)|(?=\\s)");
                for (int i = 0; i < words.length; i++) {
                    words[i] = named(words[i]);
                }
                to = String.join("", words);
            } else if ((key.equals("href") || key.equals("xlink:href") || key.equals("usemap")) && to.startsWith("#")) {
                to = "#" + named(to.substring(1));
            } else if (to.contains("url(")) {
                to = FRAGMENT.matcher(to)
                        .replaceAll(m -> "url(#" + named(m.group(2)).replace("$", "\\$") + ")");
            }
            now = to.equals(a.getValue())
                    ? now
                    : now.with(key, to.replace("&", "&amp;").replace("\"", "&quot;"));
        }
        return now;
    }
}
