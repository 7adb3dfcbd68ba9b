package org.calmpalette.core.output;

import java.util.ArrayList;
import java.util.List;
import java.util.SortedMap;
import org.calmpalette.core.css.Edit;
import org.calmpalette.core.page.Page;
import org.calmpalette.core.page.Paths;
import org.calmpalette.core.page.Tag;
import org.calmpalette.core.setting.Media;
import org.calmpalette.core.setting.MediaFacts;
import org.jsoup.nodes.Element;

/**
 * Names the narrower copies of a picture where a page shows it, so that a browser takes the one that its window and its screen need
 * (HTML, 4.8.4.2.2, candidates with width descriptors). It is told to reckon with the width of the window, up to the picture's own, so a
 * copy is never too narrow. Pictures whose candidates somebody wrote keep them.
 */
final class Candidates {
    private Candidates() {}

    static List<Edit> edits(Page page, Media media) {
        List<Edit> edits = new ArrayList<>();
        String file = page.source().file();
        for (Element e : page.document().getElementsByTag("img")) {
            boolean chosen = e.hasAttr("srcset")
                    || e.parent() != null && e.parent().normalName().equals("picture")
                    || !new Tag(page, e).isWritten();
            String path = chosen ? "" : Paths.resolve(file, e.attr("src")).orElse("");
            SortedMap<Integer, String> copies = path.isEmpty() ? null : media.copies(path);
            MediaFacts own = copies == null || copies.isEmpty()
                    ? null
                    : media.facts(path).orElse(null);
            if (own == null || own.width() == 0) {
                continue;
            }
            List<String> candidates = new ArrayList<>();
            copies.forEach((width, copy) -> {
                if (width < own.width()) {
                    candidates.add(address(file, copy) + " " + width + "w");
                }
            });
            candidates.add(address(file, path) + " " + own.width() + "w");
            Edit srcset = new Tag(page, e).with("srcset", String.join(", ", candidates));
            // By its sizes a browser also reckons how large a picture is that no rule sizes: never larger than it is.
            String sizes = e.hasAttr("sizes")
                    ? ""
                    : " sizes=\"(max-width: " + own.width() + "px) 100vw, " + own.width() + "px\"";
            edits.add(new Edit(srcset.start(), srcset.end(), srcset.replacement() + sizes));
        }
        return edits;
    }

    /** A comma at the end of an address would end it. */
    private static String address(String file, String path) {
        return Paths.address(Paths.relative(file, path)).replace(",", "%2C").replace("&", "&amp;");
    }
}
