package org.calmpalette.core.usage;

import java.util.ArrayDeque;
import java.util.ArrayList;
import java.util.Deque;
import java.util.HashMap;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import org.calmpalette.core.css.Escapes;
import org.calmpalette.core.css.Node;
import org.calmpalette.core.css.Reference;
import org.calmpalette.core.css.Stylesheet;
import org.calmpalette.core.css.Tokens;
import org.calmpalette.core.css.selector.SelectorList;
import org.calmpalette.core.theme.Theme;
import org.calmpalette.core.theme.ThemeSheet;

/** Which declarations of a theme read which custom property. */
public final class Readers {
    /** What stands for a selector where there is none. */
    public static final String STYLE_ATTRIBUTE = "style attribute";

    private static final int MOST_PAINTED = 300;

    /** A declaration that reads a custom property. */
    private record Reader(SelectorList selector, String property) {}

    private final Map<String, List<Reader>> readers = new HashMap<>();

    private Readers() {}

    public static Readers of(Theme theme) {
        Readers found = new Readers();
        theme.declaring().forEach(found::read);
        return found;
    }

    private void read(ThemeSheet part) {
        Stylesheet sheet = part.sheet();
        Tokens tokens = sheet.tokens();
        sheet.eachDeclaration((declaration, around) -> {
            for (Reference r : Reference.in(tokens, declaration.valueFirst(), declaration.valueEnd())) {
                selector(sheet, around).ifPresent(s -> readers.computeIfAbsent(r.name(), k -> new ArrayList<>())
                        .add(new Reader(s, declaration.property())));
            }
        });
    }

    /** What a custom property paints: the declarations that read it, through others if need be. */
    public List<Painted> paintedBy(String property) {
        Set<Painted> painted = new LinkedHashSet<>();
        Set<String> seen = new LinkedHashSet<>(List.of(property));
        List<String> open = new ArrayList<>(seen);
        while (!open.isEmpty() && painted.size() < MOST_PAINTED) {
            for (Reader reader : readers.getOrDefault(open.remove(0), List.of())) {
                if (!reader.property().startsWith("--")) {
                    painted.addAll(PageSelector.of(reader.selector(), reader.property()));
                } else if (seen.add(reader.property())) {
                    open.add(reader.property());
                }
            }
        }
        return painted.stream().limit(MOST_PAINTED).toList();
    }

    /** A custom property and all that read it, through others if need be. */
    public Set<String> leadingTo(String property) {
        Set<String> names = new LinkedHashSet<>(List.of(property));
        Deque<String> open = new ArrayDeque<>(names);
        while (!open.isEmpty()) {
            for (Reader reader : readers.getOrDefault(open.poll(), List.of())) {
                if (reader.property().startsWith("--") && names.add(reader.property())) {
                    open.add(reader.property());
                }
            }
        }
        return names;
    }

    /**
     * The selector of a declaration with nesting resolved; empty if browsers drop the rule, or it is a keyframe. A declaration of a
     * style attribute holds for the elements that have this very attribute.
     */
    public static Optional<SelectorList> selector(Stylesheet sheet, List<Node.Rule> around) {
        if (around.isEmpty()) {
            return SelectorList.parse("[style=" + Escapes.string(sheet.source().text()) + "]");
        }
        SelectorList list = null;
        for (Node.Rule rule : around) {
            if (rule instanceof Node.AtRule at && at.name().endsWith("keyframes")) {
                return Optional.empty();
            }
            if (rule instanceof Node.StyleRule style) {
                Optional<SelectorList> inner =
                        SelectorList.parse(sheet.tokens(), style.preludeFirst(), style.preludeEnd(), list);
                if (inner.isEmpty()) {
                    return Optional.empty();
                }
                list = inner.get();
            }
        }
        return Optional.ofNullable(list);
    }
}
