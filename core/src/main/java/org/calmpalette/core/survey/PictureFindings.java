package org.calmpalette.core.survey;

import java.util.ArrayList;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Locale;
import java.util.Optional;
import java.util.Set;
import org.calmpalette.core.BadInputException;
import org.calmpalette.core.Budget;
import org.calmpalette.core.change.Change;
import org.calmpalette.core.css.selector.SelectorList;
import org.calmpalette.core.css.selector.SelectorMatcher;
import org.calmpalette.core.css.selector.States;
import org.calmpalette.core.page.Page;
import org.calmpalette.core.page.Paths;
import org.calmpalette.core.picture.Lighter;
import org.calmpalette.core.theme.Theme;
import org.calmpalette.core.theme.ThemeSheet;
import org.calmpalette.core.usage.Address;
import org.calmpalette.core.usage.PictureUse;
import org.calmpalette.core.usage.Readers;
import org.jsoup.nodes.Element;

/** Pictures that are named and not there, lie elsewhere, or weigh too much. */
final class PictureFindings {
    /** Common practice: a picture behind a page stays under about half a megabyte. */
    static final long HEAVY = 500_000;
    /** No window that promises are made for is wider, so more pixels are never seen at their size. */
    private static final int WIDEST = 2560;

    private static final int QUALITY = 80;

    private PictureFindings() {}

    static List<Finding> of(Theme theme, List<PictureUse> pictures, List<Address> addresses) {
        List<Finding> findings = new ArrayList<>();
        Set<String> heavy = new LinkedHashSet<>();
        for (PictureUse p : pictures) {
            if (p.path().isEmpty()) {
                if (!Address.isOnAnotherHost(p.url())) {
                    findings.add(missing(theme, p, addresses, "leads out of the theme"));
                }
            } else if (!p.exists()) {
                findings.add(missing(theme, p, addresses, "is not in the theme"));
            } else if (p.bytes() > HEAVY && heavy.add(p.path())) {
                findings.add(heavy(theme, p));
            }
        }
        return findings;
    }

    private static Finding missing(Theme theme, PictureUse p, List<Address> addresses, String what) {
        Optional<Guess> guess = likely(theme, p);
        boolean asked = isAsked(theme, p);
        Finding finding = new Finding(
                        asked ? Finding.Kind.MISSING_PICTURE : Finding.Kind.UNASKED_PICTURE,
                        p.file(),
                        p.line(),
                        0,
                        "The picture “" + p.url() + "” " + what
                                + (asked
                                        ? ", so nothing is shown there."
                                        : "; no part of a page asks for it, so nobody misses it."),
                        guess.map(g -> "Write “" + g.address() + "”: " + g.why() + ".")
                                .orElse("Add " + (p.path().isEmpty() ? "it" : p.path())
                                        + " to the theme, or correct the address."))
                .about(p.url());
        return guess.map(g -> finding.fixedBy(() -> AddressFindings.replace(
                        "Corrected the address of a picture in " + p.file() + " to “" + g.address() + "”",
                        p.file(),
                        p.url(),
                        g.address(),
                        addresses)))
                .orElse(finding);
    }

    /**
     * Whether some part of a page may show what a stylesheet names: the rule finds something in some state. Of custom properties, and of
     * what belongs to no rule, that is not known, so it may.
     */
    private static boolean isAsked(Theme theme, PictureUse p) {
        if (!theme.aside().isEmpty()) {
            return true;
        }
        List<SelectorList> lists = new ArrayList<>();
        boolean[] unknown = {true};
        for (ThemeSheet part : theme.sheets()) {
            if (!part.path().equals(p.file())) {
                continue;
            }
            part.sheet().eachDeclaration((d, around) -> {
                int from = part.line(part.sheet().tokens().start(d.first()));
                int to = part.line(part.sheet().tokens().start(Math.max(d.first(), d.end() - 1)));
                if (p.line() >= from
                        && p.line() <= to
                        && part.sheet().text(d.first(), d.end()).contains(p.url())) {
                    Optional<SelectorList> list =
                            d.isCustom() ? Optional.empty() : Readers.selector(part.sheet(), around);
                    unknown[0] = list.isEmpty() || !lists.isEmpty() && unknown[0];
                    list.ifPresent(lists::add);
                }
            });
        }
        if (unknown[0] || lists.isEmpty()) {
            return true;
        }
        for (Page page : theme.pages()) {
            SelectorMatcher matcher = new SelectorMatcher(page.document(), States.ANY);
            for (Element e : page.elements()) {
                Budget.step();
                if (lists.stream().anyMatch(l -> matcher.matches(l, e))) {
                    return true;
                }
            }
        }
        return false;
    }

    /** @param why it is likely, in plain words */
    private record Guess(String address, String why) {}

    /** The file that was likely meant: by letter case, by the folder it is seen from, by name, by spelling. */
    private static Optional<Guess> likely(Theme theme, PictureUse p) {
        String wanted = p.path().isEmpty() ? p.url().replaceFirst("^(\\.\\./)+", "") : p.path();
        String name = wanted.substring(wanted.lastIndexOf('/') + 1);
        List<String> files =
                theme.files().paths().stream().filter(f -> isPicture(f)).toList();
        for (String f : files) {
            if (f.equalsIgnoreCase(wanted)) {
                return guess(p, f, "the letters have another case on the server's disk");
            }
        }
        // Seen from the page instead of from the stylesheet, or from the theme's root.
        String fromRoot = p.url().replaceFirst("^(\\./|/|\\.\\./)+", "");
        for (String f : files) {
            if (f.equals(fromRoot)) {
                return guess(p, f, "the address is counted from " + p.file() + " itself");
            }
        }
        List<String> sameName = files.stream()
                .filter(f -> f.substring(f.lastIndexOf('/') + 1).equalsIgnoreCase(name))
                .toList();
        if (sameName.size() == 1) {
            return guess(p, sameName.get(0), "the theme has a file of that name there");
        }
        return Spelling.nearest(
                        name.toLowerCase(Locale.ROOT),
                        files.stream()
                                .map(f -> f.substring(f.lastIndexOf('/') + 1).toLowerCase(Locale.ROOT))
                                .distinct()
                                .toList(),
                        n -> Paths.ending(n).equals(Paths.ending(name))
                                || Spelling.distance(n, name.toLowerCase(Locale.ROOT)) <= 1)
                .flatMap(near -> files.stream()
                        .filter(f -> f.toLowerCase(Locale.ROOT).endsWith(near)
                                && (f.length() == near.length() || f.charAt(f.length() - near.length() - 1) == '/'))
                        .findFirst())
                .flatMap(f -> guess(p, f, "the name is nearly the same"));
    }

    private static Optional<Guess> guess(PictureUse p, String file, String why) {
        return Optional.of(new Guess(Paths.address(Paths.relative(p.file(), file)), why));
    }

    private static boolean isPicture(String file) {
        return Set.of("jpg", "jpeg", "png", "gif", "svg", "webp", "avif", "ico", "bmp")
                .contains(Paths.ending(file));
    }

    private static Finding heavy(Theme theme, PictureUse p) {
        boolean jpeg = Set.of("jpg", "jpeg").contains(Paths.ending(p.path()));
        boolean wide = p.width() > WIDEST;
        boolean mendable = (jpeg || wide && Paths.ending(p.path()).equals("png"))
                && (long) p.width() * p.height() <= Lighter.MOST_PIXELS;
        Finding finding = new Finding(
                        Finding.Kind.HEAVY_PICTURE,
                        p.file(),
                        p.line(),
                        0,
                        p.path() + " weighs " + Math.round(p.bytes() / 1000.0) + " kB (" + p.width() + " by "
                                + p.height() + "), which phones wait for; " + HEAVY / 1000 + " kB is a usual limit.",
                        mendable
                                ? (wide ? "Draw it " + WIDEST + " pixels wide" : "Keep its size")
                                        + (jpeg ? " and compress it to quality 80." : ".")
                                : "Save it smaller.")
                .about(p.path());
        return mendable
                ? finding.fixedBy(
                        () -> Change.of("Made " + p.path() + " lighter").withFile(p.path(), lighter(theme, p)))
                : finding;
    }

    private static byte[] lighter(Theme theme, PictureUse p) {
        byte[] light = Lighter.of(p.path(), theme.files().read(p.path()), WIDEST, QUALITY);
        if (light.length >= p.bytes()) {
            throw new BadInputException(
                    p.path() + " does not get lighter at quality " + QUALITY + ".",
                    "Make it smaller in Pictures, or with a picture editor.");
        }
        return light;
    }
}
