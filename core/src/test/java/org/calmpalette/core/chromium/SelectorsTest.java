package org.calmpalette.core.chromium;

import static org.assertj.core.api.Assertions.assertThat;

import java.nio.charset.StandardCharsets;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.stream.Stream;
import org.calmpalette.core.css.Node;
import org.calmpalette.core.css.Stylesheet;
import org.calmpalette.core.css.selector.ComplexSelector;
import org.calmpalette.core.css.selector.SelectorList;
import org.calmpalette.core.css.selector.SelectorMatcher;
import org.calmpalette.core.css.selector.States;
import org.calmpalette.core.intake.Specimen;
import org.jsoup.Jsoup;
import org.jsoup.nodes.Document;
import org.jsoup.nodes.Element;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.MethodSource;

/** Selectors find what Chromium's querySelectorAll finds: every selector of ten published sheets and some of ours. */
public class SelectorsTest {
    private static final List<String> OURS = List.of(
            "li:nth-child(2n+1 of .is-active)",
            ":has(> b + i)",
            "p:not(:has(*))",
            "a[href^='#' i]:not([target])",
            ":is(h1, h2, ::before, :foo)",
            ":where(.card, #none) > *",
            "[class~=btn]:nth-last-of-type(2)",
            "input:not([type]):read-write",
            ":root > body :first-child:last-child",
            "p:empty",
            ":only-of-type",
            "option:checked",
            ":disabled",
            ":enabled:optional",
            ":required",
            ":placeholder-shown",
            ":indeterminate",
            ":default",
            ":invalid",
            ":valid:in-range",
            "p:lang(en)",
            ":dir(ltr) > b",
            "svg *",
            "linearGradient",
            "lineargradient",
            "[viewBox]",
            "[viewbox]",
            "ol > li:nth-child(-n+1)",
            "*|p",
            "h2 ~ p",
            "h2 + p",
            ".\\31 23",
            ".esc\\:aped\\/x",
            "details[open] > :not(summary)",
            ":link",
            ":any-link:not(:visited)",
            ":defined",
            "fieldset:has(:disabled)",
            ":has(+ .late) ~ :is(p)",
            "tr:nth-child(even) > td:nth-child(odd)",
            "[data-x=\"A\" i]",
            "[lang|=en]",
            "[class*=' ']",
            ":scope > body",
            ":target",
            ":focus-within",
            ":host",
            "dialog:open",
            ":nth-child(+3n - 2)",
            ":nth-child( odd )",
            "a:nth-child(n)",
            // States of form parts, languages and directions: HTML's own page of them is states.html.
            ":checked",
            ":unchecked",
            ":valid",
            ":user-invalid",
            ":in-range",
            ":out-of-range",
            ":optional",
            ":read-only",
            ":read-write",
            ":enabled",
            ":default:checked",
            "input:indeterminate",
            "progress:indeterminate",
            "option:disabled",
            "select:invalid",
            "textarea:invalid",
            "form:invalid",
            "fieldset:valid",
            "fieldset:disabled",
            "[type=email]:invalid",
            "[type=url]:valid",
            "[type=number]:out-of-range",
            "[type=number]:invalid",
            "[pattern]:invalid",
            "[type=date]:in-range",
            "[type=time]:out-of-range",
            "[type=month]:invalid",
            "[type=week]:in-range",
            "[type=datetime-local]:invalid",
            "[type=range]:valid",
            ":dir(rtl)",
            ":dir(ltr)",
            ":lang(de)",
            ":lang('*-CH')",
            ":lang(\"\")",
            ":lang(zh-Hant, fr)",
            ":lang(en-*-GB)",
            ":not(:lang(en))",
            ":lang(sl-IT)",
            ":open",
            ":modal",
            ":popover-open",
            ":playing",
            ":paused",
            ":muted",
            ":autofill",
            ":empty",
            ":blank",
            ":local-link",
            ":hover",
            ":focus",
            ":active",
            ":focus-visible",
            ":visited",
            ":target-within",
            ":past",
            ":future",
            ":current",
            ":fullscreen",
            ":picture-in-picture",
            ":nth-child(0n+0)",
            ":nth-last-child(-2n+5)",
            ":nth-of-type(3n)",
            ":nth-last-of-type(odd)",
            "[title$='']",
            "[title^='']",
            "[title*='']",
            "[type=TEXT]",
            "[type='CHECKBOX' s]",
            "[dir=RTL]");
    private static final List<String> INVALID = List.of(
            "p:",
            "..x",
            "#1a",
            "p::foo",
            ":nth-child(foo)",
            "[a=]",
            "a >",
            "> a",
            ":not()",
            ":not(:foo)",
            ":has(:foo)",
            "p:foo",
            "[a=b s]",
            "& :is(",
            "::before p",
            ":nth-of-type(1 of p)",
            "a,,b",
            "foo|p",
            "p:hover:",
            "@x",
            "p{",
            "[1a]",
            "a:not(::before)",
            ":is(a",
            "::before:hover",
            "::before:first-child",
            "::slotted(p)",
            "::part(x)",
            "::part()",
            "::view-transition-group(*)",
            "::highlight(a)",
            ":state(x)",
            ":state()",
            ":host(p)",
            ":host-context(p)",
            ":nth-child(2n + )",
            ":nth-child(n+ 2)",
            ":nth-child(+ n)",
            ":nth-child(-n- 2)",
            ":nth-child(2 n)",
            ":nth-child()",
            ":nth-child(1 of)",
            ":nth-child(even of p, b)",
            ":lang()",
            ":lang(1)",
            ":dir()",
            ":dir(up)",
            ":has()",
            ":has(:has(p))",
            ":is()",
            ":where()",
            ":not(p,)",
            "a b > ~ c",
            "|p",
            "*|*",
            "a||b",
            "[|a]",
            "[*|a]",
            "[a|b=c]",
            "[a~='b' i]",
            "[a=b i s]",
            "p:not",
            "p:is",
            ":ROOT",
            "P:HOVER",
            "::BEFORE",
            ":before",
            ":first-line",
            ":selection",
            "::-webkit-foo",
            ":-webkit-foo",
            "::-moz-foo",
            "p::before::after",
            "::before::marker",
            ":checked::after",
            "a:hover::before:hover");

    /** @param html of the page, without links and templates */
    public record Case(String name, String html) {
        public String question() {
            return name + " " + Answers.hash(html) + " "
                    + Answers.hash(selectors().toArray(String[]::new));
        }

        @Override
        public String toString() {
            return name;
        }
    }

    /** Where ours is not Chromium's, with the reason. */
    private static final Map<String, String> NAMED = Map.of(
            ":lang('*-CH')",
            "Selectors 4 and other browsers take texts",
            ":lang(\"\")",
            "Selectors 4 and other browsers take texts",
            ":lang(zh-Hant, fr)",
            "Selectors 4 and other browsers take several ranges",
            ":paused",
            "Selectors 4 and other browsers know it");

    private static List<String> selectors;

    public static synchronized List<String> selectors() {
        if (selectors == null) {
            Set<String> all = new LinkedHashSet<>(OURS);
            OutsideSheets.all().values().forEach(bytes -> {
                Stylesheet sheet = Stylesheet.read("s.css", bytes);
                collect(sheet, sheet.rules(), all);
            });
            selectors = List.copyOf(all);
        }
        return selectors;
    }

    /** What has to be refused or taken; the file says which. */
    public static List<String> doubtful() {
        return INVALID;
    }

    public static String doubtfulQuestion() {
        return "valid or not " + Answers.hash(INVALID.toArray(String[]::new));
    }

    public static Stream<Case> cases() {
        Map<String, byte[]> pages = new LinkedHashMap<>();
        OutsideSheets.all()
                .forEach(
                        (name, bytes) -> pages.put(name + " specimen", Specimen.page(Stylesheet.read("s.css", bytes))));
        for (String name : List.of("bootstrap", "bulma", "foundation", "pure", "everything", "states")) {
            pages.put(name, OutsideSheets.resource("/agreement/" + name + ".html"));
        }
        return pages.entrySet().stream()
                .map(p -> new Case(
                        p.getKey(),
                        new String(p.getValue(), StandardCharsets.UTF_8)
                                .replaceAll("(?s)<link[^>]*>", "")
                                .replaceAll("(?s)<template>.*?</template>", "")));
    }

    @ParameterizedTest
    @MethodSource("cases")
    void everySelectorFindsWhatChromiumFinds(Case c) {
        Document document = Jsoup.parse(c.html());
        List<Element> all =
                document.getAllElements().stream().filter(e -> e != document).toList();
        SelectorMatcher matcher = new SelectorMatcher(document, States.NONE);
        List<String> theirs = ANSWERS.to(c.question());
        assertThat(theirs).hasSameSizeAs(selectors());
        List<String> wrong = new ArrayList<>();
        for (int i = 0; i < theirs.size(); i++) {
            String ours = SelectorList.parse(selectors().get(i))
                    .map(list -> {
                        StringBuilder found = new StringBuilder();
                        for (int e = 0; e < all.size(); e++) {
                            if (matcher.matches(list, all.get(e))) {
                                found.append(found.isEmpty() ? "" : " ").append(e);
                            }
                        }
                        return found.toString();
                    })
                    .orElse("invalid");
            if (!ours.equals(theirs.get(i)) && !NAMED.containsKey(selectors().get(i))) {
                wrong.add(selectors().get(i) + ": " + difference(ours, theirs.get(i), all));
            }
        }
        assertThat(wrong).isEmpty();
    }

    /** The elements that only one of them finds. */
    private static String difference(String ours, String theirs, List<Element> all) {
        if (ours.equals("invalid") || theirs.equals("invalid")) {
            return "ours " + (ours.equals("invalid") ? ours : "valid") + " | Chromium "
                    + (theirs.equals("invalid") ? theirs : "valid");
        }
        List<String> a = List.of(ours.split(" "));
        List<String> b = List.of(theirs.split(" "));
        return "only ours " + named(a, b, all) + " | only Chromium's " + named(b, a, all);
    }

    private static List<String> named(List<String> of, List<String> without, List<Element> all) {
        return of.stream()
                .filter(i -> !i.isEmpty() && !without.contains(i))
                .map(i -> all.get(Integer.parseInt(i)))
                .map(e -> e.normalName() + e.attributes().html())
                .toList();
    }

    @Test
    void selectorsAreRefusedWhereChromiumRefusesThem() {
        List<String> theirs = ANSWERS.to(doubtfulQuestion());
        List<String> wrong = new ArrayList<>();
        for (int i = 0; i < INVALID.size(); i++) {
            String ours = SelectorList.parse(INVALID.get(i)).isPresent() ? "valid" : "invalid";
            if (!ours.equals(theirs.get(i)) && !NAMED.containsKey(INVALID.get(i))) {
                wrong.add(INVALID.get(i) + " is " + theirs.get(i) + " in Chromium");
            }
        }
        assertThat(wrong).isEmpty();
    }

    private static void collect(Stylesheet sheet, List<Node> nodes, Set<String> selectors) {
        for (Node node : nodes) {
            if (node instanceof Node.AtRule at && !at.name().endsWith("keyframes")) {
                collect(sheet, at.children(), selectors);
            } else if (node instanceof Node.StyleRule rule) {
                selectors.add(sheet.text(rule.preludeFirst(), rule.preludeEnd()));
                // Each by itself too: one that browsers refuse would hide the others of its list.
                SelectorList.parse(sheet.tokens(), rule.preludeFirst(), rule.preludeEnd(), null)
                        .ifPresent(l -> l.selectors().stream()
                                .map(ComplexSelector::toString)
                                .forEach(selectors::add));
            }
        }
    }

    private static final Answers ANSWERS = Answers.read("selectors");
}
