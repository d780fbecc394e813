package sandpiper.engine.outside;

import java.time.LocalDate;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import org.jspecify.annotations.Nullable;
import sandpiper.engine.command.Fault;
import sandpiper.engine.command.FaultPath;
import sandpiper.engine.command.RecordCode;
import sandpiper.engine.outside.Reply.Entry;
import sandpiper.engine.trace.TraceStep;
import sandpiper.engine.trace.Tracer;
import sandpiper.engine.work.FaultLog;
import sandpiper.engine.work.RecordState;
import sandpiper.engine.work.Row;
import sandpiper.engine.work.Workspace;
import sandpiper.logic.Quoted;
import sandpiper.logic.type.LogicType;
import sandpiper.logic.value.Decimal;
import sandpiper.logic.value.Nothing;
import sandpiper.logic.value.ValueText;
import sandpiper.model.connection.ConnectionType;
import sandpiper.model.connection.LookupType;
import sandpiper.model.connection.OutsideCallType;
import sandpiper.model.definition.PackageType;
import sandpiper.model.release.Field;
import sandpiper.model.type.OutsideChoiceType;
import sandpiper.model.type.OutsideCode;

/** What one unit of work wants to know of services outside. For one thread. */
public final class OutsideWork {
    private final Outside outside;
    private final Workspace workspace;
    private final FaultLog faults;
    private final Tracer tracer;
    private final Map<Ask, Integer> asked = new HashMap<>();

    public OutsideWork(Outside outside, Workspace workspace, FaultLog faults, Tracer tracer) {
        this.outside = outside;
        this.workspace = workspace;
        this.faults = faults;
        this.tracer = tracer;
    }

    /**
     * What a call gives; FEEL's null, with a fault, when it gives nothing.
     *
     * @param arguments values of the language, in the order of its parameters
     * @throws AnswersWantedException when it has to be asked first
     */
    public Object call(OutsideCallType call, List<Object> arguments) {
        var connection = ConnectionType.find(workspace.release(), call.connection()).orElseThrow();
        var values = new OutsideValues(call);
        var ask =
                numbered(
                        call,
                        new Ask(connection, Ask.Kind.CALL, call.name(), values.sent(arguments), 0));
        boolean sends = !call.operation().method().equals("GET");
        if (sends && GivenAnswers.current().isTrial()) {
            faults.refuse(
                    fault("%s would be sent; a trial sends nothing.".formatted(ask.written())));
            return Nothing.NULL;
        }
        var found = reply(ask);
        return switch (found.reply()) {
            case Reply.Failure(var message, _) -> {
                trace(ask, found.how(), message);
                faults.refuse(fault(message));
                yield Nothing.NULL;
            }
            case Reply.Answer(var plain) -> {
                var value = values.read(plain);
                trace(ask, found.how(), ValueText.literal(value));
                for (var problem : values.problems()) {
                    faults.refuse(
                            fault(
                                    "%s answered something else than its contract says: %s"
                                            .formatted(connection.label(), problem)));
                }
                yield value;
            }
        };
    }

    /**
     * How much of one currency an amount of 1 in another is on a day, by the call that a package
     * names.
     *
     * @throws AnswersWantedException when it has to be asked first
     */
    public Object rate(String from, String to, LocalDate day) {
        var base = workspace.release().rates();
        if (base.isEmpty()) {
            return Nothing.NULL;
        }
        var of = rate(base.get(), to, day);
        var divisor = rate(base.get(), from, day);
        return of instanceof Decimal a && divisor instanceof Decimal b && b.signum() > 0
                ? a.dividedBy(b)
                : Nothing.NULL;
    }

    private Object rate(PackageType base, String currency, LocalDate day) {
        if (currency.equals(base.currency())) {
            return Decimal.ONE;
        }
        var parts = String.valueOf(base.rates()).split("\\.", 2);
        var call =
                (OutsideCallType)
                        ConnectionType.find(workspace.release(), parts[0])
                                .flatMap(one -> one.function(parts[1]))
                                .orElseThrow();
        return call(
                call,
                call.parameters().stream()
                        .<Object>map(one ->
                                one.type() == LogicType.Simple.DATE ? day : (Object) currency)
                        .toList());
    }

    private static Fault fault(String message) {
        return new Fault(FaultPath.WHOLE, RecordCode.OUTSIDE_FAILED, message);
    }

    /** The same question that changes something is another each time. */
    private Ask numbered(OutsideCallType call, Ask ask) {
        if (call.operation().method().equals("GET")) {
            return ask;
        }
        int occurrence = asked.merge(ask, 1, Integer::sum) - 1;
        return new Ask(ask.connection(), ask.kind(), ask.name(), ask.arguments(), occurrence);
    }

    /** A reply, and how it was come by. */
    private record Found(Reply reply, String how) {}

    private Found reply(Ask ask) {
        var found = known(ask);
        if (found == null) {
            throw new AnswersWantedException(List.of(ask));
        }
        return found;
    }

    private @Nullable Found known(Ask ask) {
        var given = GivenAnswers.current();
        var reply = given.of(ask);
        if (reply.isPresent()) {
            long millis = reply.get().took().toMillis();
            return new Found(
                    reply.get().reply(), millis == 0 ? "asked" : "asked, %,d ms".formatted(millis));
        }
        var kept = outside.kept(workspace.session(), ask);
        if (kept.isPresent()) {
            return new Found(kept.get(), "kept");
        }
        return given.mayAsk()
                ? null
                : new Found(
                        new Reply.Failure(
                                "%s is not asked here; an example says what it answers (answers: { %s.%s: ... })."
                                        .formatted(
                                                ask.connection().label(),
                                                ask.connection().name(),
                                                ask.name()),
                                true),
                        "");
    }

    private void trace(Ask ask, String how, String result) {
        if (tracer.isOn()) {
            tracer.step(TraceStep.Kind.ASK, ask.written(), how, result);
        }
    }

    /**
     * Sees to it that codes which were chosen are known outside, and gets their labels.
     *
     * @throws AnswersWantedException when some have to be asked about first
     */
    public void seeCodes() {
        if (workspace.release().connections().isEmpty() || !GivenAnswers.current().mayAsk()) {
            return;
        }
        var wanted = new LinkedHashSet<Ask>();
        for (var record : workspace.touched().now()) {
            see(record, record, wanted);
            for (var part : record.object().parts()) {
                record.items(part).forEach(item -> see(record, item, wanted));
            }
        }
        if (!wanted.isEmpty()) {
            throw new AnswersWantedException(new ArrayList<>(wanted));
        }
    }

    private void see(RecordState record, Row row, Set<Ask> wanted) {
        for (var field : row.slots().fields()) {
            if (field.type() instanceof OutsideChoiceType type
                    && row.slots().get(field) instanceof OutsideCode(var code, var label)
                    && label == null
                    && row.slots().isChanged(field)) {
                see(record, row, field, type, code, wanted);
            }
        }
    }

    private void see(
            RecordState record,
            Row row,
            Field field,
            OutsideChoiceType type,
            String code,
            Set<Ask> wanted) {
        var connection = ConnectionType.find(workspace.release(), type.connection()).orElseThrow();
        var lookup = connection.lookup(type.lookupName()).orElseThrow();
        var ask = about(connection, lookup, code);
        var found = known(ask);
        if (found == null) {
            wanted.add(ask);
            return;
        }
        switch (found.reply()) {
            case Reply.Failure(var message, var down) -> {
                trace(ask, found.how(), message);
                if (!(down && lookup.accepts())) {
                    refuse(record, row, field, RecordCode.OUTSIDE_FAILED, message);
                }
            }
            case Reply.Answer(var plain) -> {
                var entry = entry(plain, code);
                trace(ask, found.how(), entry.map(Entry::label).orElse("no such code"));
                entry.ifPresentOrElse(
                        one -> row.slots().refine(field, new OutsideCode(code, one.label())),
                        () ->
                                refuse(
                                        record,
                                        row,
                                        field,
                                        RecordCode.UNKNOWN_OUTSIDE,
                                        "%s: %s does not know %s."
                                                .formatted(
                                                        field.label(),
                                                        connection.label(),
                                                        Quoted.of(code))));
            }
        }
    }

    private void refuse(RecordState record, Row row, Field field, RecordCode code, String message) {
        faults.add(record, new Fault(row.path(field), code, message));
    }

    private static Ask about(ConnectionType connection, LookupType lookup, String code) {
        return lookup.single() == null
                ? new Ask(
                        connection,
                        Ask.Kind.ENTRIES,
                        lookup.name(),
                        List.of(lookup.search() == null ? "" : code),
                        0)
                : new Ask(connection, Ask.Kind.ENTRY, lookup.name(), List.of(code), 0);
    }

    private static Optional<Entry> entry(@Nullable Object plain, String code) {
        return switch (plain) {
            case Entry entry -> Optional.of(entry).filter(one -> one.code().equals(code));
            case List<?> list ->
                    list.stream()
                            .map(Entry.class::cast)
                            .filter(one -> one.code().equals(code))
                            .findFirst();
            case null, default -> Optional.empty();
        };
    }
}
