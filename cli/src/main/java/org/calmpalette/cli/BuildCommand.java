package org.calmpalette.cli;

import java.io.IOException;
import java.io.PrintWriter;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.concurrent.Callable;
import org.calmpalette.core.BadInputException;
import org.calmpalette.core.intake.ThemeFolder;
import org.calmpalette.core.output.Handover;
import org.calmpalette.core.output.ThemeBuild;
import org.calmpalette.core.setting.Chosen;
import org.calmpalette.core.theme.Theme;
import picocli.CommandLine.Command;
import picocli.CommandLine.Model.CommandSpec;
import picocli.CommandLine.Option;
import picocli.CommandLine.Parameters;
import picocli.CommandLine.Spec;
import tools.jackson.databind.JsonNode;

@Command(
        name = "build",
        mixinStandardHelpOptions = true,
        description = "The finished stylesheets and pages of a theme with an owner's values.")
final class BuildCommand implements Callable<Integer> {
    @Spec
    private CommandSpec spec;

    @Parameters(arity = "0..1", paramLabel = "THEME")
    private Path theme;

    @Option(names = "--values", paramLabel = "FILE", description = "The owner's values: a JSON object, key to value.")
    private Path values;

    @Option(names = "--out", paramLabel = "DIR", description = "A folder that is new or empty.")
    private Path target;

    @Option(names = "--json", description = "Answer as JSON.")
    private boolean json;

    @Option(
            names = "--cases",
            paramLabel = "FILE",
            description = "JSON Lines with \"theme\", \"values\" (a file or an object) and \"out\".")
    private Path cases;

    @Override
    public Integer call() throws IOException {
        PrintWriter out = spec.commandLine().getOut();
        if (cases != null) {
            return Answers.each(cases, out, given -> {
                JsonNode v = given.path("values");
                Map<String, Chosen> read = v.isObject()
                        ? Chosen.readAll(v, "values")
                        : v.isString() ? values(Path.of(v.asString())) : null;
                return build(
                        Path.of(given.path("theme").asString("")),
                        read,
                        Path.of(given.path("out").asString("")));
            });
        }
        if (theme == null || target == null) {
            throw new BadInputException(
                    "A theme and --out are needed.",
                    "For example: ./calm build towpath.zip --values mine.json --out site");
        }
        Map<String, Object> answer = build(theme, values == null ? null : values(values), target);
        if (json) {
            Answers.print(out, answer);
        } else {
            out.println(answer.get("files") + " files written to " + target + ".");
            for (Object o : (List<?>) answer.get("leftOut")) {
                Map<?, ?> left = (Map<?, ?>) o;
                out.println("Left out: " + left.get("key") + " = " + left.get("value") + ". " + left.get("why"));
            }
            out.flush();
        }
        return 0;
    }

    private static Map<String, Object> build(Path source, Map<String, Chosen> values, Path target) throws IOException {
        if (target.toString().isEmpty()) {
            throw new BadInputException("A folder to write to is needed.", "Give --out, or \"out\" in a case.");
        }
        if (Files.exists(target) && (!Files.isDirectory(target) || !isEmpty(target))) {
            throw new BadInputException(target + " is there already and not empty.", "Name a new folder.");
        }
        Theme read = ThemeFolder.read(source);
        var files = Handover.files(read, values);
        for (String path : files.paths()) {
            Path file = target.resolve(path);
            Files.createDirectories(file.getParent());
            Files.write(file, files.read(path));
        }
        Map<String, Object> answer = new LinkedHashMap<>();
        answer.put("files", files.paths().size());
        answer.put(
                "leftOut",
                ThemeBuild.chosen(read, values == null ? Map.of() : values).leftOut().stream()
                        .map(l -> {
                            Map<String, Object> left = new LinkedHashMap<>();
                            left.put("key", l.key());
                            left.put("value", l.value());
                            left.put("why", l.why().words());
                            left.put("limit", l.why().limit());
                            return left;
                        })
                        .toList());
        return answer;
    }

    private static boolean isEmpty(Path folder) throws IOException {
        try (var list = Files.list(folder)) {
            return list.findAny().isEmpty();
        }
    }

    private static Map<String, Chosen> values(Path file) throws IOException {
        return Chosen.readAll(Files.readAllBytes(file), file.toString());
    }
}
