package org.calmpalette.core;

import java.io.IOException;
import java.io.UncheckedIOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.Locale;
import java.util.Map;
import java.util.concurrent.ConcurrentHashMap;
import java.util.concurrent.atomic.AtomicInteger;
import java.util.stream.Collectors;
import org.junit.platform.engine.TestExecutionResult;
import org.junit.platform.engine.support.descriptor.ClassSource;
import org.junit.platform.engine.support.descriptor.MethodSource;
import org.junit.platform.launcher.TestExecutionListener;
import org.junit.platform.launcher.TestIdentifier;
import org.junit.platform.launcher.TestPlan;

/**
 * Tells of each class how long it took as soon as it is done, and of each test that fails which one. With {@code -Dcalm.times=FILE} the
 * seconds of each class, what failed and the counts are written there, for the words at the end of a run.
 */
public final class TestTimes implements TestExecutionListener {
    /** Seconds from which on a single test stands in the file. */
    private static final double SLOW = 5;

    private final Map<String, Long> began = new ConcurrentHashMap<>();
    private final StringBuilder times = new StringBuilder();
    private final AtomicInteger passed = new AtomicInteger();
    private final AtomicInteger failed = new AtomicInteger();
    private final AtomicInteger skipped = new AtomicInteger();

    @Override
    public void executionStarted(TestIdentifier test) {
        began.put(test.getUniqueId(), System.nanoTime());
    }

    @Override
    public void executionSkipped(TestIdentifier test, String reason) {
        // A class that another lane of this run has is none that is left out.
        if (!isClass(test)) {
            skipped.incrementAndGet();
        }
    }

    @Override
    public void executionFinished(TestIdentifier test, TestExecutionResult result) {
        boolean good = result.getStatus() == TestExecutionResult.Status.SUCCESSFUL;
        if (test.isTest() || !good) {
            (good ? passed : failed).incrementAndGet();
        }
        if (!good && System.getProperty("calm.times") != null) {
            String line = "FAILED " + where(test) + " " + test.getDisplayName() + ": "
                    + result.getThrowable()
                            .map(t -> t.toString().lines().limit(3).collect(Collectors.joining(" ")))
                            .orElse("");
            System.out.println(line);
            times.append(line).append('\n');
        }
        double seconds = (System.nanoTime() - began.remove(test.getUniqueId())) / 1e9;
        if (test.isTest() && seconds > SLOW) {
            times.append(String.format(Locale.ROOT, "test %.1f s  %s%n", seconds, where(test)));
        }
        if (isClass(test) && System.getProperty("calm.times") != null) {
            String line = String.format(Locale.ROOT, "%6.1f s  %s", seconds, where(test));
            System.out.println(line);
            times.append(line).append('\n');
        }
    }

    @Override
    public void testPlanExecutionFinished(TestPlan plan) {
        String file = System.getProperty("calm.times");
        if (file != null) {
            try {
                Files.createDirectories(Path.of(file).toAbsolutePath().getParent());
                Files.writeString(Path.of(file), times + "counts " + passed + " " + failed + " " + skipped + "\n");
            } catch (IOException e) {
                throw new UncheckedIOException(e);
            }
        }
    }

    private static boolean isClass(TestIdentifier test) {
        return test.getSource().filter(ClassSource.class::isInstance).isPresent();
    }

    private static String where(TestIdentifier test) {
        return test.getSource()
                .map(s -> s instanceof ClassSource c
                        ? c.getClassName()
                        : s instanceof MethodSource m ? m.getClassName() + "." + m.getMethodName() : "")
                .orElse("");
    }
}
