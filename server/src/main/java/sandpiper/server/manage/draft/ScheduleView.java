package sandpiper.server.manage.draft;

import org.jspecify.annotations.Nullable;
import sandpiper.model.release.ScheduleDefinition;
import sandpiper.model.release.ScheduleDefinition.Time;

/**
 * A schedule as it is written.
 *
 * @param times when it runs, in words: "7 days before insuredUntil, at 06:00"
 */
public record ScheduleView(
        String name,
        String label,
        @Nullable String describe,
        String times,
        @Nullable String where,
        boolean skips,
        String then,
        String file) {

    static ScheduleView of(ScheduleDefinition schedule) {
        var where = schedule.where();
        return new ScheduleView(
                schedule.name(),
                schedule.label(),
                schedule.describe(),
                words(schedule.time()),
                where == null ? null : where.text(),
                schedule.skips(),
                schedule.then().text(),
                schedule.then().origin().file());
    }

    private static String words(Time time) {
        return switch (time) {
            case Time.Cron(var times) -> "cron " + times;
            case Time.Day(int days, var field, var at) -> {
                var day =
                        days == 0
                                ? "on"
                                : "%d %s %s"
                                        .formatted(
                                                Math.abs(days),
                                                Math.abs(days) == 1 ? "day" : "days",
                                                days < 0 ? "before" : "after");
                yield "%s %s, at %s".formatted(day, field.name(), at);
            }
        };
    }
}
