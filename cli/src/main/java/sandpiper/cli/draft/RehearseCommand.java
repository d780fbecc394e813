package sandpiper.cli.draft;

import java.io.PrintWriter;
import java.time.Duration;
import java.util.List;
import java.util.concurrent.Callable;
import picocli.CommandLine.Command;
import picocli.CommandLine.Mixin;
import picocli.CommandLine.Option;
import sandpiper.cli.common.AnsweringCommand;
import sandpiper.cli.common.Connection;
import sandpiper.client.Answer;
import sandpiper.client.DraftCalls;

@Command(
        name = "rehearse",
        mixinStandardHelpOptions = true,
        description = {
            "Release the draft on a copy of the live data, to see what it does there and how long"
                    + " it takes.",
            "The service goes on meanwhile. The copy is served at /rehearsal for a day, with the"
                + " same people and clients; nothing is sent from it. Calls that were recorded are"
                + " replayed on it."
        },
        footer = {
            "",
            "Examples:",
            "  sandpiper rehearse",
            "  sandpiper records find Stay --server http://127.0.0.1:8080/rehearsal",
            "  sandpiper rehearse --end"
        })
public final class RehearseCommand extends AnsweringCommand implements Callable<Integer> {
    private static final Duration STEP = Duration.ofMillis(200);

    @Mixin Connection connection;

    @Option(names = "--end", description = "End the rehearsal that is under way or served.")
    boolean end;

    @Option(names = "--json", description = "Print JSON.")
    boolean json;

    @Override
    public Integer call() throws InterruptedException {
        var draft = connection.open().draft();
        if (end) {
            draft.endRehearsal();
            return say("The rehearsal is ended.");
        }
        Answer<DraftCalls.Rehearsed> rehearsal = draft.rehearse();
        while (!rehearsal.value().over()) {
            Thread.sleep(STEP);
            rehearsal = draft.rehearsal();
        }
        var came = rehearsal.value();
        if (json) {
            sayJson(rehearsal);
        } else {
            tell(came, out());
            tellPlace(came, connection.open().server());
        }
        out().flush();
        boolean good = came.stage().equals("done") && came.failing().isEmpty();
        return good ? 0 : 1;
    }

    private static void tell(DraftCalls.Rehearsed came, PrintWriter out) {
        out.printf(
                "On a copy of release %d, %,d MB, made in %s:%n",
                came.release(), came.bytes() >> 20, seconds(came.copyMillis()));
        if (came.preview() != null) {
            out.print(DiffCommand.inWords(came.preview()));
        }
        if (came.stage().equals("done")) {
            out.printf(
                    "The release takes %s, in which nobody can write.%n",
                    seconds(came.releaseMillis()));
            if (!came.formulas().isEmpty()) {
                out.printf(
                        "Afterwards %s worked out anew for all records, in %s, while requests are"
                                + " served: %s.%n",
                        came.formulas().size() == 1
                                ? "a formula is"
                                : came.formulas().size() + " formulas are",
                        seconds(came.formulaMillis()),
                        joined(came.formulas()));
            }
            tell("Examples that do not hold", came.failing(), out);
            tell(
                    "Examples that hold, but no longer or not yet on the records there are",
                    came.differing(),
                    out);
            if (came.replay() != null) {
                tell(came.replay(), out);
            }
        }
        if (came.message() != null) {
            out.println(came.message());
        }
    }

    private static void tell(String title, List<DraftCalls.Unproved> examples, PrintWriter out) {
        if (!examples.isEmpty()) {
            out.println(title + ":");
            examples.forEach(one ->
                    out.printf(
                            "  - %s, %s: %s%n",
                            one.requirement(), one.label(), String.join(" ", one.problems())));
        }
    }

    private void tellPlace(DraftCalls.Rehearsed came, String server) {
        if (came.served() != null) {
            out().printf(
                            "The copy is served at %s%s until %s; end it with sandpiper rehearse"
                                    + " --end.%n",
                            server, came.served().place(), came.served().until());
        }
    }

    private static void tell(DraftCalls.Replayed replay, PrintWriter out) {
        out.printf(
                "%,d recorded %s played, without the draft and with it; %s.%n",
                replay.played(),
                replay.played() == 1 ? "call was" : "calls were",
                replay.differences().isEmpty()
                        ? "all are answered alike"
                        : "these are answered otherwise");
        for (var one : replay.differences()) {
            out.printf(
                    "  - %,d of %,d %s: %s -> %s%n    as %s%n",
                    one.count(), one.of(), one.call(), one.now(), one.then(), one.example());
        }
        if (replay.skipped() > 0) {
            out.printf("%,d could not be played.%n", replay.skipped());
        }
    }

    private static String seconds(long millis) {
        return millis < 1_000 ? "%d ms".formatted(millis) : "%.1f s".formatted(millis / 1_000.0);
    }
}
