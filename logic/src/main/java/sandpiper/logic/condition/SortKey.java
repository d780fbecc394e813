package sandpiper.logic.condition;

import java.time.ZoneId;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import sandpiper.logic.Span;
import sandpiper.logic.term.Term;
import sandpiper.logic.type.LogicType;
import sandpiper.logic.type.RecordType;

/** What a store puts records in order by: a field, stored or worked out on read. */
public final class SortKey {
    private static final Span NOWHERE = new Span(0, 0);

    private final Operands.Binder binder;
    private final List<BoundInput> values;

    private SortKey(Operands.Binder binder, List<BoundInput> values) {
        this.binder = binder;
        this.values = values;
    }

    /** The key for a field at the end of a path, or nothing when a store cannot work it out. */
    public static Optional<SortKey> of(RecordType records, List<String> path) {
        var item = new Term.Local(0, "this", new LogicType.RecordOf(records), NOWHERE);
        Term term = item;
        var at = records;
        for (var name : path) {
            var member = at.member(name);
            if (member.isEmpty()) {
                return Optional.empty();
            }
            term = new Term.Read(term, member.get(), NOWHERE);
            at = member.get().type() instanceof LogicType.RecordOf(var record) ? record : at;
        }
        var values = new ArrayList<BoundInput>();
        var binder =
                new ConditionExtractor(
                                item,
                                List.of(),
                                values,
                                new ConditionExtractor.Obstacle(),
                                OuterScope.NONE)
                        .operands()
                        .of(term);
        return Optional.ofNullable(binder).map(made -> new SortKey(made, values));
    }

    /** What must be worked out before it can be bound, in order. */
    public List<BoundInput> values() {
        return List.copyOf(values);
    }

    /** Puts values in. */
    public Operand bind(List<Object> bound, ZoneId zone) {
        return binder.bind(bound, zone);
    }
}
