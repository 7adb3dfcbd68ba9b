package org.calmpalette.core.usage;

import java.math.BigDecimal;
import java.util.ArrayList;
import java.util.Comparator;
import java.util.HashMap;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.function.Predicate;
import org.calmpalette.core.setting.LengthKind;
import org.calmpalette.core.setting.Value;
import org.calmpalette.core.theme.Theme;
import org.calmpalette.core.value.ComponentValue;

/** The spacings that a theme's stylesheets use, as a few named steps: an owner then picks “medium” and not 24 px. */
public final class SpacingSteps {
    /** From so many on it is a scale; a list of two is a switch. */
    private static final int LEAST = 3;

    private static final int MOST = 6;
    /** What a person calls them, by how many there are. */
    private static final List<List<String>> NAMES = List.of(
            List.of("small", "medium", "large"),
            List.of("small", "medium", "large", "very large"),
            List.of("very small", "small", "medium", "large", "very large"),
            List.of("very small", "small", "medium", "large", "very large", "largest"));

    private SpacingSteps() {}

    /**
     * A kind with the steps of a theme.
     *
     * @param sheets whose declarations count, by path: the maker's own ones
     * @param needed lengths that have to be among the steps, as values of the kind
     * @return empty if the theme has no scale: fewer than three lengths besides 0 in that unit
     */
    public static Optional<LengthKind> of(Theme theme, Predicate<String> sheets, Set<Value> needed) {
        Set<String> units = new LinkedHashSet<>();
        needed.stream().filter(v -> !isZero(v)).forEach(v -> units.add(((Value.Parts) v).text("unit")));
        if (units.size() > 1) {
            return Optional.empty();
        }
        Map<String, Map<BigDecimal, Integer>> all = new HashMap<>();
        theme.sheets().stream().filter(p -> sheets.test(p.path())).forEach(part -> part.sheet()
                .eachDeclaration((d, around) -> {
                    if (d.property().matches("(padding|margin|scroll-margin)(-[a-z-]+)?|(row-|column-)?gap")) {
                        for (ComponentValue v : ComponentValue.read(part.sheet().value(d))) {
                            LengthKind.ANY
                                    .readCss(v.text())
                                    .map(Value.Parts.class::cast)
                                    .filter(l -> l.number("value").signum() > 0)
                                    .ifPresent(l -> all.computeIfAbsent(l.text("unit"), u -> new HashMap<>())
                                            .merge(plain(l), 1, Integer::sum));
                        }
                    }
                }));
        // A 0 has any unit: that of most spacings then.
        String unit = units.stream()
                .findFirst()
                .or(() -> all.entrySet().stream()
                        .max(Map.Entry.comparingByValue(Comparator.comparingInt(
                                c -> c.values().stream().mapToInt(n -> n).sum())))
                        .map(Map.Entry::getKey))
                .orElse("px");
        Map<BigDecimal, Integer> counts = all.getOrDefault(unit, Map.of());
        List<BigDecimal> chosen = new ArrayList<>();
        needed.stream()
                .filter(v -> !isZero(v))
                .map(v -> plain((Value.Parts) v))
                .distinct()
                .forEach(chosen::add);
        counts.entrySet().stream()
                .sorted(Map.Entry.<BigDecimal, Integer>comparingByValue()
                        .reversed()
                        .thenComparing(Map.Entry.comparingByKey()))
                .map(Map.Entry::getKey)
                .filter(n -> !chosen.contains(n))
                .limit(Math.max(0, MOST - chosen.size()))
                .forEach(chosen::add);
        if (chosen.size() < LEAST || chosen.size() > MOST) {
            return Optional.empty();
        }
        chosen.sort(Comparator.naturalOrder());
        List<LengthKind.Step> steps = new ArrayList<>();
        needed.stream()
                .filter(SpacingSteps::isZero)
                .findFirst()
                .ifPresent(none -> steps.add(new LengthKind.Step("none", (Value.Parts) none)));
        List<String> names = NAMES.get(chosen.size() - LEAST);
        for (int i = 0; i < chosen.size(); i++) {
            steps.add(new LengthKind.Step(names.get(i), Value.parts("value", chosen.get(i), "unit", unit)));
        }
        return Optional.of(new LengthKind(Map.of(), steps));
    }

    private static boolean isZero(Value v) {
        return ((Value.Parts) v).number("value").signum() == 0;
    }

    private static BigDecimal plain(Value.Parts length) {
        return length.number("value").stripTrailingZeros();
    }
}
