package sandpiper.logic.run;

import java.util.List;
import java.util.Map;
import sandpiper.logic.Span;
import sandpiper.logic.type.Member;
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

    /** Is told how a condition came out. */
    default void decided(Span condition, Object value) {}

    /** Whether something was rejected, so that no further step is run. */
    boolean isStopped();
}
