package org.calmpalette.core.setting;

import java.util.ArrayList;
import java.util.HashSet;
import java.util.List;
import java.util.Optional;
import java.util.Set;
import org.calmpalette.core.BadInputException;
import org.calmpalette.core.language.Language;

/** The bands of a theme, from the narrowest to the widest: every window width belongs to exactly one of them. */
public record Bands(List<Band> list) {
    public static final int MOST = 6;
    /** Phones end at 767 px, tablets at 1199 px (common practice). */
    public static final Bands USUAL = new Bands(List.of(
            new Band("phone", "phone", 767), new Band("tablet", "tablet", 1199), new Band("desktop", "desktop", null)));

    /** @throws BadInputException if there is a gap, an overlap, or one name twice; the message names the bands */
    public Bands {
        list = List.copyOf(list);
        if (list.isEmpty() || list.size() > MOST) {
            throw new BadInputException(
                    "A theme has one to " + MOST + " bands.", "Leave some out, or take the usual three.");
        }
        Set<String> keys = new HashSet<>();
        Band before = null;
        for (Band b : list) {
            if (!b.key().matches("[a-z][a-z0-9-]{0,29}") || !keys.add(b.key())) {
                throw new BadInputException(
                        "The band “" + b.label() + "” has a key that is taken or cannot be used: " + b.key() + ".",
                        "Use lower-case letters, digits and hyphens, a key of its own for each band.");
            }
            if (b.label().isBlank() || b.label().length() > 30) {
                throw new BadInputException(
                        "The band “" + b.key() + "” needs a name.", "Write up to 30 characters, such as tablet.");
            }
            check(b, before, b == list.get(list.size() - 1));
            before = b;
        }
    }

    private static void check(Band b, Band before, boolean last) {
        if (last != (b.to() == null)) {
            throw new BadInputException(
                    last
                            ? "The widest band, “" + b.label() + "”, ends at " + b.to()
                                    + " px, so wider windows belong to none."
                            : "“" + b.label() + "” has no end, so it overlaps the bands after it.",
                    last ? "Leave its end open." : "Say where it ends, such as 767.");
        }
        if (b.to() != null && (b.to() < Band.NARROWEST_EDGE || b.to() > Band.WIDEST_EDGE)) {
            throw new BadInputException(
                    "“" + b.label() + "” ends at " + b.to() + " px.",
                    "Write an end from " + Band.NARROWEST_EDGE + " to " + Band.WIDEST_EDGE + " px.");
        }
        if (before != null && b.to() != null && b.to() <= before.to()) {
            throw new BadInputException(
                    "“" + b.label() + "” ends at " + b.to() + " px and overlaps “" + before.label()
                            + "”, which ends at " + before.to() + " px.",
                    "Write the bands from narrow to wide, each ending further than the one before.");
        }
    }

    public Band widest() {
        return list.get(list.size() - 1);
    }

    public Optional<Band> band(String key) {
        return list.stream().filter(b -> b.key().equals(key)).findFirst();
    }

    /** The band of a window width in CSS px, which may have a fraction. */
    public Band at(double width) {
        return list.stream()
                .filter(b -> b.to() == null || width < b.to() + 1)
                .findFirst()
                .orElseThrow();
    }

    /** The first whole width of a band in CSS px; 0 for the narrowest. */
    public int from(Band band) {
        int i = list.indexOf(band);
        return i <= 0 ? 0 : list.get(i - 1).to() + 1;
    }

    /** As people say it: “up to 767 px”, “768 to 1199 px”, “from 1200 px”. */
    public String inWords(Band band) {
        int from = from(band);
        return band.to() == null
                ? from == 0 ? Language.say("widths.all") : Language.say("widths.from", from)
                : from == 0 ? Language.say("widths.up-to", band.to()) : Language.say("widths.between", from, band.to());
    }

    /**
     * The media query list that holds at exactly the widths of some bands (Media Queries Level 4, section 2.4.3); empty for
     * all bands. Neighbours are joined. Ranges are half open, so that no width between two whole pixels is left out.
     */
    public String media(Set<String> keys) {
        if (list.stream().allMatch(b -> keys.contains(b.key()))) {
            return "";
        }
        List<String> queries = new ArrayList<>();
        for (int i = 0; i < list.size(); i++) {
            if (!keys.contains(list.get(i).key())) {
                continue;
            }
            int from = from(list.get(i));
            while (i + 1 < list.size() && keys.contains(list.get(i + 1).key())) {
                i++;
            }
            Integer to = list.get(i).to();
            queries.add(
                    to == null
                            ? "(width >= " + from + "px)"
                            : from == 0
                                    ? "(width < " + (to + 1) + "px)"
                                    : "(" + from + "px <= width < " + (to + 1) + "px)");
        }
        return String.join(", ", queries);
    }
}
