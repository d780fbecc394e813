package sandpiper.store;

import static org.assertj.core.api.Assertions.assertThat;

import java.nio.file.Path;
import java.util.ArrayList;
import java.util.concurrent.Executors;
import java.util.concurrent.Future;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import sandpiper.engine.access.Actor;
import sandpiper.engine.command.Outcome;
import sandpiper.engine.definition.Releases;
import sandpiper.model.check.Definitions;

class ReleaseTest {
    private static final int TIMES = 25;

    @TempDir Path folder;

    private static String buoy(int length) {
        return "object: Buoy\nkey: code\nfields: { code: { type: text, length: %d } }\n"
                .formatted(length);
    }

    @Test
    void whatIsServedIsWhatWasReleasedHoweverManyReleaseAtOnce() throws Exception {
        try (var marina = new Harness(folder).release(buoy(10));
                var pool = Executors.newFixedThreadPool(3)) {
            var work = new ArrayList<Future<?>>();
            for (int t = 0; t < 3; t++) {
                int mine = 20 + t;
                work.add(
                        pool.submit(() -> {
                            for (int i = 0; i < TIMES; i++) {
                                marina.engine
                                        .drafts()
                                        .put(
                                                "marina/objects/o00.yaml",
                                                buoy(mine + 10 * i),
                                                null,
                                                Actor.SYSTEM);
                                marina.engine
                                        .releases()
                                        .release(
                                                "again",
                                                new Releases.Accepted(true, true),
                                                Actor.SYSTEM);
                                checkServed(marina);
                            }
                            return true;
                        }));
            }
            for (var one : work) {
                one.get();
            }
            checkServed(marina);
        }
    }

    private static void checkServed(Harness marina) {
        var live = marina.engine.live();
        assertThat(live.release().object("Buoy").fields())
                .isEqualTo(
                        Definitions.check(marina.engine.releases().filesOf(live.number()))
                                .release()
                                .orElseThrow()
                                .object("Buoy")
                                .fields());
    }

    @Test
    void aNumberThatARuleChangesMustBeFreeAsWell() {
        try (var marina =
                new Harness(folder)
                        .release(
                                """
                                object: Buoy
                                key: number
                                numbering: { field: number, pattern: "B-{sequence:3}" }
                                fields:
                                  number: { type: text, length: 10 }
                                  same: { type: boolean, default: false }
                                rules:
                                  again: { on: create, when: same, then: 'set number = "B-001"' }
                                """)) {
            marina.create("Buoy");

            assertThat(Harness.messages(marina.create("Buoy", "same", true)))
                    .containsExactly("There is a Buoy \"B-001\" already.");
            assertThat(marina.create("Buoy")).isInstanceOf(Outcome.Done.class);
        }
    }
}
