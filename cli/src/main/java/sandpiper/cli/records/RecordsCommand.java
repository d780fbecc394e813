package sandpiper.cli.records;

import java.util.concurrent.Callable;
import picocli.CommandLine;
import picocli.CommandLine.Command;
import picocli.CommandLine.Model.CommandSpec;
import picocli.CommandLine.Spec;

@Command(
        name = "records",
        mixinStandardHelpOptions = true,
        description = "Find, show, create, change, import and export records.",
        subcommands = {
            RecordsFindCommand.class,
            RecordsShowCommand.class,
            RecordsCreateCommand.class,
            RecordsChangeCommand.class,
            RecordsDownloadCommand.class,
            RecordsTransitionCommand.class,
            RecordsRetireCommand.class,
            RecordsRestoreCommand.class,
            RecordsImportCommand.class,
            RecordsExportCommand.class
        })
public final class RecordsCommand implements Callable<Integer> {
    @Spec CommandSpec spec;

    @Override
    public Integer call() {
        spec.commandLine().usage(spec.commandLine().getErr());
        return CommandLine.ExitCode.USAGE;
    }
}
