package org.calmpalette.cli;

import java.io.IOException;
import java.io.PrintWriter;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;
import java.util.concurrent.Callable;
import org.calmpalette.core.BadInputException;
import org.calmpalette.core.picture.LeadingColors;
import org.calmpalette.core.picture.Orientation;
import org.calmpalette.core.picture.PictureSize;
import org.calmpalette.core.picture.Pixels;
import org.calmpalette.core.setting.MediaFacts;
import picocli.CommandLine.Command;
import picocli.CommandLine.Model.CommandSpec;
import picocli.CommandLine.Option;
import picocli.CommandLine.Parameters;
import picocli.CommandLine.Spec;

@Command(
        name = "picture",
        mixinStandardHelpOptions = true,
        description = "What a picture is: size, orientation, weight, alpha, leading colours.")
final class PictureCommand implements Callable<Integer> {
    private static final int COLORS = 6;

    @Spec
    private CommandSpec spec;

    @Parameters(arity = "0..1", paramLabel = "FILE")
    private Path file;

    @Option(names = "--json", description = "Answer as JSON.")
    private boolean json;

    @Option(names = "--cases", paramLabel = "FILE", description = "JSON Lines with \"file\".")
    private Path cases;

    @Override
    public Integer call() throws IOException {
        PrintWriter out = spec.commandLine().getOut();
        if (cases != null) {
            return Answers.each(
                    cases, out, given -> answer(Path.of(given.path("file").asString(""))));
        }
        if (file == null) {
            throw new BadInputException("A picture is needed.", "Name its file.");
        }
        Map<String, Object> answer = answer(file);
        if (json) {
            Answers.print(out, answer);
        } else {
            print(answer, out);
        }
        return 0;
    }

    private static Map<String, Object> answer(Path file) throws IOException {
        if (!Files.isRegularFile(file)) {
            throw new BadInputException("There is no file " + file + ".", "Name a picture.");
        }
        byte[] bytes = Files.readAllBytes(file);
        PictureSize size = PictureSize.read(bytes)
                .orElseThrow(() -> new BadInputException(
                        file + " cannot be read as a picture: it is broken, or of a format that is not read here.",
                        "PNG, JPEG, GIF, BMP and SVG are read."));
        Optional<Pixels> pixels = Pixels.read(bytes);
        Map<String, Object> answer = new LinkedHashMap<>();
        answer.put("format", MediaFacts.of(file.toString(), bytes).format());
        answer.put("width", size.width());
        answer.put("height", size.height());
        answer.put("orientation", Orientation.of(bytes).value());
        answer.put("bytes", bytes.length);
        answer.put("alpha", pixels.map(Pixels::hasAlpha).orElse(null));
        answer.put(
                "colors",
                pixels.map(p -> LeadingColors.of(p, COLORS)).orElse(List.of()).stream()
                        .map(c -> Map.of("value", c.color().hex(), "share", Math.round(c.share() * 10_000) / 10_000.0))
                        .toList());
        return answer;
    }

    private static void print(Map<String, Object> answer, PrintWriter out) {
        out.printf(
                Locale.ROOT,
                "%s, %s by %s, %,d bytes%s%n",
                answer.get("format"),
                answer.get("width"),
                answer.get("height"),
                answer.get("bytes"),
                Boolean.TRUE.equals(answer.get("alpha"))
                        ? ", with transparent pixels"
                        : answer.get("alpha") == null ? ", not looked at pixel by pixel" : "");
        for (Object color : (List<?>) answer.get("colors")) {
            Map<?, ?> c = (Map<?, ?>) color;
            out.printf(Locale.ROOT, "  %s  %.0f%%%n", c.get("value"), 100 * (Double) c.get("share"));
        }
        out.flush();
    }
}
