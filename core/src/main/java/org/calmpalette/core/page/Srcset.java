package org.calmpalette.core.page;

import java.util.ArrayList;
import java.util.List;

/** The image candidates of a {@code srcset} attribute: HTML, section 4.8.4.3.10 “Parsing a srcset attribute”. */
public final class Srcset {
    private Srcset() {}

    /**
     * One picture to choose from.
     *
     * @param url as written
     * @param start offset of the address in the attribute's value
     * @param end offset behind the address
     * @param descriptors such as {@code 2x} or {@code 640w}; empty for none
     */
    public record Candidate(String url, int start, int end, String descriptors) {}

    /** The candidates in order; what is no address is passed over, as browsers do. */
    public static List<Candidate> read(String srcset) {
        List<Candidate> all = new ArrayList<>();
        int at = 0;
        while (true) {
            while (at < srcset.length() && (isSpace(srcset.charAt(at)) || srcset.charAt(at) == ',')) {
                at++;
            }
            if (at >= srcset.length()) {
                return all;
            }
            int start = at;
            while (at < srcset.length() && !isSpace(srcset.charAt(at))) {
                at++;
            }
            int end = at;
            // Commas inside an address belong to it, those at its end do not.
            while (end > start && srcset.charAt(end - 1) == ',') {
                end--;
            }
            int from = at;
            if (end == at) {
                at = behindDescriptors(srcset, at);
            }
            String descriptors = end == from ? srcset.substring(from, at).strip() : "";
            all.add(new Candidate(
                    srcset.substring(start, end),
                    start,
                    end,
                    descriptors.endsWith(",")
                            ? descriptors.substring(0, descriptors.length() - 1).strip()
                            : descriptors));
        }
    }

    /** A comma ends the descriptors, unless it stands in parentheses. */
    private static int behindDescriptors(String srcset, int from) {
        boolean inside = false;
        for (int i = from; i < srcset.length(); i++) {
            char c = srcset.charAt(i);
            inside = inside ? c != ')' : c == '(';
            if (c == ',' && !inside) {
                return i + 1;
            }
        }
        return srcset.length();
    }

    /** ASCII whitespace of the Infra standard. */
    private static boolean isSpace(char c) {
        return c == ' ' || c == '\t' || c == '\n' || c == '\f' || c == '\r';
    }
}
