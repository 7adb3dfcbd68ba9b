package org.calmpalette.core.setting;

import java.util.Collections;
import java.util.LinkedHashMap;
import java.util.Map;
import java.util.TreeMap;
import org.calmpalette.core.BadInputException;
import tools.jackson.core.JacksonException;
import tools.jackson.core.StreamReadFeature;
import tools.jackson.databind.JsonNode;
import tools.jackson.databind.json.JsonMapper;
import tools.jackson.databind.node.ObjectNode;

/**
 * What an owner chose for one setting. It is kept as it was chosen, whatever becomes of the setting.
 *
 * @param everywhere at every width that has no choice of its own, or null
 * @param bands by the band's key
 */
public record Chosen(Value everywhere, Map<String, Value> bands) {
    private static final JsonMapper MAPPER = JsonMapper.builder()
            .enable(StreamReadFeature.STRICT_DUPLICATE_DETECTION)
            .build();
    /** Twice as many as a theme may have settings, since keys of before count too. */
    private static final int MOST = 2_400;

    private static final String EVERYWHERE = "everywhere";
    private static final String BANDS = "bands";

    public Chosen {
        bands = Collections.unmodifiableMap(new TreeMap<>(bands));
    }

    public static Chosen of(Value everywhere) {
        return new Chosen(everywhere, Map.of());
    }

    public static Chosen of(String text) {
        return of(Value.of(text));
    }

    public boolean isEmpty() {
        return everywhere == null && bands.isEmpty();
    }

    /** @param band key of the band, or empty for everywhere; @param value null takes the choice away */
    public Chosen with(String band, Value value) {
        if (band.isEmpty()) {
            return new Chosen(value, bands);
        }
        Map<String, Value> more = new LinkedHashMap<>(bands);
        if (value == null) {
            more.remove(band);
        } else {
            more.put(band, value);
        }
        return new Chosen(everywhere, more);
    }

    public Value in(String band) {
        return band.isEmpty() ? everywhere : bands.get(band);
    }

    /** The value itself where it is the same everywhere, else {@code {"everywhere": …, "bands": {"phone": …}}}. */
    public Value value() {
        return bands.isEmpty() && everywhere != null
                ? everywhere
                : Value.parts(EVERYWHERE, everywhere, BANDS, new Value.Parts(bands));
    }

    static Chosen of(JsonNode node) {
        Value v = Value.of(node);
        if (v instanceof Value.Parts p && p.part(BANDS).orElse(null) instanceof Value.Parts b) {
            return new Chosen(p.part(EVERYWHERE).orElse(null), b.parts());
        }
        return of(v);
    }

    /**
     * Reads choices: one object, keys of settings to values.
     *
     * @param file for messages
     * @throws BadInputException if it is no such object
     */
    public static Map<String, Chosen> readAll(byte[] json, String file) {
        JsonNode root;
        try {
            root = MAPPER.readTree(json);
        } catch (JacksonException e) {
            int line = e.getLocation() == null ? 1 : Math.max(1, e.getLocation().getLineNr());
            throw new BadInputException(
                    file + ", line " + line + ": this is not JSON. " + e.getOriginalMessage(),
                    "Write {\"notice-badge-fill\": \"#24463a\"}.");
        }
        return readAll(root, file);
    }

    public static Map<String, Chosen> readAll(JsonNode root, String file) {
        if (!root.isObject()) {
            throw new BadInputException(file + ": it holds no object.", "Write {\"notice-badge-fill\": \"#24463a\"}.");
        }
        if (root.size() > MOST) {
            throw new BadInputException(
                    file + ": it holds choices for " + root.size() + " settings; the most is " + MOST + ".",
                    "Leave out what is not for this theme.");
        }
        Map<String, Chosen> all = new TreeMap<>();
        root.properties().forEach(e -> all.put(e.getKey(), of(e.getValue())));
        return all;
    }

    /** The same as JSON, in order of the keys, so that the same choices give the same bytes. */
    public static String writeAll(Map<String, Chosen> choices) {
        ObjectNode root = MAPPER.createObjectNode();
        new TreeMap<>(choices).forEach((key, c) -> root.set(key, c.value().json()));
        return MAPPER.writeValueAsString(root);
    }
}
