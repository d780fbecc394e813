package sandpiper.store;

import static org.assertj.core.api.Assertions.assertThat;

import java.nio.file.Path;
import java.sql.DriverManager;
import java.sql.SQLException;
import java.time.Duration;
import java.time.Instant;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import java.util.Map;
import org.jspecify.annotations.Nullable;
import org.junit.jupiter.api.Tag;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import sandpiper.engine.command.Outcome;

/** A formula that becomes another over many records is worked out for them bit by bit. */
class RecomputationTest {
    private static final int MANY = 6_000;
    private static final int BATCH = 500;
    private static final String OWNER =
            """
            object: Owner
            key: code
            fields:
              code: { type: text, length: 10, required: true }
              spent: { type: integer, formula: sum(stays.total) }
            """;
    private static final String STAY =
            """
            object: Stay
            key: number
            fields:
              number: { type: text, length: 10, required: true }
              owner: { type: reference, to: Owner, inverse: stays }
              nights: { type: integer }
              total: { type: integer, formula: nights * 10 }
            """;

    @TempDir Path folder;

    private static void fill(Harness marina) {
        marina.create("Owner", "code", "OW-1");
        for (int from = 0; from < MANY; from += BATCH) {
            var rows = new ArrayList<Map<String, @Nullable Object>>();
            for (int i = from; i < from + BATCH; i++) {
                rows.add(Harness.values("number", "S-" + i, "owner", "OW-1", "nights", 2L));
            }
            assertThat(marina.createTogether("Stay", rows))
                    .allMatch(outcome -> outcome instanceof Outcome.Done);
        }
    }

    private static void await(Harness marina) throws InterruptedException {
        var end = Instant.now().plus(Duration.ofSeconds(60));
        while (!marina.engine.releases().recomputing().isEmpty()) {
            assertThat(Instant.now()).isBefore(end);
            Thread.sleep(20);
        }
    }

    private static String otherPrice() {
        return STAY.replace("nights * 10", "nights * 25");
    }

    @Test
    void whoeverWritesGoesOnAndEverythingIsRightInTheEnd() throws InterruptedException {
        try (var marina = new Harness(folder).release(OWNER, STAY)) {
            fill(marina);
            marina.release(OWNER, otherPrice());
            assertThat(marina.engine.releases().recomputing())
                    .extracting("formula")
                    .containsExactly("Stay.total");

            marina.change("Stay", "S-5999", "nights", 4L);
            marina.create("Stay", "number", "S-new", "owner", "OW-1", "nights", 1L);
            assertThat(marina.text("Stay", "S-5999", "total")).isEqualTo("100");

            await(marina);
            for (var number : List.of("S-0", "S-3000", "S-5998")) {
                assertThat(marina.text("Stay", number, "total")).isEqualTo("50");
            }
            assertThat(marina.text("Stay", "S-new", "total")).isEqualTo("25");
            assertThat(marina.text("Owner", "OW-1", "spent"))
                    .isEqualTo(String.valueOf(50 * (MANY - 1) + 100 + 25));
        }
    }

    @Test
    void itGoesOnWhereAStopInterruptedIt() throws InterruptedException {
        try (var marina = new Harness(folder).release(OWNER, STAY)) {
            fill(marina);
            marina.release(OWNER, otherPrice());
        }
        try (var marina = new Harness(folder)) {
            await(marina);
            assertThat(marina.text("Stay", "S-5999", "total")).isEqualTo("50");
            assertThat(marina.text("Owner", "OW-1", "spent")).isEqualTo(String.valueOf(50 * MANY));
        }
    }

    /** As if an earlier version had stored it: wrong values, and of which revision they are. */
    private void storedByAnEarlierVersion(@Nullable String revision) throws SQLException {
        try (var file = DriverManager.getConnection("jdbc:sqlite:" + folder.resolve("data.db"));
                var statement = file.createStatement()) {
            statement.executeUpdate("update stay set total = 7");
            statement.executeUpdate("update owner set spent = 7");
            statement.executeUpdate(
                    "delete from sandpiper_setting where name = 'formulas-revision'");
            if (revision != null) {
                statement.executeUpdate(
                        "insert into sandpiper_setting (name, value) values ('formulas-revision',"
                                + " '%s')".formatted(revision));
            }
        }
    }

    private String revision() throws SQLException {
        try (var file = DriverManager.getConnection("jdbc:sqlite:" + folder.resolve("data.db"));
                var row =
                        file.createStatement()
                                .executeQuery(
                                        "select value from sandpiper_setting where name ="
                                                + " 'formulas-revision'")) {
            return row.getString(1);
        }
    }

    @Tag("sqlite")
    @Test
    void whatAnEarlierVersionStoredIsWorkedOutAnewAtTheFirstStartAndOnlyThen() throws Exception {
        try (var marina = new Harness(folder).release(OWNER, STAY)) {
            marina.create("Owner", "code", "OW-1");
            marina.create("Stay", "number", "S-1", "owner", "OW-1", "nights", 2L);
            marina.create("Stay", "number", "S-2", "owner", "OW-1", "nights", 3L);
        }
        String now = revision();
        for (var earlier : Arrays.asList(null, "1")) {
            storedByAnEarlierVersion(earlier);
            try (var marina = new Harness(folder)) {
                await(marina);
                assertThat(marina.text("Stay", "S-1", "total")).isEqualTo("20");
                assertThat(marina.text("Stay", "S-2", "total")).isEqualTo("30");
                assertThat(marina.text("Owner", "OW-1", "spent")).isEqualTo("50");
                assertThat(marina.keys("Owner", "spent = 50")).containsExactly("OW-1");
            }
            assertThat(revision()).isEqualTo(now);
        }

        storedByAnEarlierVersion(now);
        try (var marina = new Harness(folder)) {
            assertThat(marina.engine.releases().recomputing()).isEmpty();
            assertThat(marina.text("Stay", "S-1", "total")).isEqualTo("7");
        }
    }

    @Test
    void aFormulaThatALaterReleaseTakesAwayIsLeft() throws InterruptedException {
        try (var marina = new Harness(folder).release(OWNER, STAY)) {
            fill(marina);
            marina.release(OWNER, otherPrice());
            marina.release(
                    OWNER.replace("sum(stays.total)", "sum(stays.nights)"),
                    STAY.replaceAll("(?m)^ *total:.*\n", ""));
            await(marina);

            assertThat(marina.show("Stay", "S-1")).doesNotContainKey("total");
        }
    }
}
