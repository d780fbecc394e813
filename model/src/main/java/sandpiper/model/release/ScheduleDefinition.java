package sandpiper.model.release;

import java.time.LocalTime;
import org.jspecify.annotations.Nullable;
import sandpiper.model.definition.CronTime;
import sandpiper.model.definition.LogicText;

/**
 * Steps that run for records when their time comes.
 *
 * @param describe what it is for, or {@code null}
 * @param where the records it runs for, or {@code null} for all in use
 * @param skips whether times that were missed are left out; otherwise they are made up for once
 */
public record ScheduleDefinition(
        String name,
        String label,
        @Nullable String describe,
        Time time,
        @Nullable LogicText where,
        boolean skips,
        LogicText then) {

    /** When it runs. */
    public sealed interface Time {
        /** As cron has it, in five fields, in the zone of the object's package. */
        record Cron(CronTime times) implements Time {}

        /**
         * Once for each record on a day that follows from one of its dates.
         *
         * @param days after the date; before it when negative
         */
        record Day(int days, Field field, LocalTime at) implements Time {}
    }
}
