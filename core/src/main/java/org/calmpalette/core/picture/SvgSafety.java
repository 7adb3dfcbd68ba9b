package org.calmpalette.core.picture;

import java.nio.charset.StandardCharsets;
import java.util.Locale;
import java.util.Set;
import java.util.regex.Pattern;
import org.calmpalette.core.BadInputException;
import org.jsoup.Jsoup;
import org.jsoup.nodes.Attribute;
import org.jsoup.nodes.Element;
import org.jsoup.parser.Parser;

/**
 * What an SVG may not hold when it is brought in: what runs, what loads from elsewhere, and what multiplies itself while it is read
 * (SVG 2, chapter 2 “Conformance”, processing modes: in an {@code img} none of it works, opened by itself all of it does). It is
 * refused with the line and not cleaned: a drawing that somebody made is not rewritten unseen.
 */
public final class SvgSafety {
    /** Bytes of an SVG that is brought in; it is read as a tree. */
    public static final int LARGEST = 2_000_000;

    private static final Set<String> ELEMENTS =
            Set.of("script", "foreignobject", "iframe", "object", "embed", "audio", "video", "handler", "listener");
    private static final Set<String> MOVING = Set.of("set", "animate");
    /** Local names of attributes that hold an address. */
    private static final Set<String> ADDRESSES = Set.of("href", "src", "base");

    private static final Pattern LOADS =
            Pattern.compile("(?i)@import|url\\(\\s*+['\"]?+\\s*+(?!#|data:image/(?!svg))|expression\\(|-moz-binding");
    private static final Pattern INSIDE = Pattern.compile("(?is)\\s*(#.*|data:image/(?!svg)[a-z0-9.+-]+[;,].*)?");
    private static final String MEND =
            "Take it out with an editor for drawings (“save as plain SVG”), or save it as PNG.";

    private SvgSafety() {}

    /** Whether bytes are an SVG, whatever the file is called. */
    public static boolean isSvg(byte[] bytes) {
        return SvgDrawing.isSvg(bytes);
    }

    /**
     * @param name for the message
     * @throws BadInputException with the line, if the drawing holds what may not be in it
     */
    public static void check(String name, byte[] bytes) {
        if (bytes.length > LARGEST) {
            throw new BadInputException(
                    name + " is an SVG of more than " + LARGEST / 1_000_000 + " MB.",
                    "Leave out what is too fine to be seen, or save it as PNG.");
        }
        String text = new String(bytes, StandardCharsets.UTF_8);
        int entity = text.indexOf("<!ENTITY");
        if (entity >= 0) {
            throw refused(name, (int) text.substring(0, entity).lines().count(), "it declares an entity");
        }
        for (Element e :
                Jsoup.parse(text, "", Parser.xmlParser().setTrackPosition(true)).getAllElements()) {
            int line = Math.max(1, e.sourceRange().start().lineNumber());
            String tag = local(e.tagName());
            if (ELEMENTS.contains(tag)) {
                throw refused(name, line, "it holds a <" + tag + ">");
            }
            if (tag.equals("style") && LOADS.matcher(e.wholeText()).find()) {
                throw refused(name, line, "its style loads something");
            }
            for (Attribute a : e.attributes()) {
                check(name, line, tag, local(a.getKey()), a.getValue());
            }
        }
    }

    private static void check(String name, int line, String tag, String attribute, String value) {
        if (attribute.startsWith("on")) {
            throw refused(name, line, "<" + tag + "> runs a script, in " + attribute);
        }
        boolean address = ADDRESSES.contains(attribute) && !tag.equals("a");
        boolean link = tag.equals("a")
                && attribute.equals("href")
                && value.strip().toLowerCase(Locale.ROOT).startsWith("javascript:");
        if (link || address && !INSIDE.matcher(value).matches()) {
            throw refused(
                    name,
                    line,
                    "<" + tag + "> loads “" + (value.length() > 60 ? value.substring(0, 60) + "…" : value) + "”");
        }
        if (LOADS.matcher(value).find()) {
            throw refused(name, line, "<" + tag + "> loads something, in " + attribute);
        }
        boolean moves = MOVING.contains(tag)
                && attribute.equals("attributename")
                && (ADDRESSES.contains(local(value.strip()))
                        || local(value.strip()).startsWith("on"));
        if (moves) {
            throw refused(name, line, "<" + tag + "> changes an address");
        }
    }

    private static String local(String name) {
        String lower = name.toLowerCase(Locale.ROOT);
        return lower.substring(lower.lastIndexOf(':') + 1);
    }

    private static BadInputException refused(String name, int line, String what) {
        return new BadInputException(
                name + ", line " + line + ": " + what + ", which a picture of a site may not.", MEND);
    }
}
