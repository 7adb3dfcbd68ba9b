package org.calmpalette.core.change;

import java.util.LinkedHashMap;
import java.util.Map;
import java.util.Set;
import java.util.regex.Pattern;
import org.calmpalette.core.css.TokenType;
import org.calmpalette.core.css.Tokens;
import org.calmpalette.core.page.Paths;
import org.calmpalette.core.theme.Theme;
import org.calmpalette.core.theme.ThemeSheet;

/**
 * Whose a stylesheet is, and whether an edit in it lasts. Told from signs that are common practice: a source map or a
 * source beside it, a licence comment with a version, a name with {@code .min.}, lines without end.
 *
 * @param because the sign, in plain words
 * @param source path of the file it is made from, if that is in the theme; else empty
 */
public record SheetRole(Kind kind, String because, String source) {
    public enum Kind {
        /** Written by the maker: edits go here. */
        OWN,
        /** A framework's or parent's: the next version overwrites edits. */
        LIBRARY,
        /** Made by a build from another file: the next build overwrites edits. */
        BUILT
    }

    private static final Set<String> FOLDERS =
            Set.of("vendor", "vendors", "lib", "libs", "node_modules", "third-party", "webjars");
    private static final Pattern VERSION = Pattern.compile("\\bv?\\d+\\.\\d+(\\.\\d+)?\\b");
    private static final Pattern LICENCE = Pattern.compile("(?i)licen[cs]e|\\bMIT\\b|copyright|\\(c\\)");
    private static final Pattern LIBRARY = Pattern.compile("(?i)\\bframework\\b|\\blibrary\\b|\\bnormalize\\b");
    private static final int LONG_LINE = 1000;

    public boolean lasts() {
        return kind == Kind.OWN;
    }

    /** The roles of all stylesheets of a theme by path; sheets inside pages and style attributes are the maker's own. */
    public static Map<String, SheetRole> of(Theme theme) {
        Map<String, SheetRole> roles = new LinkedHashMap<>();
        for (ThemeSheet part : theme.sheets()) {
            roles.put(part.path(), part.offset() > 0 ? new SheetRole(Kind.OWN, "", "") : of(theme, part));
        }
        theme.attributes().forEach(part -> roles.put(part.path(), new SheetRole(Kind.OWN, "", "")));
        return roles;
    }

    private static SheetRole of(Theme theme, ThemeSheet part) {
        String path = part.path();
        String name = path.substring(path.lastIndexOf('/') + 1);
        String stem = name.replaceFirst("(\\.min)?\\.css$", "");
        for (String other : theme.files().paths()) {
            String ending = Paths.ending(other);
            if (Set.of("scss", "sass", "less", "styl").contains(ending)
                    && other.substring(other.lastIndexOf('/') + 1).equals(stem + "." + ending)) {
                return new SheetRole(Kind.BUILT, "it is made from " + other, other);
            }
        }
        String text = part.file().text();
        String comment = firstComment(part.sheet().tokens());
        // Build tools keep a comment that starts with /*! for the sake of its licence.
        boolean licensed =
                (comment.startsWith("/*!") || LICENCE.matcher(comment).find())
                        && VERSION.matcher(comment).find();
        if (licensed || LIBRARY.matcher(comment).find()) {
            return new SheetRole(
                    Kind.LIBRARY,
                    "its first comment names a " + (licensed ? "version and a licence" : "framework"),
                    "");
        }
        if (name.contains(".min.")
                || text.length() > LONG_LINE && part.file().line(text.length()) < text.length() / LONG_LINE) {
            return new SheetRole(Kind.LIBRARY, "it is written without line breaks, as for delivery", "");
        }
        for (String folder : path.split("/")) {
            if (FOLDERS.contains(folder)) {
                return new SheetRole(Kind.LIBRARY, "it lies in the folder " + folder, "");
            }
        }
        if (text.contains("sourceMappingURL=")) {
            return new SheetRole(Kind.BUILT, "it names a source map", "");
        }
        return new SheetRole(Kind.OWN, "", "");
    }

    private static String firstComment(Tokens tokens) {
        for (int i = 0; i < tokens.size() && tokens.isBlank(i) || i < tokens.size() && isCharset(tokens, i); i++) {
            if (tokens.is(i, TokenType.COMMENT)) {
                return tokens.raw(i);
            }
        }
        return "";
    }

    private static boolean isCharset(Tokens tokens, int i) {
        return tokens.is(i, TokenType.AT_KEYWORD)
                || tokens.is(i, TokenType.STRING)
                || tokens.is(i, TokenType.SEMICOLON);
    }
}
