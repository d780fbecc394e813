package sandpiper.logic.run;

import java.util.List;
import java.util.Map;
import org.jspecify.annotations.Nullable;
import sandpiper.logic.Span;
import sandpiper.logic.type.EventShape;
import sandpiper.logic.type.FunctionType;
import sandpiper.logic.type.Member;
import sandpiper.logic.type.OutsideService.OutsideFunction;
import sandpiper.logic.type.RecordType;
import sandpiper.logic.value.RecordValue;

/** What steps do to records. Implemented by whoever holds the records. */
public interface Actions {
    void set(RecordValue record, Member member, Object value);

    RecordValue create(RecordType object, Map<Member, Object> values);

    RecordValue addItem(RecordValue record, Member part, Map<Member, Object> values);

    RecordValue save(RecordType object, Map<Member, Object> values);

    void retire(RecordValue record);

    void transition(RecordValue record, String name);

    /** Takes a message that stops everything. */
    void reject(String message, List<String> at);

    /** Takes a message that stops nothing. */
    void warn(String message, List<String> at);

    /** Takes a line for the trace. */
    void note(String message);

    /**
     * Calls a function and gives back what it returns.
     *
     * @param record on which, or {@code null} for a function of the object as a whole
     * @param arguments in the order of its parameters
     */
    Object call(
            RecordType object,
            FunctionType function,
            @Nullable RecordValue record,
            List<Object> arguments);

    /**
     * Asks an outside service and gives back what it answers.
     *
     * @param arguments in the order of its parameters
     */
    Object ask(OutsideFunction function, List<Object> arguments);

    /**
     * Raises an event.
     *
     * @param values by name; those that came to nothing are FEEL's null
     * @param about the record it is about, or {@code null} when it is about none
     */
    void emit(EventShape event, Map<String, Object> values, @Nullable RecordValue about);

    /** Is told before each step; brings up to date what the step may read. */
    default void beforeStep() {}

    /** Is told what a name stands for from here on. */
    default void named(String name, Object value) {}

    /** Is told how a condition came out. */
    default void decided(Span condition, Object value) {}

    /** Whether something was rejected, so that no further step is run. */
    boolean isStopped();
}
