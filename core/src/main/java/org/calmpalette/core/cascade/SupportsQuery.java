package org.calmpalette.core.cascade;

import java.util.List;
import java.util.Locale;
import java.util.Set;
import org.calmpalette.core.css.selector.SelectorList;
import org.calmpalette.core.value.ComponentValue;
import org.calmpalette.core.value.ComponentValue.Kind;

/** {@code @supports}: CSS Conditional Rules 3 and 4. */
final class SupportsQuery {
    private SupportsQuery() {}

    static boolean matches(String condition) {
        return condition(ComponentValue.read(condition));
    }

    private static boolean condition(List<ComponentValue> parts) {
        if (parts.isEmpty()) {
            return false;
        }
        if (parts.get(0).isIdent("not")) {
            return parts.size() == 2 && parts.get(1).kind() != Kind.IDENT && !inParens(parts.get(1));
        }
        // What is no condition holds nowhere: section 2 of the grammar, parentheses for a mix of the two words.
        boolean alike = parts.size() < 4
                || parts.stream()
                                .filter(p -> p.kind() == Kind.IDENT)
                                .map(ComponentValue::name)
                                .distinct()
                                .count()
                        == 1;
        if (parts.size() % 2 == 0 || !alike) {
            return false;
        }
        boolean answer = inParens(parts.get(0));
        for (int i = 1; i + 1 < parts.size(); i += 2) {
            boolean next = inParens(parts.get(i + 1));
            answer = parts.get(i).isIdent("or") ? answer || next : answer && next;
        }
        return answer;
    }

    private static boolean inParens(ComponentValue p) {
        if (p.kind() == Kind.FUNCTION) {
            return switch (p.name()) {
                case "selector" ->
                    SelectorList.parse(p.inside())
                            .filter(l -> l.selectors().size() == 1)
                            .isPresent();
                case "font-tech" ->
                    Set.of(
                                    "color-colrv0",
                                    "color-colrv1",
                                    "color-svg",
                                    "color-sbix",
                                    "color-cbdt",
                                    "variations",
                                    "features-opentype",
                                    "palettes")
                            .contains(p.inside().strip().toLowerCase(Locale.ROOT));
                case "font-format" ->
                    Set.of("woff2", "woff", "opentype", "truetype", "collection")
                            .contains(p.inside().strip().toLowerCase(Locale.ROOT));
                default -> false;
            };
        }
        if (p.kind() != Kind.BLOCK) {
            return false;
        }
        List<ComponentValue> inside = ComponentValue.read(p.inside());
        if (!inside.isEmpty()
                && (inside.get(0).kind() == Kind.BLOCK
                        || inside.get(0).isIdent("not")
                        || inside.get(0).kind() == Kind.FUNCTION)) {
            return condition(inside);
        }
        return declaration(p.inside());
    }

    private static boolean declaration(String text) {
        int colon = text.indexOf(':');
        if (colon < 0) {
            return false;
        }
        String property = text.substring(0, colon).strip();
        String name = property.startsWith("--") ? property : property.toLowerCase(Locale.ROOT);
        String value = text.substring(colon + 1).strip().replaceFirst("(?i)\\s*!\\s*important$", "");
        return (!value.isEmpty() || name.startsWith("--")) && Expansion.supports(name, value);
    }
}
