package org.calmpalette.cli;

import java.io.IOException;
import java.io.PrintWriter;
import java.io.UncheckedIOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.concurrent.Callable;
import org.calmpalette.core.BadInputException;
import org.calmpalette.core.cascade.Because;
import org.calmpalette.core.cascade.Explanation;
import org.calmpalette.core.cascade.PageStyles;
import org.calmpalette.core.css.selector.ComplexSelector;
import org.calmpalette.core.css.selector.SelectorList;
import org.calmpalette.core.css.selector.SelectorMatcher;
import org.calmpalette.core.css.selector.States;
import org.calmpalette.core.page.Page;
import org.calmpalette.core.value.Viewport;
import org.jsoup.nodes.Element;
import picocli.CommandLine.Command;
import picocli.CommandLine.Model.CommandSpec;
import picocli.CommandLine.Option;
import picocli.CommandLine.Parameters;
import picocli.CommandLine.Spec;
import tools.jackson.databind.JsonNode;

@Command(
        name = "explain",
        mixinStandardHelpOptions = true,
        description = "Which declaration paints elements of a page, through what, and which others it beat.")
final class ExplainCommand implements Callable<Integer> {
    private static final Set<String> UPWARD = Set.of("hover", "active", "focus-within");
    private static final Set<String> STATES =
            Set.of("hover", "active", "focus", "focus-visible", "focus-within", "visited", "target");

    @Spec
    private CommandSpec spec;

    @Parameters(arity = "0..1", paramLabel = "PAGE", description = "An HTML file; its stylesheets are read beside it.")
    private Path page;

    @Option(names = "--select", paramLabel = "SEL", description = "The elements that are asked about.")
    private String select;

    @Option(names = "--property", paramLabel = "NAME", description = "A longhand or custom property.")
    private String property;

    @Option(names = "--width", paramLabel = "N", description = "Window width in CSS px, default ${DEFAULT-VALUE}.")
    private double width = 1280;

    @Option(names = "--height", paramLabel = "N", description = "Window height in CSS px, default ${DEFAULT-VALUE}.")
    private double height = 800;

    @Option(names = "--state", paramLabel = "STATES", description = "States of the elements, such as hover,focus.")
    private String state = "";

    @Option(names = "--json", description = "Answer as JSON.")
    private boolean json;

    @Option(
            names = "--cases",
            paramLabel = "FILE",
            description = "JSON Lines with page, select, property, width, height, state.")
    private Path cases;

    /** The page that the cases before asked about: most files of cases ask about one page many times. */
    private Path readPath;

    private PageStyles.Sheets readSheets;
    private Page readPage;

    @Override
    public Integer call() throws IOException {
        PrintWriter out = spec.commandLine().getOut();
        if (cases != null) {
            return Answers.each(
                    cases,
                    out,
                    given -> answers(ask(
                            Path.of(text(given, "page")),
                            text(given, "select"),
                            text(given, "property"),
                            given.path("width").asDouble(1280),
                            given.path("height").asDouble(800),
                            state(given.path("state")))));
        }
        if (page == null || select == null || property == null) {
            throw new BadInputException(
                    "A page, --select and --property are needed.",
                    "For example: ./calm explain index.html --select .badge --property background-color");
        }
        List<Explanation> explanations = ask(page, select, property, width, height, state);
        if (json) {
            Answers.print(out, answers(explanations));
        } else {
            explanations.forEach(e -> print(e, out));
            out.flush();
        }
        return 0;
    }

    private static String text(JsonNode given, String key) {
        if (!given.path(key).isString()) {
            throw new BadInputException("A case needs \"" + key + "\".", "");
        }
        return given.get(key).asString();
    }

    private static String state(JsonNode given) {
        if (given.isArray()) {
            List<String> all = new ArrayList<>();
            given.forEach(s -> all.add(s.asString("")));
            return String.join(",", all);
        }
        return given.asString("");
    }

    private List<Explanation> ask(Path file, String selector, String name, double w, double h, String states)
            throws IOException {
        SelectorList list = SelectorList.parse(selector)
                .orElseThrow(() -> new BadInputException(
                        "“" + selector + "” is no selector that browsers understand.", "Check its spelling."));
        read(file);
        SelectorMatcher plain = new SelectorMatcher(readPage.document(), States.NONE);
        // "a::before" asks about the pseudo-element of each link.
        List<String> pseudos = list.selectors().stream()
                .map(ComplexSelector::pseudoElement)
                .distinct()
                .toList();
        if (pseudos.size() > 1) {
            throw new BadInputException(
                    "“" + selector + "” means elements and pseudo-elements at once.", "Ask one by one.");
        }
        String pseudo = pseudos.get(0);
        List<Element> chosen = readPage.document().getAllElements().stream()
                .filter(e ->
                        e != readPage.document() && list.selectors().stream().anyMatch(s -> plain.matches(s, e)))
                .toList();
        Set<String> wanted = states(states);
        States forced = wanted.isEmpty()
                ? States.NONE
                : (e, s) -> wanted.contains(s)
                        && (chosen.contains(e)
                                || UPWARD.contains(s)
                                        && chosen.stream()
                                                .anyMatch(c -> c.parents().contains(e)));
        PageStyles styles = readSheets.in(Viewport.of(w, h), forced);
        String lower = name.startsWith("--") ? name : name.toLowerCase(java.util.Locale.ROOT);
        return chosen.stream()
                .map(e -> Explanation.of(pseudo == null ? styles.of(e) : styles.of(e, pseudo), lower))
                .toList();
    }

    private static Set<String> states(String text) {
        Set<String> wanted = new java.util.HashSet<>();
        for (String s : text.split("[,\\s]+")) {
            String name = s.replaceFirst("^:", "");
            if (!name.isEmpty() && !STATES.contains(name)) {
                throw new BadInputException(
                        "“" + name + "” is no state that can be asked for.",
                        "Use " + String.join(", ", new java.util.TreeSet<>(STATES)) + ".");
            }
            if (name.equals("focus")) {
                wanted.addAll(List.of("focus-visible", "focus-within"));
            }
            wanted.add(name);
        }
        wanted.remove("");
        return wanted;
    }

    private void read(Path file) throws IOException {
        Path whole = file.toAbsolutePath().normalize();
        if (whole.equals(readPath)) {
            return;
        }
        if (!Files.isRegularFile(whole)) {
            throw new BadInputException("There is no page " + file + ".", "Name an HTML file.");
        }
        byte[] bytes = Files.readAllBytes(whole);
        Path root = whole.getParent();
        for (String href : Page.read("page.html", bytes).stylesheetLinks()) {
            // A page in a folder names sheets beside that folder; the theme starts where the highest of them lies.
            Path up = whole.getParent();
            for (String h = href; h.startsWith("../") && up.getParent() != null; h = h.substring(3)) {
                up = up.getParent();
            }
            root = root.startsWith(up) ? up : root;
        }
        Path base = root;
        readPage = Page.read(base.relativize(whole).toString().replace('\\', '/'), bytes);
        readSheets = PageStyles.sheets(readPage, path -> {
            Path sheet = base.resolve(path);
            try {
                return Files.isRegularFile(sheet) ? Optional.of(Files.readAllBytes(sheet)) : Optional.empty();
            } catch (IOException e) {
                throw new UncheckedIOException(e);
            }
        });
        readPath = whole;
    }

    private static List<Map<String, Object>> answers(List<Explanation> explanations) {
        return explanations.stream().map(ExplainCommand::answer).toList();
    }

    private static Map<String, Object> answer(Explanation e) {
        Map<String, Object> answer = new LinkedHashMap<>();
        answer.put("element", e.element().cssSelector());
        answer.put("value", e.value());
        answer.put("winner", e.winner() == null ? null : answer(e.winner(), false));
        answer.put("beaten", e.beaten().stream().map(c -> answer(c, true)).toList());
        answer.put(
                "inheritedFrom",
                e.inheritedFrom() == null ? null : e.inheritedFrom().cssSelector());
        answer.put("through", e.through());
        return answer;
    }

    private static Map<String, Object> answer(Explanation.Cause c, boolean beaten) {
        Map<String, Object> answer = new LinkedHashMap<>();
        answer.put("file", c.file());
        answer.put("line", c.line());
        answer.put("column", c.column());
        answer.put("selector", c.selector());
        answer.put(
                "specificity",
                List.of(
                        c.specificity().ids(),
                        c.specificity().classes(),
                        c.specificity().elements()));
        answer.put("important", c.important());
        answer.put("layer", c.layer().isEmpty() ? null : c.layer());
        answer.put("property", c.property());
        answer.put("written", c.written());
        if (beaten || c.because().step() != Because.Step.DECIDES) {
            answer.put("because", c.because().toString());
        }
        return answer;
    }

    private static void print(Explanation e, PrintWriter out) {
        out.println(e.element().cssSelector() + " { " + e.property() + ": " + e.value() + " }");
        if (e.winner() == null) {
            out.println("  no declaration: the initial value");
        } else {
            out.println("  " + line(e.winner())
                    + (e.inheritedFrom() == null
                            ? ""
                            : "  (inherited from " + e.inheritedFrom().cssSelector() + ")"));
        }
        if (!e.through().isEmpty()) {
            out.println("  through " + String.join(", ", e.through()));
        }
        e.beaten().forEach(c -> out.println("  beaten, " + c.because() + ": " + line(c)));
    }

    private static String line(Explanation.Cause c) {
        return c.file() + ":" + c.line() + ":" + c.column() + "  " + c.selector() + " { " + c.property() + ": "
                + c.written() + (c.important() ? " !important" : "") + " }";
    }
}
