package org.calmpalette.core.usage;

import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import java.util.Optional;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import org.calmpalette.core.color.Color;
import org.calmpalette.core.css.Node;
import org.calmpalette.core.css.TokenType;
import org.calmpalette.core.css.Tokens;
import org.calmpalette.core.setting.ColorKey;
import org.calmpalette.core.setting.Drawing;
import org.calmpalette.core.theme.Theme;
import org.calmpalette.core.theme.ThemeSheet;

/** Colours of drawings that are written into a stylesheet as an address: {@code url("data:image/svg+xml,…fill='%230d6efd'…")}. */
public final class DrawingColors {
    private static final Pattern COLOR = Pattern.compile(
            "(?<=['\"=:>;]|%22|%27|%3d)(?:(?:%23|#)[0-9a-f]{3,8}(?![0-9a-z])|(?:rgb|hsl)a?(?:\\(|%28)[0-9a-z.,%/ +-]{5,120}?(?:\\)|%29))",
            Pattern.CASE_INSENSITIVE);

    /**
     * An address that holds a drawing.
     *
     * @param start offset of {@code url(} in the file's text
     * @param end offset after its closing parenthesis
     * @param uses its colours
     */
    public record At(String file, int line, int start, int end, String address, List<ColorUse> uses) {
        /** The drawing with a place for one of its colours, wherever that stands in it. */
        public Drawing around(Color color) {
            List<String> parts = new ArrayList<>();
            int from = 0;
            Matcher m = COLOR.matcher(address);
            while (m.find()) {
                if (read(m.group()).map(ColorKey::of).equals(Optional.of(ColorKey.of(color)))) {
                    parts.add(address.substring(from, m.start()));
                    from = m.end();
                }
            }
            parts.add(address.substring(from));
            return new Drawing(parts);
        }
    }

    private DrawingColors() {}

    /** All drawings of a theme's stylesheets that write a colour. */
    public static List<At> of(Theme theme) {
        List<At> all = new ArrayList<>();
        theme.declaring().forEach(part -> part.sheet().eachDeclaration((declaration, around) -> {
            Tokens tokens = part.sheet().tokens();
            for (int i = declaration.valueFirst(); i < declaration.valueEnd(); i++) {
                boolean quoted = tokens.is(i, TokenType.STRING)
                        && i > 0
                        && tokens.is(i - 1, TokenType.FUNCTION)
                        && tokens.lower(i - 1).equals("url");
                if ((quoted || tokens.is(i, TokenType.URL))
                        && tokens.value(i).toLowerCase(Locale.ROOT).startsWith(Drawing.START)) {
                    int open = quoted ? i - 1 : i;
                    int after = quoted ? tokens.afterBlock(open, declaration.valueEnd()) : i + 1;
                    List<ColorUse> uses = uses(part, declaration, around, i);
                    if (!uses.isEmpty()) {
                        all.add(new At(
                                part.path(),
                                part.line(tokens.start(open)),
                                part.offset() + tokens.start(open),
                                part.offset() + tokens.end(after - 1),
                                tokens.value(i),
                                uses));
                    }
                }
            }
        }));
        return all;
    }

    private static List<ColorUse> uses(
            ThemeSheet part, Node.Declaration declaration, List<Node.Rule> around, int token) {
        List<ColorUse> all = new ArrayList<>();
        Tokens tokens = part.sheet().tokens();
        int start = tokens.start(token);
        var selector = Readers.selector(part.sheet(), around);
        Matcher m = COLOR.matcher(part.sheet().text(token, token + 1));
        while (m.find()) {
            int from = start + m.start();
            read(m.group())
                    .ifPresent(c -> all.add(new ColorUse(
                            part.path(),
                            part.offset() + from,
                            part.offset() + start + m.end(),
                            part.line(from),
                            part.column(from),
                            selector.map(Object::toString).orElse(Readers.STYLE_ATTRIBUTE),
                            List.of(),
                            declaration.property(),
                            m.group(),
                            c,
                            false,
                            false,
                            obstacle(tokens.value(token), around),
                            selector.map(l -> PageSelector.of(l, declaration.property()))
                                    .orElse(List.of()),
                            "")));
        }
        return all;
    }

    private static String obstacle(String address, List<Node.Rule> around) {
        return address.length() > Drawing.LONGEST
                ? "The drawing is longer than " + Drawing.LONGEST + " characters."
                : ColorUsage.isPropertyRule(around) ? ColorUsage.REGISTERED : "";
    }

    private static Optional<Color> read(String written) {
        String plain = written.replaceAll("(?i)%23", "#").replaceAll("(?i)%28", "(");
        plain = plain.replaceAll("(?i)%29$", ")").replaceAll("(?i)%2c", ",").replaceAll("%20", " ");
        return Color.parse(plain);
    }

    /** An address in one way of writing its colours and quotes, so that two that draw the same can be told. */
    public static String plain(String css) {
        return COLOR.matcher(css.strip())
                .replaceAll(m -> Matcher.quoteReplacement(
                        read(m.group()).map(Drawing::written).orElse(m.group())))
                .replaceAll("^url\\(\\s*(['\"]?)(.*)\\1\\s*\\)$", "$2");
    }
}
