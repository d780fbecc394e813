package sandpiper.engine.example;

import java.util.List;
import java.util.Map;
import java.util.TreeSet;
import org.jspecify.annotations.Nullable;
import sandpiper.engine.command.Outcome;
import sandpiper.engine.event.Event;
import sandpiper.engine.example.NamedRecords.Subject;
import sandpiper.engine.port.Storage;
import sandpiper.engine.port.Transaction;
import sandpiper.engine.read.PlainRecords;
import sandpiper.engine.read.RecordFinder;
import sandpiper.engine.release.LiveRelease;
import sandpiper.model.definition.Requirement;
import sandpiper.model.definition.Requirement.Expected;

/**
 * Compares what came of an example with what is expected of it.
 *
 * @param problems takes a sentence for each difference
 */
record Expectations(
        LiveRelease live, Storage storage, NamedRecords records, List<String> problems) {
    /**
     * Compares what came of the last action.
     *
     * @param before the number of the newest event before the actions
     */
    void compare(Transaction transaction, Expected then, Outcome outcome, long before) {
        compareOutcome(then, outcome);
        if (outcome instanceof Outcome.Success done) {
            compareWarning(then, done);
            compareResult(then, done);
        }
        if (!then.values().isEmpty()) {
            records.last().ifPresent(last -> compareRecord(transaction, "", last, then.values()));
        }
        then.records()
                .forEach((written, values) ->
                        compareRecord(transaction, written + ": ", records.find(written), values));
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
            problems.add("It is refused: " + ExampleRunner.said(refused));
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
                            records.resolved(then.result()),
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
                Comparison.of(prefix + field, records.resolved(value), actual.get(field))
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
                            Comparison.of(
                                            name + "." + field,
                                            records.resolved(value),
                                            data.get(field))
                                    .ifPresent(problems::add));
        }
    }

    private static String list(List<String> names) {
        return names.isEmpty() ? "none" : String.join(", ", names);
    }
}
