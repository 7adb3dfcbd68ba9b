package org.calmpalette.cli;

import java.io.IOException;
import java.io.PrintWriter;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.concurrent.Callable;
import org.calmpalette.core.BadInputException;
import org.calmpalette.core.cascade.Fates;
import org.calmpalette.core.change.SheetRole;
import org.calmpalette.core.intake.ThemeFolder;
import org.calmpalette.core.page.Page;
import org.calmpalette.core.render.Gallery;
import org.calmpalette.core.render.LayoutKey;
import org.calmpalette.core.render.Measures;
import org.calmpalette.core.render.Rendered;
import org.calmpalette.core.survey.BackgroundFindings;
import org.calmpalette.core.survey.Finding;
import org.calmpalette.core.survey.Survey;
import org.calmpalette.core.theme.Theme;
import org.calmpalette.core.usage.ColorRow;
import org.calmpalette.core.usage.ColorUse;
import org.calmpalette.core.usage.PictureUse;
import picocli.CommandLine.Command;
import picocli.CommandLine.Model.CommandSpec;
import picocli.CommandLine.Option;
import picocli.CommandLine.Parameters;
import picocli.CommandLine.Spec;
import tools.jackson.databind.JsonNode;

@Command(
        name = "survey",
        mixinStandardHelpOptions = true,
        description = "What is fixed in a theme (folder, zip or stylesheet), and what is wrong with it.")
final class SurveyCommand implements Callable<Integer> {
    @Spec
    private CommandSpec spec;

    @Parameters(arity = "0..1", paramLabel = "PATH")
    private Path path;

    @Option(names = "--json", description = "Answer as JSON.")
    private boolean json;

    @Option(names = "--cases", paramLabel = "FILE", description = "JSON Lines with \"path\".")
    private Path cases;

    @Option(
            names = "--measures",
            paramLabel = "FILE",
            description = "Boxes of a page as a browser laid them out, from Pictures; may be given for several pages.")
    private List<Path> measures = List.of();

    @Override
    public Integer call() throws IOException {
        PrintWriter out = spec.commandLine().getOut();
        if (cases != null) {
            return Answers.each(
                    cases,
                    out,
                    given -> answer(survey(Path.of(given.path("path").asString("")), files(given.path("measures")))));
        }
        if (path == null) {
            throw new BadInputException("A path is needed.", "Name a theme's folder, zip or stylesheet.");
        }
        Survey survey = survey(path, measures);
        if (json) {
            Answers.print(out, answer(survey));
        } else {
            print(survey, out);
        }
        return 0;
    }

    private static List<Path> files(JsonNode given) {
        return given.isString()
                ? List.of(Path.of(given.asString()))
                : given.valueStream().map(n -> Path.of(n.asString(""))).toList();
    }

    /** With what is found from measured boxes, if there are any. */
    private static Survey survey(Path path, List<Path> files) throws IOException {
        Theme theme = ThemeFolder.read(path);
        Survey survey = Survey.of(theme);
        Map<String, Measures> byPage = new LinkedHashMap<>();
        Rendered rendered = new Rendered(theme);
        LayoutKey.Keys keys = new LayoutKey.Keys(rendered);
        for (Path file : files) {
            if (!Files.isRegularFile(file)) {
                throw new BadInputException(
                        "There is no file " + file + ".", "Name the measures of a page, as Pictures writes them.");
            }
            Measures read = Measures.read(file.toString(), Files.readAllBytes(file));
            Page page = rendered.page(read.page())
                    .orElseThrow(() -> new BadInputException(
                            file + ", page: the theme has no page " + read.page() + ".",
                            "Measure a page of this theme in Pictures."));
            if (!read.layout().equals(keys.of(page))) {
                throw new BadInputException(
                        file + ", layout: " + read.page() + " is laid out otherwise now than when it was measured.",
                        "Measure it again in Pictures.");
            }
            byPage.put(read.page(), read);
        }
        return byPage.isEmpty() ? survey : survey.with(BackgroundFindings.of(rendered, new Gallery(theme), byPage));
    }

    private static Map<String, Object> answer(Survey survey) {
        Map<String, Object> answer = new LinkedHashMap<>();
        answer.put(
                "stylesheets",
                survey.stylesheets().stream()
                        .map(sheet -> answer(survey, sheet))
                        .toList());
        answer.put(
                "colors",
                survey.colors().rows().stream().map(SurveyCommand::answer).toList());
        answer.put("pictures", survey.pictures());
        answer.put(
                "findings",
                survey.findings().stream().map(SurveyCommand::answer).toList());
        return answer;
    }

    private static Map<String, Object> answer(Survey survey, Survey.SheetSummary sheet) {
        Map<String, Object> answer = new LinkedHashMap<>();
        answer.put("file", sheet.file());
        answer.put("bytes", sheet.bytes());
        answer.put("rules", sheet.rules());
        answer.put("declarations", sheet.declarations());
        SheetRole role = survey.roles().get(sheet.file());
        answer.put("role", role == null ? null : role.kind().name().toLowerCase(Locale.ROOT));
        answer.put("because", role == null ? "" : role.because());
        answer.put("fates", fates(survey, sheet.file()));
        return answer;
    }

    /** How many declarations of a stylesheet come to what on the pages. */
    private static Map<String, Integer> fates(Survey survey, String file) {
        Map<String, Integer> counts = new LinkedHashMap<>();
        for (Fates.Kind kind : Fates.Kind.values()) {
            counts.put(kind.name().toLowerCase(Locale.ROOT).replace('_', '-'), 0);
        }
        survey.fates().forEach((key, fate) -> {
            if (key.file().equals(file)) {
                counts.merge(fate.kind().name().toLowerCase(Locale.ROOT).replace('_', '-'), 1, Integer::sum);
            }
        });
        return counts;
    }

    private static Map<String, Object> answer(Finding f) {
        Map<String, Object> answer = new LinkedHashMap<>();
        answer.put("kind", f.kind().key());
        answer.put("group", f.group().words());
        answer.put("file", f.file());
        answer.put("line", f.line());
        answer.put("column", f.column());
        answer.put("message", f.message());
        answer.put("mend", f.mend());
        answer.put("canBeMended", f.canBeMended());
        return answer;
    }

    private static Map<String, Object> answer(ColorRow row) {
        Map<String, Object> answer = new LinkedHashMap<>();
        answer.put("value", row.value());
        answer.put("count", row.uses().size());
        answer.put("uses", row.uses().stream().map(SurveyCommand::answer).toList());
        return answer;
    }

    private static Map<String, Object> answer(ColorUse use) {
        Map<String, Object> answer = new LinkedHashMap<>();
        answer.put("file", use.file());
        answer.put("line", use.line());
        answer.put("column", use.column());
        answer.put("selector", use.selector());
        answer.put("property", use.property());
        answer.put("written", use.written());
        answer.put("conditions", use.conditions());
        return answer;
    }

    private static void print(Survey survey, PrintWriter out) {
        for (Survey.SheetSummary s : survey.stylesheets()) {
            out.printf(
                    "%s: %d bytes, %d rules, %d declarations%s%n",
                    s.file(),
                    s.bytes(),
                    s.rules(),
                    s.declarations(),
                    survey.roles().get(s.file()).lasts()
                            ? ""
                            : "; edits do not last: "
                                    + survey.roles().get(s.file()).because());
            fates(survey, s.file()).forEach((kind, count) -> {
                if (count > 0) {
                    out.printf("  %5d %s%n", count, kind.replace('-', ' '));
                }
            });
        }
        List<ColorRow> rows = survey.colors().rows();
        out.printf("%n%d colours%n", rows.size());
        for (ColorRow row : rows) {
            out.printf("  %-10s %4d  %s%n", row.value(), row.uses().size(), String.join("  ", row.spellings()));
        }
        out.printf("%n%d pictures%n", survey.pictures().size());
        for (PictureUse p : survey.pictures()) {
            out.printf(
                    "  %s:%d  %s  %s%n",
                    p.file(),
                    p.line(),
                    p.url(),
                    p.exists() ? p.width() + " by " + p.height() + ", " + p.bytes() + " bytes" : "is not there");
        }
        out.printf("%n%d findings%n", survey.findings().size());
        Finding.Group group = null;
        for (Finding f : survey.findings()) {
            if (f.group() != group) {
                group = f.group();
                out.printf("%n  %s%n", group.words());
            }
            out.printf("  %s:%d  [%s] %s %s%n", f.file(), f.line(), f.kind().key(), f.message(), f.mend());
        }
        out.flush();
    }
}
