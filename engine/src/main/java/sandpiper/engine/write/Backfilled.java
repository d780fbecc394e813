package sandpiper.engine.write;

import java.util.Comparator;
import java.util.List;
import java.util.Optional;
import java.util.stream.Stream;
import sandpiper.engine.derive.TravelValues;
import sandpiper.engine.release.LiveRelease;
import sandpiper.engine.work.ItemState;
import sandpiper.engine.work.RecordState;
import sandpiper.model.logic.Formula;
import sandpiper.model.release.ObjectType;
import sandpiper.model.route.TakenOver;

/** A field that records which are there get a value for, since a release says how. */
public sealed interface Backfilled {
    /** The object whose records get it. */
    ObjectType object();

    /** As people name it: {@code Stay.charges.net}. */
    String written();

    /** What happens, behind its name: {@code is worked out anew}. */
    String told();

    /** Its place in an order in which each comes behind those it reads. */
    int rank();

    /** Gets a record ready, so that the work gives it its value. */
    void prepare(UnitOfWork unit, RecordState record);

    /** One that is still there by its name. */
    static Optional<Backfilled> find(LiveRelease live, String written) {
        return Stream.concat(
                        live.release().objects().stream()
                                .flatMap(object -> live.logic().of(object).formulas().stream())
                                .<Backfilled>map(OfFormula::new),
                        routes(live).stream())
                .filter(one -> one.written().equals(written))
                .findFirst();
    }

    private static List<Backfilled> routes(LiveRelease live) {
        return TakenOver.of(live.release()).stream()
                .<Backfilled>map(OfRoute::new)
                .sorted(Comparator.comparingInt(Backfilled::rank))
                .toList();
    }

    /** A formula. */
    record OfFormula(Formula formula) implements Backfilled {
        @Override
        public ObjectType object() {
            return formula.object();
        }

        @Override
        public String written() {
            return formula.written();
        }

        @Override
        public String told() {
            return "is worked out anew";
        }

        @Override
        public int rank() {
            return formula.rank();
        }

        @Override
        public void prepare(UnitOfWork unit, RecordState record) {
            unit.derivation().markDirty(record, formula);
        }
    }

    /** What is taken over along a route; a value that is there stays. */
    record OfRoute(TakenOver field) implements Backfilled {
        /** Formulas have ranks between those of values that were given and of derived ones. */
        private static final int BESIDE_FORMULAS = 1 << 20;

        @Override
        public ObjectType object() {
            return field.object();
        }

        @Override
        public String written() {
            return field.written();
        }

        @Override
        public String told() {
            return "is taken over from %s".formatted(field.source().object());
        }

        @Override
        public int rank() {
            return field.depth() + (field.derived() ? BESIDE_FORMULAS : -BESIDE_FORMULAS);
        }

        @Override
        public void prepare(UnitOfWork unit, RecordState record) {
            var values = new TravelValues(unit.workspace());
            for (var row : record.rows(field.part())) {
                if (row.slots().get(field.field()) != null) {
                    continue;
                }
                var found = values.find(row, field.source());
                if (found != null && row.slots().settle(field.field(), found.value())) {
                    if (row instanceof ItemState item) {
                        record.touchPart(item.part());
                    }
                    unit.workspace().touch(record);
                }
            }
        }
    }
}
