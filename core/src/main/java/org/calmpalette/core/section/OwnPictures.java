package org.calmpalette.core.section;

import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.SortedMap;
import java.util.TreeMap;
import org.calmpalette.core.css.Escapes;
import org.calmpalette.core.css.TokenType;
import org.calmpalette.core.css.Tokenizer;
import org.calmpalette.core.css.Tokens;
import org.calmpalette.core.page.Paths;
import org.calmpalette.core.theme.Theme;

/** The pictures of a theme that a section takes with it, and what they are called in it. */
final class OwnPictures {
    private final Theme theme;
    private final List<String> known;
    private final SortedMap<String, byte[]> files = new TreeMap<>();
    private final Map<String, String> names = new TreeMap<>();

    OwnPictures(Theme theme) {
        this.theme = theme;
        this.known = theme.pictures();
    }

    /** Those that were asked for, by what they are called in the section. */
    SortedMap<String, byte[]> files() {
        return files;
    }

    /** What a picture is called in the section; empty if the theme does not hold it. @param from file that has the address */
    Optional<String> named(String from, String address) {
        Optional<String> path = Paths.resolve(from, address).filter(known::contains);
        path.ifPresent(p -> names.computeIfAbsent(p, x -> {
            String wanted = x.substring(x.lastIndexOf('/') + 1);
            String free = wanted;
            for (int i = 2; files.containsKey(free); i++) {
                free = wanted.replaceFirst("(\\.[^.]*)$", "-" + i + "$1");
            }
            files.put(free, theme.files().read(x));
            return free;
        }));
        return path.map(names::get);
    }

    /** A value or declarations with the addresses that hold in the section; those of what it does not take stay as they are. */
    String in(String css, String from) {
        Tokens tokens = Tokenizer.tokenize(css);
        StringBuilder out = new StringBuilder();
        for (int i = 0; i < tokens.size(); i++) {
            int string = tokens.is(i, TokenType.FUNCTION) && tokens.lower(i).equals("url")
                    ? tokens.skipBlank(i + 1, tokens.size())
                    : i;
            boolean quoted = string > i && string < tokens.size() && tokens.is(string, TokenType.STRING);
            Optional<String> own =
                    tokens.is(i, TokenType.URL) || quoted ? named(from, tokens.value(string)) : Optional.empty();
            if (own.isEmpty()) {
                out.append(tokens.raw(i));
                continue;
            }
            out.append("url(").append(Escapes.string(own.get())).append(')');
            i = quoted ? tokens.afterBlock(i, tokens.size()) - 1 : i;
        }
        return out.toString();
    }
}
