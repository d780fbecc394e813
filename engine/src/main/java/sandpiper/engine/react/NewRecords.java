package sandpiper.engine.react;

import sandpiper.engine.derive.Fills;
import sandpiper.engine.input.Defaults;
import sandpiper.engine.work.NumberSeries;
import sandpiper.engine.work.RecordState;
import sandpiper.engine.work.Row;
import sandpiper.engine.work.Workspace;
import sandpiper.model.release.Field;

/** Makes records whole that steps create: defaults, what chosen records give, a number. */
public final class NewRecords {
    private final Workspace workspace;
    private final Defaults defaults;
    private final Fills fills;
    private final NumberSeries numbers;

    public NewRecords(Workspace workspace, Defaults defaults, Fills fills, NumberSeries numbers) {
        this.workspace = workspace;
        this.defaults = defaults;
        this.fills = fills;
        this.numbers = numbers;
    }

    /** Gives a new record or line item its defaults. */
    void defaults(Row row) {
        defaults.fill(row);
    }

    /** Makes a record whole, and gives it its number in the tables. */
    void complete(RecordState record) {
        defaults.fill(record);
        fills.fill(record, record.slots().changed().stream().map(Field::name).toList());
        for (var part : record.object().parts()) {
            record.items(part).forEach(fills::fillEmpty);
        }
        numbers.number(record);
        workspace.numberOf(record);
    }
}
