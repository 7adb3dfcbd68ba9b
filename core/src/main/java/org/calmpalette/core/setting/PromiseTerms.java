package org.calmpalette.core.setting;

import java.util.ArrayList;
import java.util.Collections;
import java.util.List;
import java.util.Map;
import java.util.TreeMap;
import java.util.function.UnaryOperator;

/**
 * What a maker says of the promises of a theme.
 *
 * @param waived promises that are not given, by what they are called, with the reason
 * @param between what is promised of two settings
 */
public record PromiseTerms(Map<String, String> waived, List<Between> between, Thresholds thresholds) {
    /** Nothing is said of them. */
    public static final PromiseTerms USUAL = new PromiseTerms(Map.of(), List.of(), Thresholds.USUAL);

    public PromiseTerms {
        waived = Collections.unmodifiableMap(new TreeMap<>(waived));
        between = List.copyOf(between);
    }

    /** @param reason null for a promise that is given again */
    PromiseTerms withWaived(String promise, String reason) {
        Map<String, String> said = new TreeMap<>(waived);
        if (reason == null) {
            said.remove(promise);
        } else {
            said.put(promise, reason);
        }
        return new PromiseTerms(said, between, thresholds);
    }

    /** In place of one about the same two. */
    PromiseTerms with(Between wanted) {
        List<Between> all = new ArrayList<>(without(wanted).between);
        all.add(wanted);
        return new PromiseTerms(waived, all, thresholds);
    }

    PromiseTerms without(Between gone) {
        return new PromiseTerms(
                waived, between.stream().filter(b -> !b.isLike(gone)).toList(), thresholds);
    }

    /** Without what is promised of a setting that is no more. */
    PromiseTerms without(String key) {
        return new PromiseTerms(
                waived, between.stream().filter(b -> !b.names(key)).toList(), thresholds);
    }

    PromiseTerms renamed(UnaryOperator<String> name) {
        return new PromiseTerms(
                waived, between.stream().map(b -> b.renamed(name)).toList(), thresholds);
    }

    PromiseTerms with(Thresholds others) {
        return new PromiseTerms(waived, between, others);
    }
}
