package org.calmpalette.core.usage;

import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import org.calmpalette.core.color.Color;
import org.calmpalette.core.css.Node;
import org.calmpalette.core.css.TokenType;
import org.calmpalette.core.css.Tokens;
import org.calmpalette.core.theme.Theme;
import org.calmpalette.core.theme.ThemeSheet;

/** Colours of drawings that are written into a stylesheet as an address: {@code url("data:image/svg+xml,…fill='%230d6efd'…")}. */
final class DrawingColors {
    private static final String START = "data:image/svg+xml";
    private static final Pattern COLOR = Pattern.compile(
            "(?<=['\"=:>;]|%22|%27|%3d)(?:(?:%23|#)[0-9a-f]{3,8}(?![0-9a-z])|(?:rgb|hsl)a?(?:\\(|%28)[0-9a-z.,%/ +-]{5,120}?(?:\\)|%29))",
            Pattern.CASE_INSENSITIVE);
    private static final String OBSTACLE = "Inside the address of a drawing nothing can be read from a setting.";

    private DrawingColors() {}

    static List<ColorUse> of(Theme theme) {
        List<ColorUse> all = new ArrayList<>();
        theme.declaring().forEach(part -> part.sheet().eachDeclaration((declaration, around) -> {
            Tokens tokens = part.sheet().tokens();
            for (int i = declaration.valueFirst(); i < declaration.valueEnd(); i++) {
                boolean address = tokens.is(i, TokenType.URL)
                        || tokens.is(i, TokenType.STRING)
                                && i > 0
                                && tokens.is(i - 1, TokenType.FUNCTION)
                                && tokens.lower(i - 1).equals("url");
                if (address && tokens.value(i).toLowerCase(Locale.ROOT).startsWith(START)) {
                    read(part, declaration, around, i, all);
                }
            }
        }));
        return all;
    }

    private static void read(
            ThemeSheet part, Node.Declaration declaration, List<Node.Rule> around, int token, List<ColorUse> all) {
        Tokens tokens = part.sheet().tokens();
        int start = tokens.start(token);
        Matcher m = COLOR.matcher(part.sheet().text(token, token + 1));
        while (m.find()) {
            String plain = m.group().replaceAll("(?i)%23", "#").replaceAll("(?i)%28", "(");
            plain = plain.replaceAll("(?i)%29$", ")").replaceAll("(?i)%2c", ",").replaceAll("%20", " ");
            int from = start + m.start();
            Color.parse(plain)
                    .ifPresent(c -> all.add(new ColorUse(
                            part.path(),
                            part.offset() + from,
                            part.offset() + start + m.end(),
                            part.line(from),
                            part.column(from),
                            Readers.selector(part.sheet(), around)
                                    .map(Object::toString)
                                    .orElse(Readers.STYLE_ATTRIBUTE),
                            List.of(),
                            declaration.property(),
                            m.group(),
                            c,
                            false,
                            false,
                            OBSTACLE,
                            List.of(),
                            "")));
        }
    }
}
