package sandpiper.model.release;

import java.util.List;
import org.jspecify.annotations.Nullable;
import sandpiper.model.definition.Lifecycle;

/** What a caller of a service may do with a record besides reading and changing it. */
public sealed interface CallType {
    /** As grants and traces have it. */
    String name();

    String label();

    /** What it does, or {@code null}. */
    @Nullable String describe();

    /** What a caller gives. */
    ValueType.Group parameters();

    /** What it gives back besides the record, or {@code null} for nothing. */
    @Nullable ValueType returns();

    /** A transition of the record's lifecycle. */
    record OfTransition(Lifecycle.Transition transition) implements CallType {
        private static final ValueType.Group NOTHING = new ValueType.Group(List.of());

        @Override
        public String name() {
            return transition.name();
        }

        @Override
        public String label() {
            return transition.label();
        }

        @Override
        public @Nullable String describe() {
            return transition.describe();
        }

        @Override
        public ValueType.Group parameters() {
            return NOTHING;
        }

        @Override
        public @Nullable ValueType returns() {
            return null;
        }
    }

    /** A function on the record. */
    record OfFunction(FunctionDefinition function) implements CallType {
        @Override
        public String name() {
            return function.name();
        }

        @Override
        public String label() {
            return function.label();
        }

        @Override
        public @Nullable String describe() {
            return function.describe();
        }

        @Override
        public ValueType.Group parameters() {
            return function.parameters();
        }

        @Override
        public @Nullable ValueType returns() {
            return function.returns();
        }
    }
}
