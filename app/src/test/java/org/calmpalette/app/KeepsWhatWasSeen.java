package org.calmpalette.app;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.IOException;
import java.nio.file.Path;
import org.junit.jupiter.api.extension.AfterAllCallback;
import org.junit.jupiter.api.extension.AfterEachCallback;
import org.junit.jupiter.api.extension.AfterTestExecutionCallback;
import org.junit.jupiter.api.extension.BeforeEachCallback;
import org.junit.jupiter.api.extension.ExtensionContext;

/**
 * Of a test that failed with windows open: what they showed is kept in {@code target/failures/}. Then all windows are closed.
 * A test during which a script of our pages failed has failed too.
 */
public final class KeepsWhatWasSeen
        implements BeforeEachCallback, AfterTestExecutionCallback, AfterEachCallback, AfterAllCallback {
    @Override
    public void beforeEach(ExtensionContext test) {
        Browsers.testBegins();
    }

    @Override
    public void afterTestExecution(ExtensionContext test) throws IOException {
        if (test.getExecutionException().isPresent()) {
            Path folder = Path.of(
                    "target/failures",
                    test.getRequiredTestClass().getSimpleName() + "."
                            + test.getRequiredTestMethod().getName());
            Browsers.keep(folder);
            System.out.println("What its windows showed is in app/" + folder);
        } else {
            assertThat(Browsers.errors())
                    .as("no script of ours fails, whatever is done")
                    .isEmpty();
        }
    }

    @Override
    public void afterEach(ExtensionContext test) {
        Browsers.closeAll();
    }

    @Override
    public void afterAll(ExtensionContext tests) {
        Browsers.classIsOver();
    }
}
