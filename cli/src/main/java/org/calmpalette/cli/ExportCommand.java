package org.calmpalette.cli;

import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.concurrent.Callable;
import org.calmpalette.core.BadInputException;
import org.calmpalette.core.formats.SettingSource;
import org.calmpalette.core.intake.ThemeFolder;
import org.calmpalette.core.theme.Theme;
import picocli.CommandLine.Command;
import picocli.CommandLine.Model.CommandSpec;
import picocli.CommandLine.Option;
import picocli.CommandLine.Parameters;
import picocli.CommandLine.Spec;

@Command(
        name = "export",
        mixinStandardHelpOptions = true,
        description =
                "The settings of a theme in an open format: tokens.json, settings.scss, settings.less, palette.schema.json or values.schema.json.")
final class ExportCommand implements Callable<Integer> {
    @Spec
    private CommandSpec spec;

    @Parameters(paramLabel = "THEME")
    private Path theme;

    @Option(names = "--as", required = true, paramLabel = "NAME", description = "The name of the format's file.")
    private String format;

    @Option(names = "--out", paramLabel = "FILE", description = "Where to write it; the terminal if it is not given.")
    private Path target;

    @Override
    public Integer call() throws IOException {
        Theme read = ThemeFolder.read(theme);
        byte[] bytes = SettingSource.written(read, format)
                .orElseThrow(() -> new BadInputException(
                        "There is no format “" + format + "”.",
                        "Name one of " + String.join(", ", SettingSource.WRITTEN) + "."));
        if (target == null) {
            spec.commandLine().getOut().print(new String(bytes, StandardCharsets.UTF_8));
            spec.commandLine().getOut().flush();
        } else {
            Files.write(target, bytes);
        }
        read.palette().faults().forEach(f -> spec.commandLine().getErr().println(f.message() + ". " + f.mend()));
        return 0;
    }
}
