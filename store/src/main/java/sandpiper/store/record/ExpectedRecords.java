package sandpiper.store.record;

import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.function.Function;
import org.jspecify.annotations.Nullable;
import sandpiper.model.release.ObjectType;
import sandpiper.store.sql.SqlSession;
import sandpiper.store.sql.Statement;

/**
 * Reads the records that a transaction will ask for by their keys, of all objects in one statement,
 * and puts them at hand.
 */
final class ExpectedRecords {
    /** Records of one object that are read at a time; more are read when they are asked for. */
    private static final int MOST_KEYS = 64;

    /** Shapes of statements that are kept. */
    private static final int MOST_SHAPES = 1_000;

    private final Map<String, Statement> statements;
    private final Function<ObjectType, ObjectSql> sqlOf;
    private final WriterRecordCache atHand;

    /**
     * @param statements those made before, by their shape
     */
    ExpectedRecords(
            Map<String, Statement> statements,
            Function<ObjectType, ObjectSql> sqlOf,
            WriterRecordCache atHand) {
        this.statements = statements;
        this.sqlOf = sqlOf;
        this.atHand = atHand;
    }

    /** Keys of one object, and the places a statement has for them: a power of two. */
    private record Wanted(ObjectType object, List<List<Object>> keys) {
        int places() {
            return keys.size() == 1 ? 1 : Integer.highestOneBit(keys.size() - 1) << 1;
        }

        /** What is left of the places is filled with the last once more. */
        List<Object> at(int place) {
            return keys.get(Math.min(place, keys.size() - 1));
        }
    }

    void read(SqlSession session, Map<ObjectType, List<List<Object>>> keys) {
        var wanted = new ArrayList<Wanted>();
        keys.forEach((object, all) -> {
            var some =
                    all.stream()
                            .filter(key -> atHand.byKey(object, key) == null)
                            .limit(MOST_KEYS)
                            .toList();
            // Line items would have to be read as well.
            if (!some.isEmpty() && object.parts().isEmpty()) {
                wanted.add(new Wanted(object, some));
            }
        });
        if (wanted.stream().mapToInt(one -> one.keys().size()).sum() > 1) {
            together(session, wanted);
        }
    }

    private void together(SqlSession session, List<Wanted> wanted) {
        var shape = new StringBuilder();
        var bound = new ArrayList<@Nullable Object>();
        var consumers = new ArrayList<SqlSession.RowConsumer>();
        for (var one : wanted) {
            shape.append(one.object().name()).append('#').append(one.places()).append(' ');
            for (int place = 0; place < one.places(); place++) {
                bound.addAll(SqlRecords.firsts(one.object().keyFields(), one.at(place)));
            }
            consumers.add(row ->
                    atHand.keep(session, one.object(), SqlRecords.record(row, one.object())));
        }
        if (statements.size() > MOST_SHAPES) {
            statements.clear();
        }
        var statement =
                statements.computeIfAbsent(
                        shape.toString(),
                        _ ->
                                Statement.together(
                                        wanted.stream()
                                                .map(one ->
                                                        sqlOf.apply(one.object())
                                                                .loadByKeys(one.places()))
                                                .toList()));
        session.together(statement, consumers, bound.toArray());
    }
}
