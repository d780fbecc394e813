package sandpiper.engine.command;

import java.util.List;
import java.util.UUID;
import org.jspecify.annotations.Nullable;
import sandpiper.engine.trace.Trace;
import sandpiper.model.release.ObjectType;

/** What became of a command. */
public sealed interface Outcome {
    /**
     * It was done and is durable.
     *
     * @param number internal number, to read the record again; never leaves the service
     * @param created whether the record is new
     * @param warnings what was said but stopped nothing
     * @param trace the account of it, or {@code null} when nobody asked for one
     */
    record Done(
            ObjectType object,
            long number,
            UUID id,
            long version,
            boolean created,
            List<Fault> warnings,
            @Nullable Trace trace)
            implements Outcome {
        public Done {
            warnings = List.copyOf(warnings);
        }
    }

    /** It had been done before, and was answered with this. */
    record Repeated(String answer) implements Outcome {}

    /**
     * It was not done, and nothing has changed; says why, at least once.
     *
     * @param trace how it came to that, or {@code null} when nobody took it down
     */
    record Refused(Reason reason, List<Fault> faults, @Nullable Trace trace) implements Outcome {
        public Refused {
            faults = List.copyOf(faults);
        }

        public Refused(Reason reason, List<Fault> faults) {
            this(reason, faults, null);
        }

        /** For one reason only. */
        public static Refused because(Reason reason, RecordCode code, String message) {
            return new Refused(reason, List.of(new Fault(List.of(), code, message)));
        }
    }

    /** Why a command was not done. */
    enum Reason {
        /** The values are not right. */
        INVALID,
        /** There is no such record. */
        MISSING,
        /** Somebody else has changed the record since it was read. */
        STALE,
        /** The change must say which version it is based on, and does not. */
        UNVERSIONED,
        /** Another record, or the state of this one, stands in the way. */
        CONFLICT
    }
}
