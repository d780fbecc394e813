package sandpiper.model.logic;

import sandpiper.logic.run.StepCode;
import sandpiper.model.release.ObjectType;
import sandpiper.model.release.ScheduleDefinition;

/** A schedule that can be run for a record. */
public record CompiledSchedule(ScheduleDefinition definition, ObjectType object, StepCode then) {
    /** Its name among all schedules: {@code Vessel.remindOfInsurance}. */
    public String name() {
        return object.name() + "." + definition.name();
    }
}
