package org.calmpalette.core.setting;

import java.math.BigDecimal;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.TreeMap;
import java.util.function.Consumer;
import java.util.function.Function;
import java.util.function.Predicate;
import org.calmpalette.core.BadInputException;
import tools.jackson.databind.JsonNode;
import tools.jackson.databind.node.ArrayNode;
import tools.jackson.databind.node.JsonNodeFactory;
import tools.jackson.databind.node.ObjectNode;

/** Writes a palette into the text of {@code palette.json} as it was: what it does not know stays. */
final class PaletteWriter {
    private PaletteWriter() {}

    /**
     * Writes a palette into the text of the file as it was.
     *
     * @param before the file's bytes, or null where there is none yet
     */
    static byte[] write(Palette palette, byte[] before) {
        ObjectNode root =
                before == null ? JsonNodeFactory.instance.objectNode() : (ObjectNode) PaletteJson.tree(before);
        if (before == null) {
            root.put("format", PaletteJson.FORMAT);
        }
        root.put("name", palette.name());
        Set<String> aside = new LinkedHashSet<>();
        palette.faults().forEach(f -> aside.add(f.at().replaceFirst("\\].*", "]")));
        if (!aside.contains("bands") || !palette.bands().equals(Bands.USUAL)) {
            merge(
                    root,
                    "bands",
                    palette.bands().list(),
                    (band, node) -> {
                        node.put("key", band.key()).put("label", band.label());
                        putOrRemove(
                                node,
                                "to",
                                band.to() == null ? null : Value.of(band.to().doubleValue()));
                    },
                    Band::key,
                    aside);
        }
        merge(
                root,
                "places",
                palette.places(),
                (place, node) -> node.put("key", place.key()).put("label", place.label()),
                Place::key,
                aside);
        merge(root, "settings", palette.settings(), PaletteWriter::write, Setting::key, aside);
        if (!palette.schemes().isEmpty() || root.has("schemes")) {
            merge(
                    root,
                    "schemes",
                    palette.schemes(),
                    (scheme, node) -> {
                        node.put("key", scheme.key()).put("label", scheme.label());
                        Map<String, Value> values = new LinkedHashMap<>();
                        scheme.values().forEach((k, c) -> values.put(k, c.value()));
                        node.set("values", new Value.Parts(values).json());
                    },
                    Scheme::key,
                    aside);
        }
        if (!palette.subjects().isEmpty() || !palette.moved().isEmpty() || root.has("pictures")) {
            writePictures(root, palette);
        }
        Map<String, String> owners = new TreeMap<>();
        palette.sheets().forEach((path, owner) -> owners.put(path, owner.word()));
        writeNamed(root, "stylesheets", "path", "whose", owners, w -> SheetOwner.of(w)
                .isPresent());
        writeNamed(root, "promises", "promise", "waived", palette.waived(), w -> true);
        writeBetween(root, palette.between());
        writeThresholds(root, palette.thresholds());
        writeTranslations(root, palette.translations());
        return PaletteJson.written(root);
    }

    /**
     * A list of things with one word said of each: entries stay with what else they hold.
     *
     * @param ours whether a word is one that can be read; entries with others stay as they are
     */
    private static void writeNamed(
            ObjectNode root,
            String list,
            String name,
            String word,
            Map<String, String> wanted,
            Predicate<String> ours) {
        if (wanted.isEmpty() && !root.has(list)) {
            return;
        }
        ArrayNode all = root.path(list) instanceof ArrayNode known ? known : JsonNodeFactory.instance.arrayNode();
        Map<String, String> left = new TreeMap<>(wanted);
        for (int i = all.size() - 1; i >= 0; i--) {
            if (all.get(i) instanceof ObjectNode node
                    && node.has(name)
                    && ours.test(node.path(word).asString(""))) {
                String said = left.remove(node.path(name).asString(""));
                if (said == null) {
                    all.remove(i);
                } else {
                    node.put(word, said);
                }
            }
        }
        left.forEach((key, said) ->
                all.add(JsonNodeFactory.instance.objectNode().put(name, key).put(word, said)));
        if (all.isEmpty()) {
            root.remove(list);
        } else {
            root.set(list, all);
        }
    }

    /** Promises about two settings, beside those that are not given; an entry of the same two stays with what else it holds. */
    private static void writeBetween(ObjectNode root, List<Between> wanted) {
        ArrayNode all = root.path("promises") instanceof ArrayNode known ? known : JsonNodeFactory.instance.arrayNode();
        List<Between> left = new ArrayList<>(wanted);
        for (int i = all.size() - 1; i >= 0; i--) {
            if (all.get(i).path("between") instanceof ArrayNode two && two.size() == 2) {
                String one = two.get(0).asString("");
                String other = two.get(1).asString("");
                Between there = left.stream()
                        .filter(b -> !one.equals(other) && b.names(one) && b.names(other))
                        .findFirst()
                        .orElse(null);
                if (there == null) {
                    all.remove(i);
                } else {
                    left.remove(there);
                    write((ObjectNode) all.get(i), there);
                }
            }
        }
        for (Between b : left) {
            ObjectNode node = JsonNodeFactory.instance.objectNode();
            node.putArray("between").add(b.one()).add(b.other());
            write(node, b);
            all.add(node);
        }
        if (all.isEmpty()) {
            root.remove("promises");
        } else {
            root.set("promises", all);
        }
    }

    private static void write(ObjectNode node, Between b) {
        write(node, "contrast", b.contrast());
        write(node, "distance", b.distance());
    }

    private static void write(ObjectNode node, String name, BigDecimal number) {
        if (number == null) {
            node.remove(name);
        } else {
            node.put(name, number);
        }
    }

    /** What could not be read of them stays. */
    private static void writeTranslations(ObjectNode root, Translations wanted) {
        ObjectNode all =
                root.path("translations") instanceof ObjectNode known ? known : JsonNodeFactory.instance.objectNode();
        Set<String> tags = new LinkedHashSet<>(all.propertyNames());
        tags.addAll(wanted.texts().keySet());
        for (String tag : tags) {
            Map<String, String> left = new LinkedHashMap<>(wanted.texts().getOrDefault(tag, Map.of()));
            if (all.get(tag) instanceof ObjectNode || !all.has(tag)) {
                ObjectNode node =
                        all.get(tag) instanceof ObjectNode known ? known : JsonNodeFactory.instance.objectNode();
                for (String text : List.copyOf(node.propertyNames())) {
                    String word = left.remove(text);
                    if (word != null) {
                        node.put(text, word);
                    } else if (isTranslation(tag, text, node.get(text))) {
                        node.remove(text);
                    }
                }
                left.forEach(node::put);
                all.set(tag, node);
                if (node.isEmpty()) {
                    all.remove(tag);
                }
            }
        }
        if (all.isEmpty()) {
            root.remove("translations");
        } else {
            root.set("translations", all);
        }
    }

    private static boolean isTranslation(String tag, String text, JsonNode word) {
        try {
            return word.isString() && new Translations(Map.of(tag, Map.of(text, word.asString()))) != null;
        } catch (BadInputException unread) {
            return false;
        }
    }

    /** What is said of a promise beyond what is usual; an entry stays with what else it holds, one that says what is usual goes. */
    private static void writeThresholds(ObjectNode root, Thresholds wanted) {
        boolean level = wanted.level() != Thresholds.USUAL.level();
        boolean pictures = wanted.pictures() != Thresholds.USUAL.pictures();
        threshold(root, "readable", level || wanted.kept() || wanted.whatever(), n -> {
            n.put("level", wanted.level().name());
            putOrRemove(n, "owners", wanted.kept() ? Value.of("keep") : null);
            putOrRemove(n, "area", wanted.whatever() ? Value.of("whatever") : null);
        });
        threshold(root, "light", pictures, n -> n.put("most", wanted.pictures()));
        threshold(root, "covered", !wanted.seam().equals(Thresholds.USUAL.seam()), n -> n.put("most", wanted.seam()));
        threshold(
                root, "sharp", !wanted.larger().equals(Thresholds.USUAL.larger()), n -> n.put("most", wanted.larger()));
    }

    private static void threshold(ObjectNode root, String of, boolean said, Consumer<ObjectNode> words) {
        ArrayNode all = root.path("promises") instanceof ArrayNode known ? known : JsonNodeFactory.instance.arrayNode();
        boolean there = false;
        for (int i = all.size() - 1; i >= 0; i--) {
            if (all.get(i) instanceof ObjectNode node
                    && node.path("threshold").asString("").equals(of)) {
                if (said && !there) {
                    words.accept(node);
                    there = true;
                } else {
                    all.remove(i);
                }
            }
        }
        if (said && !there) {
            ObjectNode node = JsonNodeFactory.instance.objectNode().put("threshold", of);
            words.accept(node);
            all.add(node);
        }
        if (all.isEmpty()) {
            root.remove("promises");
        } else {
            root.set("promises", all);
        }
    }

    /** Entries of pictures stay with what else they hold; one of which nothing is left but the path goes. */
    private static void writePictures(ObjectNode root, Palette palette) {
        ArrayNode pictures =
                root.path("pictures") instanceof ArrayNode known ? known : JsonNodeFactory.instance.arrayNode();
        Map<String, Subject> left = new LinkedHashMap<>();
        palette.subjects().forEach(s -> left.put(s.path(), s));
        Map<String, List<String>> former = new LinkedHashMap<>();
        palette.moved().forEach((was, is) -> former.computeIfAbsent(is, k -> new ArrayList<>())
                .add(was));
        for (int i = pictures.size() - 1; i >= 0; i--) {
            if (pictures.get(i) instanceof ObjectNode node && isReadable(node)) {
                Subject subject = left.remove(node.path("path").asString(""));
                putOrRemove(node, "subject", subject == null ? null : subject.value());
                List<String> was = former.remove(node.path("path").asString(""));
                putOrRemove(node, "former", was == null ? null : Value.of(was));
                if (node.size() < 2) {
                    pictures.remove(i);
                }
            }
        }
        left.values().forEach(s -> {
            ObjectNode node = JsonNodeFactory.instance.objectNode().put("path", s.path());
            node.set("subject", s.value().json());
            List<String> was = former.remove(s.path());
            putOrRemove(node, "former", was == null ? null : Value.of(was));
            pictures.add(node);
        });
        former.forEach((path, was) -> {
            ObjectNode node = JsonNodeFactory.instance.objectNode().put("path", path);
            node.set("former", Value.of(was).json());
            pictures.add(node);
        });
        root.set("pictures", pictures);
    }

    private static boolean isReadable(ObjectNode picture) {
        try {
            return !picture.has("subject") || Subject.read(new JsonEntry(Value.of(picture), "")) != null;
        } catch (BadInputException unread) {
            return false;
        }
    }

    static void write(Setting setting, ObjectNode node) {
        node.put("key", setting.key()).put("label", setting.label());
        putOrRemove(node, "help", setting.help().isEmpty() ? null : Value.of(setting.help()));
        node.put("kind", setting.kind().name()).put("place", setting.place());
        node.set("default", setting.given().value().json());
        Map<String, Value> bands = new LinkedHashMap<>();
        setting.bands().forEach((band, g) -> bands.put(band, g.value()));
        putOrRemove(node, "bands", bands.isEmpty() ? null : new Value.Parts(bands));
        Value.Parts allowed = setting.kind().allowed();
        putOrRemove(node, "allowed", allowed.parts().isEmpty() ? null : allowed);
        putOrRemove(node, "perBand", setting.perBand() ? Value.of(true) : null);
        putOrRemove(
                node,
                "shownWhen",
                setting.shown() == null || setting.shown().isNever()
                        ? null
                        : Value.parts(
                                "key",
                                setting.shown().key(),
                                "is",
                                new Value.Many(setting.shown().is())));
        putOrRemove(node, "asked", setting.shown() != null && setting.shown().isNever() ? Value.of(false) : null);
        putOrRemove(node, "former", setting.former().isEmpty() ? null : Value.of(setting.former()));
        putOrRemove(node, "triple", setting.triple() ? Value.of(true) : null);
        putOrRemove(
                node,
                "drawings",
                setting.drawings().isEmpty()
                        ? null
                        : new Value.Many(setting.drawings().stream()
                                .map(d -> (Value) Value.of(d.parts()))
                                .toList()));
    }

    private static void putOrRemove(ObjectNode node, String key, Value value) {
        if (value == null) {
            node.remove(key);
        } else {
            node.set(key, value.json());
        }
    }

    /**
     * Writes a list over the one that is there: what is known of an entry is written anew, the rest of it stays, and
     * entries that could not be read stay where they are.
     *
     * @param aside places of the entries that could not be read
     */
    private static <T> void merge(
            ObjectNode root,
            String list,
            List<T> items,
            java.util.function.BiConsumer<T, ObjectNode> write,
            Function<T, String> key,
            Set<String> aside) {
        Map<String, ObjectNode> known = new LinkedHashMap<>();
        Map<Integer, JsonNode> kept = new LinkedHashMap<>();
        Set<String> wanted = new LinkedHashSet<>(items.stream().map(key).toList());
        List<String> former = items.stream()
                .flatMap(i -> i instanceof Setting s ? s.former().stream() : java.util.stream.Stream.empty())
                .toList();
        int index = 0;
        for (JsonNode n : root.path(list)) {
            String k = n.path("key").asString("");
            boolean readable = n instanceof ObjectNode
                    && !known.containsKey(k)
                    && (!aside.contains(list + "[" + index + "]") || wanted.contains(k));
            if (readable) {
                known.put(k, (ObjectNode) n);
            } else {
                kept.put(index, n);
            }
            index++;
        }
        ArrayNode array = JsonNodeFactory.instance.arrayNode();
        for (T item : items) {
            ObjectNode node = known.get(key.apply(item));
            if (node == null && item instanceof Setting s) {
                node = s.former().stream()
                        .filter(former::contains)
                        .map(known::get)
                        .filter(java.util.Objects::nonNull)
                        .findFirst()
                        .orElse(null);
            }
            node = node == null ? JsonNodeFactory.instance.objectNode() : node;
            write.accept(item, node);
            array.add(node);
        }
        kept.forEach((i, n) -> array.insert(Math.min(i, array.size()), n));
        root.set(list, array);
    }
}
