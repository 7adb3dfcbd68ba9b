package org.calmpalette.app;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.File;
import java.io.IOException;
import java.net.ServerSocket;
import java.nio.file.Files;
import java.nio.file.Path;
import java.time.Duration;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import java.util.concurrent.TimeUnit;
import java.util.function.BooleanSupplier;
import org.junit.jupiter.api.AfterEach;
import org.junit.jupiter.api.io.TempDir;

/** The packed application as {@code ./calm} runs it, in a folder of its own, so that several can be tested at once. */
abstract class PackedApplication {
    static final Path ROOT = Path.of("..").toAbsolutePath().normalize();
    final Path run;
    private final int databasePort;

    /** @param databasePort from which a free one is looked for: two that look at once would find the same one */
    PackedApplication(String folder, int databasePort) {
        this.databasePort = databasePort;
        run = Path.of("target/" + folder).toAbsolutePath();
    }

    @TempDir
    Path folder;

    record Said(int code, String words) {}

    Said calm(Path from, String... arguments) throws IOException, InterruptedException {
        List<String> command = new ArrayList<>(List.of(from.resolve("calm").toString()));
        if (!Files.exists(from.resolve("calm"))) {
            command.set(0, ROOT.resolve("calm").toString());
        }
        command.addAll(List.of(arguments));
        // Into a file: what is started goes on with it, and would keep a pipe open for ever.
        File out = File.createTempFile("calm", ".out", folder.toFile());
        ProcessBuilder builder = new ProcessBuilder(command)
                .directory(from.toFile())
                .redirectErrorStream(true)
                .redirectOutput(out)
                .redirectInput(new File("/dev/null"));
        builder.environment().put("CALM_RUN", run.toString());
        builder.environment().put("CALM_DATABASE_PORT", String.valueOf(databasePort));
        Process process = builder.start();
        assertThat(process.waitFor(5, TimeUnit.MINUTES))
                .as(Arrays.toString(arguments))
                .isTrue();
        return new Said(process.exitValue(), Files.readString(out.toPath()));
    }

    static void await(String what, BooleanSupplier condition) throws InterruptedException {
        long end = System.nanoTime() + Duration.ofMinutes(4).toNanos();
        while (!condition.getAsBoolean()) {
            assertThat(System.nanoTime()).as(what).isLessThan(end);
            Thread.sleep(100);
        }
    }

    static int freePort() throws IOException {
        try (ServerSocket socket = new ServerSocket(0)) {
            return socket.getLocalPort();
        }
    }

    static void kill(String pid) throws IOException, InterruptedException {
        assertThat(new ProcessBuilder("kill", "-9", pid).start().waitFor()).isZero();
    }

    String pid(String file) throws IOException {
        return Files.readString(run.resolve(file)).strip().split(" ")[0];
    }

    @AfterEach
    void stop() throws IOException, InterruptedException {
        calm(ROOT, "stop");
    }
}
