package org.calmpalette.cli;

import org.calmpalette.core.BadInputException;
import picocli.CommandLine;
import picocli.CommandLine.Command;

/** The command line. Exit 0 when all is well, 1 when something asked about does not hold, 2 when input is unusable. */
@Command(
        name = "calm",
        mixinStandardHelpOptions = true,
        description = "Asks Calm Palette's rules from the command line.",
        subcommands = {
            ContrastCommand.class,
            BackgroundCommand.class,
            SurveyCommand.class,
            ExplainCommand.class,
            FamilyCommand.class,
            BuildCommand.class,
            ExportCommand.class,
            PictureCommand.class,
            CheckCommand.class
        })
public final class Calm {
    private Calm() {}

    public static void main(String[] arguments) {
        System.exit(run(arguments));
    }

    static int run(String... arguments) {
        return new CommandLine(new Calm())
                .setExecutionExceptionHandler((e, line, parsed) -> {
                    if (e instanceof BadInputException bad) {
                        line.getErr().println(bad.getMessage() + " " + bad.mend());
                    } else if (e instanceof java.io.IOException io) {
                        line.getErr().println("Could not read or write: " + io.getMessage());
                    } else {
                        throw e;
                    }
                    return 2;
                })
                .execute(arguments);
    }
}
