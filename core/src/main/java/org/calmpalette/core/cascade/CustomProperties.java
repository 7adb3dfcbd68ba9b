package org.calmpalette.core.cascade;

import java.util.ArrayDeque;
import java.util.ArrayList;
import java.util.Collections;
import java.util.Deque;
import java.util.HashMap;
import java.util.HashSet;
import java.util.Iterator;
import java.util.LinkedHashMap;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import org.calmpalette.core.Budget;
import org.calmpalette.core.css.Reference;
import org.calmpalette.core.css.TokenType;
import org.calmpalette.core.css.Tokenizer;
import org.calmpalette.core.css.Tokens;

/**
 * Custom properties of one element and substitution of {@code var()}: CSS Custom Properties 1. Circles make all that
 * take part invalid at computed-value time.
 */
final class CustomProperties {
    /** A value grown beyond this is taken as invalid, so that variables that double themselves stay harmless. */
    private static final int LONGEST = 100_000;
    /** A value nested deeper than this is taken as invalid: no reader of values has to follow it that deep. */
    private static final int DEEPEST = 200;
    /** Circles of more custom properties than this are found without going round them. */
    private static final int LARGE_CIRCLE = 100;

    /** Turns the value of a registered property into its computed value; empty if it does not fit the syntax. */
    interface Registry {
        Optional<SheetReader.Registered> get(String name);

        Optional<String> computed(SheetReader.Registered registered, String value);
    }

    private static final String GAP = "/**/";

    private final CustomProperties parent;
    private final Map<String, String> declared;
    private final Registry registry;
    private final Map<String, Optional<String>> resolved = new HashMap<>();
    private final Set<String> open = new LinkedHashSet<>();
    private final Set<String> circular = new HashSet<>();

    /** @param declared winning declarations of the element by name, with CSS-wide keywords as written */
    CustomProperties(CustomProperties parent, Map<String, String> declared, Registry registry) {
        this.parent = parent;
        this.declared = declared;
        this.registry = registry;
    }

    /** The computed value of a custom property; empty if it is invalid or not set (the guaranteed-invalid value). */
    Optional<String> get(String name) {
        Optional<String> known = resolved.get(name);
        if (known != null) {
            return known;
        }
        if (open.isEmpty()) {
            prepare(name);
            known = resolved.get(name);
        }
        return known != null ? known : find(name);
    }

    /**
     * Works out what a custom property reads before it is asked for itself, the farthest first: chains of thousands of them
     * are no deeper than one this way. Properties in a circle wait for {@link #find}.
     */
    private void prepare(String name) {
        Deque<String> way = new ArrayDeque<>(List.of(name));
        Map<String, Iterator<String>> left = new LinkedHashMap<>();
        while (!way.isEmpty()) {
            String at = way.peekLast();
            Budget.step();
            Iterator<String> reads = left.computeIfAbsent(
                    at,
                    n -> declared.containsKey(n)
                            ? Reference.names(declared.get(n)).iterator()
                            : Collections.emptyIterator());
            if (reads.hasNext()) {
                String next = reads.next();
                if (!resolved.containsKey(next) && declared.containsKey(next)) {
                    if (!left.containsKey(next)) {
                        way.addLast(next);
                    } else if (way.contains(next)) {
                        circle(way, next);
                    }
                }
                continue;
            }
            way.removeLast();
            if (!resolved.containsKey(at)) {
                find(at);
            }
        }
    }

    private void circle(Deque<String> way, String from) {
        List<String> round = new ArrayList<>();
        for (Iterator<String> back = way.descendingIterator(); back.hasNext(); ) {
            round.add(back.next());
            if (round.get(round.size() - 1).equals(from)) {
                break;
            }
        }
        if (round.size() > LARGE_CIRCLE) {
            circular.addAll(round);
            round.forEach(n -> resolved.put(n, fallback(registry.get(n), n, true)));
        }
    }

    private Optional<String> find(String name) {
        Optional<String> known = resolved.get(name);
        if (known != null) {
            return known;
        }
        if (open.contains(name)) {
            // All from the first meeting on take part in the circle.
            boolean inside = false;
            for (String o : open) {
                inside |= o.equals(name);
                if (inside) {
                    circular.add(o);
                }
            }
            return Optional.empty();
        }
        open.add(name);
        Optional<String> value = compute(name);
        open.remove(name);
        if (circular.contains(name)) {
            value = fallback(registry.get(name), name, true);
        }
        resolved.put(name, value);
        return value;
    }

    private Optional<String> compute(String name) {
        Optional<SheetReader.Registered> registered = registry.get(name);
        String written = declared.get(name);
        if (written == null) {
            return fallback(
                    registered,
                    name,
                    registered.map(SheetReader.Registered::inherits).orElse(true));
        }
        switch (written.strip().toLowerCase(java.util.Locale.ROOT)) {
            case "initial" -> {
                return initial(registered);
            }
            case "inherit" -> {
                return parent == null ? initial(registered) : parent.get(name);
            }
            case "unset", "revert", "revert-layer" -> {
                return fallback(
                        registered,
                        name,
                        registered.map(SheetReader.Registered::inherits).orElse(true));
            }
            default -> {}
        }
        Optional<String> value = substitute(written).map(String::strip);
        if (registered.isEmpty()) {
            return value;
        }
        Optional<String> fits = value.flatMap(v -> registry.computed(registered.get(), v));
        return fits.isPresent()
                ? fits
                : fallback(registered, name, registered.get().inherits());
    }

    private Optional<String> fallback(Optional<SheetReader.Registered> registered, String name, boolean inherits) {
        if (circular.contains(name) && registered.isEmpty()) {
            return Optional.empty();
        }
        return inherits && parent != null ? parent.get(name) : initial(registered);
    }

    private static Optional<String> initial(Optional<SheetReader.Registered> registered) {
        return registered.map(SheetReader.Registered::initial);
    }

    /** The value with each {@code var()} replaced; empty if one has neither a value nor a fallback. */
    Optional<String> substitute(String value) {
        if (!mentions(value)) {
            return Optional.of(value);
        }
        Tokens tokens = Tokenizer.tokenize(value);
        StringBuilder out = new StringBuilder();
        boolean all = substitute(tokens, 0, tokens.size(), out);
        Budget.made(out.length());
        return all && out.length() < LONGEST && !isTooDeep(out) ? Optional.of(out.toString()) : Optional.empty();
    }

    private static boolean isTooDeep(CharSequence value) {
        int depth = 0;
        for (int i = 0; i < value.length(); i++) {
            char c = value.charAt(i);
            if (c == '(' || c == '[' || c == '{') {
                if (++depth > DEEPEST) {
                    return true;
                }
            } else if (depth > 0 && (c == ')' || c == ']' || c == '}')) {
                depth--;
            }
        }
        return false;
    }

    static boolean mentions(String value) {
        // Asked of every value of every sheet, data URLs among them.
        for (int at = value.indexOf('('); at >= 0; at = value.indexOf('(', at + 1)) {
            if (at >= 3 && (value.regionMatches(true, at - 3, "var", 0, 3) || value.startsWith("env", at - 3))) {
                return true;
            }
        }
        return false;
    }

    private boolean substitute(Tokens tokens, int first, int end, StringBuilder out) {
        for (int i = first; i < end; i++) {
            boolean function = tokens.is(i, TokenType.FUNCTION);
            String name = function ? tokens.lower(i) : "";
            if (!name.equals("var") && !name.equals("env")) {
                out.append(tokens.raw(i));
                continue;
            }
            int after = tokens.afterBlock(i, end);
            int last = tokens.is(after - 1, TokenType.RIGHT_PAREN) ? after - 1 : after;
            int property = tokens.skipBlank(i + 1, last);
            int comma = tokens.skipBlank(property + 1, last);
            boolean hasFallback = comma < last && tokens.is(comma, TokenType.COMMA);
            Optional<String> known =
                    name.equals("var") ? get(tokens.value(property)) : environment(tokens.value(property));
            if (known.isPresent()) {
                // Between what was apart nothing may grow together: Custom Properties 1, section 3.
                out.append(needsGap(out) ? GAP : "")
                        .append(known.get())
                        .append(known.get().endsWith(GAP) ? "" : GAP);
            } else if (!hasFallback || !substitute(tokens, comma + 1, last, out)) {
                return false;
            }
            if (out.length() > LONGEST) {
                return false;
            }
            i = after - 1;
        }
        return true;
    }

    private static boolean needsGap(StringBuilder out) {
        return out.length() > 0
                && (Character.isLetterOrDigit(out.charAt(out.length() - 1)) || out.charAt(out.length() - 1) == '-');
    }

    private static Optional<String> environment(String name) {
        return name.startsWith("safe-area-inset-") ? Optional.of("0px") : Optional.empty();
    }
}
