package sandpiper.logic.run;

import java.time.Duration;
import java.time.LocalDate;
import java.time.LocalTime;
import java.time.ZoneId;
import java.time.ZoneOffset;
import java.util.ArrayList;
import java.util.List;
import org.jspecify.annotations.Nullable;
import sandpiper.logic.value.Amount;
import sandpiper.logic.value.Context;
import sandpiper.logic.value.Decimal;
import sandpiper.logic.value.Moment;
import sandpiper.logic.value.Months;
import sandpiper.logic.value.Nothing;
import sandpiper.logic.value.Range;
import sandpiper.logic.value.RecordValue;
import sandpiper.logic.value.TimeOfDay;

/** What stands behind a point, DMN 1.5 §10.3.2.15 (tables 65 and 66). */
final class PropertyReader {
    private PropertyReader() {}

    static Object read(Object from, String name, Evaluation run) {
        return switch (from) {
            case Context context -> context.get(name);
            case RecordValue record -> record.read(name);
            case List<?> list -> each(list, name, run);
            case LocalDate date -> orNull(date(date, name));
            case TimeOfDay time -> orNull(time(time.time(), time.zone(), time.offset(), name));
            case Moment moment -> {
                var day = date(moment.local().toLocalDate(), name);
                yield day != null
                        ? day
                        : orNull(
                                time(
                                        moment.local().toLocalTime(),
                                        moment.zone(),
                                        moment.offset(),
                                        name));
            }
            case Duration duration -> orNull(duration(duration, name));
            case Months months ->
                    switch (name) {
                        case "years" -> Decimal.of(months.count() / 12);
                        case "months" -> Decimal.of(months.count() % 12);
                        default -> Nothing.NULL;
                    };
            case Range range ->
                    switch (name) {
                        case "start" -> range.start();
                        case "end" -> range.end();
                        case "start included" -> range.startIncluded();
                        case "end included" -> range.endIncluded();
                        default -> Nothing.NULL;
                    };
            case Amount amount ->
                    switch (name) {
                        case "value" -> amount.value();
                        case "currency" -> amount.currency();
                        default -> Nothing.NULL;
                    };
            default -> Nothing.NULL;
        };
    }

    private static Object each(List<?> list, String name, Evaluation run) {
        run.spend(list.size());
        var values = new ArrayList<Object>(list.size());
        for (var item : list) {
            values.add(read(item, name, run));
        }
        return values;
    }

    private static Object orNull(@Nullable Object value) {
        return value == null ? Nothing.NULL : value;
    }

    private static @Nullable Object date(LocalDate date, String name) {
        return switch (name) {
            case "year" -> Decimal.of(date.getYear());
            case "month" -> Decimal.of(date.getMonthValue());
            case "day" -> Decimal.of(date.getDayOfMonth());
            case "weekday" -> Decimal.of(date.getDayOfWeek().getValue());
            default -> null;
        };
    }

    private static @Nullable Object time(
            LocalTime time, @Nullable ZoneId zone, @Nullable ZoneOffset offset, String name) {
        return switch (name) {
            case "hour" -> Decimal.of(time.getHour());
            case "minute" -> Decimal.of(time.getMinute());
            case "second" -> Decimal.of(time.getSecond());
            case "time offset" ->
                    offset == null ? null : Duration.ofSeconds(offset.getTotalSeconds());
            case "timezone" -> zone == null || zone instanceof ZoneOffset ? null : zone.getId();
            default -> null;
        };
    }

    private static @Nullable Object duration(Duration duration, String name) {
        // Parts of a duration below 0 are below 0 each.
        var size = duration.abs();
        long part =
                switch (name) {
                    case "days" -> size.toDays();
                    case "hours" -> size.toHoursPart();
                    case "minutes" -> size.toMinutesPart();
                    case "seconds" -> size.toSecondsPart();
                    default -> -1;
                };
        return part < 0 ? null : Decimal.of(duration.isNegative() ? -part : part);
    }
}
