package org.calmpalette.cli;

import java.io.IOException;
import java.io.StringWriter;
import java.nio.charset.StandardCharsets;
import java.nio.file.FileSystemException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.function.Predicate;
import javax.xml.stream.XMLOutputFactory;
import javax.xml.stream.XMLStreamException;
import javax.xml.stream.XMLStreamWriter;
import org.calmpalette.core.BadInputException;
import org.calmpalette.core.promise.Answer;
import org.calmpalette.core.promise.Promise;
import org.calmpalette.core.promise.Promises;
import org.calmpalette.core.theme.Theme;
import tools.jackson.databind.json.JsonMapper;

/**
 * What was promised, for a theme's own build: JUnit XML as build servers read it (common practice, there is no standard of it), and SARIF
 * 2.1.0 (OASIS, Static Analysis Results Interchange Format).
 */
final class Reports {
    private static final JsonMapper MAPPER = JsonMapper.builder().build();

    private Reports() {}

    static void write(Path file, String text) throws IOException {
        try {
            Files.writeString(file, text, StandardCharsets.UTF_8);
        } catch (FileSystemException e) {
            throw new BadInputException(
                    file + " cannot be written.", "Name a file in a folder that is there and may be written to.");
        }
    }

    /** A suite for each promise: what is broken fails, what is not decided is skipped. */
    static String junit(Theme theme, List<Answer> answers) {
        StringWriter out = new StringWriter();
        try {
            XMLStreamWriter xml = XMLOutputFactory.newFactory().createXMLStreamWriter(out);
            xml.writeStartDocument("UTF-8", "1.0");
            xml.writeStartElement("testsuites");
            for (Promise p : Promise.values()) {
                List<Answer> of = answers.stream().filter(a -> a.promise() == p).toList();
                xml.writeStartElement("testsuite");
                xml.writeAttribute("name", p.key());
                xml.writeAttribute("tests", String.valueOf(of.size()));
                xml.writeAttribute("failures", count(of, Answer::isBroken));
                xml.writeAttribute("skipped", count(of, a -> a.state() != Answer.State.KEPT && !a.isBroken()));
                for (Answer a : of) {
                    Promises.Where where = Promises.where(theme, a);
                    xml.writeStartElement("testcase");
                    xml.writeAttribute(
                            "classname", p.key() + "." + (a.page().isEmpty() ? "settings" : plain(a.page())));
                    xml.writeAttribute("name", plain(a.id()));
                    xml.writeAttribute("file", plain(where.file()));
                    xml.writeAttribute("line", String.valueOf(where.line()));
                    if (a.state() != Answer.State.KEPT) {
                        xml.writeEmptyElement(a.isBroken() ? "failure" : "skipped");
                        xml.writeAttribute("message", plain((a.isWaived() ? "Not promised. " : "") + a.inWords()));
                    }
                    xml.writeEndElement();
                }
                xml.writeEndElement();
            }
            xml.writeEndElement();
            xml.writeEndDocument();
            xml.close();
        } catch (XMLStreamException e) {
            throw new IllegalStateException(e);
        }
        return out + "\n";
    }

    private static String count(List<Answer> answers, Predicate<Answer> which) {
        return String.valueOf(answers.stream().filter(which).count());
    }

    /** XML 1.0 has no control characters, however they are written. */
    private static String plain(String text) {
        return text.replaceAll("[\\x00-\\x08\\x0b\\x0c\\x0e-\\x1f\\ufffe\\uffff]", "\ufffd");
    }

    static String sarif(Theme theme, List<Answer> answers) {
        List<Object> rules = new ArrayList<>();
        for (Promise p : Promise.values()) {
            rules.add(Map.of(
                    "id",
                    p.key(),
                    "name",
                    p.label(),
                    "shortDescription",
                    Map.of("text", p.holds(theme.palette().thresholds()))));
        }
        List<Object> results = answers.stream()
                .filter(a -> a.state() != Answer.State.KEPT && !a.isWaived())
                .<Object>map(a -> {
                    Promises.Where where = Promises.where(theme, a);
                    return Map.of(
                            "ruleId",
                            a.promise().key(),
                            "ruleIndex",
                            a.promise().ordinal(),
                            "kind",
                            a.isBroken() ? "fail" : "open",
                            "level",
                            a.isBroken() ? "error" : "none",
                            "message",
                            Map.of("text", a.selector() + ": " + a.inWords()),
                            "partialFingerprints",
                            Map.of("calmPromise/v1", a.id()),
                            "locations",
                            List.of(Map.of(
                                    "physicalLocation",
                                    Map.of(
                                            "artifactLocation",
                                            Map.of("uri", org.calmpalette.core.page.Paths.address(where.file())),
                                            "region",
                                            Map.of("startLine", where.line())))));
                })
                .toList();
        return MAPPER.writerWithDefaultPrettyPrinter()
                        .writeValueAsString(Map.of(
                                "version",
                                "2.1.0",
                                "$schema",
                                "https://json.schemastore.org/sarif-2.1.0.json",
                                "runs",
                                List.of(Map.of(
                                        "tool",
                                        Map.of("driver", Map.of("name", "Calm Palette", "rules", rules)),
                                        "results",
                                        results))))
                + "\n";
    }
}
