package org.calmpalette.core.promise;

import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.TreeSet;
import java.util.stream.Stream;
import org.calmpalette.core.Budget;
import org.calmpalette.core.cascade.ColorExpression;
import org.calmpalette.core.page.Page;
import org.calmpalette.core.part.PartSelector;
import org.calmpalette.core.render.Breakpoint;
import org.calmpalette.core.render.Measures;
import org.calmpalette.core.render.Rendered;
import org.calmpalette.core.setting.Bands;
import org.calmpalette.core.setting.Chosen;
import org.calmpalette.core.setting.Setting;
import org.calmpalette.core.theme.Theme;

/**
 * The promise that every text can be read, whatever an owner chooses of what is allowed: each keeps the contrast that WCAG 2.2 (1.4.3) asks
 * for with what lies behind it, at every width, at rest, under the pointer, focused, pressed and visited. Colours are exact; gradients,
 * pictures and what may lie elsewhere count with all that they may show there, so what is kept is kept wherever the text stands. What is not
 * decided so is told, with the reason; where the boxes of a page are known, a text that was taken out of the flow is looked for among
 * them, and one that cannot be read as made is found in the pixels. Drawings that stand for words, edges of fields and outlines of what the
 * keyboard has come to keep 3 to 1 (1.4.11): one of their colours is enough.
 *
 * <p>It is taken that a text in the flow stays inside of the boxes around it: whether it does is a promise of its own. Asked for are
 * texts of elements, what is written in fields and what stands in them before, and what stylesheets write; not what animations make of
 * them, markers of lists, drawings in files of their own, words in drawings, what a stylesheet writes in a state alone, nor outlines that are
 * shadows.
 * A shadow of letters may lie behind them as far as it is dense, or not at all.
 */
public final class Readable {
    static final int FROM = 320;
    static final int TO = 2560;
    /** Widths at which pixels are looked at besides those at which a question is asked. */
    private static final List<Integer> LOOKED_AT = List.of(320, 390, 480, 600, 768, 900, 1200, 1440, 1920, 2560);

    private final Theme theme;
    private final Asking asking;
    private final Proof proof;

    Readable(Theme theme, Map<String, Measures> measures) {
        this.theme = theme;
        this.asking = new Asking(theme, measures);
        this.proof = new Proof(theme);
    }

    /** What is proved and what is not, the broken first, then what is not decided; of pages whose boxes nobody measured. */
    public static List<Answer> of(Theme theme) {
        return of(theme, Map.of(), Proved.NOTHING, new Proved()).answers();
    }

    /**
     * @param answers the broken first, then what is not decided
     * @param painting keys of settings that were met as the colour of a text or of what lies behind one
     * @param marks what all pages were asked with
     */
    record Result(List<Answer> answers, Set<String> painting, Object marks) {}

    /**
     * @param measures the boxes of pages as they are made, by path
     * @param before what is known already
     * @param now takes up what is known then
     */
    static Result of(Theme theme, Map<String, Measures> measures, Proved before, Proved now) {
        Readable readable = new Readable(theme, measures);
        Proved.Going going = new Proved.Going(
                theme, measures, before, now, readable.asking.given(), p -> readable.asking.of(List.of(p)));
        Map<List<Object>, Proof.Outcome> decided = going.decided(readable::outcome);
        Map<List<Object>, Asked> asked = going.questions();
        List<Answer> all = new ArrayList<>();
        Map<List<Object>, Answer> alike = new LinkedHashMap<>();
        for (Map.Entry<List<Object>, Asked> e : asked.entrySet()) {
            Asked a = e.getValue();
            Answer answer = answer(a, decided.get(e.getKey()));
            // The same part of several pages, which pixels told of one by one.
            alike.merge(
                    answer.isBroken()
                            ? List.of(
                                    answer.selector(),
                                    answer.words(),
                                    answer.id().replace(answer.page(), ""),
                                    answer.inWords())
                            : List.of(a),
                    answer,
                    Answer::and);
        }
        all.addAll(alike.values());
        all.sort(java.util.Comparator.comparing(Answer::state));
        Set<String> painting = new TreeSet<>();
        Map<String, Setting> properties = theme.palette().properties();
        for (Asked a : asked.values()) {
            if (a.under() != null) {
                Stream.of(Stream.of(a.letters()), a.others().stream(), a.under().colors().stream())
                        .flatMap(s -> s)
                        .flatMap(e -> e.properties().stream())
                        .forEach(p -> painting.add(properties.get(p).key()));
            }
        }
        return new Result(List.copyOf(all), painting, going.marks());
    }

    /** All that is asked of a theme, what cannot be answered by colours too; but for what one of several colours keeps. */
    static List<Asked> questions(Theme theme) {
        return new Asking(theme, Map.of())
                .of(theme.pages()).values().stream()
                        .filter(a -> a.others().isEmpty())
                        .toList();
    }

    /** The question that an answer answers, asked again; empty where it is not asked any more. */
    static Optional<Asked> find(Theme theme, Answer answer) {
        List<Page> pages =
                new Rendered(theme, Map.of()).page(answer.page()).stream().toList();
        return new Asking(theme, Map.of())
                .of(pages).values().stream()
                        .filter(a -> a.element() == answer.element()
                                && a.pseudoClass().equals(answer.pseudoClass())
                                && a.what() == answer.what()
                                && a.dark() == answer.dark())
                        .filter(a -> a.why().isEmpty())
                        .min(java.util.Comparator.comparingInt(a -> Math.abs(a.width() - answer.width())));
    }

    /** A question about the same markup and stylesheets, with other settings. */
    static final class Retrial {
        private final Readable readable;
        private final Asked asked;

        Retrial(Theme theme, Asked asked) {
            this.readable = new Readable(theme, Map.of());
            this.asked = asked;
        }

        Proof.Outcome outcome() {
            return readable.decided(asked);
        }
    }

    /** The narrowest window, and the first width of each stretch in which the same rules and defaults hold. */
    static List<Integer> widths(Theme theme) {
        Set<Integer> all = new TreeSet<>(Breakpoint.firsts(theme, FROM, TO));
        all.add(FROM);
        Bands bands = theme.palette().bands();
        bands.list().forEach(b -> all.add(Math.max(FROM, bands.from(b))));
        return all.stream().filter(w -> w <= TO).toList();
    }

    /** What is not proved may be seen to be broken as made, in the pixels of a page that was measured. */
    private Proof.Outcome inPixels(Asked a, Proof.Outcome open) {
        // Letters with a shadow, or that are not shown, look otherwise than their pixels and their ground say.
        boolean plain =
                a.what() == Perceivable.TEXT && a.pseudoClass().isEmpty() && a.letters() != null && !a.isShadowed();
        Optional<Laid> page = plain ? asking.laid(a.page(), a.dark()) : Optional.empty();
        if (page.isEmpty()) {
            return open;
        }
        double worst = 21;
        int at = 0;
        int looked = 0;
        for (int width : LOOKED_AT) {
            Budget.longStep();
            if (theme.palette().bands().at(width).equals(a.band())) {
                Optional<Double> there = page.get().contrast(a.element(), width, null);
                looked += there.isPresent() ? 1 : 0;
                if (there.isPresent() && there.get() < worst) {
                    worst = there.get();
                    at = width;
                }
            }
        }
        return looked == 0
                ? open
                : worst < a.needed()
                        ? new Proof.Outcome(Answer.State.BROKEN, worst, Optional.of(Map.of()), "").at(at)
                        : Proof.Outcome.unproven(String.format(
                                java.util.Locale.ROOT,
                                "%s; as made it has %.2f to 1 or more at %s",
                                open.why(),
                                Math.floor(worst * 100) / 100,
                                looked == 1 ? "the width that was looked at" : looked + " widths that were looked at"));
    }

    Proof.Outcome outcome(Asked a) {
        Proof.Outcome decided = a.why().isEmpty() ? decided(a) : Proof.Outcome.unproven(a.why());
        Proof.Outcome looked =
                decided.state() == Answer.State.UNPROVEN && a.why().isEmpty() ? closely(a, decided) : decided;
        return looked.state() == Answer.State.UNPROVEN ? inPixels(a, looked) : looked;
    }

    /** Where several colours would do, it is kept if one of them is, and broken by what leaves none of them. */
    private Proof.Outcome decided(Asked a) {
        if (a.others().isEmpty()) {
            return proof.decide(a.letters(), a.under(), a.needed(), a.band(), chosen -> ratio(a, chosen));
        }
        List<Proof.Outcome> all = new ArrayList<>();
        for (ColorExpression one :
                Stream.concat(Stream.of(a.letters()), a.others().stream()).toList()) {
            // What is not told of all of them is never said to be broken.
            Proof.Outcome o = one instanceof ColorExpression.Unread u
                    ? Proof.Outcome.unproven(u.why())
                    : proof.decide(
                            one,
                            a.under(),
                            a.needed(),
                            a.band(),
                            chosen -> Optional.of(ratio(a, chosen).orElse(21.0)));
            if (o.state() == Answer.State.KEPT) {
                return o;
            }
            if (one instanceof ColorExpression.Unread) {
                return o;
            }
            all.add(o);
        }
        return all.stream()
                .filter(o -> o.state() == Answer.State.BROKEN)
                .min(java.util.Comparator.comparingDouble(Proof.Outcome::worst))
                .orElse(all.get(0));
    }

    static Answer answer(Asked a, Proof.Outcome o) {
        return new Answer(
                Promise.READABLE,
                a.page().source().file(),
                a.element(),
                PartSelector.unique(a.page(), a.page().elements().get(a.element())),
                a.words(),
                o.width() == 0 ? a.width() : o.width(),
                a.pseudoClass(),
                a.dark(),
                a.what(),
                a.parts().get(),
                a.pages(),
                a.needed(),
                o.state(),
                o.worst(),
                o.broken(),
                o.why(),
                null,
                null);
    }

    /** What colours alone do not decide, by where each of the texts stands that ask it. */
    private Proof.Outcome closely(Asked a, Proof.Outcome open) {
        if (a.stands().size() < a.parts().get()) {
            return open;
        }
        double worst = 21;
        for (Asked.Stand s : a.stands()) {
            Grounds.Found found = s.seen().closely(s.element(), s.backdrop());
            if (found.under() == null) {
                return open;
            }
            Proof.Outcome there =
                    proof.decide(s.letters(), found.under(), a.needed(), a.band(), chosen -> Optional.empty());
            if (there.state() != Answer.State.KEPT) {
                return there.state() == Answer.State.UNPROVEN ? there : open;
            }
            worst = Math.min(worst, there.worst());
        }
        return Proof.Outcome.kept(worst);
    }

    private Optional<Double> ratio(Asked a, Map<String, Chosen> chosen) {
        return new Looking(theme, chosen).ratio(a, a.width());
    }
}
