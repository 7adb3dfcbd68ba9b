package org.calmpalette.core.cascade;

import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.function.Function;
import org.calmpalette.core.Budget;
import org.calmpalette.core.css.Node;
import org.calmpalette.core.css.Stylesheet;
import org.calmpalette.core.css.Tokens;
import org.calmpalette.core.css.selector.SelectorList;
import org.calmpalette.core.page.Paths;
import org.calmpalette.core.value.ComponentValue;

/**
 * Flattens stylesheets in document order: imports in their places, nested rules with their whole selectors, conditions,
 * layers and scopes noted beside each rule.
 */
final class SheetReader {
    private static final int MOST_IMPORTS_DEEP = 16;
    /** Of all sheets of a page, an imported one counted each time: three times what a theme may have. */
    private static final int MOST_RULES = 120_000;

    private static final int MOST_IMPORTS = 500;

    /** A registered custom property: CSS Properties and Values 1. */
    record Registered(String syntax, boolean inherits, String initial) {}

    private final Function<String, Optional<SheetSource>> files;
    final List<FlatRule> rules = new ArrayList<>();
    /** Names of layers in the order in which they were first named. */
    final Set<String> layers = new LinkedHashSet<>();

    final Map<String, Registered> registered = new LinkedHashMap<>();
    /** Sheets that are named and not there. */
    final List<String> missing = new ArrayList<>();

    private int anonymous;
    private int imports;

    /** @param files gives a sheet by its path in the theme */
    SheetReader(Function<String, Optional<SheetSource>> files) {
        this.files = files;
    }

    void read(SheetSource source, List<Condition> conditions) {
        read(source, conditions, "", new ArrayList<>(List.of(source.file().file())));
    }

    private void read(SheetSource source, List<Condition> conditions, String layer, List<String> importing) {
        boolean importsAllowed = true;
        for (Node node : source.sheet().rules()) {
            if (node instanceof Node.AtRule at && !at.hasBlock()) {
                if (at.name().equals("import") && importsAllowed) {
                    importSheet(source, at, conditions, layer, importing);
                } else if (at.name().equals("layer")) {
                    names(source.sheet(), at).forEach(n -> name(join(layer, n)));
                } else if (!at.name().equals("charset")) {
                    importsAllowed = false;
                }
            } else {
                importsAllowed = false;
                rule(source, node, null, conditions, layer, null);
            }
        }
    }

    private void name(String layer) {
        // Naming a.b names a as well, before it.
        int dot = layer.indexOf('.');
        while (dot > 0) {
            layers.add(layer.substring(0, dot));
            dot = layer.indexOf('.', dot + 1);
        }
        layers.add(layer);
    }

    private static String join(String outer, String inner) {
        return outer.isEmpty() ? inner : outer + "." + inner;
    }

    private static List<String> names(Stylesheet sheet, Node.AtRule at) {
        List<String> names = new ArrayList<>();
        for (String n : sheet.prelude(at).split(",")) {
            if (!n.isBlank()) {
                names.add(n.strip());
            }
        }
        return names;
    }

    private void importSheet(
            SheetSource source, Node.AtRule at, List<Condition> conditions, String layer, List<String> importing) {
        List<ComponentValue> parts = ComponentValue.read(source.sheet().text(at.preludeFirst(), at.preludeEnd()));
        if (parts.isEmpty()
                || parts.get(0).kind() != ComponentValue.Kind.STRING
                        && parts.get(0).kind() != ComponentValue.Kind.URL) {
            return;
        }
        List<Condition> inner = new ArrayList<>(conditions);
        String innerLayer = layer;
        int i = 1;
        if (i < parts.size() && parts.get(i).name().equals("layer")) {
            ComponentValue p = parts.get(i++);
            innerLayer = join(
                    layer,
                    p.kind() == ComponentValue.Kind.FUNCTION ? p.inside().strip() : "<anonymous " + ++anonymous + ">");
            name(innerLayer);
        }
        if (i < parts.size()
                && parts.get(i).kind() == ComponentValue.Kind.FUNCTION
                && parts.get(i).name().equals("supports")) {
            String condition = parts.get(i++).inside();
            inner.add(new Condition(
                    Condition.Kind.SUPPORTS,
                    condition.strip().startsWith("(") || condition.strip().startsWith("not")
                            ? condition
                            : "(" + condition + ")"));
        }
        String media = ComponentValue.join(parts.subList(i, parts.size()));
        if (!media.isBlank()) {
            inner.add(new Condition(Condition.Kind.MEDIA, media));
        }
        Optional<String> path = Paths.resolve(source.file().file(), parts.get(0).name());
        if (path.isEmpty() || importing.contains(path.get()) || importing.size() > MOST_IMPORTS_DEEP) {
            return;
        }
        Optional<SheetSource> sheet = files.apply(path.get());
        if (sheet.isEmpty()) {
            missing.add(path.get());
            return;
        }
        importing.add(path.get());
        if (rules.size() > MOST_RULES || ++imports > MOST_IMPORTS) {
            // Imports can multiply: ten sheets that all import each other have millions of ways round.
            return;
        }
        Budget.step();
        read(sheet.get(), inner, innerLayer, importing);
        importing.remove(importing.size() - 1);
    }

    /** @param around selectors of the rule around, or null */
    private void rule(
            SheetSource source, Node node, SelectorList around, List<Condition> conditions, String layer, Scope scope) {
        Stylesheet sheet = source.sheet();
        if (node instanceof Node.StyleRule style) {
            SelectorList.parse(sheet.tokens(), style.preludeFirst(), style.preludeEnd(), around)
                    .ifPresent(selectors -> contents(
                            source,
                            style.children(),
                            selectors,
                            around == null ? sheet.prelude(style) : selectors.toString(),
                            conditions,
                            layer,
                            scope));
            return;
        }
        if (!(node instanceof Node.AtRule at)) {
            return;
        }
        switch (at.name()) {
            case "media", "supports", "container", "starting-style" -> {
                List<Condition> inner = new ArrayList<>(conditions);
                inner.add(new Condition(
                        Condition.Kind.valueOf(
                                at.name().toUpperCase(Locale.ROOT).replace('-', '_')),
                        sheet.text(at.preludeFirst(), at.preludeEnd())));
                contents(source, at.children(), around, around == null ? "" : around.toString(), inner, layer, scope);
            }
            case "layer" -> {
                List<String> names = names(sheet, at);
                String inner = join(layer, names.isEmpty() ? "<anonymous " + ++anonymous + ">" : names.get(0));
                name(inner);
                contents(
                        source,
                        at.children(),
                        around,
                        around == null ? "" : around.toString(),
                        conditions,
                        inner,
                        scope);
            }
            case "scope" ->
                scope(sheet, at).ifPresent(s -> contents(source, at.children(), null, ":scope", conditions, layer, s));
            case "property" -> register(sheet, at);
            default -> {}
        }
    }

    private Optional<Scope> scope(Stylesheet sheet, Node.AtRule at) {
        Tokens tokens = sheet.tokens();
        int i = tokens.skipBlank(at.preludeFirst(), at.preludeEnd());
        if (i >= at.preludeEnd()) {
            return SelectorList.parse(":root").map(root -> new Scope(root, null));
        }
        int close = tokens.afterBlock(i, at.preludeEnd());
        Optional<SelectorList> roots = SelectorList.parse(sheet.text(i + 1, close - 1));
        int to = tokens.skipBlank(close, at.preludeEnd());
        if (roots.isEmpty() || to >= at.preludeEnd()) {
            return roots.map(r -> new Scope(r, null));
        }
        int open = tokens.skipBlank(to + 1, at.preludeEnd());
        return SelectorList.parse(sheet.text(open + 1, tokens.afterBlock(open, at.preludeEnd()) - 1))
                .map(limits -> new Scope(roots.get(), limits));
    }

    private void register(Stylesheet sheet, Node.AtRule at) {
        String name = sheet.prelude(at);
        Map<String, String> descriptors = new LinkedHashMap<>();
        for (Node n : at.children()) {
            if (n instanceof Node.Declaration d) {
                descriptors.put(d.property(), sheet.value(d));
            }
        }
        String syntax = descriptors.getOrDefault("syntax", "");
        String inherits = descriptors.getOrDefault("inherits", "");
        if (!name.startsWith("--") || syntax.length() < 2 || !inherits.equals("true") && !inherits.equals("false")) {
            return;
        }
        String plain = syntax.substring(1, syntax.length() - 1).strip();
        String initial = descriptors.get("initial-value");
        if (initial == null && !plain.equals("*")) {
            return;
        }
        registered.put(name, new Registered(plain, inherits.equals("true"), initial));
    }

    private void contents(
            SheetSource source,
            List<Node> children,
            SelectorList selectors,
            String shown,
            List<Condition> conditions,
            String layer,
            Scope scope) {
        List<Node.Declaration> run = new ArrayList<>();
        for (Node child : children) {
            if (child instanceof Node.Declaration declaration) {
                run.add(declaration);
            } else {
                flush(source, run, selectors, shown, conditions, layer, scope);
                rule(source, child, selectors, conditions, layer, scope);
            }
        }
        flush(source, run, selectors, shown, conditions, layer, scope);
    }

    private void flush(
            SheetSource source,
            List<Node.Declaration> run,
            SelectorList selectors,
            String shown,
            List<Condition> conditions,
            String layer,
            Scope scope) {
        SelectorList own = selectors == null && scope != null
                ? SelectorList.parse(":where(:scope)").orElseThrow()
                : selectors;
        if (!run.isEmpty() && own != null) {
            rules.add(new FlatRule(source, own, shown, layer, List.copyOf(conditions), scope, List.copyOf(run)));
        }
        run.clear();
    }

    /**
     * The strength of each layer, the weakest first: inner layers come before what stands in their outer layer directly,
     * and everything comes before what stands in no layer.
     */
    Map<String, Integer> layerOrder() {
        Map<String, Integer> order = new LinkedHashMap<>();
        rank("", order);
        return order;
    }

    private void rank(String outer, Map<String, Integer> order) {
        for (String layer : layers) {
            int dot = layer.lastIndexOf('.');
            if ((dot < 0 ? "" : layer.substring(0, dot)).equals(outer)) {
                rank(layer, order);
            }
        }
        order.put(outer, order.size());
    }
}
