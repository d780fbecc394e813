package sandpiper.logic.run;

import java.util.List;
import sandpiper.logic.condition.Selection;

/** Where records come from that are not at hand. */
public interface RecordSource {
    /** Has no records: for expressions that stand alone. */
    RecordSource NONE =
            new RecordSource() {
                @Override
                public List<Object> select(Selection selection) {
                    return List.of();
                }

                @Override
                public Object total(Selection selection, Selection.Total total) {
                    return sandpiper.logic.value.Nothing.NULL;
                }
            };

    /** The records a selection names, in its order. */
    List<Object> select(Selection selection);

    /** One value over all the records a selection names, without loading them. */
    Object total(Selection selection, Selection.Total total);
}
