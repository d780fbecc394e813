package sandpiper.store;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.sql.DriverManager;
import java.sql.SQLException;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import org.junit.jupiter.api.AfterEach;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Tag;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.ValueSource;
import sandpiper.engine.command.Outcome;
import sandpiper.engine.port.StorageException;
import sandpiper.store.postgres.PostgresSettings;
import sandpiper.testing.PrivatePostgres;

/** The disk of the database is full when a table is written, each in its turn, or at the commit. */
@Tag("postgres")
class FullDiskTest {
    private static final String TANK =
            """
            object: Tank
            key: code
            fields:
              code:  { type: text, length: 20, required: true }
              level: { type: integer, formula: "sum(pours.amount)" }
            """;
    private static final String POUR =
            """
            object: Pour
            key: number
            numbering: { field: number, pattern: "P-{sequence:4}", gapless: true }
            fields:
              number: { type: text, length: 20 }
              tank:   { type: reference, to: Tank, required: true, inverse: pours }
              amount: { type: integer, required: true }
            parts:
              notes: { fields: { said: { type: text, length: 20 } } }
            rules:
              poured:
                on: create
                then: |
                  emit Poured { amount: amount }
            """;
    private static final String POURED =
            """
            event: Poured
            about: Pour
            fields:
              amount: { type: integer }
            """;

    private String url = "";
    private Harness yard;

    @BeforeEach
    void begin() throws SQLException {
        url = PrivatePostgres.shared().schema();
        yard = new Harness(PostgresStorage.open(PostgresSettings.usual(url), Harness.CLOCK));
        yard.release(files(TANK));
        assertThat(yard.create("Tank", "code", "T")).isInstanceOf(Outcome.Done.class);
        sql(
                """
                create function no_room() returns trigger language plpgsql as $$
                begin raise exception 'could not extend file' using errcode = 'disk_full'; end $$\
                """);
    }

    private static Map<String, String> files(String tank) {
        return Map.of(
                "yard/package.yaml", "package: yard\nversion: 1\n",
                "yard/objects/tank.yaml", tank,
                "yard/objects/pour.yaml", POUR,
                "yard/events/poured.yaml", POURED);
    }

    @AfterEach
    void end() {
        yard.close();
    }

    private void sql(String statement) throws SQLException {
        try (var line = DriverManager.getConnection(url);
                var made = line.createStatement()) {
            made.execute(statement);
        }
    }

    private void fillUp(String table) throws SQLException {
        sql(
                "create trigger full_disk before insert or update on \"%s\" for each row execute function no_room()"
                        .formatted(table));
    }

    private void makeRoom(String table) throws SQLException {
        sql("drop trigger full_disk on \"%s\"".formatted(table));
    }

    private List<String> tables() throws SQLException {
        var tables = new ArrayList<String>();
        try (var line = DriverManager.getConnection(url);
                var made = line.createStatement();
                var rows =
                        made.executeQuery(
                                "select tablename from pg_tables where schemaname ="
                                        + " current_schema() order by tablename")) {
            while (rows.next()) {
                tables.add(rows.getString(1));
            }
        }
        return tables;
    }

    private Outcome pour() {
        return yard.create("Pour", "tank", "T", "amount", 1L);
    }

    private long level() {
        return ((Number) yard.show("Tank", "T").get("level")).longValue();
    }

    /** Nothing is kept of what was refused, and the next has the number that it would have had. */
    private void isDoneAsTheOnly(long poured) {
        assertThat(level()).isEqualTo(poured - 1);
        assertThat(pour()).isInstanceOf(Outcome.Done.class);
        assertThat(level()).isEqualTo(poured);
        assertThat(yard.show("Pour", "P-%04d".formatted(poured)).get("amount")).isEqualTo(1L);
    }

    @Test
    void aWriteIsRefusedWithTheReasonAndLeavesNothing() throws SQLException {
        long poured = 0;
        var refused = new ArrayList<String>();
        for (var table : tables()) {
            fillUp(table);
            try {
                assertThat(pour()).as(table).isInstanceOf(Outcome.Done.class);
                poured++;
            } catch (StorageException e) {
                assertThat(e).hasMessageStartingWith("The disk of the database is full");
                assertThat(level()).as("read while %s is full", table).isEqualTo(poured);
                refused.add(table);
            }
            makeRoom(table);
            isDoneAsTheOnly(++poured);
        }
        assertThat(refused)
                .contains(
                        "Pour",
                        "Tank",
                        "sandpiper_event_arriving",
                        "sandpiper_history",
                        "sandpiper_series");
    }

    @Test
    void soIsOneThatIsFullAtTheCommit() throws SQLException {
        sql(
                "create constraint trigger full_disk after insert on \"Pour\" deferrable initially"
                        + " deferred for each row execute function no_room()");
        assertThatThrownBy(this::pour)
                .isInstanceOf(StorageException.class)
                .isNotInstanceOf(StorageException.Uncertain.class)
                .hasMessageStartingWith("The disk of the database is full");
        makeRoom("Pour");
        isDoneAsTheOnly(1);
    }

    @ParameterizedTest
    @ValueSource(
            strings = {
                "Tank",
                "sandpiper_draft",
                "sandpiper_draft_version",
                "sandpiper_fence",
                "sandpiper_release",
                "sandpiper_release_file",
                "sandpiper_stamp"
            })
    void aReleaseIsRefusedWithTheReasonAndTheOneBeforeStaysLive(String table) throws SQLException {
        assertThat(pour()).isInstanceOf(Outcome.Done.class);
        var changed = files(TANK + "  note: { type: text, length: 20, default: n }\n");
        fillUp(table);
        assertThatThrownBy(() -> yard.release(changed))
                .isInstanceOf(StorageException.class)
                .hasMessageStartingWith("The disk of the database is full");
        makeRoom(table);
        assertThat(yard.engine.live().number()).isEqualTo(1);
        isDoneAsTheOnly(2);
        yard.release(changed);
        assertThat(yard.show("Tank", "T").get("note")).isEqualTo("n");
    }
}
