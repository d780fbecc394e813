package sandpiper.engine.work;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.List;
import org.junit.jupiter.api.Test;
import sandpiper.engine.Yard;
import sandpiper.engine.command.Fault;
import sandpiper.engine.command.FaultPath;
import sandpiper.engine.command.Outcome.Reason;
import sandpiper.engine.command.RecordCode;

class FaultLogTest {
    private final Yard yard =
            new Yard("object: Crane\nkey: code\nfields:\n  code: { type: text }\n");
    private final FaultLog log = new FaultLog();
    private final RecordState asked = crane("K1");
    private final RecordState other = crane("K2");

    private RecordState crane(String code) {
        var record = new RecordState(yard.object("Crane"), WorkIds.next());
        record.slots().set(yard.object("Crane").fields().get("code"), code);
        return record;
    }

    private static Fault fault(RecordCode code, String... path) {
        return new Fault(FaultPath.of(path), code, "No.");
    }

    @Test
    void aFaultOfTheRecordThatWasAskedForStandsAtItsField() {
        log.primary(asked);

        log.add(asked, fault(RecordCode.REQUIRED, "code"));

        assertThat(log.all()).containsExactly(fault(RecordCode.REQUIRED, "code"));
        assertThat(log.isFaulty(asked, FaultPath.of("code"))).isTrue();
        assertThat(log.isFaulty(other, FaultPath.of("code"))).isFalse();
    }

    @Test
    void aFaultOfAnotherRecordSaysWhich() {
        log.primary(asked);

        log.add(other, fault(RecordCode.REQUIRED, "code"));

        assertThat(log.all())
                .containsExactly(new Fault(FaultPath.WHOLE, RecordCode.REQUIRED, "Crane K2: No."));
        assertThat(log.of(other)).hasSize(1);
        assertThat(log.of(asked)).isEmpty();
    }

    @Test
    void whatIsWrongWithAllIsSaidToTheFirstThatWasAskedFor() {
        log.primary(asked);

        log.refuse(fault(RecordCode.TOO_MUCH));

        assertThat(log.of(asked)).containsExactly(fault(RecordCode.TOO_MUCH));
    }

    @Test
    void theSameIsSaidOnce() {
        log.add(asked, fault(RecordCode.REQUIRED));
        log.add(asked, fault(RecordCode.REQUIRED));
        log.warn(fault(RecordCode.REJECTED));
        log.warn(fault(RecordCode.REJECTED));

        assertThat(log.all()).hasSize(1);
        assertThat(log.warnings()).hasSize(1);
    }

    @Test
    void warningsStopNothing() {
        log.warn(fault(RecordCode.CHECK_FAILED));

        assertThat(log.isStopped()).isFalse();
        assertThat(log.refusal()).isNull();
    }

    @Test
    void itIsAConflictOnlyWhenAllOfItIsAboutOthers() {
        assertThat(FaultLog.refusal(List.of(fault(RecordCode.DUPLICATE_KEY))).reason())
                .isEqualTo(Reason.CONFLICT);
        assertThat(
                        FaultLog.refusal(
                                        List.of(
                                                fault(RecordCode.NOT_UNIQUE),
                                                fault(RecordCode.WRONG_STATE)))
                                .reason())
                .isEqualTo(Reason.CONFLICT);
        assertThat(
                        FaultLog.refusal(
                                        List.of(
                                                fault(RecordCode.DUPLICATE_KEY),
                                                fault(RecordCode.REQUIRED)))
                                .reason())
                .isEqualTo(Reason.INVALID);
    }
}
