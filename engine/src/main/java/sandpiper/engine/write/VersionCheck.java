package sandpiper.engine.write;

import java.util.Objects;
import org.jspecify.annotations.Nullable;
import sandpiper.engine.command.Expected;
import sandpiper.engine.command.Outcome;
import sandpiper.engine.command.Outcome.Reason;
import sandpiper.engine.command.RecordCode;
import sandpiper.engine.work.RecordState;

/**
 * Whether the record that is there is the one a command was made for.
 *
 * @param needed whether a change has to say which version it is based on
 */
record VersionCheck(boolean needed) {
    /** Why a record cannot be changed at all, or {@code null}. */
    Outcome.@Nullable Refused refusal(RecordState there, @Nullable Expected expected) {
        var stale = stale(there, expected);
        if (stale != null || !there.isRetired()) {
            return stale;
        }
        return Outcome.Refused.because(
                Reason.CONFLICT,
                RecordCode.RETIRED_RECORD,
                "This %s is retired; restore it before changing it."
                        .formatted(there.object().label()));
    }

    /** Why a command does not fit the version that is there, or {@code null} when it does. */
    Outcome.@Nullable Refused stale(RecordState there, @Nullable Expected expected) {
        var stored = Objects.requireNonNull(there.stored());
        if (expected instanceof Expected.Absent) {
            return Outcome.Refused.because(
                    Reason.STALE,
                    RecordCode.STALE,
                    "This %s is there already; nothing was done."
                            .formatted(there.object().label()));
        }
        if (!(expected instanceof Expected.Versions(var versions))) {
            if (!needed) {
                return null;
            }
            return Outcome.Refused.because(
                    Reason.UNVERSIONED,
                    RecordCode.VERSION_NEEDED,
                    "A change of this %s must say which version it is based on; read it and send the version you read."
                            .formatted(there.object().label()));
        }
        if (versions.contains(stored.version())) {
            return null;
        }
        if (versions.isEmpty()) {
            return Outcome.Refused.because(
                    Reason.STALE,
                    RecordCode.STALE,
                    "None of the tags that were sent is the strong tag of this %s; read it again."
                            .formatted(there.object().label()));
        }
        return Outcome.Refused.because(
                Reason.STALE,
                RecordCode.STALE,
                "This %s was changed by %s in the meantime (version %d, not %s); read it again and repeat your change."
                        .formatted(
                                there.object().label(),
                                stored.changedBy(),
                                stored.version(),
                                expected));
    }
}
