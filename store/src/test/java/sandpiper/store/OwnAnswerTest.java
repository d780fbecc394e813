package sandpiper.store;

import static org.assertj.core.api.Assertions.assertThat;

import java.nio.file.Path;
import java.util.ArrayList;
import java.util.HashSet;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import java.util.concurrent.Callable;
import java.util.concurrent.Executors;
import org.jspecify.annotations.Nullable;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import sandpiper.engine.access.Actor;
import sandpiper.engine.command.Outcome;
import sandpiper.engine.command.RecordCommand;
import sandpiper.engine.command.Request;
import sandpiper.engine.read.PlainRecords;

/** The answer to a change tells what that change made, whoever else changes the record. */
class OwnAnswerTest {
    private static final int WRITERS = 16;
    private static final int CHANGES = 25;

    @TempDir Path folder;

    private record Answer(
            String sent, @Nullable Object note, @Nullable Object twice, long version) {}

    @Test
    void sixteenWritersOnOneRecordEachSeeTheirOwn() throws Exception {
        try (var yard =
                        new Harness(folder)
                                .release(
                                        """
                                        object: Job
                                        key: code
                                        fields:
                                          code: { type: text }
                                          note: { type: text }
                                          twice: { type: text, formula: note + note }
                                        """);
                var threads = Executors.newVirtualThreadPerTaskExecutor()) {
            yard.create("Job", "code", "A");
            List<Callable<List<Answer>>> writers = new ArrayList<>();
            for (int i = 0; i < WRITERS; i++) {
                int writer = i;
                writers.add(() -> {
                    var answers = new ArrayList<Answer>();
                    for (int change = 0; change < CHANGES; change++) {
                        answers.add(change(yard, writer + "/" + change + ";"));
                    }
                    return answers;
                });
            }
            var versions = new HashSet<Long>();
            for (var done : threads.invokeAll(writers)) {
                for (var answer : done.get()) {
                    assertThat(answer.note()).isEqualTo(answer.sent());
                    assertThat(answer.twice()).isEqualTo(answer.sent() + answer.sent());
                    assertThat(versions.add(answer.version())).as("a version of its own").isTrue();
                }
            }
        }
    }

    private static Answer change(Harness yard, String note) {
        var answered =
                yard.engine
                        .records()
                        .write(
                                live -> {
                                    var type = live.release().object("Job");
                                    return new Request(
                                            new RecordCommand.Change(
                                                    type,
                                                    live.release().everythingOf(type),
                                                    "A",
                                                    Map.of("note", note),
                                                    null),
                                            Actor.SYSTEM,
                                            "test",
                                            false);
                                },
                                (live, session, _) -> {
                                    var type = live.release().object("Job");
                                    var tree = live.release().everythingOf(type);
                                    var view =
                                            yard.engine
                                                    .records()
                                                    .find(live, session, type, "A", tree)
                                                    .orElseThrow();
                                    var plain = PlainRecords.of(tree, view);
                                    return new Answer(
                                            note,
                                            plain.get("note"),
                                            plain.get("twice"),
                                            view.version());
                                });
        assertThat(answered.outcome()).isInstanceOf(Outcome.Done.class);
        return Objects.requireNonNull(answered.answer());
    }
}
