package org.calmpalette.core.survey;

import java.util.ArrayList;
import java.util.HashMap;
import java.util.LinkedHashMap;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.regex.Pattern;
import org.calmpalette.core.cascade.Because;
import org.calmpalette.core.cascade.Explanation;
import org.calmpalette.core.cascade.Fates;
import org.calmpalette.core.change.Change;
import org.calmpalette.core.change.Located;
import org.calmpalette.core.change.OwnSheet;
import org.calmpalette.core.change.SheetRole;
import org.calmpalette.core.css.Edit;
import org.calmpalette.core.css.Node;
import org.calmpalette.core.css.TokenType;
import org.calmpalette.core.css.Tokens;
import org.calmpalette.core.css.selector.SelectorList;
import org.calmpalette.core.output.BoundPage;
import org.calmpalette.core.page.Page;
import org.calmpalette.core.page.Paths;
import org.calmpalette.core.part.StepWords;
import org.calmpalette.core.render.Rendered;
import org.calmpalette.core.section.Sections;
import org.calmpalette.core.theme.ThemeSheet;
import org.calmpalette.core.usage.PageSelector;
import org.calmpalette.core.usage.Painted;
import org.calmpalette.core.usage.Readers;

/** Rules of the maker's own that do nothing on the pages, and what is in their way. */
final class RuleFindings {
    /** Of a sheet that finds less than this on the pages nobody can say that a rule is dead: it is made for more pages. */
    private static final double LEAST_USED = 0.5;

    private static final Pattern WORD = Pattern.compile("[A-Za-z_][\\w-]*");

    private final Rendered rendered;
    private final Map<String, SheetRole> roles;
    private final Map<Fates.Key, Fates.Fate> fates;
    private final Set<String> scriptWords;
    private final List<Finding> findings = new ArrayList<>();

    private RuleFindings(Rendered rendered, Map<String, SheetRole> roles, Map<Fates.Key, Fates.Fate> fates) {
        this.rendered = rendered;
        this.roles = roles;
        this.fates = fates;
        this.scriptWords = scriptWords();
    }

    static List<Finding> of(Rendered rendered, Map<String, SheetRole> roles, Map<Fates.Key, Fates.Fate> fates) {
        RuleFindings found = new RuleFindings(rendered, roles, fates);
        found.order();
        for (ThemeSheet part : rendered.theme().sheets()) {
            if (roles.get(part.path()).lasts()) {
                found.sheet(part);
            } else if (roles.get(part.path()).kind() == SheetRole.Kind.BUILT) {
                SheetRole role = roles.get(part.path());
                found.findings.add(new Finding(
                                Finding.Kind.BUILT_SHEET,
                                part.path(),
                                1,
                                0,
                                "The next build overwrites what is edited here: " + role.because() + ".",
                                "Put changes into the theme's own stylesheet after it"
                                        + (role.source().isEmpty() ? "." : ", or into " + role.source() + "."))
                        .about("built"));
            }
        }
        return found.findings;
    }

    /** Words of all scripts: classes among them may be switched on while somebody looks. */
    private Set<String> scriptWords() {
        Set<String> words = new LinkedHashSet<>();
        for (String path : rendered.theme().files().paths()) {
            if (Set.of("js", "mjs", "ts").contains(Paths.ending(path))
                    && rendered.theme().files().size(path) < 2_000_000) {
                add(new String(rendered.theme().files().read(path), java.nio.charset.StandardCharsets.UTF_8), words);
            }
        }
        for (Page page : rendered.theme().pages()) {
            page.document().select("script").forEach(s -> add(s.data(), words));
        }
        return words;
    }

    private static void add(String text, Set<String> words) {
        var m = WORD.matcher(text);
        while (m.find()) {
            words.add(m.group());
        }
    }

    /** Own sheets that load before a framework's and lose to it by that alone. */
    private void order() {
        Map<String, List<String>> lost = new LinkedHashMap<>();
        fates.forEach((key, fate) -> {
            if (roles.containsKey(key.file()) && roles.get(key.file()).lasts()) {
                for (Explanation.Cause by : fate.beatenBy()) {
                    boolean library = roles.containsKey(by.file())
                            && !roles.get(by.file()).lasts();
                    if (library && by.because().step() == Because.Step.ORDER) {
                        lost.computeIfAbsent(key.file() + "|" + by.file(), k -> new ArrayList<>())
                                .add(fate.declaration().selector() + " { "
                                        + fate.declaration().property() + " }");
                    }
                }
            }
        });
        lost.forEach((files, declarations) -> {
            String own = files.substring(0, files.indexOf('|'));
            String library = files.substring(files.indexOf('|') + 1);
            for (Page page : rendered.theme().pages()) {
                List<String> loaded = rendered.loaded(page);
                if (loaded.contains(own) && loaded.indexOf(own) < loaded.indexOf(library)) {
                    int line = page.document().select("link[href]").stream()
                            .filter(e -> Paths.resolve(page.source().file(), e.attr("href"))
                                    .filter(own::equals)
                                    .isPresent())
                            .mapToInt(e -> page.source()
                                    .line(Math.max(0, e.sourceRange().startPos())))
                            .findFirst()
                            .orElse(1);
                    findings.add(new Finding(
                                    Finding.Kind.SHEET_ORDER,
                                    page.source().file(),
                                    line,
                                    0,
                                    own + " loads before " + library
                                            + ", which beats " + declarations.size()
                                            + (declarations.size() == 1 ? " declaration" : " declarations")
                                            + " of it by that alone: "
                                            + String.join(
                                                    ", ", declarations.subList(0, Math.min(3, declarations.size())))
                                            + (declarations.size() > 3 ? " and more." : "."),
                                    "Load the theme's own stylesheet last.")
                            .about(files)
                            .fixedBy(() -> new OwnSheet(rendered, roles).behindLibraries()));
                    return;
                }
            }
        });
    }

    private void sheet(ThemeSheet part) {
        // By the rule's first token: to hash a rule means to hash all that it holds.
        Map<Integer, List<Located>> byRule = new LinkedHashMap<>();
        Map<Integer, Integer> alive = new HashMap<>();
        int[] counts = new int[2];
        part.sheet().eachDeclaration((d, around) -> {
            Located at = new Located(part, d, List.copyOf(around));
            Fates.Fate fate = fates.get(new Fates.Key(part.path(), at.nameStart()));
            if (fate == null) {
                return;
            }
            counts[0]++;
            counts[1] += fate.parts() > 0 ? 1 : 0;
            if (at.rule() != null) {
                byRule.computeIfAbsent(at.rule().first(), k -> new ArrayList<>())
                        .add(at);
                alive.merge(at.rule().first(), fate.parts() > 0 ? 1 : 0, Integer::sum);
            }
            beaten(at, fate);
            if (d.important()
                    && fate.parts() > 0
                    && !fate.importantNeeded()
                    && fate.kind() != Fates.Kind.NOT_UNDERSTOOD) {
                needless(at);
            }
        });
        if (counts[1] >= counts[0] * LEAST_USED) {
            byRule.forEach((rule, all) -> {
                if (alive.get(rule) == 0) {
                    dead(all.get(0).rule(), all.get(0));
                }
            });
        }
    }

    private static String text(Located at) {
        return at.part().sheet().prelude(at.rule()) + " { " + at.declaration().property() + ": " + at.value() + " }";
    }

    private static List<Painted> painted(Located at) {
        return Readers.selector(at.part().sheet(), at.around())
                .map(s -> PageSelector.of(s, at.declaration().property()))
                .orElse(List.of());
    }

    private void beaten(Located at, Fates.Fate fate) {
        if (fate.kind() != Fates.Kind.NOWHERE
                || at.rule() == null
                || fate.beatenBy().isEmpty()) {
            return;
        }
        Explanation.Cause by = fate.beatenBy().get(0);
        if (fate.beatenBy().stream().anyMatch(b -> Sections.isByPlace(b.selector()))) {
            return;
        }
        boolean byOrderOfSheets = fate.beatenBy().stream()
                .anyMatch(b -> b.because().step() == Because.Step.ORDER
                        && roles.containsKey(b.file())
                        && !roles.get(b.file()).lasts());
        if (byOrderOfSheets || isFallback(at, by)) {
            return;
        }
        findings.add(new Finding(
                        Finding.Kind.BEATEN_DECLARATION,
                        at.part().path(),
                        at.line(),
                        0,
                        text(at) + " wins nowhere: "
                                + by.selector() + " { " + by.property() + ": " + by.written() + " } in " + by.file()
                                + ", line " + by.line() + ", beats it, "
                                + StepWords.ofTheWinner(by.because()) + ".",
                        "Take it out; or find it under Rules and make it win.")
                .about(text(at))
                .painting(painted(at))
                .fixedBy(() -> Change.edit(
                        "Took out “" + at.declaration().property() + ": " + at.value() + "” of "
                                + at.part().sheet().prelude(at.rule()) + ", which won nowhere",
                        at.part().path(),
                        removal(at))));
    }

    /** A value for older browsers before one for newer ones, in one rule: common practice. */
    private static boolean isFallback(Located at, Explanation.Cause by) {
        if (!by.file().equals(at.part().path()) || at.rule() == null) {
            return false;
        }
        boolean sameRule = by.start() >= at.start(at.rule().first())
                && by.start() < at.end(at.rule().end() - 1);
        return sameRule && !by.written().equals(at.value());
    }

    /** The declaration with its line, or with its semicolon. */
    private static Edit removal(Located at) {
        String text = at.part().file().text();
        int end = at.declarationEnd();
        int semicolon = end;
        while (semicolon < text.length() && Character.isWhitespace(text.charAt(semicolon))) {
            semicolon++;
        }
        if (semicolon < text.length() && text.charAt(semicolon) == ';') {
            end = semicolon + 1;
        }
        int line = at.part().file().line(end);
        boolean alone = at.isOnOwnLine()
                && text.substring(end, at.part().file().lineEnd(line)).isBlank()
                && line < at.part().file().line(text.length());
        return alone
                ? new Edit(
                        at.part().file().lineStart(at.line()), at.part().file().lineStart(line + 1), "")
                : new Edit(at.nameStart(), end, "");
    }

    private void needless(Located at) {
        Tokens tokens = at.part().sheet().tokens();
        int mark = at.declaration().valueEnd();
        while (mark < at.declaration().end()
                && !(tokens.is(mark, TokenType.DELIM) && tokens.raw(mark).equals("!"))) {
            mark++;
        }
        int start = at.valueEnd();
        findings.add(new Finding(
                        Finding.Kind.NEEDLESS_IMPORTANT,
                        at.part().path(),
                        at.line(),
                        0,
                        text(at) + " would win without !important, which only makes later changes harder.",
                        "Take !important away.")
                .about(text(at))
                .painting(painted(at))
                .fixedBy(() -> Change.edit(
                        "Took a needless !important away from " + text(at),
                        at.part().path(),
                        new Edit(start, at.declarationEnd(), ""))));
    }

    /** What holds by what is in a part holds once an owner leaves it empty, or fills it. */
    private boolean isByContents(String selector) {
        return (selector.contains(":empty") || selector.contains(":has("))
                && rendered.theme().pages().stream().anyMatch(BoundPage::isBound);
    }

    private void dead(Node.Rule rule, Located first) {
        String selector = first.part().sheet().prelude(rule);
        SelectorList list =
                Readers.selector(first.part().sheet(), first.around()).orElse(null);
        // What holds by where a section stands holds where it is moved to.
        if (list == null
                || Sections.isByPlace(selector)
                || isByContents(selector)
                || Fates.classes(list).stream().anyMatch(scriptWords::contains)) {
            return;
        }
        int start = first.start(rule.first());
        int end = first.end(rule.end() - 1);
        int line = first.part().file().line(start);
        String text = first.part().file().text();
        int last = first.part().file().line(end);
        boolean alone = text.substring(first.part().file().lineStart(line), start)
                        .isBlank()
                && text.substring(end, first.part().file().lineEnd(last)).isBlank()
                && last < first.part().file().line(text.length());
        Edit edit = alone
                ? new Edit(
                        first.part().file().lineStart(line), first.part().file().lineStart(last + 1), "")
                : new Edit(start, end, "");
        findings.add(new Finding(
                        Finding.Kind.DEAD_RULE,
                        first.part().path(),
                        line,
                        0,
                        "No page of the theme has anything that “" + selector + "” finds.",
                        "Take the rule out, unless a script or a page elsewhere needs it.")
                .about(selector)
                .fixedBy(() -> Change.edit(
                        "Took out the rule " + selector + ", which found nothing",
                        first.part().path(),
                        edit)));
    }
}
