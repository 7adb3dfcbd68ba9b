package org.calmpalette.app;

import com.deque.html.axecore.playwright.AxeBuilder;
import com.microsoft.playwright.Page;
import java.io.IOException;
import java.io.InputStream;
import java.io.UncheckedIOException;
import java.nio.charset.StandardCharsets;
import java.util.List;
import java.util.Set;
import java.util.stream.Collectors;

/**
 * Asks axe-core about a page itself. Its builder would put the half megabyte of it into every frame of the page too, which takes longer than
 * all that it looks at; what stands in our frames are strangers' pages, whose faults are not ours.
 */
final class Axe {
    private static final String SOURCE = source();

    private Axe() {}

    private static String source() {
        try (InputStream in = AxeBuilder.class.getResourceAsStream("/axe.min.js")) {
            return new String(in.readAllBytes(), StandardCharsets.UTF_8);
        } catch (IOException e) {
            throw new UncheckedIOException(e);
        }
    }

    private static void brought(Page page) {
        if (!Boolean.TRUE.equals(page.evaluate("typeof axe === 'object'"))) {
            page.evaluate(SOURCE);
        }
    }

    /** The texts whose contrast it finds too low, by the {@code data-at} of their elements. */
    static Set<Integer> lowContrast(Page page) {
        brought(page);
        return ((List<?>)
                        page.evaluate(
                                "() => axe.run({ include: [['html']] }, { runOnly: ['color-contrast'], resultTypes: ['violations'], elementRef: true })"
                                        + ".then(r => r.violations.flatMap(v => v.nodes.map(n => Number(n.element.dataset.at))))"))
                .stream().map(n -> ((Number) n).intValue()).collect(Collectors.toSet());
    }

    /** The rules that a page breaks, each with the first place where it does. @param within selector of what is looked at */
    @SuppressWarnings("unchecked")
    static List<String> violations(Page page, String within) {
        brought(page);
        return (List<String>) page.evaluate(
                "within => axe.run({ include: [[within]], exclude: [['iframe']] }, { iframes: false, resultTypes: ['violations'] })"
                        + ".then(r => r.violations.map(v => v.id + ' ' + v.nodes[0].html))",
                within);
    }

    static List<String> violations(Page page) {
        return violations(page, "html");
    }
}
