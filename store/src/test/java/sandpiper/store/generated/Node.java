package sandpiper.store.generated;

import java.math.BigDecimal;
import java.time.LocalDate;
import java.util.List;
import org.jspecify.annotations.Nullable;
import sandpiper.store.generated.Model.FieldSpec;
import sandpiper.store.generated.Model.ObjectSpec;

/** An expression of the few kinds that are generated, with its text. */
sealed interface Node {
    String text();

    /** Where a path begins. */
    enum Start {
        /** The nearest record or line item. */
        NEAR,
        /** The record the whole expression is about. */
        THIS
    }

    record Number(BigDecimal value) implements Node {
        @Override
        public String text() {
            return value.signum() < 0 ? "(" + value.toPlainString() + ")" : value.toPlainString();
        }
    }

    record Words(String value) implements Node {
        @Override
        public String text() {
            return '"' + value + '"';
        }
    }

    /** A field, by references from where it begins. */
    record Path(Start start, List<FieldSpec> references, FieldSpec field) implements Node {
        @Override
        public String text() {
            var text = new StringBuilder(start == Start.THIS ? "this." : "");
            references.forEach(one -> text.append(one.name()).append('.'));
            return text.append(field.name()).toString();
        }
    }

    /**
     * Records or line items: those a path of references and then back references or line items
     * leads to.
     *
     * @param back the references by which others point to what was reached, one after the other
     * @param lines whether they are the line items of what was reached
     * @param where what must hold of each, or {@code null}
     */
    record Many(
            Start start,
            List<FieldSpec> references,
            List<FieldSpec> back,
            boolean lines,
            @Nullable Node where) {
        String text() {
            var text = new StringBuilder(start == Start.THIS ? "this." : "");
            references.forEach(one -> text.append(one.name()).append('.'));
            var names = new java.util.ArrayList<String>();
            back.forEach(one -> names.add(one.inverse()));
            if (lines) {
                names.add("lines");
            }
            text.append(String.join(".", names));
            return where == null ? text.toString() : text + "[" + where.text() + "]";
        }
    }

    /**
     * A total.
     *
     * @param references from each item to the one that has the field
     * @param field {@code null} to count the items themselves
     */
    record Total(String function, Many many, List<FieldSpec> references, @Nullable FieldSpec field)
            implements Node {
        @Override
        public String text() {
            var text = new StringBuilder(function).append('(').append(many.text());
            references.forEach(one -> text.append('.').append(one.name()));
            if (field != null) {
                text.append('.').append(field.name());
            }
            return text.append(')').toString();
        }
    }

    /** All records of an object that are in use, counted. */
    record CountAll(ObjectSpec object, @Nullable Node where) implements Node {
        @Override
        public String text() {
            return "count(%s%s)"
                    .formatted(object.name(), where == null ? "" : "[" + where.text() + "]");
        }
    }

    record Calculation(char operator, Node left, Node right) implements Node {
        @Override
        public String text() {
            return "(%s %s %s)".formatted(left.text(), operator, right.text());
        }
    }

    record Comparison(String operator, Node left, Node right) implements Node {
        @Override
        public String text() {
            return "%s %s %s".formatted(left.text(), operator, right.text());
        }
    }

    record IsEmpty(Node value, boolean not) implements Node {
        @Override
        public String text() {
            return value.text() + (not ? " != null" : " = null");
        }
    }

    record Both(boolean and, Node left, Node right) implements Node {
        @Override
        public String text() {
            return "(%s) %s (%s)".formatted(left.text(), and ? "and" : "or", right.text());
        }
    }

    record Not(Node value) implements Node {
        @Override
        public String text() {
            return "not(" + value.text() + ")";
        }
    }

    record Choice(Node condition, Node then, Node otherwise) implements Node {
        @Override
        public String text() {
            return "(if %s then %s else %s)"
                    .formatted(condition.text(), then.text(), otherwise.text());
        }
    }

    record Joined(Node left, Node right) implements Node {
        @Override
        public String text() {
            return "(" + left.text() + " + " + right.text() + ")";
        }
    }

    record Spelled(Node number) implements Node {
        @Override
        public String text() {
            return "string(" + number.text() + ")";
        }
    }

    record Length(Node words) implements Node {
        @Override
        public String text() {
            return "string length(" + words.text() + ")";
        }
    }

    record Day(LocalDate value) implements Node {
        @Override
        public String text() {
            return "@\"" + value + "\"";
        }
    }

    record Later(Node date, int days) implements Node {
        @Override
        public String text() {
            return "(" + date.text() + " + @\"P" + days + "D\")";
        }
    }
}
