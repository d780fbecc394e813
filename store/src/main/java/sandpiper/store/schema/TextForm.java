package sandpiper.store.schema;

import org.jspecify.annotations.Nullable;
import sandpiper.model.type.FieldType;
import sandpiper.model.type.NumberType;

/**
 * How values of a type are read from their text: the way back from what {@link Conversion} makes a
 * text of.
 */
sealed interface TextForm {
    /** An expression that gives the value as it is stored; {@code null} of no text. */
    String read(String column);

    /** A condition that is true of texts that are no such value. */
    String unfit(String column);

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

        private static String whole(String column) {
            return "substr(%1$s, 1, instr(%1$s || '.', '.') - 1)".formatted(column);
        }

        private static String places(String column) {
            return "substr(%1$s, instr(%1$s || '.', '.') + 1)".formatted(column);
        }

        @Override
        public String read(String column) {
            return "cast(%s || substr(%s || '%s', 1, %d) as integer)"
                    .formatted(whole(column), places(column), "0".repeat(scale), scale);
        }

        @Override
        public String unfit(String column) {
            var digits = "length(ltrim(ltrim(%s, '-'), '0'))".formatted(whole(column));
            return String.join(
                    " or ",
                    "(%s glob '*[^-.0-9]*'".formatted(column),
                    "substr(%s, 2) like '%%-%%'".formatted(column),
                    "length(%1$s) - length(replace(%1$s, '.', '')) > 1".formatted(column),
                    "ltrim(%s, '-') glob '.*'".formatted(column),
                    "%s glob '*.'".formatted(column),
                    "%s in ('', '-')".formatted(column),
                    "length(rtrim(%s, '0')) > %d".formatted(places(column), scale),
                    "%s > %d".formatted(digits, MOST_DIGITS - scale),
                    "%1$s not between -%2$d and %2$d)".formatted(read(column), largest));
        }
    }

    /** {@code true} and {@code false}. */
    record OfBoolean() implements TextForm {
        @Override
        public String read(String column) {
            return "case %s when 'true' then 1 when 'false' then 0 end".formatted(column);
        }

        @Override
        public String unfit(String column) {
            return "%s not in ('true', 'false')".formatted(column);
        }
    }

    /** As in {@code 2026-05-01}. */
    record OfDate() implements TextForm {
        @Override
        public String read(String column) {
            return "cast(strftime('%%s', %s) as integer) / 86400".formatted(column);
        }

        @Override
        public String unfit(String column) {
            // A day that no month has comes out as one of the next; there is no year 0.
            return "(%1$s is not null and (%1$s not glob '[0-9][0-9][0-9][0-9]-[0-9][0-9]-[0-9][0-9]' or date(%1$s) is not %1$s or %1$s < '0001'))"
                    .formatted(column);
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
        public String read(String column) {
            return "lower(%s)".formatted(column);
        }

        @Override
        public String unfit(String column) {
            return "lower(%s) not glob '%s'".formatted(column, FORM);
        }
    }
}
