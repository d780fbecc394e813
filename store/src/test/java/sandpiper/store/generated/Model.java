package sandpiper.store.generated;

import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import org.jspecify.annotations.Nullable;
import sandpiper.model.definition.Rounding;

/** A package. Formulas can be put into it afterwards, and exchanged. */
final class Model {
    private final List<ObjectSpec> objects = new ArrayList<>();
    private Rounding rounding = Rounding.HALF_UP;

    /** What a value is in an expression. */
    enum Sort {
        NUMBER,
        AMOUNT,
        FLAG,
        WORDS,
        DATE,
        LINK,
        /** Something no expression is made of. */
        OTHER
    }

    /** The types of fields, with what is written after {@code type:}. */
    enum Kind {
        INTEGER(Sort.NUMBER, "integer"),
        DECIMAL(Sort.NUMBER, "decimal"),
        FINE(Sort.NUMBER, "decimal, scale: 4"),
        PERCENT(Sort.OTHER, "percent"),
        AMOUNT(Sort.AMOUNT, "amount"),
        MONEY(Sort.OTHER, "amount, currency: record"),
        BOOLEAN(Sort.FLAG, "boolean"),
        TEXT(Sort.WORDS, "text, length: 60"),
        LOCALISED(Sort.WORDS, "text, localised: true"),
        CHOICE(Sort.OTHER, "choice, choices: [high, low]"),
        DATE(Sort.DATE, "date"),
        TIME(Sort.OTHER, "time"),
        MOMENT(Sort.OTHER, "date-time"),
        DURATION(Sort.OTHER, "duration"),
        EMAIL(Sort.OTHER, "email"),
        PHONE(Sort.OTHER, "phone"),
        ADDRESS(Sort.OTHER, "web-address"),
        UUID(Sort.OTHER, "uuid"),
        REFERENCE(Sort.LINK, "reference");

        final Sort sort;
        final String written;

        Kind(Sort sort, String written) {
            this.sort = sort;
            this.written = written;
        }

        int scale() {
            return switch (this) {
                case DECIMAL, AMOUNT, PERCENT, MONEY -> 2;
                case FINE -> 4;
                default -> 0;
            };
        }
    }

    /** A field; its formula is set when all fields are known. */
    static final class FieldSpec {
        private final ObjectSpec owner;
        private final boolean ofLine;
        private final String name;
        private final Kind kind;
        private final @Nullable ObjectSpec to;
        private final int rank;
        private @Nullable Node formula;

        FieldSpec(
                ObjectSpec owner,
                boolean ofLine,
                String name,
                Kind kind,
                @Nullable ObjectSpec to,
                int rank) {
            this.owner = owner;
            this.ofLine = ofLine;
            this.name = name;
            this.kind = kind;
            this.to = to;
            this.rank = rank;
        }

        ObjectSpec owner() {
            return owner;
        }

        boolean ofLine() {
            return ofLine;
        }

        String name() {
            return name;
        }

        Kind kind() {
            return kind;
        }

        ObjectSpec to() {
            return Objects.requireNonNull(to);
        }

        /** Formulas read those of a lower rank only; what is stored has none, -1. */
        int rank() {
            return rank;
        }

        boolean isDerived() {
            return rank >= 0;
        }

        @Nullable Node formula() {
            return formula;
        }

        void formula(Node node) {
            formula = node;
        }

        /** The name of those that refer to a record by this field, on the record's side. */
        String inverse() {
            return "of"
                    + owner.name()
                    + (ofLine ? "Line" : "")
                    + name.toUpperCase(java.util.Locale.ROOT);
        }

        String yaml() {
            var text = new StringBuilder("{ type: ").append(kind.written);
            if (to != null) {
                text.append(", to: ").append(to.name());
                if (!ofLine) {
                    text.append(", inverse: ").append(inverse());
                }
            }
            if (formula != null) {
                text.append(", formula: '").append(formula.text()).append("'");
            }
            return text.append(" }").toString();
        }

        @Override
        public String toString() {
            return owner.name() + (ofLine ? ".lines." : ".") + name;
        }
    }

    /** An object, with one part at most. */
    static final class ObjectSpec {
        private final String name;
        private final boolean composite;
        private final boolean deletes;
        private final List<FieldSpec> fields = new ArrayList<>();
        private final List<FieldSpec> lines = new ArrayList<>();
        private @Nullable FieldSpec followed;
        private @Nullable FieldSpec bounded;

        ObjectSpec(String name, boolean composite, boolean deletes) {
            this.name = name;
            this.composite = composite;
            this.deletes = deletes;
        }

        String name() {
            return name;
        }

        boolean composite() {
            return composite;
        }

        boolean deletes() {
            return deletes;
        }

        List<FieldSpec> fields() {
            return fields;
        }

        List<FieldSpec> lines() {
            return lines;
        }

        /** A derived field that a rule copies into {@code seen} whenever it changes. */
        @Nullable FieldSpec followed() {
            return followed;
        }

        void followed(FieldSpec field) {
            followed = field;
        }

        /** A derived number that a check keeps below a bound. */
        @Nullable FieldSpec bounded() {
            return bounded;
        }

        void bounded(FieldSpec field) {
            bounded = field;
        }

        List<FieldSpec> derived() {
            return fields.stream().filter(FieldSpec::isDerived).toList();
        }

        /** The key as in an address. */
        String key(int serial) {
            return composite ? "z" + serial % 3 + "," + serial : "k" + serial;
        }

        Map<String, Object> keyValues(int serial) {
            return composite
                    ? Map.of("zone", "z" + serial % 3, "place", (long) serial)
                    : Map.of("code", "k" + serial);
        }
    }

    /** What a check of a bounded number allows. */
    static final int BOUND = 400;

    Rounding rounding() {
        return rounding;
    }

    void rounding(Rounding other) {
        rounding = other;
    }

    List<ObjectSpec> objects() {
        return objects;
    }

    Map<String, String> files() {
        var files = new LinkedHashMap<String, String>();
        files.put(
                "marina/package.yaml",
                "package: marina\nversion: 1.0\nlanguages: [en, de]\nrounding: %s\n"
                        .formatted(rounding.written()));
        objects.forEach(
                object -> files.put("marina/objects/" + object.name() + ".yaml", yaml(object)));
        return files;
    }

    private String yaml(ObjectSpec object) {
        var text = new StringBuilder("object: %s\n".formatted(object.name()));
        text.append(object.composite() ? "key: [zone, place]\n" : "key: code\n");
        text.append("removal: ").append(object.deletes() ? "delete\n" : "{ retire: free }\n");
        text.append("fields:\n");
        text.append(
                object.composite()
                        ? "  zone: { type: text, length: 10, required: true }\n"
                                + "  place: { type: integer, required: true }\n"
                        : "  code: { type: text, length: 20, required: true }\n");
        object.fields()
                .forEach(field -> text.append("  %s: %s\n".formatted(field.name(), field.yaml())));
        var followed = object.followed();
        if (followed != null) {
            text.append("  seen: { type: %s }\n".formatted(followed.kind().written));
        }
        if (!object.lines().isEmpty()) {
            text.append("parts:\n  lines:\n    fields:\n");
            object.lines()
                    .forEach(field ->
                            text.append("      %s: %s\n".formatted(field.name(), field.yaml())));
        }
        if (followed != null) {
            text.append(
                    "rules:\n  follow:\n    on: create or change of %s\n"
                            .formatted(followed.name()));
            text.append("    then: set seen = %s\n".formatted(followed.name()));
        }
        var bounded = object.bounded();
        if (bounded != null) {
            text.append(
                    "checks:\n  - that: '%s = null or %s < %d'\n    say: Too much.\n"
                            .formatted(bounded.name(), bounded.name(), BOUND));
        }
        functions(object, text);
        return text.toString();
    }

    /** The first reference by which records of another object point to one, or {@code null}. */
    @Nullable FieldSpec pointing(ObjectSpec to) {
        return objects.stream()
                .flatMap(object -> object.fields().stream())
                .filter(field -> field.kind() == Kind.REFERENCE && field.to() == to)
                .findFirst()
                .orElse(null);
    }

    private void functions(ObjectSpec object, StringBuilder text) {
        var last = object.derived().isEmpty() ? null : object.derived().getLast();
        text.append("functions:\n");
        var returns = last == null ? "integer" : "{ type: %s }".formatted(last.kind().written);
        var result = last == null ? "size" : last.name();
        text.append(
                """
                  bump:
                    external: true
                    parameters: { by: integer }
                    returns: %1$s
                    body: |
                      set size = size + by
                      return %2$s
                """
                        .formatted(returns, result));
        var by = pointing(object);
        if (by != null) {
            text.append(
                    """
                      spawn:
                        external: true
                        parameters: { zone: { type: text, length: 10 }, place: integer, by: integer }
                        returns: %1$s
                        body: |
                          create %3$s { %4$s, %5$s: this, size: by } as made
                          set made.size = by + 1
                          return %2$s
                    """
                            .formatted(
                                    returns,
                                    result,
                                    by.owner().name(),
                                    by.owner().composite()
                                            ? "zone: zone, place: place"
                                            : "code: \"k\" + string(place)",
                                    by.name()));
        }
        if (!object.lines().isEmpty()) {
            text.append(
                    """
                      restock:
                        external: true
                        parameters: { by: integer }
                        returns: %1$s
                        body: |
                          for each line in lines
                            set line.units = line.units + by
                          end
                          create lines { units: by }
                          return %2$s
                    """
                            .formatted(returns, result));
        }
    }
}
