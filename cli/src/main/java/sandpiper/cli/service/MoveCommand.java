package sandpiper.cli.service;

import java.util.concurrent.Callable;
import picocli.CommandLine.Command;
import picocli.CommandLine.Option;
import sandpiper.cli.common.AnsweringCommand;
import sandpiper.server.config.DataMove;

@Command(
        name = "move",
        mixinStandardHelpOptions = true,
        description = {
            "Carry everything from a data file to a database, or back.",
            "The services are stopped meanwhile. What arrives is compared with what was there; when"
                    + " it is not the same, nothing is moved. What it is moved from stays as it is."
        },
        footer = {
            "",
            "The password of a database is read from SANDPIPER_DATABASE_PASSWORD.",
            "",
            "Examples:",
            "  sandpiper move --from .sandpiper/data.db --to"
                    + " jdbc:postgresql://db1/marina?user=sandpiper",
            "  sandpiper move --from jdbc:postgresql://db1/marina?user=sandpiper --to data.db"
        })
public final class MoveCommand extends AnsweringCommand implements Callable<Integer> {
    @Option(
            names = "--from",
            required = true,
            paramLabel = "FILE|URL",
            description = "Where everything is.")
    String from;

    @Option(
            names = "--to",
            required = true,
            paramLabel = "FILE|URL",
            description = "Where nothing is yet.")
    String to;

    @Override
    public Integer call() {
        var moved =
                DataMove.move(
                        from,
                        to,
                        System.getenv("SANDPIPER_DATABASE_PASSWORD"),
                        (table, rows, place, of) -> {
                            if (rows > 0) {
                                say("%3d of %d  %s: %,d".formatted(place, of, table, rows));
                            }
                        });
        say(
                "Moved and compared: release %d, %,d rows in %d tables."
                        .formatted(moved.release(), moved.rows(), moved.tables()));
        say(
                "Sealed secrets need the key file of the service it is from: give it to each"
                        + " process as sandpiper.key-file.");
        return say("Start the service with: sandpiper serve --data '%s'".formatted(to));
    }
}
