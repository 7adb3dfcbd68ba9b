package org.calmpalette.core.survey;

import java.util.ArrayList;
import java.util.Comparator;
import java.util.EnumMap;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;
import java.util.concurrent.CompletableFuture;
import java.util.concurrent.CompletionException;
import java.util.function.BooleanSupplier;
import java.util.stream.Stream;
import org.calmpalette.core.cascade.Fates;
import org.calmpalette.core.change.SheetRole;
import org.calmpalette.core.css.Node;
import org.calmpalette.core.css.SyntaxFault;
import org.calmpalette.core.render.Rendered;
import org.calmpalette.core.theme.Theme;
import org.calmpalette.core.theme.ThemeSheet;
import org.calmpalette.core.usage.Address;
import org.calmpalette.core.usage.Addresses;
import org.calmpalette.core.usage.ColorUsage;
import org.calmpalette.core.usage.PictureUse;
import org.calmpalette.core.usage.Pictures;

/**
 * What is fixed in a theme, and what is wrong with it.
 *
 * @param roles whose each stylesheet is, by path
 * @param fates what becomes of each declaration on the pages
 * @param findings the worst groups first
 */
public record Survey(
        List<SheetSummary> stylesheets,
        ColorUsage.Result colors,
        List<PictureUse> pictures,
        Map<String, SheetRole> roles,
        Map<Fates.Key, Fates.Fate> fates,
        List<Finding> findings) {

    private static final Comparator<Finding> ORDER =
            Comparator.comparing(Finding::group).thenComparing(f -> f.kind().heading());

    /** Findings of one kind that are listed. */
    static final int MOST_OF_A_KIND = 300;

    /**
     * A stylesheet in numbers.
     *
     * @param rules rules with a selector, nested ones and keyframes too
     */
    public record SheetSummary(String file, int bytes, int rules, int declarations) {}

    /** Hears how far a survey is. */
    @FunctionalInterface
    public interface Progress {
        void step(int done, int total, String what);
    }

    public static Survey of(Theme theme) {
        return of(new Rendered(theme), ColorUsage.of(theme), (done, total, what) -> {}, () -> false);
    }

    /**
     * Surveys a theme. Each page and each question has its share of time; what was not looked at to the end is a finding.
     *
     * @param cancelled asked now and then; true ends the survey
     * @throws java.util.concurrent.CancellationException if it was cancelled
     */
    public static Survey of(Rendered rendered, ColorUsage.Result colors, Progress progress, BooleanSupplier cancelled) {
        return Share.cancellable(cancelled, () -> make(rendered, colors, progress, cancelled));
    }

    private static Survey make(
            Rendered rendered, ColorUsage.Result colors, Progress progress, BooleanSupplier cancelled) {
        Theme theme = rendered.theme();
        int pages = theme.pages().size();
        int total = pages + 2;
        progress.step(0, total, "stylesheets");
        Share share = new Share();
        List<SheetSummary> summaries = new ArrayList<>();
        List<Finding> findings = new ArrayList<>();
        theme.aside()
                .forEach(a -> findings.add(new Finding(
                                a.unreadable() ? Finding.Kind.ENCODING : Finding.Kind.LIMIT,
                                a.path(),
                                1,
                                0,
                                a.why() + " The file is kept as it is.",
                                a.mend())
                        .about("file")));
        for (ThemeSheet part : theme.sheets()) {
            int[] counts = new int[2];
            count(part.sheet().rules(), counts);
            int bytes = part.offset() == 0
                    ? part.file().size()
                    : part.sheet().source().size();
            summaries.add(new SheetSummary(part.path(), bytes, counts[0], counts[1]));
            findings.addAll(reading(part));
        }
        Map<String, SheetRole> roles = SheetRole.of(theme);
        // Both go through all pages and need nothing of each other: one core each.
        CompletableFuture<List<Finding>> onPages = CompletableFuture.supplyAsync(
                () -> Share.cancellable(cancelled, () -> PageFindings.of(rendered, roles, share)));
        Map<Fates.Key, Fates.Fate> fates;
        List<PictureUse> pictures;
        try {
            fates = Fates.of(theme.pages(), rendered.library(), (n, page, look) -> {
                progress.step(n, total, "page " + n + " of " + pages);
                share.page(page.source().file(), "what becomes of its rules", look);
            });
            List<Address> addresses = Addresses.of(theme);
            pictures = Pictures.of(theme, addresses);
            String whole = theme.sheets().isEmpty() ? "" : theme.sheets().get(0).path();
            share.question(whole, "troubles with settings", () -> findings.addAll(SettingFindings.of(theme)));
            share.question(whole, "troubles between stylesheets", () -> findings.addAll(SheetFindings.of(theme)));
            share.question(
                    whole,
                    "troubles with pictures",
                    () -> findings.addAll(PictureFindings.of(theme, pictures, addresses)));
            share.question(whole, "misspelt words", () -> findings.addAll(SpellingFindings.of(theme, roles)));
            progress.step(pages + 1, total, "texts of the pages");
            findings.addAll(joined(onPages));
            // Of a rule that finds nothing nobody can say so who has not seen all pages.
            if (share.isWhole() && theme.aside().isEmpty()) {
                share.question(
                        whole, "rules without effect", () -> findings.addAll(RuleFindings.of(rendered, roles, fates)));
            }
            share.question(
                    whole,
                    "addresses on other hosts",
                    () -> findings.addAll(AddressFindings.elsewhere(theme, addresses)));
            share.question(whole, "repeated values", () -> findings.addAll(RepeatFindings.of(theme, colors, roles)));
        } finally {
            onPages.cancel(true);
        }
        findings.addAll(share.beyond());
        shorten(findings);
        findings.sort(ORDER);
        return new Survey(List.copyOf(summaries), colors, pictures, roles, fates, List.copyOf(findings));
    }

    private static List<Finding> joined(CompletableFuture<List<Finding>> onPages) {
        try {
            return onPages.join();
        } catch (CompletionException e) {
            throw e.getCause() instanceof RuntimeException r ? r : e;
        }
    }

    /** Of thousands of one kind nobody reads more than the first; how many there are is told. */
    private static void shorten(List<Finding> findings) {
        Map<Finding.Kind, Integer> counts = new EnumMap<>(Finding.Kind.class);
        Map<Finding.Kind, Finding> last = new LinkedHashMap<>();
        findings.removeIf(f -> {
            last.put(f.kind(), f);
            return counts.merge(f.kind(), 1, Integer::sum) > MOST_OF_A_KIND;
        });
        last.forEach((kind, f) -> {
            int more = counts.get(kind) - MOST_OF_A_KIND;
            if (more > 0) {
                findings.add(new Finding(
                                Finding.Kind.LIMIT,
                                f.file(),
                                f.line(),
                                0,
                                String.format(
                                        Locale.ROOT,
                                        "%,d more like “%s” are not listed.",
                                        more,
                                        f.kind().heading()),
                                "Mend those that are listed; the next ones come then.")
                        .about(kind.key()));
            }
        });
    }

    /** With what was found from measured boxes, see {@link BackgroundFindings}. */
    public Survey with(List<Finding> more) {
        return new Survey(
                stylesheets,
                colors,
                pictures,
                roles,
                fates,
                Stream.concat(findings.stream(), more.stream()).sorted(ORDER).toList());
    }

    public Optional<Finding> finding(String key) {
        return findings.stream().filter(f -> f.key().equals(key)).findFirst();
    }

    private static void count(List<Node> nodes, int[] counts) {
        for (Node node : nodes) {
            if (node instanceof Node.Declaration) {
                counts[1]++;
            } else if (node instanceof Node.Rule rule) {
                counts[0] += rule instanceof Node.StyleRule ? 1 : 0;
                count(rule.children(), counts);
            }
        }
    }

    private static List<Finding> reading(ThemeSheet part) {
        List<Finding> findings = new ArrayList<>();
        if (part.file().isMalformed()) {
            int at = Math.max(0, part.file().text().indexOf('\uFFFD'));
            findings.add(new Finding(
                    Finding.Kind.ENCODING,
                    part.path(),
                    part.file().line(at),
                    part.file().column(at),
                    "Some characters are not valid " + part.file().charset()
                            + "; browsers show a replacement sign for them.",
                    "Save the file as UTF-8, or name its encoding first: @charset \"windows-1252\";"));
        }
        for (Node node : part.offset() == 0 ? part.sheet().rules() : List.<Node>of()) {
            if (node instanceof Node.AtRule at
                    && at.name().equals("charset")
                    && !part.file().text().startsWith("@charset \"")) {
                int offset = part.sheet().tokens().start(at.first());
                findings.add(new Finding(
                                Finding.Kind.ENCODING,
                                part.path(),
                                part.line(offset),
                                part.column(offset),
                                part.sheet().text(at.first(), at.end()).strip()
                                        + " does nothing here: it has to be the very first thing in the file. The sheet is read as "
                                        + part.file().charset() + ", as the page that loads it is.",
                                "Put it before everything else, comments too, written just so; or save the file as UTF-8.")
                        .about("@charset"));
            }
        }
        for (SyntaxFault fault : part.sheet().faults()) {
            // A star before a property hides it from all but very old browsers: common practice once, and no slip.
            if (part.sheet().source().text().startsWith("*", fault.offset())) {
                continue;
            }
            findings.add(new Finding(
                    Finding.Kind.SYNTAX,
                    part.path(),
                    part.line(fault.offset()),
                    part.column(fault.offset()),
                    fault.kind().message(),
                    fault.kind().mend()));
        }
        return findings;
    }
}
