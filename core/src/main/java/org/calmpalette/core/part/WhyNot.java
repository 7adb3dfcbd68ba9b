package org.calmpalette.core.part;

import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import org.calmpalette.core.cascade.Because;
import org.calmpalette.core.cascade.Explanation;
import org.calmpalette.core.cascade.Fates;
import org.calmpalette.core.cascade.Origin;
import org.calmpalette.core.change.Change;
import org.calmpalette.core.change.Located;
import org.calmpalette.core.change.OwnSheet;
import org.calmpalette.core.change.SheetRole;
import org.calmpalette.core.change.Strengthened;
import org.calmpalette.core.css.Edit;
import org.calmpalette.core.css.selector.ComplexSelector;
import org.calmpalette.core.css.selector.SelectorList;
import org.calmpalette.core.render.Rendered;
import org.calmpalette.core.usage.Readers;

/**
 * Why a declaration does not win, and what would make it win: what changes least comes first, {@code !important} last.
 *
 * @param id names it among the ways of one declaration: order, specificity, important
 */
public record WhyNot(String id, String label, Change fix) {

    /** What became of a declaration, in one sentence. */
    public static String sentence(Fates.Fate fate) {
        String parts = fate.parts() + (fate.parts() == 1 ? " part" : " parts") + " on " + fate.pages()
                + (fate.pages() == 1 ? " page" : " pages");
        return switch (fate.kind()) {
            case NOT_UNDERSTOOD -> "Browsers do not understand it and drop it.";
            case MATCHES_NOTHING -> "Its selector finds nothing on any page.";
            case NOWHERE -> "Wins nowhere: beaten on " + parts + by(fate);
            case SOMEWHERE -> "Wins somewhere: beaten on " + fate.beatenParts() + " of " + parts + by(fate);
            case EVERYWHERE -> "Wins wherever it applies: " + parts + ".";
        };
    }

    private static String by(Fates.Fate fate) {
        return fate.beatenBy().isEmpty()
                ? "."
                : " by "
                        + String.join(
                                "; ",
                                fate.beatenBy().stream()
                                        .map(b -> b.selector() + " { " + b.property() + ": " + b.written() + " } in "
                                                + b.file() + ", line " + b.line() + ", "
                                                + StepWords.ofTheWinner(b.because()))
                                        .toList())
                        + ".";
    }

    /** The ways to make a beaten declaration of the maker's own win. */
    public static List<WhyNot> ways(Rendered rendered, Map<String, SheetRole> roles, Fates.Fate fate) {
        List<WhyNot> ways = new ArrayList<>();
        Explanation.Cause own = fate.declaration();
        boolean beaten = fate.kind() == Fates.Kind.NOWHERE || fate.kind() == Fates.Kind.SOMEWHERE;
        if (!beaten
                || fate.beatenBy().isEmpty()
                || !roles.containsKey(own.file())
                || !roles.get(own.file()).lasts()) {
            return ways;
        }
        OwnSheet sheets = new OwnSheet(rendered, roles);
        boolean byOrder = fate.beatenBy().stream()
                .anyMatch(b -> b.because().step() == Because.Step.ORDER
                        && roles.containsKey(b.file())
                        && !roles.get(b.file()).lasts());
        if (byOrder) {
            Change fix = sheets.behindLibraries();
            if (!fix.isEmpty()) {
                ways.add(new WhyNot("order", "Load the theme's own stylesheet after the framework's", fix));
            }
        }
        Located at = Located.find(rendered.theme(), own.file(), own.start());
        if (at.rule() == null) {
            return ways;
        }
        specificity(rendered, at, fate).ifPresent(ways::add);
        important(at, fate).ifPresent(ways::add);
        return ways;
    }

    /** The rule's selector raised by the least that beats all that beat it. */
    private static Optional<WhyNot> specificity(Rendered rendered, Located at, Fates.Fate fate) {
        SelectorList list = Readers.selector(at.part().sheet(), at.around()).orElse(null);
        long nested = at.around().stream()
                .filter(org.calmpalette.core.css.Node.StyleRule.class::isInstance)
                .count();
        if (list == null || nested > 1) {
            return Optional.empty();
        }
        List<String> raised = new ArrayList<>();
        boolean any = false;
        for (ComplexSelector s : list.selectors()) {
            String text = s.toString();
            for (Explanation.Cause by : fate.beatenBy()) {
                if (by.important() != fate.declaration().important()
                        || by.origin() == Origin.STYLE_ATTRIBUTE
                        || !by.layer().equals(fate.declaration().layer())) {
                    return Optional.empty();
                }
                SelectorList now = SelectorList.parse(text).orElseThrow();
                Explanation.Cause normal = new Explanation.Cause(
                        by.file(),
                        by.line(),
                        by.column(),
                        by.selector(),
                        by.specificity(),
                        false,
                        "",
                        by.property(),
                        by.written(),
                        by.because(),
                        by.start(),
                        by.origin(),
                        by.conditions());
                Strengthened strong = Strengthened.over(
                                now, normal, false, rendered.theme().pages())
                        .orElse(null);
                if (strong == null || strong.important()) {
                    return Optional.empty();
                }
                any |= strong.raised();
                text = strong.selector();
            }
            raised.add(text);
        }
        if (!any) {
            return Optional.empty();
        }
        String selector = String.join(", ", raised);
        int start = at.start(at.rule().preludeFirst());
        int end = start
                + at.part()
                        .sheet()
                        .text(at.rule().preludeFirst(), at.rule().preludeEnd())
                        .stripTrailing()
                        .length();
        String title = "Made " + at.part().sheet().prelude(at.rule()) + " more specific: " + selector;
        return Optional.of(new WhyNot(
                "specificity",
                "Make the selector more specific: " + selector,
                Change.edit(title, at.part().path(), new Edit(start, end, selector))));
    }

    private static Optional<WhyNot> important(Located at, Fates.Fate fate) {
        boolean helps = !fate.declaration().important()
                && fate.beatenBy().stream()
                        .noneMatch(b -> b.important() && !b.layer().isEmpty());
        if (!helps) {
            return Optional.empty();
        }
        int end = at.valueEnd();
        return Optional.of(new WhyNot(
                "important",
                "Mark it !important, the last resort: it makes later changes harder",
                Change.edit(
                        "Marked " + at.declaration().property() + " of "
                                + at.part().sheet().prelude(at.rule()) + " !important",
                        at.part().path(),
                        new Edit(end, end, " !important"))));
    }
}
