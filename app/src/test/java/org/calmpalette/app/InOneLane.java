package org.calmpalette.app;

import java.io.IOException;
import java.io.UncheckedIOException;
import java.nio.file.FileAlreadyExistsException;
import java.nio.file.Files;
import java.nio.file.Path;
import org.junit.jupiter.api.extension.ConditionEvaluationResult;
import org.junit.jupiter.api.extension.ExecutionCondition;
import org.junit.jupiter.api.extension.ExtensionContext;

/**
 * Two lanes of a run go through the same classes, and each class is for the one that comes to it first: so both end at the same time, however
 * fast either is. With {@code -Dcalm.taken=FOLDER}, in which a file stands for each class that is taken; without it every class runs.
 */
public final class InOneLane implements ExecutionCondition {
    @Override
    public ConditionEvaluationResult evaluateExecutionCondition(ExtensionContext context) {
        String folder = System.getProperty("calm.taken");
        boolean isClass = context.getElement().filter(Class.class::isInstance).isPresent();
        if (folder == null || !isClass) {
            return ConditionEvaluationResult.enabled("here");
        }
        try {
            Files.createFile(Path.of(folder, context.getRequiredTestClass().getName()));
            return ConditionEvaluationResult.enabled("this lane comes first");
        } catch (FileAlreadyExistsException taken) {
            return ConditionEvaluationResult.disabled("the other lane has it");
        } catch (IOException e) {
            throw new UncheckedIOException(e);
        }
    }
}
