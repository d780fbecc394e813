package sandpiper.store.schema;

import static org.assertj.core.api.Assertions.assertThat;

import java.sql.Connection;
import java.sql.DriverManager;
import java.sql.SQLException;
import java.util.List;
import java.util.Objects;
import net.jqwik.api.Arbitraries;
import net.jqwik.api.Arbitrary;
import net.jqwik.api.ForAll;
import net.jqwik.api.Property;
import net.jqwik.api.Provide;
import net.jqwik.api.lifecycle.AfterContainer;
import net.jqwik.api.lifecycle.BeforeContainer;
import org.jooq.QueryPart;
import org.jspecify.annotations.Nullable;
import sandpiper.model.check.Definitions;
import sandpiper.model.release.Field;
import sandpiper.model.type.ParsedValue;
import sandpiper.store.Stores;
import sandpiper.store.postgres.PostgresDialect;
import sandpiper.store.sqlite.SqliteDialect;
import sandpiper.store.table.Sql;
import sandpiper.testing.PrivatePostgres;

/**
 * What the database reads from a text is what the type reads from it, or the text is in the way.
 */
class TextFormTest {
    private static final List<Field> FIELDS =
            Definitions.check(
                            java.util.Map.of(
                                    "yard/package.yaml",
                                    "package: yard\nversion: 1\n",
                                    "yard/objects/job.yaml",
                                    """
                                    object: Job
                                    fields:
                                      whole: { type: integer }
                                      tenth: { type: decimal, scale: 1 }
                                      fine: { type: decimal, scale: 4 }
                                      share: { type: percent, scale: 2 }
                                      paid: { type: amount, currency: EUR }
                                      done: { type: boolean }
                                      day: { type: date }
                                      code: { type: uuid }
                                    """))
                    .release()
                    .orElseThrow()
                    .object("Job")
                    .fields()
                    .stream()
                    .toList();

    private static Connection database;

    @BeforeContainer
    static void open() throws SQLException {
        database =
                DriverManager.getConnection(
                        Stores.arePostgres()
                                ? PrivatePostgres.shared().url()
                                : "jdbc:sqlite::memory:");
    }

    @AfterContainer
    static void close() throws SQLException {
        database.close();
    }

    @Provide
    Arbitrary<Field> fields() {
        return Arbitraries.of(FIELDS);
    }

    @Provide
    Arbitrary<String> texts() {
        var digits = Arbitraries.strings().withChars("0123456789").ofMinLength(0).ofMaxLength(20);
        var numbers =
                net.jqwik.api.Combinators.combine(
                                Arbitraries.of("", "", "-", "--", "+"),
                                digits,
                                Arbitraries.of("", "", ".", ".."),
                                Arbitraries.strings().withChars("0123456789-").ofMaxLength(6))
                        .as((sign, whole, point, places) -> sign + whole + point + places);
        var days =
                net.jqwik.api.Combinators.combine(
                                Arbitraries.integers().between(0, 9999),
                                Arbitraries.integers().between(0, 13),
                                Arbitraries.integers().between(0, 32))
                        .as("%04d-%02d-%02d"::formatted);
        var ids =
                Arbitraries.randomValue(random -> {
                    var id = new java.util.UUID(random.nextLong(), random.nextLong()).toString();
                    return random.nextBoolean() ? id : id.toUpperCase(java.util.Locale.ROOT);
                });
        return Arbitraries.oneOf(
                numbers,
                days,
                ids,
                Arbitraries.of(
                        "true",
                        "false",
                        "True",
                        "TRUE",
                        "",
                        "-",
                        ".",
                        "-.",
                        "-.5",
                        "5.",
                        "1e3",
                        " 12",
                        "12 ",
                        "12,5",
                        "0x1f",
                        "٣",
                        "2026-2-3",
                        "2026-02-30",
                        "0000-01-01",
                        "2026-02-03T00:00:00Z",
                        "now",
                        "999999999999999.99",
                        "12\n",
                        "NaN",
                        "007"),
                // No text has NUL in it.
                Arbitraries.strings().ofMaxLength(5).filter(text -> text.indexOf(0) < 0));
    }

    private static final org.jooq.Field<Object> TEXT = Sql.column("t");

    private static @Nullable Object ask(QueryPart expression, String text) throws SQLException {
        var sql =
                Stores.arePostgres()
                        ? "select %s from (select cast(? as text) collate \"C\" as \"t\") as one"
                                .formatted(PostgresDialect.INSTANCE.render(expression))
                        : "select %s from (select ? as \"t\")"
                                .formatted(SqliteDialect.INSTANCE.render(expression));
        try (var statement = database.prepareStatement(sql)) {
            statement.setString(1, text);
            try (var row = statement.executeQuery()) {
                row.next();
                return row.getObject(1) instanceof Boolean flag
                        ? (Object) (flag ? 1 : 0)
                        : row.getObject(1);
            }
        }
    }

    @Property(tries = 2_000)
    void isReadAsTheTypeReadsItOrIsInTheWay(
            @ForAll("fields") Field field, @ForAll("texts") String text) throws SQLException {
        var form = Objects.requireNonNull(TextForm.of(field.type()));
        var unfit = ask(form.unfit(TEXT), text);
        if (unfit instanceof Number number && number.longValue() == 0) {
            var read = field.type().readText(text);
            assertThat(read)
                    .as("%s of %s", text, field.name())
                    .isInstanceOf(ParsedValue.Taken.class);
            var stored = ask(form.read(TEXT), text);
            assertThat(stored instanceof Number number2 ? (Object) number2.longValue() : stored)
                    .as("%s of %s", text, field.name())
                    .isEqualTo(((ParsedValue.Taken) read).value());
        } else {
            assertThat(unfit).as("%s of %s", text, field.name()).isNotNull();
        }
    }

    /** What a value is written as is never in the way of going back. */
    @Property(tries = 500)
    void whatWasWrittenIsRead(@ForAll("fields") Field field, @ForAll("texts") String text)
            throws SQLException {
        if (field.type().readText(text) instanceof ParsedValue.Taken taken) {
            var written = field.type().writeText(taken.value());
            var form = Objects.requireNonNull(TextForm.of(field.type()));
            assertThat(ask(form.unfit(TEXT), written))
                    .as("%s of %s", written, field.name())
                    .isEqualTo(0);
        }
    }
}
