package org.calmpalette.core.page;

import java.net.URLDecoder;
import java.nio.charset.StandardCharsets;
import java.util.ArrayDeque;
import java.util.Deque;
import java.util.Optional;

/** Addresses inside a theme. */
public final class Paths {
    private Paths() {}

    /** An address without its percent-encoding; as it is where that is none. */
    public static String decoded(String address) {
        try {
            // A plus sign is a plus sign in a path.
            return URLDecoder.decode(address.replace("+", "%2B"), StandardCharsets.UTF_8);
        } catch (IllegalArgumentException notEncoded) {
            // A stray percent sign: browsers take it as it is.
            return address;
        }
    }

    /**
     * The file that an address means, seen from a file that names it.
     *
     * @return empty if it points to another host, into the page itself, or out of the theme
     */
    public static Optional<String> resolve(String from, String address) {
        String a = address.strip();
        int cut = indexOfAny(a, "?#");
        a = cut >= 0 ? a.substring(0, cut) : a;
        if (a.isEmpty() || a.startsWith("//") || a.matches("[A-Za-z][A-Za-z0-9+.-]*:.*")) {
            return Optional.empty();
        }
        a = decoded(a);
        Deque<String> parts = new ArrayDeque<>();
        if (!a.startsWith("/")) {
            String folder = from.contains("/") ? from.substring(0, from.lastIndexOf('/')) : "";
            for (String part : folder.split("/")) {
                if (!part.isEmpty()) {
                    parts.addLast(part);
                }
            }
        }
        for (String part : a.split("/")) {
            if (part.equals("..")) {
                if (parts.isEmpty()) {
                    return Optional.empty();
                }
                parts.removeLast();
            } else if (!part.isEmpty() && !part.equals(".")) {
                parts.addLast(part);
            }
        }
        String path = String.join("/", parts);
        return Optional.of(
                a.endsWith("/") || path.isEmpty() ? (path.isEmpty() ? "" : path + "/") + "index.html" : path);
    }

    private static int indexOfAny(String text, String chars) {
        for (int i = 0; i < text.length(); i++) {
            if (chars.indexOf(text.charAt(i)) >= 0) {
                return i;
            }
        }
        return -1;
    }

    /** The address of a file at the theme's root, seen from another file. */
    public static String toRoot(String from, String file) {
        return "../".repeat((int) from.chars().filter(c -> c == '/').count()) + file;
    }

    /** The address of a file of the theme, seen from another one. */
    public static String relative(String from, String to) {
        String[] a = from.split("/");
        String[] b = to.split("/");
        int same = 0;
        while (same < a.length - 1 && same < b.length - 1 && a[same].equals(b[same])) {
            same++;
        }
        return "../".repeat(a.length - 1 - same) + String.join("/", java.util.Arrays.copyOfRange(b, same, b.length));
    }

    /** Signs of a path that would mean something else in an address, in a stylesheet or in an attribute. */
    private static final String ESCAPED = "% #?;\"'()\\\\<>`^{|}[]";

    /** A path as an address: what would mean something else in one is escaped. */
    public static String address(String path) {
        StringBuilder out = new StringBuilder(path.length() + 8);
        for (int i = 0; i < path.length(); i++) {
            char c = path.charAt(i);
            if (ESCAPED.indexOf(c) >= 0 || c < ' ') {
                out.append(String.format(java.util.Locale.ROOT, "%%%02X", (int) c));
            } else {
                out.append(c);
            }
        }
        return out.toString();
    }

    /** The ending of a file's name in lower case, without the dot; empty if it has none. */
    public static String ending(String path) {
        String name = path.substring(path.lastIndexOf('/') + 1);
        int dot = name.lastIndexOf('.');
        return dot < 0 ? "" : name.substring(dot + 1).toLowerCase(java.util.Locale.ROOT);
    }

    public static boolean isPage(String path) {
        String ending = ending(path);
        return ending.equals("html") || ending.equals("htm") || ending.equals("xhtml");
    }

    public static boolean isStylesheet(String path) {
        return ending(path).equals("css");
    }
}
