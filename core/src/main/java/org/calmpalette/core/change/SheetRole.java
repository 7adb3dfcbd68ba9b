package org.calmpalette.core.change;

import java.util.HashSet;
import java.util.LinkedHashMap;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.regex.Pattern;
import org.calmpalette.core.BadInputException;
import org.calmpalette.core.Budget;
import org.calmpalette.core.css.TokenType;
import org.calmpalette.core.css.Tokens;
import org.calmpalette.core.page.Page;
import org.calmpalette.core.page.Paths;
import org.calmpalette.core.setting.Palette;
import org.calmpalette.core.setting.SheetOwner;
import org.calmpalette.core.theme.Theme;
import org.calmpalette.core.theme.ThemeSheet;
import org.jsoup.nodes.Element;

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

    /** The attribute that marks a page, and what in it shows one class, as made here from a stylesheet. */
    public static final String SPECIMEN = "data-specimen";

    private static final Set<String> FOLDERS =
            Set.of("vendor", "vendors", "lib", "libs", "node_modules", "third-party", "webjars");
    private static final Pattern VERSION = Pattern.compile("\\bv?\\d+\\.\\d+(\\.\\d+)?\\b");
    private static final Pattern LICENCE = Pattern.compile("(?i)licen[cs]e|\\bMIT\\b|copyright|\\(c\\)");
    private static final Pattern LIBRARY = Pattern.compile("(?i)\\bframework\\b|\\blibrary\\b|\\bnormalize\\b");
    private static final int LONG_LINE = 1000;

    public boolean lasts() {
        return kind == Kind.OWN;
    }

    /**
     * The roles of all stylesheets of a theme by path. What the maker said of one counts (see {@link Palette#sheets()}), then its
     * signs. A theme has a sheet of its maker's: where the signs speak against all of them, it is the one that the markup of the
     * pages needs most, since theme sheets name a version and a licence in their first comment as frameworks do. Pages that were made
     * from a sheet ({@link #SPECIMEN}) are no markup of the maker's: of a theme without any other, the signs count. Sheets inside
     * of pages and style attributes are the maker's own.
     */
    public static Map<String, SheetRole> of(Theme theme) {
        Map<String, SheetRole> roles = new LinkedHashMap<>();
        Map<String, ThemeSheet> files = new LinkedHashMap<>();
        for (ThemeSheet part : theme.sheets()) {
            boolean file = part.offset() == 0;
            if (file) {
                files.put(part.path(), part);
            }
            SheetOwner said = file ? theme.palette().sheets().get(part.path()) : null;
            SheetRole role = !file ? MINE : said == null ? of(theme, part) : said(said);
            roles.merge(part.path(), role, (first, second) -> first.lasts() ? second : first);
        }
        // Style attributes come after: they are the maker's, and say nothing of whose the stylesheets are.
        boolean written = theme.pages().isEmpty()
                || !theme.pages().stream().allMatch(p -> p.elements().stream().anyMatch(e -> e.hasAttr(SPECIMEN)));
        if (written && roles.values().stream().noneMatch(SheetRole::lasts)) {
            mostNeeded(theme, files, roles)
                    .ifPresent(path -> roles.put(
                            path,
                            new SheetRole(
                                    Kind.OWN,
                                    files.size() == 1
                                            ? "it is the only stylesheet"
                                            : "the pages' own markup needs it most",
                                    "")));
        }
        theme.attributes().forEach(part -> roles.put(part.path(), MINE));
        return roles;
    }

    /**
     * Says whose a stylesheet is.
     *
     * @param whose as {@code palette.json} writes it; empty for what the signs tell
     * @throws BadInputException if there is no such stylesheet, or nobody of that name
     */
    public static Change said(Theme theme, String path, String whose) {
        if (theme.sheets().stream().noneMatch(s -> s.offset() == 0 && s.path().equals(path))) {
            throw new BadInputException(
                    "The theme has no stylesheet “" + path + "”.", "Choose one that is listed under Rules.");
        }
        SheetOwner owner = whose.isEmpty()
                ? null
                : SheetOwner.of(whose)
                        .orElseThrow(() ->
                                new BadInputException("Nobody is called “" + whose + "”.", "Write maker or library."));
        String note = owner == null
                ? "Whose " + path + " is, its signs tell again"
                : path
                        + (owner == SheetOwner.MAKER
                                ? " is your own: edits go into it"
                                : " is a framework's: it is overridden, not edited");
        return Change.of(note).withPalette(theme, theme.palette().withSheet(path, owner));
    }

    private static final SheetRole MINE = new SheetRole(Kind.OWN, "", "");

    private static SheetRole said(SheetOwner owner) {
        return new SheetRole(owner == SheetOwner.MAKER ? Kind.OWN : Kind.LIBRARY, "you said so", "");
    }

    /** Of sheets that the maker has said nothing of and no build makes, the one that styles most classes that no other styles. */
    private static Optional<String> mostNeeded(
            Theme theme, Map<String, ThemeSheet> files, Map<String, SheetRole> roles) {
        Map<String, Set<String>> names = new LinkedHashMap<>();
        files.forEach((path, part) -> {
            if (roles.get(path).kind() == Kind.LIBRARY
                    && !theme.palette().sheets().containsKey(path)) {
                names.put(path, classesAndIds(part.sheet().tokens()));
            }
        });
        Set<String> used = new HashSet<>();
        for (Page page : theme.pages()) {
            for (Element e : page.elements()) {
                Budget.step();
                e.classNames().forEach(c -> used.add("." + c));
                if (!e.id().isEmpty()) {
                    used.add("#" + e.id());
                }
            }
        }
        String best = null;
        long most = -1;
        for (Map.Entry<String, Set<String>> one : names.entrySet()) {
            long needed = one.getValue().stream()
                    .filter(used::contains)
                    .filter(n -> names.entrySet().stream()
                            .noneMatch(o -> o != one
                                    && !o.getKey().equals(one.getKey())
                                    && o.getValue().contains(n)))
                    .count();
            // Of two the later one: a maker's own sheet is loaded after what it builds on.
            if (needed >= most) {
                most = needed;
                best = one.getKey();
            }
        }
        return Optional.ofNullable(best);
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

    /** What looks like a class or an identifier anywhere in a sheet; a colour in hexadecimal is no identifier that a page has. */
    private static Set<String> classesAndIds(Tokens tokens) {
        Set<String> names = new HashSet<>();
        for (int i = 0; i < tokens.size(); i++) {
            Budget.step();
            if (tokens.is(i, TokenType.HASH)) {
                names.add(tokens.raw(i));
            } else if (i + 1 < tokens.size() && tokens.isDelim(i, '.') && tokens.is(i + 1, TokenType.IDENT)) {
                names.add("." + tokens.value(i + 1));
            }
        }
        return names;
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
