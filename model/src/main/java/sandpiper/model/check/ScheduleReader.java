package sandpiper.model.check;

import java.time.LocalTime;
import java.util.ArrayList;
import java.util.List;
import java.util.Objects;
import java.util.Optional;
import java.util.regex.Pattern;
import org.jspecify.annotations.Nullable;
import sandpiper.logic.Nearest;
import sandpiper.logic.Quoted;
import sandpiper.model.DefinitionCode;
import sandpiper.model.Names;
import sandpiper.model.definition.CronTime;
import sandpiper.model.release.Fields;
import sandpiper.model.release.ScheduleDefinition;
import sandpiper.model.source.Source;
import sandpiper.model.type.TypeKeyword;
import sandpiper.model.yaml.YamlNode;

/** Reads the schedules of an object or an extension. */
final class ScheduleReader {
    private static final String KEY = "schedules";
    private static final Pattern DAY =
            Pattern.compile("(?:(\\d{1,4}) days? (before|after)|on) ([a-z][A-Za-z0-9]*)");

    private final Source source;
    private final Fields fields;

    /** {@code fields} of the object, whose dates a schedule may follow. */
    ScheduleReader(Source source, Fields fields) {
        this.source = source;
        this.fields = fields;
    }

    List<ScheduleDefinition> read(YamlNode.Mapping root) {
        var schedules = new ArrayList<ScheduleDefinition>();
        for (var entry : Source.mapping(root, KEY).entries()) {
            var name = entry.key().text();
            if (!(entry.value() instanceof YamlNode.Mapping definition)
                    || source.logic(definition, "then") == null) {
                continue;
            }
            var time = time(name, definition);
            if (time != null) {
                schedules.add(
                        new ScheduleDefinition(
                                name,
                                Source.text(definition, "label").orElseGet(() -> Names.label(name)),
                                Source.text(definition, "describe").orElse(null),
                                time,
                                source.logic(definition, "where"),
                                Source.text(definition, "missed")
                                        .filter("skip"::equals)
                                        .isPresent(),
                                Objects.requireNonNull(source.logic(definition, "then"))));
            }
        }
        return schedules;
    }

    private ScheduleDefinition.@Nullable Time time(String name, YamlNode.Mapping definition) {
        var every = Source.text(definition, "every");
        var on = Source.text(definition, "on");
        if (every.isPresent() == on.isPresent()) {
            source.errorAtKey(
                    DefinitionCode.MISSING_KEY,
                    "A schedule has either \"every\", as in 0 6 * * *, or \"on\", as in 7 days"
                            + " before insuredUntil.",
                    null,
                    KEY,
                    name);
            return null;
        }
        return every.isPresent() ? cron(name, every.get()) : day(name, definition, on.get());
    }

    private ScheduleDefinition.@Nullable Time cron(String name, String text) {
        try {
            return new ScheduleDefinition.Time.Cron(CronTime.read(text));
        } catch (IllegalArgumentException e) {
            source.error(
                    DefinitionCode.BAD_SCHEDULE,
                    "%s is not a time as cron has it (minute, hour, day of month, month, day of week): %s"
                            .formatted(Quoted.of(text), e.getMessage()),
                    null,
                    KEY,
                    name,
                    "every");
            return null;
        }
    }

    private ScheduleDefinition.@Nullable Time day(
            String name, YamlNode.Mapping definition, String text) {
        var matcher = DAY.matcher(text);
        if (!matcher.matches()) {
            source.error(
                    DefinitionCode.BAD_SCHEDULE,
                    "%s is not a day; write as in 7 days before insuredUntil, 1 day after departure, on arrival."
                            .formatted(Quoted.of(text)),
                    null,
                    KEY,
                    name,
                    "on");
            return null;
        }
        var fieldName = matcher.group(3);
        var field = fields.find(fieldName);
        boolean isDate = field.isPresent() && field.get().type().keyword() == TypeKeyword.DATE;
        if (!isDate || field.get().onRead()) {
            var dates =
                    fields.stream()
                            .filter(one -> one.type().keyword() == TypeKeyword.DATE)
                            .map(one -> one.name())
                            .toList();
            source.error(
                    field.isPresent()
                            ? DefinitionCode.NOT_FOR_THIS_TYPE
                            : DefinitionCode.UNKNOWN_FIELD,
                    field.isPresent()
                            ? "%s is not a date.".formatted(fieldName)
                            : "There is no field %s.".formatted(Quoted.of(fieldName)),
                    Nearest.to(fieldName, dates).orElse(null),
                    KEY,
                    name,
                    "on");
            return null;
        }
        int days =
                Optional.ofNullable(matcher.group(1)).map(Integer::parseInt).orElse(0)
                        * ("before".equals(matcher.group(2)) ? -1 : 1);
        var at = Source.text(definition, "at").map(LocalTime::parse).orElse(LocalTime.MIDNIGHT);
        return new ScheduleDefinition.Time.Day(days, field.get(), at);
    }
}
