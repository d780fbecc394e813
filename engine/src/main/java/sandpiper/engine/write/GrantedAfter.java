package sandpiper.engine.write;

import java.util.regex.Pattern;
import org.jspecify.annotations.Nullable;
import sandpiper.engine.access.RecordScope;
import sandpiper.engine.command.Fault;
import sandpiper.engine.command.Outcome;
import sandpiper.engine.command.Outcome.Reason;
import sandpiper.engine.command.RecordCode;
import sandpiper.engine.work.RecordState;

/**
 * What of a record the one who asked may bring about.
 *
 * @param scope what the record has to be within when all is worked out
 */
record GrantedAfter(RecordScope scope) {

    /** Why what has become of the record is not granted, or {@code null}. */
    Outcome.@Nullable Refused beyond(UnitOfWork unit, RecordState made) {
        return unit.workspace().isWithin(scope, made) ? null : notGranted(made);
    }

    /**
     * A refusal as it is told. Whoever is granted records by what these refer to hears the same of
     * one that is not there as of one that is not granted, and so does not learn which there are.
     */
    Outcome.Refused told(Outcome.Refused refused, RecordState made) {
        boolean tells =
                refused.faults().stream()
                        .anyMatch(fault ->
                                fault.code() == RecordCode.UNKNOWN_RECORD && isOfACondition(fault));
        return tells ? notGranted(made) : refused;
    }

    private static Outcome.Refused notGranted(RecordState made) {
        return Outcome.Refused.because(
                Reason.CONFLICT,
                RecordCode.NOT_GRANTED,
                "With these values the %s would be one that is not granted to you."
                        .formatted(made.object().label()));
    }

    /** Whether what is granted depends on what the field of a fault refers to. */
    private boolean isOfACondition(Fault fault) {
        if (fault.path().steps().size() != 1) {
            return false;
        }
        var followed =
                Pattern.compile("\\b%s\\s*\\.".formatted(Pattern.quote(fault.path().toString())));
        return scope.conditions().stream().anyMatch(text -> followed.matcher(text).find());
    }
}
