package org.calmpalette.cli;

import java.io.IOException;
import java.io.PrintWriter;
import java.nio.file.Path;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.concurrent.Callable;
import org.calmpalette.core.BadInputException;
import org.calmpalette.core.intake.ThemeFolder;
import org.calmpalette.core.promise.Answer;
import org.calmpalette.core.promise.Promise;
import org.calmpalette.core.promise.Promises;
import org.calmpalette.core.theme.Theme;
import picocli.CommandLine.Command;
import picocli.CommandLine.Model.CommandSpec;
import picocli.CommandLine.Option;
import picocli.CommandLine.Parameters;
import picocli.CommandLine.Spec;

@Command(
        name = "check",
        mixinStandardHelpOptions = true,
        description = {
            "What a theme (folder or zip) promises its owners, whatever they choose of what is allowed: that texts can be read, nothing is "
                    + "left empty, movement stops for who asks for it, settings do something and are allowed.",
            "Exit 0 when nothing is broken, 1 when something is, 2 when the theme cannot be read. What is not decided is told."
        })
final class CheckCommand implements Callable<Integer> {
    @Spec
    private CommandSpec spec;

    @Parameters(arity = "0..1", paramLabel = "THEME")
    private Path path;

    @Option(names = "--json", description = "Answer as JSON.")
    private boolean json;

    @Option(names = "--junit", paramLabel = "FILE", description = "Also write JUnit XML, a test case for each.")
    private Path junit;

    @Option(
            names = "--sarif",
            paramLabel = "FILE",
            description = "Also write SARIF 2.1.0, with file and line of what is broken.")
    private Path sarif;

    @Option(names = "--cases", paramLabel = "FILE", description = "JSON Lines with \"path\".")
    private Path cases;

    @Override
    public Integer call() throws IOException {
        PrintWriter out = spec.commandLine().getOut();
        if (cases != null) {
            return Answers.each(
                    cases,
                    out,
                    given -> answer(Promises.of(read(Path.of(given.path("path").asString(""))))));
        }
        if (path == null) {
            throw new BadInputException("A path is needed.", "Name a theme's folder or zip.");
        }
        Theme theme = read(path);
        List<Answer> answers = Promises.of(theme);
        if (junit != null) {
            Reports.write(junit, Reports.junit(theme, answers));
        }
        if (sarif != null) {
            Reports.write(sarif, Reports.sarif(theme, answers));
        }
        if (json) {
            Answers.print(out, answer(answers));
        } else {
            print(theme, answers, out);
        }
        return answers.stream().anyMatch(Answer::isBroken) ? 1 : 0;
    }

    private static Theme read(Path path) throws IOException {
        Theme theme = ThemeFolder.read(path);
        if (theme.pages().isEmpty()) {
            throw new BadInputException(
                    path + " holds no page, so there is no text to promise anything of.",
                    "Name a theme with its HTML pages, as a folder or zip.");
        }
        return theme;
    }

    private static Map<String, Object> answer(List<Answer> answers) {
        return Map.of("promises", answers.stream().map(CheckCommand::answer).toList());
    }

    private static Map<String, Object> answer(Answer a) {
        boolean counted = a.isMeasured();
        Map<String, Object> one = new LinkedHashMap<>();
        one.put("id", a.id());
        one.put("promise", a.promise().key());
        one.put("subject", a.selector());
        one.put("page", a.page());
        one.put("words", a.words());
        one.put("pseudoClass", a.pseudoClass());
        one.put("what", a.what().key());
        one.put("scheme", a.dark() ? "dark" : "light");
        one.put("parts", a.parts());
        one.put("state", a.state().name().toLowerCase(Locale.ROOT));
        one.put("worst", !counted || a.state() == Answer.State.UNPROVEN ? null : a.worst());
        one.put("needed", counted ? a.needed() : null);
        one.put(
                "case",
                a.broken()
                        .map(values -> {
                            Map<String, Object> settings = new LinkedHashMap<>();
                            values.forEach((key, value) -> settings.put(key, value.json()));
                            return Map.of("settings", settings, "width", a.width());
                        })
                        .orElse(null));
        one.put("why", a.why());
        one.put("waived", a.waiver());
        return one;
    }

    private static void print(Theme theme, List<Answer> answers, PrintWriter out) {
        for (Answer a : answers) {
            out.printf(
                    "%-9s %-9s %s%s  “%s”%n",
                    a.isWaived() ? "waived" : a.state().name().toLowerCase(Locale.ROOT),
                    a.promise().key(),
                    a.page().isEmpty() ? "" : a.page() + "  ",
                    a.selector() + (a.dark() ? " (dark scheme)" : ""),
                    a.words());
            if (!a.inWords().isEmpty()) {
                out.printf("          %s%n", a.inWords());
            }
        }
        out.println();
        for (Promise p : Promise.values()) {
            List<Answer> of = answers.stream().filter(a -> a.promise() == p).toList();
            out.printf(
                    "%-10s %d kept, %d broken, %d not decided. %s%n",
                    p.label(),
                    count(of, Answer.State.KEPT),
                    count(of, Answer.State.BROKEN),
                    count(of, Answer.State.UNPROVEN),
                    p.holds(theme.palette().thresholds()));
        }
        out.flush();
    }

    private static long count(List<Answer> answers, Answer.State state) {
        return answers.stream().filter(a -> a.state() == state && !a.isWaived()).count();
    }
}
