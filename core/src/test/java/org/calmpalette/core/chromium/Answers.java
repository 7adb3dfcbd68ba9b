package org.calmpalette.core.chromium;

import java.io.IOException;
import java.io.InputStream;
import java.io.UncheckedIOException;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.security.MessageDigest;
import java.security.NoSuchAlgorithmException;
import java.util.ArrayList;
import java.util.HexFormat;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.zip.GZIPInputStream;
import java.util.zip.GZIPOutputStream;

/**
 * What Chromium answered, once, as a file: {@code chromium/NAME.txt.gz}. A line that starts with # names a question and the hash
 * of what was asked about; the answers follow, one a line. Tests of core read it; {@code ChromiumAnswersTest} of the application
 * asks the browser again and confirms the file, or writes it anew with {@code -Dcalm.record=true}.
 */
public final class Answers {
    private final String name;
    private final Map<String, List<String>> byQuestion;

    private Answers(String name, Map<String, List<String>> byQuestion) {
        this.name = name;
        this.byQuestion = byQuestion;
    }

    public static Answers read(String name) {
        Map<String, List<String>> all = new LinkedHashMap<>();
        try (InputStream in = hunted(name) != null && Files.exists(hunted(name))
                ? Files.newInputStream(hunted(name))
                : Answers.class.getResourceAsStream("/chromium/" + name + ".txt.gz")) {
            List<String> now = null;
            String text = in == null ? "" : new String(new GZIPInputStream(in).readAllBytes(), StandardCharsets.UTF_8);
            for (String line : text.split("\n", -1)) {
                if (line.startsWith("# ")) {
                    now = new ArrayList<>();
                    all.put(line.substring(2), now);
                } else if (now != null) {
                    now.add(line.replace("\\n", "\n").replace("\\\\", "\\"));
                }
            }
        } catch (IOException e) {
            throw new UncheckedIOException(e);
        }
        return new Answers(name, all);
    }

    /** Answers to the generated questions of a hunt lie beside those that are kept. */
    private static Path hunted(String name) {
        String folder = System.getProperty("calm.answers");
        return folder == null ? null : Path.of(folder, name + ".txt.gz");
    }

    /** @throws IllegalStateException if what is asked about is not what was asked about when the file was made */
    public List<String> to(String question) {
        List<String> answers = byQuestion.get(question);
        if (answers == null) {
            throw new IllegalStateException(
                    "chromium/" + name + ".txt.gz has no answers to “" + question + "”: what is asked has changed. "
                            + "Record them anew: ./calm test ChromiumAnswersTest -Dcalm.record=true");
        }
        return answers;
    }

    /** The version of the browser that gave the answers that are kept. */
    public static String givenBy() {
        try (InputStream in = Answers.class.getResourceAsStream("/chromium/version.txt")) {
            return new String(in.readAllBytes(), StandardCharsets.UTF_8).strip();
        } catch (IOException e) {
            throw new UncheckedIOException(e);
        }
    }

    /** Notes which version gives the answers that are being recorded; of those of a hunt nothing is kept. */
    public static void givenBy(String version) {
        if (System.getProperty("calm.answers") == null) {
            try {
                Files.writeString(Path.of("../core/src/test/resources/chromium/version.txt"), version + "\n");
            } catch (IOException e) {
                throw new UncheckedIOException(e);
            }
        }
    }

    /** Writes the file into the sources of core's tests. */
    public static void write(String name, Map<String, List<String>> answers) {
        StringBuilder out = new StringBuilder();
        answers.forEach((question, list) -> {
            out.append("# ").append(question).append('\n');
            list.forEach(a ->
                    out.append(a.replace("\\", "\\\\").replace("\n", "\\n")).append('\n'));
        });
        if (!out.isEmpty()) {
            out.setLength(out.length() - 1);
        }
        Path file = hunted(name) != null
                ? hunted(name)
                : Path.of("../core/src/test/resources/chromium/" + name + ".txt.gz");
        try (GZIPOutputStream gzip = new GZIPOutputStream(Files.newOutputStream(file))) {
            gzip.write(out.toString().getBytes(StandardCharsets.UTF_8));
        } catch (IOException e) {
            throw new UncheckedIOException(e);
        }
    }

    /** Names what is asked about by its bytes. */
    static String hash(byte[]... all) {
        try {
            MessageDigest digest = MessageDigest.getInstance("SHA-256");
            for (byte[] b : all) {
                digest.update(b);
            }
            return HexFormat.of().formatHex(digest.digest(), 0, 6);
        } catch (NoSuchAlgorithmException e) {
            throw new IllegalStateException(e);
        }
    }

    static String hash(String... all) {
        return hash(String.join("\0", all).getBytes(StandardCharsets.UTF_8));
    }

    /** Equal, with numbers to the precision in which browsers keep them: single, so about one in five thousand here. */
    public static boolean same(String a, String b) {
        if (a.equals(b)) {
            return true;
        }
        String[] as = a.split("(?<=[^\\d.-])(?=[-.\\d])|(?<=[.\\d])(?=[^\\d.])");
        String[] bs = b.split("(?<=[^\\d.-])(?=[-.\\d])|(?<=[.\\d])(?=[^\\d.])");
        if (as.length != bs.length) {
            return false;
        }
        for (int i = 0; i < as.length; i++) {
            boolean number = as[i].matches("-?\\d*\\.?\\d+") && bs[i].matches("-?\\d*\\.?\\d+");
            if (number
                    ? Math.abs(Double.parseDouble(as[i]) - Double.parseDouble(bs[i]))
                            > 2e-4 * Math.max(1, Math.abs(Double.parseDouble(bs[i])))
                    : !as[i].equals(bs[i])) {
                return false;
            }
        }
        return true;
    }
}
