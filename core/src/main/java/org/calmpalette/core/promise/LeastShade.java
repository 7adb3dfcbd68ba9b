package org.calmpalette.core.promise;

import java.math.BigDecimal;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import java.util.function.Function;
import java.util.function.IntPredicate;
import org.calmpalette.core.Budget;
import org.calmpalette.core.render.TextsOn;
import org.calmpalette.core.setting.BackgroundKind;
import org.calmpalette.core.setting.NumberKind;
import org.calmpalette.core.setting.Range;
import org.calmpalette.core.setting.Value;

/** How strong a shade has to lie over a picture for the texts on it to be read; never a value that was not looked at. */
public final class LeastShade {
    private LeastShade() {}

    /**
     * The value with the weakest shade, among those that are allowed and stronger than the one it has, with which all texts that are known
     * have their contrast. What is stronger than one that is enough is taken to be enough.
     *
     * @param seen how the texts read with a value; empty where it is not known
     * @return empty where no shade is enough, where none may be chosen, or where nothing needs one
     */
    public static Optional<Value.Parts> of(
            BackgroundKind kind, Value.Parts now, Function<Value.Parts, Optional<TextsOn>> seen) {
        boolean chosen = !kind.parts().fixed().containsKey("strength");
        if (!chosen || now.text("picture").isEmpty() || isEnough(seen.apply(now))) {
            return Optional.empty();
        }
        List<BigDecimal> stronger = strengths(((NumberKind) kind.parts().kinds().get("strength")).range()).stream()
                .filter(s -> s.compareTo(now.number("strength")) > 0)
                .toList();
        int high = stronger.size() - 1;
        if (high < 0 || !isEnough(seen.apply(with(now, stronger.get(high))))) {
            return Optional.empty();
        }
        int least = first(-1, high, i -> isEnough(seen.apply(with(now, stronger.get(i)))));
        return Optional.of(with(now, stronger.get(least)));
    }

    /** From and to in percent, both of which were looked at. */
    public record Strengths(BigDecimal from, BigDecimal to) {}

    /**
     * The strengths of those that are allowed with which all texts that are known have their contrast, while all else of the value is as it
     * is. What lies beyond one that is enough, on the side of the end that is enough, is taken to be enough.
     *
     * @param seen as in {@link #of}
     * @return empty where the weakest and the strongest shade are both enough or both not, and where none may be chosen
     */
    public static Optional<Strengths> enough(
            BackgroundKind kind, Value.Parts now, Function<Value.Parts, Optional<TextsOn>> seen) {
        if (kind.parts().fixed().containsKey("strength") || now.text("picture").isEmpty()) {
            return Optional.empty();
        }
        Range range = ((NumberKind) kind.parts().kinds().get("strength")).range();
        List<BigDecimal> all = strengths(range);
        int last = all.size() - 1;
        IntPredicate reads = i -> isEnough(seen.apply(with(now, all.get(i))));
        boolean strong = reads.test(last);
        if (reads.test(0) == strong) {
            return Optional.empty();
        }
        int border = first(0, last, i -> reads.test(i) == strong);
        return Optional.of(
                strong
                        ? new Strengths(all.get(border), all.get(last))
                        : new Strengths(all.get(0), all.get(border - 1)));
    }

    /** The first place after {@code before} at which something holds that holds from there on to {@code last}. */
    private static int first(int before, int last, IntPredicate holds) {
        int low = before;
        int high = last;
        while (high - low > 1) {
            Budget.longStep();
            int middle = (low + high) / 2;
            if (holds.test(middle)) {
                high = middle;
            } else {
                low = middle;
            }
        }
        return high;
    }

    private static Value.Parts with(Value.Parts now, BigDecimal strength) {
        return now.with("strength", new Value.Number(strength));
    }

    /** Strengths in percent, as many as are told apart, rising. */
    private static List<BigDecimal> strengths(Range range) {
        BigDecimal step = range.step() == null ? BigDecimal.ONE : range.step();
        List<BigDecimal> all = new ArrayList<>();
        for (BigDecimal s = range.lower(); s.compareTo(range.upper()) <= 0; s = s.add(step)) {
            all.add(s);
        }
        return all;
    }

    private static boolean isEnough(Optional<TextsOn> on) {
        return on.flatMap(TextsOn::worst).filter(w -> w.ratio() >= w.needed()).isPresent();
    }
}
