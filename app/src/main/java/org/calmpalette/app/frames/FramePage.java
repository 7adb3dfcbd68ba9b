package org.calmpalette.app.frames;

import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import java.util.Set;
import org.calmpalette.core.css.Edit;
import org.calmpalette.core.page.Page;
import org.jsoup.nodes.Attribute;
import org.jsoup.nodes.Document;
import org.jsoup.nodes.Element;

/**
 * A theme's page made fit for a preview: without anything that runs or leads away, with our own small script that
 * draws outlines and measures. The page's Content-Security-Policy says the same once more to the browser, and is what
 * holds if something is missed here.
 */
public final class FramePage {
    private static final Set<String> GONE =
            Set.of("script", "iframe", "frame", "frameset", "object", "embed", "applet", "portal", "base");
    private static final Set<String> ADDRESSES =
            Set.of("href", "src", "action", "formaction", "xlink:href", "data", "poster", "from", "to", "values");

    private static final Set<String> LOADED = Set.of("src", "srcset", "poster");

    private FramePage() {}

    /** The attribute that carries an element's index in the maker's page, see {@link Page#elements()}. */
    static final String INDEX = "data-calm-at";

    /** The page with the index of each of its elements in the element's own tag, so that the index stays through a build. */
    public static byte[] numbered(Page page) {
        List<Edit> edits = new ArrayList<>();
        List<Element> elements = page.elements();
        String text = page.source().text();
        for (int i = 1; i < elements.size(); i++) {
            Element e = elements.get(i);
            int start = e.sourceRange().startPos();
            String tag = "<" + e.tagName();
            if (e.sourceRange().isTracked() && text.regionMatches(true, Math.max(0, start), tag, 0, tag.length())) {
                edits.add(new Edit(start + tag.length(), start + tag.length(), " " + INDEX + "=\"" + i + "\""));
            }
        }
        return page.source().withEdits(edits);
    }

    /**
     * @param page as it is built, from the page with its numbers
     * @param original as the maker wrote it
     */
    public static String of(Page page, Page original, String script, String nonce) {
        Document document = page.document().clone();
        number(document, original);
        for (Element e : List.copyOf(document.getAllElements())) {
            String name = e.normalName();
            if (GONE.contains(name)
                    || name.equals("meta") && isInstruction(e)
                    || name.equals("link") && !isHarmless(e)) {
                e.remove();
            } else {
                clean(e);
            }
        }
        if (script != null) {
            document.head()
                    .appendElement("script")
                    .attr("src", script)
                    .attr("nonce", nonce)
                    .attr("type", "module");
        }
        document.outputSettings().prettyPrint(false).charset(java.nio.charset.StandardCharsets.UTF_8);
        return document.outerHtml();
    }

    /** Elements that HTML puts there by itself: html, head and body. */
    private static void number(Document document, Page original) {
        List<Element> before = original.elements();
        for (String name : List.of("html", "head", "body")) {
            Element shown = document.selectFirst(name);
            Element written = original.document().selectFirst(name);
            if (shown != null && written != null && !shown.hasAttr(INDEX)) {
                shown.attr(INDEX, String.valueOf(before.indexOf(written)));
            }
        }
    }

    private static boolean isInstruction(Element meta) {
        return meta.hasAttr("http-equiv") || meta.hasAttr("charset");
    }

    private static boolean isHarmless(Element link) {
        String rel = link.attr("rel").toLowerCase(Locale.ROOT);
        return rel.contains("stylesheet") || rel.contains("icon");
    }

    private static void clean(Element e) {
        for (Attribute a : e.attributes().asList()) {
            String name = a.getKey().toLowerCase(Locale.ROOT);
            String value = a.getValue().replaceAll("[\\s\\p{Cntrl}]", "").toLowerCase(Locale.ROOT);
            boolean runs =
                    name.startsWith("on") || name.equals("srcdoc") || name.equals("ping") || name.equals("nonce");
            boolean scriptAddress = ADDRESSES.contains(name)
                    && (value.startsWith("javascript:")
                            || value.startsWith("vbscript:")
                            || value.startsWith("data:text"));
            // Another host is not asked for anything; the policy would stop it with an error for each.
            boolean elsewhere = LOADED.contains(name)
                    && (value.startsWith("http:") || value.startsWith("https:") || value.startsWith("//"));
            if (runs || scriptAddress || elsewhere) {
                e.removeAttr(a.getKey());
            }
        }
    }
}
