package org.calmpalette.core.setting;

import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.function.Function;
import java.util.function.UnaryOperator;
import org.calmpalette.core.language.Language;

/** The spacing of four sides, each a length: for margins, paddings and insets. */
public record SpacingKind(CompositeKind sides) implements Kind {
    public static final List<String> SIDES = List.of("top", "right", "bottom", "left");
    public static final SpacingKind ANY = of(LengthKind.ANY);

    static SpacingKind of(LengthKind side) {
        return new SpacingKind(
                CompositeKind.of(JsonEntry.none(), "top", side, "right", side, "bottom", side, "left", side));
    }

    static Kind read(JsonEntry e) {
        Kind side = LengthKind.read(e);
        return new SpacingKind(CompositeKind.of(e, "top", side, "right", side, "bottom", side, "left", side));
    }

    /** What one side may be. */
    public LengthKind side() {
        return (LengthKind) sides.kinds().get("top");
    }

    @Override
    public Value.Parts allowed() {
        Map<String, Value> parts = new LinkedHashMap<>(side().allowed().parts());
        parts.putAll(sides.allowed().parts());
        return new Value.Parts(parts);
    }

    @Override
    public String name() {
        return "spacing";
    }

    @Override
    public boolean isFiner() {
        return true;
    }

    @Override
    public String label() {
        return "spacing of four sides";
    }

    @Override
    public String inWords() {
        return sides.fixed().isEmpty()
                ? Language.say("spacing.each", side().inWords())
                : Language.say(
                        "spacing.fixed",
                        side().inWords(),
                        String.join(
                                ", ",
                                sides.fixed().keySet().stream()
                                        .map(CompositeKind::said)
                                        .toList()));
    }

    @Override
    public SpacingKind withTexts(UnaryOperator<String> to) {
        return new SpacingKind(sides.withTexts(to));
    }

    @Override
    public Value normal(Value given) {
        return sides.normal(given, "a spacing", SpacingKind.ANY.initial());
    }

    @Override
    public Optional<Refusal> refusal(Value value, Around around) {
        return sides.refusal(value, around);
    }

    @Override
    public Value initial() {
        return sides.initial();
    }

    @Override
    public Map<String, String> css(Value value, UnaryOperator<String> address) {
        Map<String, String> all = new LinkedHashMap<>();
        List<String> four = new ArrayList<>();
        SIDES.forEach(s -> {
            String length = LengthKind.written(((Value.Parts) value).part(s).orElseThrow());
            four.add(length);
            all.put("-" + s, length);
        });
        Map<String, String> out = new LinkedHashMap<>();
        out.put("", String.join(" ", four));
        out.putAll(all);
        return out;
    }

    /** One to four lengths, as the shorthands of CSS read them. */
    @Override
    public Optional<Value> readCss(String css) {
        List<Value> lengths = new ArrayList<>();
        for (String part : css.strip().split("\\s+")) {
            Optional<Value> length = LengthKind.ANY.readCss(part);
            if (length.isEmpty()) {
                return Optional.empty();
            }
            lengths.add(length.get());
        }
        int n = lengths.size();
        if (n > 4) {
            return Optional.empty();
        }
        Value right = lengths.get(n > 1 ? 1 : 0);
        return Optional.of(Value.parts(
                "top",
                lengths.get(0),
                "right",
                right,
                "bottom",
                lengths.get(n > 2 ? 2 : 0),
                "left",
                n > 3 ? lengths.get(3) : right));
    }

    @Override
    public String words(Value value) {
        List<String> four = SIDES.stream()
                .map(s -> side().words(((Value.Parts) value).part(s).orElseThrow()))
                .toList();
        return four.stream().distinct().count() == 1
                ? four.get(0)
                : four.get(0).equals(four.get(2)) && four.get(1).equals(four.get(3))
                        ? four.get(0) + " " + four.get(1)
                        : String.join(" ", four);
    }

    @Override
    public Value.Parts schema(Around around) {
        return sides.schema(around);
    }

    @Override
    public Value read(Function<String, String> fields) {
        return sides.read(fields);
    }

    @Override
    public Map<String, String> fields(Value value) {
        return sides.fields(value);
    }
}
