package sandpiper.engine.command;

import java.util.List;
import java.util.UUID;
import org.jspecify.annotations.Nullable;
import sandpiper.engine.trace.Trace;
import sandpiper.model.release.ObjectType;

/** What became of a command. */
public sealed interface Outcome {
    /** It was done and is durable. */
    sealed interface Success extends Outcome {
        ObjectType object();

        /** What was said but stopped nothing. */
        List<Fault> warnings();

        /** The account of it, or {@code null} when nobody asked for one. */
        @Nullable Trace trace();

        /** What a function gave back, or {@code null} when it gives nothing back. */
        @Nullable Result result();

        /** With the account of it. */
        Success with(Trace account);
    }

    /**
     * It was done to a record.
     *
     * @param number internal number, to read the record again; never leaves the service
     * @param created whether the record is new
     */
    record Done(
            ObjectType object,
            long number,
            UUID id,
            long version,
            boolean created,
            List<Fault> warnings,
            @Nullable Trace trace,
            @Nullable Result result)
            implements Success {
        public Done {
            warnings = List.copyOf(warnings);
        }

        @Override
        public Done with(Trace account) {
            return new Done(object, number, id, version, created, warnings, account, result);
        }

        /** With what a function gave back. */
        public Done giving(@Nullable Result given) {
            return new Done(object, number, id, version, created, warnings, trace, given);
        }
    }

    /** A function of an object as a whole was called. */
    record Returned(
            ObjectType object, List<Fault> warnings, @Nullable Trace trace, @Nullable Result result)
            implements Success {
        public Returned {
            warnings = List.copyOf(warnings);
        }

        @Override
        public Returned with(Trace account) {
            return new Returned(object, warnings, account, result);
        }
    }

    /**
     * What a function gave back.
     *
     * @param called its name
     * @param value in plain form, {@code null} when it came to nothing
     */
    record Result(String called, @Nullable Object value) {}

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
            return new Refused(reason, List.of(new Fault(FaultPath.WHOLE, code, message)));
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
        CONFLICT,
        /** A service outside that is needed does not answer as it should; it may do so later. */
        UNAVAILABLE
    }
}
