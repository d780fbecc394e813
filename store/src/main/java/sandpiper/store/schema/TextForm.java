package sandpiper.store.schema;

import org.jooq.Condition;
import org.jooq.Field;
import org.jooq.impl.DSL;
import org.jspecify.annotations.Nullable;
import sandpiper.model.type.FieldType;
import sandpiper.model.type.NumberType;
import sandpiper.store.sql.Either;

/**
 * How values of a type are read from their text: the way back from what {@link Conversion} makes a
 * text of.
 */
sealed interface TextForm {
    /** The value as it is stored; nothing of no text. Only of texts that are not unfit. */
    Field<Object> read(Field<Object> text);

    /** True of texts that are no such value. */
    Condition unfit(Field<Object> text);

    /** The form of a type, or {@code null} where there is none. */
    static @Nullable TextForm of(FieldType type) {
        if (type instanceof NumberType number) {
            return new OfNumber(number.scale(), number.largest());
        }
        return switch (type.keyword()) {
            case BOOLEAN -> new OfBoolean();
            case DATE -> new OfDate();
            case UUID -> new OfUuid();
            default -> null;
        };
    }

    /** Digits with a point before decimal places, as in {@code -12.50}. */
    record OfNumber(int scale, long largest) implements TextForm {
        /** More digits could be beyond what a column holds. */
        private static final int MOST_DIGITS = 18;

        private static final String WHOLE = "substr({0}, 1, instr({0} || '.', '.') - 1)";
        private static final String PLACES = "substr({0}, instr({0} || '.', '.') + 1)";
        private static final String WHOLE_PG = "split_part({0}, '.', 1)";
        private static final String PLACES_PG = "split_part({0}, '.', 2)";

        private String read(String whole, String places, String type) {
            return "cast(%s || substr(%s || '%s', 1, %d) as %s)"
                    .formatted(whole, places, "0".repeat(scale), scale, type);
        }

        private String readSqlite() {
            return read(WHOLE, PLACES, "integer");
        }

        private String readPostgres() {
            return read(WHOLE_PG, PLACES_PG, "bigint");
        }

        @Override
        public Field<Object> read(Field<Object> text) {
            return Either.field(readSqlite(), readPostgres(), text);
        }

        private String tooLong(String whole, String places) {
            return "length(rtrim(%s, '0')) > %d or length(ltrim(ltrim(%s, '-'), '0')) > %d"
                    .formatted(places, scale, whole, MOST_DIGITS - scale);
        }

        private String tooLarge(String read) {
            return "%1$s not between -%2$d and %2$d".formatted(read, largest);
        }

        @Override
        public Condition unfit(Field<Object> text) {
            var sqlite =
                    String.join(
                            " or ",
                            "({0} glob '*[^-.0-9]*'",
                            "substr({0}, 2) like '%-%'",
                            "length({0}) - length(replace({0}, '.', '')) > 1",
                            "ltrim({0}, '-') glob '.*'",
                            "{0} glob '*.'",
                            "{0} in ('', '-')",
                            tooLong(WHOLE, PLACES),
                            tooLarge(readSqlite()) + ")");
            // What is no number must not be read, which would be an error there.
            var postgres =
                    "(case when {0} is null then null when not ({0} ~ '^-?[0-9]+([.][0-9]+)?$') or %s then true else %s end)"
                            .formatted(tooLong(WHOLE_PG, PLACES_PG), tooLarge(readPostgres()));
            return Either.condition(sqlite, postgres, text);
        }
    }

    /** {@code true} and {@code false}. */
    record OfBoolean() implements TextForm {
        @Override
        public Field<Object> read(Field<Object> text) {
            return DSL.field(
                    "case {0} when 'true' then 1 when 'false' then 0 end", Object.class, text);
        }

        @Override
        public Condition unfit(Field<Object> text) {
            return DSL.condition("{0} not in ('true', 'false')", text);
        }
    }

    /** As in {@code 2026-05-01}. */
    record OfDate() implements TextForm {
        private static final String DIGITS = "[0-9][0-9][0-9][0-9]-[0-9][0-9]-[0-9][0-9]";

        @Override
        public Field<Object> read(Field<Object> text) {
            return Either.field(
                    "cast(strftime('%s', {0}) as integer) / 86400",
                    "cast({0} as date) - date '1970-01-01'", text);
        }

        @Override
        public Condition unfit(Field<Object> text) {
            // A day that no month has comes out as one of the next in SQLite, and is an error in
            // PostgreSQL; there is no year 0.
            var lastOfMonth =
                    "to_char(make_date(cast(substr({0}, 1, 4) as integer), cast(substr({0}, 6, 2)"
                            + " as integer), 1) + interval '1 month' - interval '1 day', 'DD')";
            return Either.condition(
                    "({0} is not null and ({0} not glob '%s' or date({0}) is not {0} or {0} < '0001'))"
                            .formatted(DIGITS),
                    "(case when {0} is null then false when not ({0} ~ '^%s$') or {0} < '0001' or substr({0}, 6, 2) not between '01' and '12' then true else substr({0}, 9, 2) not between '01' and %s end)"
                            .formatted(DIGITS, lastOfMonth),
                    text);
        }
    }

    /** 32 digits in groups, whatever their letters' size. */
    record OfUuid() implements TextForm {
        private static final String DIGIT = "[0-9a-f]";
        private static final String FORM =
                String.join(
                        "-",
                        DIGIT.repeat(8),
                        DIGIT.repeat(4),
                        DIGIT.repeat(4),
                        DIGIT.repeat(4),
                        DIGIT.repeat(12));

        @Override
        public Field<Object> read(Field<Object> text) {
            return DSL.field("lower({0})", Object.class, text);
        }

        @Override
        public Condition unfit(Field<Object> text) {
            return Either.condition(
                    "lower({0}) not glob '%s'".formatted(FORM),
                    "lower({0}) !~ '^%s$'".formatted(FORM),
                    text);
        }
    }
}
