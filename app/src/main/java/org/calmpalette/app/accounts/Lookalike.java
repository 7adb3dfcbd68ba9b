package org.calmpalette.app.accounts;

import com.ibm.icu.text.SpoofChecker;
import java.text.Normalizer;
import java.util.Locale;

/**
 * A name as people see it, so that nobody takes one that is taken for another's: letters of any script that look the same are one
 * (Unicode Technical Standard 39, section 4, skeleton), and accents, which are easily overlooked, count for nothing.
 */
final class Lookalike {
    private static final SpoofChecker SPOOFS = new SpoofChecker.Builder().build();
    private static final int LONGEST = 500;

    private Lookalike() {}

    /** @param name in its normal form */
    static String of(String name) {
        String bare = bare(SPOOFS.getSkeleton(bare(name)));
        return bare.substring(0, Math.min(LONGEST, bare.length()));
    }

    private static String bare(String text) {
        return Normalizer.normalize(text, Normalizer.Form.NFD)
                .replaceAll("\\p{M}+", "")
                .toLowerCase(Locale.ROOT);
    }
}
