package org.calmpalette.core.picture;

import com.github.weisj.jsvg.SVGDocument;
import com.github.weisj.jsvg.attributes.ViewBox;
import com.github.weisj.jsvg.parser.LoaderContext;
import com.github.weisj.jsvg.parser.SVGLoader;
import java.awt.Component;
import java.awt.Graphics2D;
import java.awt.RenderingHints;
import java.awt.image.BufferedImage;
import java.io.ByteArrayInputStream;
import java.nio.charset.StandardCharsets;
import java.util.Locale;
import java.util.Optional;
import java.util.Set;
import org.jsoup.Jsoup;
import org.jsoup.nodes.Attribute;
import org.jsoup.nodes.Element;
import org.jsoup.parser.Parser;

/**
 * An SVG as pixels, if it is one of those that a drawing of shapes can tell. It is a stranger's file: what could fetch something, run,
 * multiply itself or take for ever is not drawn, and neither is what needs fonts or filters of a browser. For those there is no answer.
 */
final class SvgDrawing {
    private static final int MOST_BYTES = 300_000;
    private static final int MOST_ELEMENTS = 400;
    /** Each level may be a picture of its own while it is drawn. */
    private static final int DEEPEST = 25;
    /** Pixels that are drawn; every shape may cover all of them. */
    private static final int MOST_PIXELS = 500_000;
    /** Shapes that are drawn as browsers do. Patterns, masks, markers and uses multiply what they hold, so they are not among these. */
    private static final Set<String> DRAWN = Set.of(
            "svg",
            "g",
            "defs",
            "title",
            "desc",
            "metadata",
            "path",
            "rect",
            "circle",
            "ellipse",
            "line",
            "polyline",
            "polygon",
            "lineargradient",
            "radialgradient",
            "stop",
            "clippath");
    /** Attributes that ask for more than shapes and paint. */
    private static final Set<String> NOT_DRAWN =
            Set.of("filter", "mask", "style", "class", "stroke-dasharray", "mix-blend-mode");

    private SvgDrawing() {}

    /**
     * @param width of the picture in its own pixels, as {@link PictureSize} has it
     * @param stretches whether it follows the shape of the box that it is drawn in, as pictures of pixels do
     */
    record Drawn(BufferedImage image, int width, int height, boolean stretches) {}

    static boolean isSvg(byte[] bytes) {
        String start = new String(bytes, 0, Math.min(bytes.length, 512), StandardCharsets.ISO_8859_1);
        return start.toLowerCase(Locale.ROOT).contains("<svg") || start.startsWith("<?xml");
    }

    static Optional<Drawn> of(byte[] bytes) {
        if (bytes.length > MOST_BYTES) {
            return Optional.empty();
        }
        String text = new String(bytes, StandardCharsets.UTF_8);
        Element root = Jsoup.parse(text, "", Parser.xmlParser()).selectFirst("svg");
        Optional<PictureSize> size = PictureSize.read(bytes);
        if (root == null || size.isEmpty() || text.contains("<!ENTITY") || !isDrawn(root)) {
            return Optional.empty();
        }
        int width = size.get().width();
        int height = size.get().height();
        double scale = Math.min(2, Math.sqrt(MOST_PIXELS / ((double) width * height)));
        int w = (int) Math.round(width * scale);
        int h = (int) Math.round(height * scale);
        if (w < 1 || h < 1) {
            return Optional.empty();
        }
        try {
            SVGDocument document =
                    new SVGLoader().load(new ByteArrayInputStream(bytes), null, LoaderContext.createDefault());
            if (document == null) {
                return Optional.empty();
            }
            BufferedImage image = new BufferedImage(w, h, BufferedImage.TYPE_INT_ARGB);
            Graphics2D g = image.createGraphics();
            g.setRenderingHint(RenderingHints.KEY_ANTIALIASING, RenderingHints.VALUE_ANTIALIAS_ON);
            g.setRenderingHint(RenderingHints.KEY_STROKE_CONTROL, RenderingHints.VALUE_STROKE_PURE);
            document.render((Component) null, g, new ViewBox(0, 0, w, h));
            g.dispose();
            boolean stretches = root.attr("preserveAspectRatio").strip().equals("none");
            return Optional.of(new Drawn(image, width, height, stretches));
        } catch (RuntimeException broken) {
            return Optional.empty();
        }
    }

    private static boolean isDrawn(Element root) {
        int count = 0;
        for (Element e : root.getAllElements()) {
            String name = e.tagName().toLowerCase(Locale.ROOT);
            boolean known = DRAWN.contains(name) && (e == root || !name.equals("svg"));
            if (++count > MOST_ELEMENTS
                    || !known && !name.contains(":")
                    || e.parents().size() > DEEPEST) {
                return false;
            }
            if (e.hasAttr("opacity") && !e.attr("opacity").strip().equals("1") && !isOneFill(e)) {
                return false;
            }
            for (Attribute a : e.attributes()) {
                String attribute = a.getKey().toLowerCase(Locale.ROOT);
                boolean inside = a.getValue().strip().startsWith("#");
                if (NOT_DRAWN.contains(attribute) || attribute.endsWith("href") && !inside) {
                    return false;
                }
            }
        }
        return true;
    }

    /** Opacity counts for an element as a whole (SVG 2, section 13.2 on CSS Color 4); drawn so here is only what paints once. */
    private static boolean isOneFill(Element e) {
        for (Element a = e; a != null; a = a.parent()) {
            String stroke = a.attr("stroke").strip();
            if (!stroke.isEmpty() && !stroke.equals("none")) {
                return false;
            }
        }
        return e.children().isEmpty();
    }
}
