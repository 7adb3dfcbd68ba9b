package org.calmpalette.cli;

import java.io.IOException;
import java.io.PrintWriter;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.concurrent.Callable;
import org.calmpalette.core.BadInputException;
import org.calmpalette.core.color.Color;
import org.calmpalette.core.intake.ThemeFolder;
import org.calmpalette.core.setting.ColorKey;
import org.calmpalette.core.usage.ColorFamily;
import org.calmpalette.core.usage.ColorUse;
import picocli.CommandLine.Command;
import picocli.CommandLine.Model.CommandSpec;
import picocli.CommandLine.Option;
import picocli.CommandLine.Parameters;
import picocli.CommandLine.Spec;

@Command(
        name = "family",
        mixinStandardHelpOptions = true,
        description =
                "Which colours of a theme (folder, zip or stylesheet) were computed from one, and what they become with another.")
final class FamilyCommand implements Callable<Integer> {
    @Spec
    private CommandSpec spec;

    @Parameters(arity = "0..1", paramLabel = "PATH")
    private Path path;

    @Option(names = "--color", paramLabel = "C", description = "The colour that others were computed from.")
    private String color;

    @Option(names = "--to", paramLabel = "D", description = "The colour that it becomes.")
    private String to;

    @Option(names = "--json", description = "Answer as JSON.")
    private boolean json;

    @Option(names = "--cases", paramLabel = "FILE", description = "JSON Lines with \"path\", \"color\" and \"to\".")
    private Path cases;

    @Override
    public Integer call() throws IOException {
        PrintWriter out = spec.commandLine().getOut();
        if (cases != null) {
            return Answers.each(
                    cases,
                    out,
                    given -> answer(
                            Path.of(given.path("path").asString("")),
                            given.path("color").asString(null),
                            given.path("to").asString(null)));
        }
        if (path == null) {
            throw new BadInputException("A path is needed.", "Name a theme's folder, zip or stylesheet.");
        }
        Map<String, Object> answer = answer(path, color, to);
        if (json) {
            Answers.print(out, answer);
        } else {
            print(answer, out);
        }
        return 0;
    }

    private static Color color(String text, String option) {
        if (text == null || text.isBlank()) {
            throw new BadInputException(option + " is missing.", "Give a CSS colour: " + option + " '#1d5c50'.");
        }
        return Color.parse(text.strip())
                .orElseThrow(() -> new BadInputException(
                        option + ": “" + text + "” is no CSS colour.", "Write it as #1d5c50 or rgb(29 92 80)."));
    }

    private static Map<String, Object> answer(Path path, String color, String to) throws IOException {
        Color from = color(color, "--color");
        Color target = to == null ? null : color(to, "--to");
        List<Map<String, Object>> relatives = new ArrayList<>();
        for (ColorFamily.Relative r : ColorFamily.of(ThemeFolder.read(path), from)) {
            ColorUse use = r.use();
            String becomes = target == null ? null : ColorKey.of(r.of(target));
            boolean stays = r.ground() != null && ColorKey.of(use.color()).equals(becomes);
            if (stays) {
                continue;
            }
            Map<String, Object> one = new LinkedHashMap<>();
            one.put("file", use.file());
            one.put("line", use.line());
            one.put("column", use.column());
            one.put("selector", use.selector());
            one.put("property", use.property());
            one.put("written", use.written());
            one.put("value", ColorKey.of(use.color()));
            one.put("derivation", r.words());
            one.put("fit", Math.round(r.fit() * 1e6) / 1e6);
            one.put("to", becomes);
            relatives.add(one);
        }
        return new LinkedHashMap<>(Map.of("relatives", relatives));
    }

    private static void print(Map<String, Object> answer, PrintWriter out) {
        for (Object o : (List<?>) answer.get("relatives")) {
            Map<?, ?> r = (Map<?, ?>) o;
            out.printf(
                    Locale.ROOT,
                    "%s:%s  %s  %s  %s%s%n",
                    r.get("file"),
                    r.get("line"),
                    r.get("property"),
                    r.get("written"),
                    r.get("derivation"),
                    r.get("to") == null ? "" : "  becomes " + r.get("to"));
        }
        out.flush();
    }
}
