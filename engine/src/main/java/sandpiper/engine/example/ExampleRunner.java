package sandpiper.engine.example;

import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.TreeSet;
import org.jspecify.annotations.Nullable;
import sandpiper.engine.access.Actor;
import sandpiper.engine.access.Duty;
import sandpiper.engine.command.Fault;
import sandpiper.engine.command.Outcome;
import sandpiper.engine.command.RecordCommand;
import sandpiper.engine.command.Request;
import sandpiper.engine.event.Event;
import sandpiper.engine.port.Storage;
import sandpiper.engine.port.Transaction;
import sandpiper.engine.read.PlainRecords;
import sandpiper.engine.read.RecordFinder;
import sandpiper.engine.release.LiveRelease;
import sandpiper.engine.trace.TraceStep;
import sandpiper.engine.write.ReactionWrites;
import sandpiper.engine.write.RecordWrites;
import sandpiper.engine.writer.WriteJob;
import sandpiper.model.definition.Requirement;
import sandpiper.model.definition.Requirement.Action;
import sandpiper.model.definition.Requirement.Example;
import sandpiper.model.definition.Requirement.Expected;
import sandpiper.model.logic.CompiledHandler;
import sandpiper.model.release.KeyText;
import sandpiper.model.release.ObjectType;

/**
 * One example at play: makes what is given, does what is to be done, lets handlers hear of it, and
 * compares what came of it. Whatever it did is undone.
 */
final class ExampleRunner implements WriteJob<ExampleResult> {
    private static final String VIA = "example";

    private final LiveRelease live;
    private final Storage storage;
    private final RecordWrites writes;
    private final ReactionWrites reactions;
    private final Requirement requirement;
    private final Example example;
    private final boolean onRecords;
    private final Map<String, Subject> named = new LinkedHashMap<>();
    private final List<String> problems = new ArrayList<>();
    private List<TraceStep> steps = List.of();

    /** A record by its object and key. */
    private record Subject(ObjectType object, String key) {}

    /**
     * @param onRecords whether there are records already, some of which may be what is given
     */
    ExampleRunner(
            LiveRelease live,
            Storage storage,
            RecordWrites writes,
            ReactionWrites reactions,
            Requirement requirement,
            Example example,
            boolean onRecords) {
        this.live = live;
        this.storage = storage;
        this.writes = writes;
        this.reactions = reactions;
        this.requirement = requirement;
        this.example = example;
        this.onRecords = onRecords;
    }

    @Override
    public boolean keeps(ExampleResult result) {
        return false;
    }

    @Override
    public ExampleResult run(Transaction transaction) {
        if (given(transaction)) {
            play(transaction);
        }
        return new ExampleResult(
                requirement.id(), example.name(), example.label(), problems, steps);
    }

    private boolean given(Transaction transaction) {
        for (var action : example.given()) {
            if (run(transaction, action, given(action), false) instanceof Outcome.Refused refused) {
                problems.add("What is given cannot be made: " + said(refused));
                return false;
            }
        }
        return true;
    }

    /** Of records that are there, what is given holds for the one that has the key. */
    private RecordCommand given(Action action) {
        var command = command(action);
        return onRecords
                        && command instanceof RecordCommand.Create create
                        && !create.object().key().isEmpty()
                        && create.values().keySet().containsAll(create.object().key())
                ? new RecordCommand.Save(
                        create.object(),
                        create.writable(),
                        create.writable(),
                        null,
                        create.values(),
                        create.presets(),
                        true,
                        null)
                : command;
    }

    private void play(Transaction transaction) {
        long before = storage.events().newest(transaction);
        Outcome last = null;
        for (int i = 0; i < example.when().size(); i++) {
            boolean isLast = i == example.when().size() - 1;
            last = run(transaction, example.when().get(i), isLast);
            if (!isLast && last instanceof Outcome.Refused refused) {
                problems.add("Step %d is refused: %s".formatted(i + 1, said(refused)));
                return;
            }
        }
        if (last == null) {
            problems.add("Nothing is done in it.");
            return;
        }
        compare(transaction, last, before);
    }

    private static String said(Outcome.Refused refused) {
        return String.join(" ", refused.faults().stream().map(Fault::message).toList());
    }

    private Outcome run(Transaction transaction, Action action, boolean isLast) {
        return run(transaction, action, command(action), isLast);
    }

    private Outcome run(
            Transaction transaction, Action action, RecordCommand command, boolean isLast) {
        long before = storage.events().newest(transaction);
        var request = new Request(command, actor(action), VIA, true, true, null);
        var outcome = writes.write(live, transaction, request);
        if (isLast) {
            var trace =
                    switch (outcome) {
                        case Outcome.Success done -> done.trace();
                        case Outcome.Refused refused -> refused.trace();
                        case Outcome.Repeated _ -> null;
                    };
            steps = trace == null ? List.of() : trace.steps();
        }
        if (outcome instanceof Outcome.Success done) {
            remember(transaction, action, done);
            react(transaction, before);
        }
        return outcome;
    }

    /** Somebody who may do everything; roles are of an instance, not of a package. */
    private static Actor actor(Action action) {
        var by = action.by();
        return by == null
                ? Actor.SYSTEM
                : new Actor(Actor.Kind.USER, by, Set.of(Duty.values()), List.of());
    }

    private RecordCommand command(Action action) {
        return switch (action) {
            case Action.Create create -> {
                var object = live.release().object(create.object());
                yield new RecordCommand.Create(
                        object, live.release().everythingOf(object), resolved(create.values()));
            }
            case Action.Change change -> {
                var subject = subject(change.record());
                yield new RecordCommand.Change(
                        subject.object(),
                        live.release().everythingOf(subject.object()),
                        subject.key(),
                        resolved(change.values()),
                        null);
            }
            case Action.Retire retire -> {
                var subject = subject(retire.record());
                yield new RecordCommand.Remove(subject.object(), subject.key(), null);
            }
            case Action.Transit transit -> {
                var subject = subject(transit.record());
                yield new RecordCommand.Transit(
                        subject.object(), subject.key(), transit.transition(), null);
            }
            case Action.Call call -> {
                int dot = call.function().indexOf('.');
                var on = call.record();
                yield new RecordCommand.Call(
                        live.release().object(call.function().substring(0, dot)),
                        on == null ? null : subject(on).key(),
                        call.function().substring(dot + 1),
                        resolved(call.arguments()),
                        null);
            }
        };
    }

    /** The record that is written as {@code Object/key} or by a name given before. */
    private Subject subject(String written) {
        int slash = written.indexOf('/');
        var known = named.get(written);
        return known != null
                ? known
                : new Subject(
                        live.release().object(written.substring(0, Math.max(0, slash))),
                        written.substring(slash + 1));
    }

    /** Values with the keys of records in the place of their names. */
    private Map<String, @Nullable Object> resolved(Map<String, @Nullable Object> values) {
        var resolved = new LinkedHashMap<String, @Nullable Object>();
        values.forEach((name, value) -> resolved.put(name, resolved(value)));
        return resolved;
    }

    private @Nullable Object resolved(@Nullable Object value) {
        return switch (value) {
            case String text when named.containsKey(text) -> subject(text).key();
            case List<?> list -> {
                var all = new ArrayList<@Nullable Object>();
                list.forEach(one -> all.add(resolved(one)));
                yield all;
            }
            case Map<?, ?> map -> {
                var all = new LinkedHashMap<String, @Nullable Object>();
                map.forEach((name, one) -> all.put(String.valueOf(name), resolved(one)));
                yield all;
            }
            case null -> null;
            default -> value;
        };
    }

    private void remember(Transaction transaction, Action action, Outcome.Success outcome) {
        if (!(outcome instanceof Outcome.Done done)) {
            return;
        }
        var key =
                live.records()
                        .keyOf(transaction, done.object(), done.number())
                        .filter(values -> !values.isEmpty())
                        .map(values -> KeyText.write(done.object(), values))
                        .orElse(done.id().toString());
        var subject = new Subject(done.object(), key);
        named.put("", subject);
        var as = action.as();
        if (as != null) {
            named.put(as, subject);
        }
    }

    /** Lets handlers hear what was raised, and what they raise in turn. */
    private void react(Transaction transaction, long after) {
        long place = after;
        var events = storage.events().after(transaction, place, Integer.MAX_VALUE);
        while (!events.isEmpty()) {
            for (var event : events) {
                place = event.number();
                for (var handler : live.logic().handlersOf(event.name())) {
                    if (!handler.definition().within()
                            && isFirstOfItsUnit(handler.definition().batch(), event, events)) {
                        handle(transaction, handler, event, events);
                    }
                }
            }
            events = storage.events().after(transaction, place, Integer.MAX_VALUE);
        }
    }

    private static boolean isFirstOfItsUnit(boolean batch, Event event, List<Event> events) {
        return !batch
                || events.stream()
                        .filter(one ->
                                one.unit().equals(event.unit()) && one.name().equals(event.name()))
                        .findFirst()
                        .filter(one -> one.number() == event.number())
                        .isPresent();
    }

    private void handle(
            Transaction transaction, CompiledHandler handler, Event event, List<Event> events) {
        var told =
                handler.definition().batch()
                        ? events.stream()
                                .filter(one ->
                                        one.unit().equals(event.unit())
                                                && handler.hears(one.name()))
                                .toList()
                        : List.of(event);
        if (reactions.handle(live, transaction, handler, told) instanceof Outcome.Refused refused) {
            problems.add("The handler %s fails: %s".formatted(handler.name(), said(refused)));
        }
    }

    private void compare(Transaction transaction, Outcome outcome, long before) {
        var then = example.then();
        compareOutcome(then, outcome);
        if (outcome instanceof Outcome.Success done) {
            compareWarning(then, done);
            compareResult(then, done);
        }
        if (!then.values().isEmpty() && named.containsKey("")) {
            compareRecord(transaction, "", subject(""), then.values());
        }
        then.records()
                .forEach((written, values) ->
                        compareRecord(transaction, written + ": ", subject(written), values));
        compareEvents(transaction, then, before);
    }

    private void compareOutcome(Expected then, Outcome outcome) {
        var wanted = then.refused();
        if (!(outcome instanceof Outcome.Refused refused)) {
            if (wanted != null) {
                problems.add("It is done, but should be refused with \"%s\".".formatted(wanted));
            }
            return;
        }
        if (wanted == null) {
            problems.add("It is refused: " + said(refused));
            return;
        }
        var at = then.at();
        boolean met =
                refused.faults().stream()
                        .anyMatch(fault ->
                                fault.message().contains(wanted)
                                        && (at == null || at.equals(fault.path().toString())));
        if (!met) {
            problems.add(
                    "It should be refused with \"%s\"%s, but is with: %s"
                            .formatted(
                                    wanted,
                                    at == null ? "" : " at " + at,
                                    String.join(
                                            " ",
                                            refused.faults().stream()
                                                    .map(fault ->
                                                            fault.path().isWhole()
                                                                    ? fault.message()
                                                                    : "%s (at %s)"
                                                                            .formatted(
                                                                                    fault.message(),
                                                                                    fault.path()))
                                                    .toList())));
        }
    }

    private void compareWarning(Expected then, Outcome.Success done) {
        var wanted = then.warns();
        if (wanted != null
                && done.warnings().stream().noneMatch(one -> one.message().contains(wanted))) {
            problems.add(
                    "It should warn of \"%s\", but %s."
                            .formatted(
                                    wanted,
                                    done.warnings().isEmpty()
                                            ? "does not warn"
                                            : "warns: " + done.warnings().getFirst().message()));
        }
    }

    private void compareResult(Expected then, Outcome.Success done) {
        if (then.hasResult()) {
            var result = done.result();
            Comparison.of(
                            "The result",
                            resolved(then.result()),
                            result == null ? null : result.value())
                    .ifPresent(problems::add);
        }
    }

    private void compareRecord(
            Transaction transaction,
            String prefix,
            Subject subject,
            Map<String, @Nullable Object> wanted) {
        var object = subject.object();
        var tree = live.release().everythingOf(object);
        var found =
                RecordFinder.find(live.records(), transaction, object, subject.key())
                        .flatMap(one ->
                                live.records().view(transaction, object, one.number(), tree));
        if (found.isEmpty()) {
            problems.add("%sThere is no such record.".formatted(prefix));
            return;
        }
        var actual = PlainRecords.of(tree, found.get());
        wanted.forEach((field, value) ->
                Comparison.of(prefix + field, resolved(value), actual.get(field))
                        .ifPresent(problems::add));
    }

    private void compareEvents(Transaction transaction, Expected then, long before) {
        var wanted = then.events();
        if (wanted == null) {
            return;
        }
        var looked = new TreeSet<String>();
        wanted.forEach(one -> looked.add(one.name()));
        live.release().namedEvents().forEach(event -> looked.add(event.name()));
        var raised =
                storage.events().after(transaction, before, Integer.MAX_VALUE).stream()
                        .filter(event -> looked.contains(event.name()))
                        .toList();
        var names = raised.stream().map(Event::name).toList();
        var wantedNames = wanted.stream().map(Requirement.ExpectedEvent::name).toList();
        if (!names.equals(wantedNames)) {
            problems.add(
                    "Events should be %s, but are %s.".formatted(list(wantedNames), list(names)));
            return;
        }
        for (int i = 0; i < wanted.size(); i++) {
            var data = raised.get(i).data();
            var name = wanted.get(i).name();
            wanted.get(i)
                    .values()
                    .forEach((field, value) ->
                            Comparison.of(name + "." + field, resolved(value), data.get(field))
                                    .ifPresent(problems::add));
        }
    }

    private static String list(List<String> names) {
        return names.isEmpty() ? "none" : String.join(", ", names);
    }
}
