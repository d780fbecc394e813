package sandpiper.engine.write;

import org.jspecify.annotations.Nullable;
import sandpiper.model.release.Part;

/** A line item while its record is being changed. */
final class ItemState {
    private final RecordState record;
    private final Part part;
    private final Slots slots;
    private long line;
    private @Nullable Object @Nullable [] written;
    private int writtenPosition = -1;
    private @Nullable LogicItem logic;

    /** A new one. */
    ItemState(RecordState record, Part part) {
        this(record, part, 0, new Slots(part.fields()));
    }

    /** {@code line} is 0 until the item is first stored. */
    ItemState(RecordState record, Part part, long line, Slots slots) {
        this.record = record;
        this.part = part;
        this.line = line;
        this.slots = slots;
        this.written = slots.before();
    }

    RecordState record() {
        return record;
    }

    Part part() {
        return part;
    }

    long line() {
        return line;
    }

    Slots slots() {
        return slots;
    }

    /** The values as they are in the tables by now, or {@code null} when they are not. */
    @Nullable Object @Nullable [] written() {
        return written;
    }

    int writtenPosition() {
        return writtenPosition;
    }

    /** Remembers that the values are in the tables. */
    void wrote(long itsLine, int position) {
        line = itsLine;
        written = slots.copy();
        writtenPosition = position;
    }

    void foundAt(int position) {
        writtenPosition = position;
    }

    /** The item as logic sees it; the same one at each call. */
    LogicItem logic(Workspace workspace) {
        var there = logic;
        if (there == null) {
            there = new LogicItem(workspace, this);
            logic = there;
        }
        return there;
    }
}
