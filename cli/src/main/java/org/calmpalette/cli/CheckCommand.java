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
import org.calmpalette.core.promise.Readable;
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
            "Whether every text of a theme (folder or zip) can be read, whatever an owner chooses of what is allowed.",
            "Exit 0 when nothing is broken, 1 when something is, 2 when the theme cannot be read. What is not decided is told."
        })
final class CheckCommand implements Callable<Integer> {
    @Spec
    private CommandSpec spec;

    @Parameters(arity = "0..1", paramLabel = "THEME")
    private Path path;

    @Option(names = "--json", description = "Answer as JSON.")
    private boolean json;

    @Option(names = "--cases", paramLabel = "FILE", description = "JSON Lines with \"path\".")
    private Path cases;

    @Override
    public Integer call() throws IOException {
        PrintWriter out = spec.commandLine().getOut();
        if (cases != null) {
            return Answers.each(
                    cases, out, given -> answer(check(Path.of(given.path("path").asString("")))));
        }
        if (path == null) {
            throw new BadInputException("A path is needed.", "Name a theme's folder or zip.");
        }
        List<Answer> answers = check(path);
        if (json) {
            Answers.print(out, answer(answers));
        } else {
            print(answers, out);
        }
        return answers.stream().anyMatch(a -> a.state() == Answer.State.BROKEN) ? 1 : 0;
    }

    private static List<Answer> check(Path path) throws IOException {
        Theme theme = ThemeFolder.read(path);
        if (theme.pages().isEmpty()) {
            throw new BadInputException(
                    path + " holds no page, so there is no text to promise anything of.",
                    "Name a theme with its HTML pages, as a folder or zip.");
        }
        return Readable.of(theme);
    }

    private static Map<String, Object> answer(List<Answer> answers) {
        return Map.of("promises", answers.stream().map(CheckCommand::answer).toList());
    }

    private static Map<String, Object> answer(Answer a) {
        Map<String, Object> one = new LinkedHashMap<>();
        one.put("id", a.id());
        one.put("promise", a.promise().key());
        one.put("subject", a.selector());
        one.put("page", a.page());
        one.put("words", a.words());
        one.put("parts", a.parts());
        one.put("state", a.state().name().toLowerCase(Locale.ROOT));
        one.put("worst", a.state() == Answer.State.UNPROVEN ? null : a.worst());
        one.put("needed", a.needed());
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
        return one;
    }

    private static void print(List<Answer> answers, PrintWriter out) {
        for (Answer a : answers) {
            String where = a.page() + "  " + a.selector() + "  “" + a.words() + "”";
            switch (a.state()) {
                case BROKEN ->
                    out.printf(
                            Locale.ROOT,
                            "broken    %s%n          %.2f to 1 at %d px, %s is needed, %s%n",
                            where,
                            Math.floor(a.worst() * 100) / 100,
                            a.width(),
                            a.needed() == 3 ? "3" : "4.5",
                            chosen(a));
                case UNPROVEN -> out.printf("unproven  %s%n          %s%n", where, a.why());
                default ->
                    out.printf(
                            Locale.ROOT,
                            "kept      %s%n          never below %.2f to 1%n",
                            where,
                            Math.floor(a.worst() * 100) / 100);
            }
        }
        long broken =
                answers.stream().filter(a -> a.state() == Answer.State.BROKEN).count();
        long open =
                answers.stream().filter(a -> a.state() == Answer.State.UNPROVEN).count();
        out.printf(
                "%nReadable, at rest and in a light scheme: %d kept, %d broken, %d not decided.%n",
                answers.size() - broken - open, broken, open);
        out.flush();
    }

    private static String chosen(Answer a) {
        Map<String, ?> values = a.broken().orElseThrow();
        return values.isEmpty()
                ? "as made"
                : "with "
                        + String.join(
                                ", ",
                                a.broken().orElseThrow().entrySet().stream()
                                        .map(e -> e.getKey() + " "
                                                + e.getValue().json().toString().replace("\"", ""))
                                        .toList());
    }
}
