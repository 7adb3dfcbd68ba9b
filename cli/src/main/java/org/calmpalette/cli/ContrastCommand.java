package org.calmpalette.cli;

import java.io.IOException;
import java.io.PrintWriter;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.concurrent.Callable;
import org.calmpalette.core.BadInputException;
import org.calmpalette.core.color.Color;
import org.calmpalette.core.color.Contrast;
import org.calmpalette.core.setting.ColorKind;
import picocli.CommandLine.Command;
import picocli.CommandLine.Model.CommandSpec;
import picocli.CommandLine.Option;
import picocli.CommandLine.Parameters;
import picocli.CommandLine.Spec;

@Command(
        name = "contrast",
        mixinStandardHelpOptions = true,
        description = "Contrast ratio of a text over layers, the top one first, the last one opaque (WCAG 2.2).")
final class ContrastCommand implements Callable<Integer> {
    @Spec
    private CommandSpec spec;

    @Parameters(arity = "0..*", paramLabel = "TEXT LAYER…", description = "The text's colour, then what lies under it.")
    private List<String> colors = List.of();

    @Option(names = "--json", description = "Answer as JSON.")
    private boolean json;

    @Option(names = "--cases", paramLabel = "FILE", description = "JSON Lines with \"text\" and \"layers\".")
    private Path cases;

    @Override
    public Integer call() throws IOException {
        PrintWriter out = spec.commandLine().getOut();
        if (cases != null) {
            return Answers.each(cases, out, given -> {
                if (!given.path("text").isString() || !given.path("layers").isArray()) {
                    throw new BadInputException(
                            "A case needs \"text\" and \"layers\".",
                            "Write {\"text\": \"#fff\", \"layers\": [\"#000\"]}.");
                }
                List<String> layers = new ArrayList<>();
                given.get("layers").forEach(l -> layers.add(l.asString("")));
                return Map.of("ratio", ratio(given.get("text").asString(), layers));
            });
        }
        if (colors.size() < 2) {
            throw new BadInputException(
                    "A text's colour and at least one layer are needed.",
                    "For example: ./calm contrast white '#d8a13c'");
        }
        double ratio = ratio(colors.get(0), colors.subList(1, colors.size()));
        if (json) {
            Answers.print(out, Map.of("ratio", ratio));
        } else {
            // Cut, not rounded: 4.499 must not look as if it were 4.5.
            out.println(String.format(Locale.ROOT, "%.2f to 1", Math.floor(ratio * 100) / 100));
            out.flush();
        }
        return 0;
    }

    private static double ratio(String text, List<String> layers) {
        List<Color> read = layers.stream().map(ColorKind::parse).toList();
        try {
            return Contrast.ratioOver(ColorKind.parse(text), read);
        } catch (IllegalArgumentException e) {
            throw new BadInputException(e.getMessage(), "");
        }
    }
}
