package sandpiper.engine.work;

import org.jspecify.annotations.Nullable;
import sandpiper.engine.command.FaultPath;
import sandpiper.model.release.Part;

/** A line item while its record is being changed. */
public final class ItemState implements Row {
    private final RecordState record;
    private final Part part;
    private final Slots slots;
    private long line;
    private @Nullable Object @Nullable [] written;
    private int writtenPosition = -1;
    private @Nullable LogicItem logic;

    /** A new one. */
    public ItemState(RecordState record, Part part) {
        this(record, part, 0, new Slots(part.fields()));
    }

    /** {@code line} is 0 until the item is first stored. */
    public ItemState(RecordState record, Part part, long line, Slots slots) {
        this.record = record;
        this.part = part;
        this.line = line;
        this.slots = slots;
        this.written = slots.before();
    }

    @Override
    public RecordState record() {
        return record;
    }

    @Override
    public FaultPath path() {
        return FaultPath.of(part.name()).then(Math.max(0, record.items(part).indexOf(this)));
    }

    @Override
    public Part part() {
        return part;
    }

    /** Its place among those of the part, for people: {@code charges 2}. */
    public String place() {
        return "%s %d".formatted(part.name(), record.items(part).indexOf(this) + 1);
    }

    public long line() {
        return line;
    }

    @Override
    public Slots slots() {
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

    @Override
    public LogicItem logic(Workspace workspace) {
        var there = logic;
        if (there == null) {
            there = new LogicItem(workspace, this);
            logic = there;
        }
        return there;
    }
}
