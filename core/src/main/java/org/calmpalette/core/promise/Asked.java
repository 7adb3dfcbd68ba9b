package org.calmpalette.core.promise;

import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.TreeSet;
import java.util.concurrent.atomic.AtomicBoolean;
import java.util.concurrent.atomic.AtomicInteger;
import java.util.stream.Stream;
import org.calmpalette.core.cascade.ColorExpression;
import org.calmpalette.core.color.Color;
import org.calmpalette.core.page.Page;
import org.calmpalette.core.render.Backdrop;
import org.calmpalette.core.setting.Band;
import org.calmpalette.core.theme.Theme;
import org.jsoup.nodes.Element;
import org.jsoup.nodes.TextNode;

/**
 * A text whose colours are known as far as choices go, and where the first one like it stands.
 *
 * @param bands in which the same is asked, each with a width of it: where nothing is chosen yet, one stands for all of them
 */
record Asked(
        Page page,
        int element,
        int width,
        Band band,
        double needed,
        ColorExpression letters,
        Ply under,
        String why,
        String pseudoClass,
        boolean dark,
        Perceivable what,
        List<ColorExpression> others,
        AtomicInteger parts,
        Set<String> pages,
        List<Stand> stands,
        Map<Band, Integer> bands,
        AtomicBoolean placed) {
    /** A question that nobody asks yet. */
    Asked(
            Page page,
            int element,
            int width,
            Band band,
            double needed,
            ColorExpression letters,
            Ply under,
            String why,
            String pseudoClass,
            boolean dark,
            Perceivable what,
            List<ColorExpression> others) {
        this(
                page,
                element,
                width,
                band,
                needed,
                letters,
                under,
                why,
                pseudoClass,
                dark,
                what,
                others,
                new AtomicInteger(),
                new TreeSet<>(),
                new ArrayList<>(),
                new LinkedHashMap<>(),
                new AtomicBoolean());
    }

    /** The same question that nobody asks yet. */
    Asked alone() {
        return new Asked(page, element, width, band, needed, letters, under, why, pseudoClass, dark, what, others);
    }

    /** Is asked by those too that ask another one like it. */
    void add(Asked other) {
        parts.addAndGet(other.parts.get());
        pages.addAll(other.pages);
        stands.addAll(other.stands);
        other.bands.forEach(bands::putIfAbsent);
        placed.compareAndSet(false, other.isPlaced());
    }

    /** Without where it stands, which holds on to whole pages. */
    Asked withoutStands() {
        Asked one = alone();
        one.add(this);
        one.stands.clear();
        return one;
    }

    /** Whether where its texts stand may count, known or not any more. */
    boolean isPlaced() {
        return placed.get() || !stands.isEmpty();
    }

    /** Custom properties that its colours read. */
    Set<String> properties() {
        Set<String> all = new LinkedHashSet<>();
        if (letters != null && under != null) {
            Stream.of(Stream.of(letters), others.stream(), under.colors().stream())
                    .flatMap(s -> s)
                    .forEach(e -> all.addAll(e.properties()));
            all.addAll(under.backgrounds());
        }
        return all;
    }

    /** Of the text that asks, shortened; may be empty. */
    String words() {
        Element e = page.elements().get(element);
        if (what == Perceivable.ICON) {
            return Answer.brief(Inks.name(e));
        }
        if (pseudoClass.equals(FieldText.PLACEHOLDER)) {
            return Answer.brief(FieldText.placeholder(e));
        }
        return Answer.brief(e.textNodes().stream()
                .map(TextNode::text)
                .map(String::strip)
                .filter(t -> !t.isEmpty())
                .findFirst()
                .orElse(FieldText.of(e)));
    }

    /** Whether something of the letters' own lies between them and the ground, which may help them or not. */
    boolean isShadowed() {
        return under != null && under.unsure().contains(Grounds.SHADOW);
    }

    /** Whether letters of another colour could be read there. */
    boolean keepsIn(Theme theme, Color other) {
        return new Proof(theme).keeps(new ColorExpression.Fixed(other), under, needed, band);
    }

    Proof.Outcome outcomeIn(Theme theme) {
        return new Readable.Retrial(theme, this).outcome();
    }

    /** A text whose boxes may tell more than its colours do. */
    record Stand(Asking.Seen seen, int element, Backdrop backdrop, ColorExpression letters) {}
}
