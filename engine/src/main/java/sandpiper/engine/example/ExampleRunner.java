package sandpiper.engine.example;

import java.util.ArrayList;
import java.util.List;
import java.util.Set;
import sandpiper.engine.access.Actor;
import sandpiper.engine.access.Duty;
import sandpiper.engine.command.Fault;
import sandpiper.engine.command.Outcome;
import sandpiper.engine.command.RecordCommand;
import sandpiper.engine.command.Request;
import sandpiper.engine.event.Event;
import sandpiper.engine.outside.GivenAnswers;
import sandpiper.engine.port.Storage;
import sandpiper.engine.port.Transaction;
import sandpiper.engine.release.LiveRelease;
import sandpiper.engine.trace.TraceStep;
import sandpiper.engine.write.ReactionWrites;
import sandpiper.engine.write.RecordWrites;
import sandpiper.engine.writer.WriteJob;
import sandpiper.model.definition.Requirement;
import sandpiper.model.definition.Requirement.Action;
import sandpiper.model.definition.Requirement.Example;
import sandpiper.model.logic.CompiledHandler;

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
    private final NamedRecords records;
    private final List<String> problems = new ArrayList<>();
    private List<TraceStep> steps = List.of();

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
        this.records = new NamedRecords(live);
    }

    @Override
    public boolean keeps(ExampleResult result) {
        return false;
    }

    @Override
    public ExampleResult run(Transaction transaction) {
        return GivenAnswers.saying(example.answers()).in(() -> result(transaction));
    }

    private ExampleResult result(Transaction transaction) {
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
        new Expectations(live, storage, records, problems)
                .compare(transaction, example.then(), last, before);
    }

    /** What it was refused with, in one line. */
    static String said(Outcome.Refused refused) {
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
            records.remember(transaction, action, done);
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
                        object,
                        live.release().everythingOf(object),
                        records.resolved(create.values()));
            }
            case Action.Change change -> {
                var subject = records.find(change.record());
                yield new RecordCommand.Change(
                        subject.object(),
                        live.release().everythingOf(subject.object()),
                        subject.key(),
                        records.resolved(change.values()),
                        null);
            }
            case Action.Retire retire -> {
                var subject = records.find(retire.record());
                yield new RecordCommand.Remove(subject.object(), subject.key(), null);
            }
            case Action.Transit transit -> {
                var subject = records.find(transit.record());
                yield new RecordCommand.Transit(
                        subject.object(), subject.key(), transit.transition(), null);
            }
            case Action.Call call -> {
                int dot = call.function().indexOf('.');
                var on = call.record();
                yield new RecordCommand.Call(
                        live.release().object(call.function().substring(0, dot)),
                        on == null ? null : records.find(on).key(),
                        call.function().substring(dot + 1),
                        records.resolved(call.arguments()),
                        null);
            }
        };
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
}
