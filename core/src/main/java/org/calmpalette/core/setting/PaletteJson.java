package org.calmpalette.core.setting;

import java.nio.charset.StandardCharsets;
import java.util.ArrayList;
import java.util.HashSet;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Set;
import org.calmpalette.core.BadInputException;
import tools.jackson.core.JacksonException;
import tools.jackson.core.StreamReadFeature;
import tools.jackson.core.util.DefaultIndenter;
import tools.jackson.core.util.DefaultPrettyPrinter;
import tools.jackson.core.util.Separators;
import tools.jackson.databind.JsonNode;
import tools.jackson.databind.SerializationFeature;
import tools.jackson.databind.json.JsonMapper;
import tools.jackson.databind.node.ArrayNode;
import tools.jackson.databind.node.ObjectNode;

/**
 * Reads and writes {@code palette.json}. What it does not know, such as keys that a later version or another tool
 * wrote, is kept in its place when the file is written again.
 */
public final class PaletteJson {
  public static final String FORMAT = "calm-palette/1";
  private static final JsonMapper MAPPER = JsonMapper.builder()
      .enable(StreamReadFeature.STRICT_DUPLICATE_DETECTION)
      .enable(SerializationFeature.INDENT_OUTPUT)
      .defaultPrettyPrinter(new DefaultPrettyPrinter(Separators.createDefaultInstance()
          .withObjectNameValueSpacing(Separators.Spacing.AFTER))
          .withObjectIndenter(new DefaultIndenter("  ", "\n")).withArrayIndenter(new DefaultIndenter("  ", "\n")))
      .build();

  private PaletteJson() {}

  /**
   * @param name the theme's name where the file gives none
   * @throws BadInputException with the place in the file, if a part cannot be understood
   */
  public static Palette read(byte[] bytes, String name) {
    JsonNode root = tree(bytes);
    List<Band> bands = new ArrayList<>();
    each(root, "bands", (node, at) -> bands.add(new Band(text(node, at, "key"), text(node, at, "label"),
        node.has("to") ? integer(node.get("to"), at + ".to") : null)));
    List<Place> places = new ArrayList<>();
    each(root, "places", (node, at) -> places.add(new Place(text(node, at, "key"), text(node, at, "label"))));
    List<Setting> settings = new ArrayList<>();
    Set<String> keys = new HashSet<>();
    each(root, "settings", (node, at) -> {
      Setting setting = setting(node, at);
      if (!keys.add(setting.key())) {
        throw bad(at + ".key", "the key “" + setting.key() + "” is there twice", "Give one of the two another key.");
      }
      if (places.stream().noneMatch(p -> p.key().equals(setting.place()))) {
        throw bad(at + ".place", "there is no place “" + setting.place() + "”",
            "Name one that stands under places, or add it there.");
      }
      settings.add(setting);
    });
    return new Palette(root.path("name").asString(name), bands.isEmpty() ? Band.USUAL : bands, places, settings);
  }

  private static Setting setting(JsonNode node, String at) {
    String kind = text(node, at, "kind");
    if (!kind.equals("color")) {
      throw bad(at + ".kind", "“" + kind + "” is no kind of setting that is known", "Write \"color\".");
    }
    JsonNode allowed = node.path("allowed");
    Allowed values = new Allowed.AnyColor();
    if (allowed.has("swatches")) {
      List<String> swatches = new ArrayList<>();
      if (!allowed.get("swatches").isArray()) {
        throw bad(at + ".allowed.swatches", "it is no list", "Write [\"#1f3347\", \"#24463a\"].");
      }
      for (JsonNode s : allowed.get("swatches")) {
        swatches.add(s.asString(""));
      }
      values = new Allowed.Swatches(swatches);
    }
    try {
      return new Setting(text(node, at, "key"), text(node, at, "label"), node.path("help").asString(""),
          text(node, at, "place"), text(node, at, "default"), values, node.path("triple").asBoolean(false));
    } catch (BadInputException e) {
      throw e.getMessage().startsWith(Palette.FILE) ? e : bad(at, e.getMessage(), e.mend());
    }
  }

  private static JsonNode tree(byte[] bytes) {
    JsonNode root;
    try {
      root = MAPPER.readTree(bytes);
    } catch (JacksonException e) {
      int line = e.getLocation() == null ? 1 : e.getLocation().getLineNr();
      throw new BadInputException(Palette.FILE + ", line " + line + ": this is not JSON. " + e.getOriginalMessage(),
          "Mend that line, or take the file out of the theme to start without settings.");
    }
    if (!root.isObject()) {
      throw bad("the file", "it holds no object", "Let it start with {.");
    }
    return root;
  }

  private interface Visit {
    void accept(JsonNode node, String at);
  }

  private static void each(JsonNode root, String list, Visit visit) {
    JsonNode nodes = root.path(list);
    if (nodes.isMissingNode() || nodes.isNull()) {
      return;
    }
    if (!nodes.isArray()) {
      throw bad(list, "it is no list", "Put its parts between [ and ].");
    }
    for (int i = 0; i < nodes.size(); i++) {
      visit.accept(nodes.get(i), list + "[" + i + "]");
    }
  }

  private static String text(JsonNode node, String at, String key) {
    if (!node.path(key).isString()) {
      throw bad(at + "." + key, node.has(key) ? "it is no text" : "it is missing", "Write \"" + key + "\": \"…\".");
    }
    return node.get(key).asString();
  }

  private static int integer(JsonNode node, String at) {
    if (!node.isInt()) {
      throw bad(at, "it is no whole number", "Write a width in CSS px, such as 767.");
    }
    return node.asInt();
  }

  private static BadInputException bad(String at, String what, String mend) {
    return new BadInputException(Palette.FILE + ", " + at + ": " + what, mend);
  }

  /**
   * Writes a palette into the text of the file as it was.
   *
   * @param before the file's bytes, or null where there is none yet
   */
  public static byte[] write(Palette palette, byte[] before) {
    ObjectNode root = before == null ? MAPPER.createObjectNode() : (ObjectNode) tree(before);
    if (before == null) {
      root.put("format", FORMAT);
    }
    root.put("name", palette.name());
    merge(root, "bands", palette.bands(), (band, node) -> {
      node.put("key", band.key()).put("label", band.label());
      if (band.to() != null) {
        node.put("to", band.to());
      }
    }, Band::key);
    merge(root, "places", palette.places(), (place, node) ->
        node.put("key", place.key()).put("label", place.label()), Place::key);
    merge(root, "settings", palette.settings(), PaletteJson::write, Setting::key);
    return (MAPPER.writeValueAsString(root) + "\n").getBytes(StandardCharsets.UTF_8);
  }

  private static void write(Setting setting, ObjectNode node) {
    node.put("key", setting.key()).put("label", setting.label());
    putOrRemove(node, "help", setting.help());
    node.put("kind", "color").put("place", setting.place()).put("default", setting.defaultValue());
    if (setting.allowed() instanceof Allowed.Swatches swatches) {
      ArrayNode values = node.withObjectProperty("allowed").putArray("swatches");
      swatches.values().forEach(values::add);
    } else {
      node.remove("allowed");
    }
    if (setting.triple()) {
      node.put("triple", true);
    } else {
      node.remove("triple");
    }
  }

  private static void putOrRemove(ObjectNode node, String key, String value) {
    if (value.isEmpty()) {
      node.remove(key);
    } else {
      node.put(key, value);
    }
  }

  private static <T> void merge(ObjectNode root, String list, List<T> items,
      java.util.function.BiConsumer<T, ObjectNode> write, java.util.function.Function<T, String> key) {
    Map<String, ObjectNode> known = new LinkedHashMap<>();
    root.path(list).forEach(n -> {
      if (n instanceof ObjectNode object) {
        known.put(object.path("key").asString(""), object);
      }
    });
    ArrayNode array = root.putArray(list);
    for (T item : items) {
      ObjectNode node = known.getOrDefault(key.apply(item), MAPPER.createObjectNode());
      write.accept(item, node);
      array.add(node);
    }
  }
}
