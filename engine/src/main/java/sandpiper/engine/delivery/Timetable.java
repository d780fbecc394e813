package sandpiper.engine.delivery;

import com.fasterxml.uuid.Generators;
import com.fasterxml.uuid.NoArgGenerator;
import java.time.Clock;
import java.time.Duration;
import java.time.Instant;
import java.time.LocalDate;
import java.time.ZonedDateTime;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import java.util.Optional;
import java.util.UUID;
import java.util.function.Consumer;
import java.util.function.Function;
import java.util.function.Supplier;
import org.jspecify.annotations.Nullable;
import org.slf4j.Logger;
import org.slf4j.LoggerFactory;
import sandpiper.engine.event.Event;
import sandpiper.engine.port.ScheduleStorage.Progress;
import sandpiper.engine.port.Session;
import sandpiper.engine.port.Storage;
import sandpiper.engine.port.Transaction;
import sandpiper.engine.release.LiveRelease;
import sandpiper.engine.writer.Writer;
import sandpiper.logic.run.Evaluation;
import sandpiper.logic.run.RecordSource;
import sandpiper.model.logic.CompiledSchedule;
import sandpiper.model.release.KeyText;
import sandpiper.model.release.ScheduleDefinition.Time;

/**
 * Notices when the time of a schedule has come, and makes an event of it for each of its records.
 * From there it goes the way of all events, with tries and an account of each. How far a run has
 * come is stored with those events, so each record gets it once.
 */
final class Timetable {
    private static final Logger LOG = LoggerFactory.getLogger(Timetable.class);
    private static final NoArgGenerator IDS = Generators.timeBasedEpochGenerator();

    /** Records that are made due in one transaction. */
    private static final int AT_ONCE = 500;

    /** A time this long ago is one that was missed. */
    private static final Duration LATE = Duration.ofMinutes(5);

    /** Times that are gone through to find the latest one missed. */
    private static final int MOST_TIMES = 10_000;

    private final Storage storage;
    private final Supplier<LiveRelease> live;
    private final Writer writer;
    private final Clock clock;
    private final Map<String, Progress> known = new HashMap<>();

    Timetable(Storage storage, Supplier<LiveRelease> live, Writer writer, Clock clock) {
        this.storage = storage;
        this.live = live;
        this.writer = writer;
        this.clock = clock;
    }

    /** Makes due what is; tells whether there was any. */
    boolean run() {
        var now = live.get();
        boolean worked = false;
        for (var schedule : now.logic().schedules()) {
            var there = known.get(schedule.name());
            var progress = there == null ? find(schedule.name()) : there;
            if (progress.running() != null) {
                goOn(now, schedule, progress);
                worked = true;
            } else {
                worked |= begin(schedule, progress);
            }
        }
        return worked;
    }

    /** A schedule that is seen for the first time begins now: what was before it is not missed. */
    private Progress find(String name) {
        Optional<Progress> there;
        try (var session = storage.snapshot()) {
            there = storage.schedules().find(session, name);
        }
        there.ifPresent(progress -> known.put(name, progress));
        return there.orElseGet(() -> {
            var first = new Progress(name, clock.instant(), null, 0);
            keep(null, first);
            return first;
        });
    }

    /**
     * Goes on from one place to another, doing what belongs to that; not when another process has
     * gone on meanwhile, whose place is then looked at anew.
     */
    private boolean keep(@Nullable Progress from, Progress progress, Consumer<Transaction> beside) {
        boolean kept =
                writer.write(transaction -> {
                    var there = storage.schedules().claim(transaction, progress.name());
                    if (!there.equals(Optional.ofNullable(from))) {
                        return false;
                    }
                    beside.accept(transaction);
                    storage.schedules().put(transaction, progress);
                    return true;
                });
        if (kept) {
            known.put(progress.name(), progress);
        } else {
            known.remove(progress.name());
        }
        return kept;
    }

    private boolean keep(@Nullable Progress from, Progress progress) {
        return keep(from, progress, _ -> {});
    }

    private boolean begin(CompiledSchedule schedule, Progress progress) {
        var now = clock.instant();
        var latest = latest(schedule, progress.ranFor(), now);
        if (latest.isEmpty()) {
            return false;
        }
        boolean missed = latest.get().plus(LATE).isBefore(now);
        if (missed && schedule.definition().skips()) {
            LOG.info("Schedule {} leaves out {}", schedule.name(), latest.get());
            keep(progress, new Progress(schedule.name(), latest.get(), null, 0));
        } else {
            keep(progress, new Progress(schedule.name(), progress.ranFor(), latest.get(), 0));
        }
        return true;
    }

    /** The last time of a schedule behind one moment and not after another, or nothing. */
    private static Optional<Instant> latest(
            CompiledSchedule schedule, Instant after, Instant until) {
        var zone = schedule.object().zone();
        var at = after.atZone(zone);
        Instant latest = null;
        for (int i = 0; i < MOST_TIMES; i++) {
            var next = next(schedule.definition().time(), at).orElse(null);
            if (next == null || next.toInstant().isAfter(until)) {
                return Optional.ofNullable(latest);
            }
            latest = next.toInstant();
            at = next;
        }
        return Optional.of(until);
    }

    private static Optional<ZonedDateTime> next(Time time, ZonedDateTime after) {
        return switch (time) {
            case Time.Cron(var times) -> times.after(after);
            case Time.Day day -> {
                var today = after.with(day.at());
                yield Optional.of(today.isAfter(after) ? today : today.plusDays(1));
            }
        };
    }

    /** Makes the next records due; ends the run when there are no more. */
    private void goOn(LiveRelease now, CompiledSchedule schedule, Progress progress) {
        var numbers = numbers(now, schedule, progress);
        var unit = IDS.generate();
        var at = progress;
        for (int from = 0; from < numbers.size(); from += AT_ONCE) {
            var some = numbers.subList(from, Math.min(from + AT_ONCE, numbers.size()));
            var reached =
                    new Progress(
                            schedule.name(), progress.ranFor(), progress.running(), some.getLast());
            boolean kept =
                    keep(
                            at,
                            reached,
                            transaction ->
                                    some.forEach(number ->
                                            storage.events()
                                                    .add(
                                                            transaction,
                                                            due(
                                                                    now,
                                                                    transaction,
                                                                    schedule,
                                                                    number,
                                                                    unit))));
            if (!kept) {
                return;
            }
            at = reached;
        }
        keep(
                at,
                new Progress(schedule.name(), Objects.requireNonNull(progress.running()), null, 0));
    }

    private Event due(
            LiveRelease now,
            Transaction transaction,
            CompiledSchedule schedule,
            long number,
            UUID unit) {
        var object = schedule.object();
        var record = now.records().load(transaction, object, number).orElseThrow();
        var key =
                now.records()
                        .keyOf(transaction, object, number)
                        .filter(values -> !values.isEmpty())
                        .map(values -> KeyText.write(object, values))
                        .orElse(record.id().toString());
        return new Event(
                0,
                IDS.generate(),
                schedule.name(),
                Event.Kind.DUE,
                unit,
                object.name(),
                record.id(),
                key,
                clock.instant(),
                "schedule " + schedule.name(),
                "schedule",
                0,
                Map.of());
    }

    private List<Long> numbers(LiveRelease now, CompiledSchedule schedule, Progress progress) {
        var text = condition(schedule, progress);
        var object = schedule.object();
        return read(session -> {
            var condition =
                    text == null
                            ? null
                            : now.logic()
                                    .condition(object, text)
                                    .condition(
                                            new Evaluation(
                                                    clock.instant(),
                                                    object.zone(),
                                                    RecordSource.NONE));
            return now.records().numbers(session, object, condition, Integer.MAX_VALUE).stream()
                    .filter(number -> number > progress.after())
                    .toList();
        });
    }

    private <T> T read(Function<Session, T> reading) {
        try (var session = storage.snapshot()) {
            return reading.apply(session);
        }
    }

    /** The condition on its records at a time, or {@code null} for all. */
    private static @Nullable String condition(CompiledSchedule schedule, Progress progress) {
        var definition = schedule.definition();
        var where = definition.where() == null ? null : definition.where().text();
        if (!(definition.time() instanceof Time.Day day)) {
            return where;
        }
        var zone = schedule.object().zone();
        var running = Objects.requireNonNull(progress.running()).atZone(zone);
        var last = running.toLocalDate().minusDays(day.days());
        var first =
                next(day, progress.ranFor().atZone(zone))
                        .map(time -> time.toLocalDate().minusDays(day.days()))
                        .orElse(last);
        var dates =
                "%s >= date(\"%s\") and %s <= date(\"%s\")"
                        .formatted(
                                day.field().name(),
                                definition.skips() ? last : earlier(first, last),
                                day.field().name(),
                                last);
        return where == null ? dates : "(%s) and %s".formatted(where, dates);
    }

    private static LocalDate earlier(LocalDate a, LocalDate b) {
        return a.isBefore(b) ? a : b;
    }
}
