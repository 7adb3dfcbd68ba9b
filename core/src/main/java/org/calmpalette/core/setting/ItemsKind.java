package org.calmpalette.core.setting;

import java.util.ArrayList;
import java.util.Collections;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.function.Function;
import java.util.function.UnaryOperator;
import java.util.stream.Collectors;
import org.calmpalette.core.BadInputException;
import org.calmpalette.core.language.Language;

/**
 * A list of items that all have the same parts: cards, columns, links. Owners fill, add, remove and order them, as many as the maker
 * allows.
 *
 * @param parts of each item by key, in order
 * @param least how many there have to be, from 1: what repeats in a page is the pattern of those to come
 * @param most up to {@link #MOST}
 */
public record ItemsKind(Map<String, Part> parts, int least, int most) implements Kind {
    public static final int MOST = 60;
    private static final int MOST_PARTS = 20;
    /** Kinds that fill a part of a page; a list inside of a list is none of them. */
    private static final Set<String> FILLING = Set.of("line", "text", "picture", "link", "level", "yes-no");

    /**
     * A part of every item.
     *
     * @param label as the owner reads it
     * @param initial what a new item has
     */
    public record Part(String label, Kind kind, Value initial) {}

    public ItemsKind {
        parts = Collections.unmodifiableMap(new LinkedHashMap<>(parts));
    }

    static ItemsKind read(JsonEntry e) {
        Map<String, Part> parts = new LinkedHashMap<>();
        for (JsonEntry p : e.entries("parts")) {
            String key = p.text("key");
            if (!key.matches("[a-z][a-z0-9-]{0,39}") || parts.containsKey(key)) {
                throw JsonEntry.bad(
                        p.at("key"),
                        "“" + key + "” is no name of a part, or is there twice",
                        "Write letters, digits and hyphens, such as \"heading\".");
            }
            String name = p.text("kind");
            if (!FILLING.contains(name)) {
                throw JsonEntry.bad(
                        p.at("kind"),
                        "a part of an item cannot be of the kind “" + name + "”",
                        "Write one of " + FILLING.stream().sorted().collect(Collectors.joining(", ")) + ".");
            }
            Kind kind = Kinds.read(name, p.entry("allowed"));
            Value initial = p.value("default").orElseGet(kind::initial);
            try {
                parts.put(key, new Part(p.optionalText("label").orElse(key), kind, kind.normal(initial)));
            } catch (BadInputException wrong) {
                throw JsonEntry.bad(p.at("default"), wrong.getMessage().replaceAll("\\.$", ""), wrong.mend());
            }
        }
        int least = e.whole("least").orElse(1);
        int most = e.whole("most").orElse(12);
        if (parts.size() > MOST_PARTS || least < 1 || most > MOST || least > most) {
            throw JsonEntry.bad(
                    e.place(),
                    "there may be 1 to " + MOST + " items of up to " + MOST_PARTS + " parts",
                    "Write \"least\": 1, \"most\": 12.");
        }
        return new ItemsKind(parts, least, most);
    }

    @Override
    public Value.Parts allowed() {
        List<Value> all = new ArrayList<>();
        parts.forEach((key, p) -> all.add(Value.parts(
                "key",
                key,
                "label",
                p.label(),
                "kind",
                p.kind().name(),
                "default",
                p.initial(),
                "allowed",
                p.kind().allowed().parts().isEmpty() ? null : p.kind().allowed())));
        return Value.parts("least", least, "most", most, "parts", all.isEmpty() ? null : new Value.Many(all));
    }

    @Override
    public String name() {
        return "items";
    }

    @Override
    public String label() {
        return "list of items";
    }

    @Override
    public String inWords() {
        String what = parts.values().stream()
                .map(p -> Language.say("labels.small").equals("yes")
                        ? p.label().toLowerCase(java.util.Locale.ROOT)
                        : p.label())
                .collect(Collectors.joining(", "));
        String count = least == most ? Language.say("items.count", most) : Language.say("items.between", least, most);
        return what.isEmpty() ? count : Language.say("items.of", count, what);
    }

    /** What a new item has. */
    public Value.Parts item() {
        Map<String, Value> item = new LinkedHashMap<>();
        parts.forEach((key, p) -> item.put(key, p.initial()));
        return new Value.Parts(item);
    }

    @Override
    public Value normal(Value given) {
        if (!(given instanceof Value.Many many)) {
            throw Kind.wrong(given, "a list of items", "Write it like " + new Value.Many(List.of(item())).json() + ".");
        }
        if (many.items().size() > MOST) {
            throw new BadInputException("There are " + many.items().size() + " items.", "Write at most " + MOST + ".");
        }
        List<Value> items = new ArrayList<>();
        for (Value one : many.items()) {
            if (!(one instanceof Value.Parts p)
                    || !parts.keySet().containsAll(p.parts().keySet())) {
                throw Kind.wrong(one, "an item of this list", "Write it like " + item().json() + ".");
            }
            Map<String, Value> item = new LinkedHashMap<>();
            parts.forEach((key, part) -> {
                try {
                    item.put(key, p.part(key).map(part.kind()::normal).orElse(part.initial()));
                } catch (BadInputException wrong) {
                    throw inItem(items.size() + 1, part, wrong);
                }
            });
            items.add(new Value.Parts(item));
        }
        return new Value.Many(items);
    }

    private static BadInputException inItem(int n, Part part, BadInputException wrong) {
        return new BadInputException(
                Language.say("wrong.part", Language.say("wrong.item", n, part.label()), wrong.getMessage()),
                wrong.mend());
    }

    @Override
    public Optional<Refusal> refusal(Value value, Around around) {
        List<Value> items = ((Value.Many) value).items();
        if (items.size() < least || items.size() > most) {
            return Optional.of(new Refusal.ItemCount(items.size(), least, most));
        }
        for (int i = 0; i < items.size(); i++) {
            for (Map.Entry<String, Part> e : parts.entrySet()) {
                Value part = ((Value.Parts) items.get(i)).part(e.getKey()).orElseThrow();
                Optional<Refusal> why = e.getValue().kind().refusal(part, around);
                if (why.isPresent()) {
                    return Optional.of(new Refusal.InPart(
                            Language.say("wrong.item", i + 1, e.getValue().label()), why.get()));
                }
            }
        }
        return Optional.empty();
    }

    @Override
    public Value initial() {
        return new Value.Many(Collections.nCopies(least, item()));
    }

    @Override
    public ItemsKind withTexts(UnaryOperator<String> to) {
        Map<String, Part> others = new LinkedHashMap<>();
        parts.forEach((key, p) ->
                others.put(key, new Part(to.apply(p.label()), p.kind().withTexts(to), p.initial())));
        return new ItemsKind(others, least, most);
    }

    @Override
    public String words(Value value) {
        int count = ((Value.Many) value).items().size();
        return Language.say("items.count", count);
    }

    @Override
    public Value.Parts schema(Around around) {
        Map<String, Value> properties = new LinkedHashMap<>();
        parts.forEach((key, p) -> properties.put(key, p.kind().schema(around)));
        return Value.parts(
                "type",
                "array",
                "minItems",
                least,
                "maxItems",
                most,
                "items",
                CompositeKind.object(new Value.Parts(properties), List.of()));
    }

    /** The order of the items stands in a field of its own: numbers under which their fields are, with commas between. */
    @Override
    public Value read(Function<String, String> fields) {
        List<Value> items = new ArrayList<>();
        for (String at : fields.apply(".order").split(",")) {
            if (at.isBlank()) {
                continue;
            }
            if (!at.strip().matches("\\d{1,4}") || items.size() >= MOST) {
                throw new BadInputException(Language.say("items.order", MOST), Language.say("items.order.again"));
            }
            Map<String, Value> item = new LinkedHashMap<>();
            parts.forEach((key, part) -> {
                try {
                    item.put(key, part.kind().read(s -> fields.apply("." + at.strip() + "." + key + s)));
                } catch (BadInputException wrong) {
                    throw inItem(items.size() + 1, part, wrong);
                }
            });
            items.add(new Value.Parts(item));
        }
        return new Value.Many(items);
    }

    @Override
    public Map<String, String> fields(Value value) {
        Map<String, String> all = new LinkedHashMap<>();
        List<Value> items = ((Value.Many) value).items();
        List<String> order = new ArrayList<>();
        for (int i = 0; i < items.size(); i++) {
            String at = Integer.toString(i);
            order.add(at);
            Value.Parts item = (Value.Parts) items.get(i);
            parts.forEach((key, part) -> part.kind()
                    .fields(item.part(key).orElse(part.initial()))
                    .forEach((s, text) -> all.put("." + at + "." + key + s, text)));
        }
        all.put(".order", String.join(",", order));
        return all;
    }

    @Override
    public List<Binding> bindings() {
        return List.of(Binding.ITEMS);
    }
}
