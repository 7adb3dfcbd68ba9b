package org.calmpalette.core.setting;

import java.nio.charset.StandardCharsets;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.TreeSet;
import java.util.stream.Collectors;
import tools.jackson.databind.JsonNode;
import tools.jackson.databind.node.ArrayNode;
import tools.jackson.databind.node.ObjectNode;

/**
 * Two states of {@code palette.json} that were made of one, put together: entry by entry of its lists, and in an entry key by key, with
 * those that this version does not know. The order of the sides does not matter.
 */
public final class PaletteMerge {
    /** What names an entry of a list, the first that it has. */
    private static final List<String> NAMES = List.of("key", "path", "picture", "promise", "between", "threshold");

    /** Objects in an entry whose keys are each a thing of its own; any other value is one thing. */
    private static final Set<String> OPEN = Set.of("values", "bands");

    /** Each language is such an object. */
    private static final String TRANSLATIONS = "translations";

    /**
     * Something that the sides changed differently.
     *
     * @param at in words, such as “the setting “ink”, default”
     * @param ours as JSON; empty where it is gone
     * @param theirs likewise
     */
    public record Clash(String at, String ours, String theirs) {}

    /** @param bytes of the file; where there are clashes, with what is ours there */
    public record Merged(byte[] bytes, List<Clash> clashes) {}

    private final List<Clash> clashes = new ArrayList<>();

    private PaletteMerge() {}

    /**
     * @param base the file that both were made of; null where there was none
     * @throws org.calmpalette.core.BadInputException if one of them is not JSON
     */
    public static Merged of(byte[] base, byte[] ours, byte[] theirs) {
        PaletteMerge merge = new PaletteMerge();
        JsonNode then = base == null ? PaletteJson.tree("{}".getBytes(StandardCharsets.UTF_8)) : PaletteJson.tree(base);
        JsonNode both = merge.object("", (ObjectNode) then, PaletteJson.tree(ours), PaletteJson.tree(theirs));
        // Of a side that has it all already not a byte changes.
        boolean isOurs = both.equals(PaletteJson.tree(ours));
        boolean isTheirs = both.equals(PaletteJson.tree(theirs));
        return new Merged(
                isOurs == isTheirs ? PaletteJson.written(both) : isOurs ? ours : theirs, List.copyOf(merge.clashes));
    }

    /** @param base, ours, theirs each null where it is not there; at least one of the last two is */
    private JsonNode merged(String at, String name, JsonNode base, JsonNode ours, JsonNode theirs) {
        if (same(ours, theirs) || same(base, theirs)) {
            return ours;
        }
        if (same(base, ours)) {
            return theirs;
        }
        boolean open = at.isEmpty() || OPEN.contains(name) || at.equals(TRANSLATIONS);
        if (ours instanceof ObjectNode a && theirs instanceof ObjectNode b && open) {
            return object(at + named(at, name), base instanceof ObjectNode o ? o : null, a, b);
        }
        if (ours instanceof ArrayNode a && theirs instanceof ArrayNode b && at.isEmpty()) {
            ArrayNode then = base instanceof ArrayNode o ? o : a.arrayNode();
            if (isNamed(then) && isNamed(a) && isNamed(b)) {
                return list(name, then, a, b);
            }
        }
        clashes.add(new Clash(at + named(at, name), text(ours), text(theirs)));
        return ours;
    }

    private static String named(String at, String name) {
        return at.isEmpty() || name.isEmpty() ? name : ", " + name;
    }

    private static boolean same(JsonNode a, JsonNode b) {
        return a == null ? b == null : a.equals(b);
    }

    private static String text(JsonNode node) {
        return node == null ? "" : node.toString();
    }

    private JsonNode object(String at, ObjectNode base, JsonNode ours, JsonNode theirs) {
        Set<String> keys = new LinkedHashSet<>(base == null ? List.of() : base.propertyNames());
        Set<String> added = new TreeSet<>(ours.propertyNames());
        added.addAll(theirs.propertyNames());
        keys.addAll(added);
        ObjectNode both = ((ObjectNode) ours).objectNode();
        for (String key : keys) {
            JsonNode value = merged(at, key, base == null ? null : base.get(key), ours.get(key), theirs.get(key));
            if (value != null) {
                both.set(key, value);
            }
        }
        return both;
    }

    /** Whether each entry of a list can be told from the others. */
    private static boolean isNamed(ArrayNode list) {
        return entries(list).size() == list.size();
    }

    private static Map<String, JsonNode> entries(ArrayNode list) {
        Map<String, JsonNode> all = new LinkedHashMap<>();
        for (JsonNode n : list) {
            NAMES.stream().filter(n::has).findFirst().ifPresent(k -> all.put(k + " " + n.get(k), n));
        }
        return all;
    }

    private JsonNode list(String name, ArrayNode base, ArrayNode ours, ArrayNode theirs) {
        Map<String, JsonNode> then = entries(base);
        Map<String, JsonNode> a = entries(ours);
        Map<String, JsonNode> b = entries(theirs);
        Map<String, JsonNode> entries = new LinkedHashMap<>();
        Set<String> all = new TreeSet<>(then.keySet());
        all.addAll(a.keySet());
        all.addAll(b.keySet());
        for (String id : all) {
            entry(called(name, id), then.get(id), a.get(id), b.get(id)).ifPresent(e -> entries.put(id, e));
        }
        ArrayNode both = ours.arrayNode();
        order(name, then.keySet(), a.keySet(), b.keySet(), entries.keySet()).forEach(id -> both.add(entries.get(id)));
        return both;
    }

    private static String called(String list, String id) {
        String name = id.substring(id.indexOf(' ') + 1);
        return switch (list) {
            case "settings" -> "the setting " + name;
            case "schemes" -> "the scheme " + name;
            case "places" -> "the place " + name;
            case "bands" -> "the band " + name;
            default -> list + ", " + name;
        };
    }

    private Optional<JsonNode> entry(String at, JsonNode base, JsonNode ours, JsonNode theirs) {
        if (ours instanceof ObjectNode
                && theirs instanceof ObjectNode
                && !same(ours, theirs)
                && !same(base, theirs)
                && !same(base, ours)) {
            return Optional.of(object(at, base instanceof ObjectNode o ? o : null, ours, theirs));
        }
        return Optional.ofNullable(merged(at, "", base, ours, theirs));
    }

    /** Entries that both know in the order of the side that changed it; what came stands after what it stood after. */
    private List<String> order(String name, Set<String> base, Set<String> ours, Set<String> theirs, Set<String> kept) {
        List<String> then = common(base, ours, theirs, kept);
        List<String> a = ours.stream().filter(then::contains).toList();
        List<String> b = theirs.stream().filter(then::contains).toList();
        if (!a.equals(b) && !a.equals(then) && !b.equals(then)) {
            clashes.add(new Clash("the order of " + name, String.join(", ", a), String.join(", ", b)));
        }
        List<String> order = a.equals(then) ? b : a;
        Map<String, List<List<String>>> runs = new LinkedHashMap<>();
        List.of(ours, theirs).forEach(side -> {
            String after = "";
            List<String> run = new ArrayList<>();
            for (String id : side) {
                if (order.contains(id)) {
                    after = id;
                    run = new ArrayList<>();
                } else if (kept.contains(id)) {
                    run.add(id);
                    List<List<String>> here = runs.computeIfAbsent(after, x -> new ArrayList<>());
                    if (run.size() == 1) {
                        here.add(run);
                    }
                }
            }
        });
        Set<String> all = new LinkedHashSet<>(came(runs, ""));
        for (String id : order) {
            all.add(id);
            all.addAll(came(runs, id));
        }
        return new ArrayList<>(all);
    }

    private static List<String> common(Set<String> base, Set<String> ours, Set<String> theirs, Set<String> kept) {
        return base.stream()
                .filter(id -> ours.contains(id) && theirs.contains(id) && kept.contains(id))
                .collect(Collectors.toCollection(ArrayList::new));
    }

    private static List<String> came(Map<String, List<List<String>>> runs, String after) {
        return runs.getOrDefault(after, List.of()).stream()
                .sorted((a, b) -> a.get(0).compareTo(b.get(0)))
                .flatMap(List::stream)
                .toList();
    }
}
