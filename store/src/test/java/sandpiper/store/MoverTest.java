package sandpiper.store;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import org.junit.jupiter.api.Tag;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import sandpiper.engine.Engine;
import sandpiper.engine.command.Outcome;
import sandpiper.engine.port.Storage;
import sandpiper.engine.port.StorageException;
import sandpiper.engine.rehearsal.RehearsalException;
import sandpiper.store.move.Mover;
import sandpiper.store.move.SchemaCopies;
import sandpiper.store.postgres.PostgresSettings;
import sandpiper.testing.PrivatePostgres;

/** There and back again: what was in a file is in it again after it was in a database. */
@Tag("postgres")
class MoverTest {
    private static final String FILE =
            """
            object: Lock
            key: [basin, number]
            fields:
              basin:   { type: text, length: 20, required: true }
              number:  { type: integer, required: true }
              title:   { type: text, length: 40, localised: true }
              before:  { type: reference, to: Lock, inverse: after }
              paid:    { type: amount, currency: record }
              open:    { type: boolean }
              plan:    { type: file, accepts: ["text/*"] }
              xmin:    { type: decimal, scale: 3 }
              aVeryLongNameOfAFieldThatTellsWhatItIsForAndThenSomeMoreOf: { type: text, length: 9 }
            parts:
              gates:
                fields:
                  width:   { type: decimal, scale: 2 }
                  opposed: { type: reference, to: Lock }
            """;
    private static final String PACKAGE = "package: marina\nversion: 1\nlanguages: [en, de]\n";

    @TempDir Path folder;

    private static java.util.Map<String, String> files(String lock) {
        return java.util.Map.of("marina/package.yaml", PACKAGE, "marina/objects/lock.yaml", lock);
    }

    private static Storage file(Path path) {
        return SqliteStorage.open(path, Harness.CLOCK);
    }

    private static Mover.Moved move(Storage from, Storage to) {
        try (from;
                to) {
            return new Mover(from, to, (_, _, _, _) -> {}).move();
        }
    }

    /** Everything that can be seen of it. */
    private static List<String> seen(Storage storage) {
        var seen = new ArrayList<String>();
        try (var engine = new Engine(storage, Harness.CLOCK)) {
            seen.add("release " + engine.live().number());
            var type = engine.live().release().object("Lock");
            var tree = engine.live().release().everythingOf(type);
            engine.records()
                    .read((now, session) -> {
                        for (long number : now.records().numbersAfter(session, type, 0, 100)) {
                            now.records()
                                    .view(session, type, number, tree)
                                    .ifPresent(one ->
                                            seen.add(
                                                    "%s %s %s"
                                                            .formatted(
                                                                    one.id(),
                                                                    java.util.Arrays.deepToString(
                                                                            one.values()),
                                                                    one.parts())));
                        }
                        return true;
                    });
            engine.records().latestChanges(100).forEach(one -> seen.add(one.toString()));
            engine.releases().kept().all().forEach(one -> seen.add(one.toString()));
            engine.releases().all().forEach(one -> seen.add(one.toString()));
        }
        return seen;
    }

    /** What is seen of a copy that is made beside, and of which nothing is left. */
    private static List<String> copied(String url) throws InterruptedException {
        var settings = PostgresSettings.usual(url);
        try (var live = PostgresStorage.open(settings, Harness.CLOCK)) {
            assertThatThrownBy(() -> new SchemaCopies(live, settings, 1).requireRoom(false))
                    .isInstanceOf(RehearsalException.class)
                    .hasMessageContaining("sandpiper.database.largest-copy");
            var copies = new SchemaCopies(live, settings, 1L << 30);
            copies.requireRoom(true);
            assertThat(copies.make()).isPositive();
            copies.makeBefore();
            var seen = seen(copies.open());
            copies.removeAll();
            assertThatThrownBy(copies::open)
                    .isInstanceOf(StorageException.class)
                    .hasMessageContaining("is not there");
            return seen;
        }
    }

    @Test
    void everythingIsThereAfterAMoveAndTheWayBack() throws InterruptedException {
        var data = folder.resolve("data.db");
        try (var marina = new Harness(file(folder.resolve("data.db")))) {
            marina.release(files(FILE + "  # gone\n"));
            assertThat(
                            marina.create(
                                    "Lock",
                                    "basin",
                                    "In,ner",
                                    "number",
                                    1L,
                                    "title",
                                    java.util.Map.of("en", "First", "de", "Erste"),
                                    "open",
                                    true,
                                    "xmin",
                                    new java.math.BigDecimal("-0.125")))
                    .isInstanceOf(Outcome.Done.class);
            assertThat(
                            marina.create(
                                    "Lock",
                                    "basin",
                                    "Ü",
                                    "number",
                                    -5L,
                                    "before",
                                    "In%2Cner,1",
                                    "gates",
                                    List.of(
                                            java.util.Map.of(
                                                    "width", new java.math.BigDecimal("3.50")))))
                    .isInstanceOf(Outcome.class);
            // What goes is kept aside, and goes along.
            marina.release(files(FILE.replaceFirst("(?m)^  open:.*\n", "")));
        }
        var before = seen(file(data));

        var url = PrivatePostgres.shared().schema();
        var there =
                move(file(data), PostgresStorage.open(PostgresSettings.usual(url), Harness.CLOCK));
        assertThat(there.rows()).isGreaterThan(5);
        assertThat(seen(PostgresStorage.open(PostgresSettings.usual(url), Harness.CLOCK)))
                .isEqualTo(before);

        assertThat(copied(url)).as("a copy to rehearse on").isEqualTo(before);

        var back = folder.resolve("back.db");
        assertThat(
                        move(
                                PostgresStorage.open(PostgresSettings.usual(url), Harness.CLOCK),
                                file(back)))
                .isEqualTo(there);
        assertThat(seen(file(back))).isEqualTo(before);
    }

    @Test
    void whatComesAfterAMoveHasNumbersOfItsOwn() {
        try (var marina = new Harness(file(folder.resolve("data.db")))) {
            marina.release(files(FILE));
            marina.create("Lock", "basin", "A", "number", 1L);
        }
        var url = PrivatePostgres.shared().schema();
        move(
                file(folder.resolve("data.db")),
                PostgresStorage.open(PostgresSettings.usual(url), Harness.CLOCK));

        try (var engine =
                new Engine(
                        PostgresStorage.open(PostgresSettings.usual(url), Harness.CLOCK),
                        Harness.CLOCK)) {
            assertThat(
                            engine.records()
                                    .write(live ->
                                            Harness.creating(
                                                    live,
                                                    "Lock",
                                                    Harness.values("basin", "A", "number", 2L))))
                    .isInstanceOf(Outcome.Done.class);
        }
    }

    @Test
    void whereSomethingIsNothingIsMovedTo() {
        try (var marina = new Harness(file(folder.resolve("data.db")))) {
            marina.release(files(FILE));
        }
        var url = PrivatePostgres.shared().schema();
        move(
                file(folder.resolve("data.db")),
                PostgresStorage.open(PostgresSettings.usual(url), Harness.CLOCK));

        assertThatThrownBy(() ->
                        move(
                                file(folder.resolve("data.db")),
                                PostgresStorage.open(PostgresSettings.usual(url), Harness.CLOCK)))
                .isInstanceOf(StorageException.class)
                .hasMessageContaining("name an empty file or schema");
    }
}
