package org.calmpalette.core.survey;

import java.util.Collection;
import java.util.Comparator;
import java.util.Optional;
import java.util.function.Predicate;
import org.apache.commons.text.similarity.LevenshteinDistance;

/** What a misspelt word may mean: the nearest one, if it is near enough to be no other word. */
final class Spelling {
    private static final int FARTHEST = 2;
    private static final LevenshteinDistance DISTANCE = new LevenshteinDistance(FARTHEST);

    private Spelling() {}

    /** @return the distance in single changes of letters, or a large number beyond two */
    static int distance(String a, String b) {
        int d = DISTANCE.apply(a, b);
        // Two letters that changed places are one slip of the hand.
        return d == 2 && a.length() == b.length() && isSwap(a, b) ? 1 : d < 0 ? Integer.MAX_VALUE : d;
    }

    private static boolean isSwap(String a, String b) {
        int i = 0;
        while (i < a.length() && a.charAt(i) == b.charAt(i)) {
            i++;
        }
        return i + 1 < a.length()
                && a.charAt(i) == b.charAt(i + 1)
                && a.charAt(i + 1) == b.charAt(i)
                && a.substring(i + 2).equals(b.substring(i + 2));
    }

    /** @param fits whether a word makes sense in the place */
    static Optional<String> nearest(String word, Collection<String> words, Predicate<String> fits) {
        int far = word.length() < 4 ? 0 : word.length() < 6 ? 1 : FARTHEST;
        return words.stream()
                .filter(w -> Math.abs(w.length() - word.length()) <= far && distance(word, w) <= far)
                .filter(fits)
                .min(Comparator.<String>comparingInt(w -> distance(word, w)).thenComparing(Comparator.naturalOrder()));
    }
}
