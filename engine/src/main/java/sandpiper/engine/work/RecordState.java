package sandpiper.engine.work;

import java.util.ArrayList;
import java.util.List;
import java.util.Objects;
import java.util.UUID;
import org.jspecify.annotations.Nullable;
import sandpiper.engine.command.FaultPath;
import sandpiper.engine.record.StoredRecord;
import sandpiper.model.release.KeyText;
import sandpiper.model.release.ObjectType;
import sandpiper.model.release.Part;

/**
 * A record while it is being changed. There is one for each record in a unit of work, so that
 * nobody sees an old copy.
 */
public final class RecordState implements Row {
    private final ObjectType object;
    private final UUID id;
    private final @Nullable StoredRecord stored;
    private final Slots slots;
    private final List<List<ItemState>> items = new ArrayList<>();
    private final List<List<ItemState>> removed = new ArrayList<>();
    private final int[] partStamps;
    private int partStamp;
    private boolean retired;
    private boolean writtenRetired;
    private long number;
    private @Nullable Object @Nullable [] written;
    private @Nullable LogicRecord logic;

    /** A new record. */
    RecordState(ObjectType object, UUID id) {
        this.object = object;
        this.id = id;
        this.stored = null;
        this.number = -1;
        this.slots = new Slots(object.fields());
        this.partStamps = new int[object.parts().size()];
        for (int i = 0; i < object.parts().size(); i++) {
            items.add(new ArrayList<>());
            removed.add(new ArrayList<>());
        }
    }

    /** A stored record. */
    RecordState(ObjectType object, StoredRecord stored) {
        this.object = object;
        this.id = stored.id();
        this.stored = stored;
        this.number = stored.number();
        this.slots = new Slots(object.fields(), stored.values());
        this.written = stored.values();
        this.retired = stored.retired();
        this.writtenRetired = retired;
        this.partStamps = new int[object.parts().size()];
        for (var part : object.parts()) {
            var there = new ArrayList<ItemState>();
            for (var item : stored.items().get(part.index())) {
                var state =
                        new ItemState(
                                this, part, item.line(), new Slots(part.fields(), item.values()));
                state.foundAt(there.size());
                there.add(state);
            }
            items.add(there);
            removed.add(new ArrayList<>());
        }
    }

    @Override
    public ObjectType object() {
        return object;
    }

    @Override
    public RecordState record() {
        return this;
    }

    @Override
    public @Nullable Part part() {
        return null;
    }

    @Override
    public FaultPath path() {
        return FaultPath.WHOLE;
    }

    /** Its line items of a part; the record itself when there is no part. */
    public List<? extends Row> rows(@Nullable Part part) {
        return part == null ? List.of(this) : items(part);
    }

    /** The natural key as text, or the public id when there is none or not all of it. */
    public String keyText() {
        var key = new ArrayList<@Nullable Object>();
        for (var field : object.keyFields()) {
            key.add(slots.get(field));
        }
        return key.isEmpty() || key.stream().anyMatch(Objects::isNull)
                ? id.toString()
                : KeyText.write(object, key);
    }

    public UUID id() {
        return id;
    }

    /** What was stored when the work began, or {@code null} when the record is new. */
    public @Nullable StoredRecord stored() {
        return stored;
    }

    public boolean isNew() {
        return stored == null;
    }

    /** Its number in the tables; below 0 while it is in none. */
    public long number() {
        return number;
    }

    /** The values as they are in the tables by now, or {@code null} when they are in none. */
    @Nullable Object @Nullable [] written() {
        return written;
    }

    /** Whether it was put into the tables while the work went on. */
    public boolean isWrittenOnTheWay() {
        var before = stored;
        return before != null && written != before.values();
    }

    boolean writtenRetired() {
        return writtenRetired;
    }

    /** Remembers that the values are in the tables. */
    void wrote(long itsNumber) {
        number = itsNumber;
        written = slots.copy();
        writtenRetired = retired;
    }

    @Override
    public Slots slots() {
        return slots;
    }

    public List<ItemState> items(Part part) {
        return items.get(part.index());
    }

    /** Items that are in the tables and shall go. */
    List<ItemState> removed(Part part) {
        return removed.get(part.index());
    }

    /** Puts other items in the place of those of a part; those that are left out shall go. */
    public void replaceItems(Part part, List<ItemState> replacement) {
        var before = items.get(part.index());
        if (before.equals(replacement)) {
            return;
        }
        for (var item : before) {
            if (item.line() > 0 && !replacement.contains(item)) {
                removed.get(part.index()).add(item);
            }
        }
        items.set(part.index(), new ArrayList<>(replacement));
        touchPart(part);
    }

    public void addItem(Part part, ItemState item) {
        items.get(part.index()).add(item);
        touchPart(part);
    }

    public void removeItem(ItemState item) {
        var rest = new ArrayList<>(items(item.part()));
        rest.remove(item);
        replaceItems(item.part(), rest);
    }

    /** Notes that something of a part changed. */
    public void touchPart(Part part) {
        partStamps[part.index()] = ++partStamp;
    }

    public int partStamp() {
        return partStamp;
    }

    public int partStamp(Part part) {
        return partStamps[part.index()];
    }

    /** How many changes there were so far, of fields and of line items. */
    int stamp() {
        return slots.stamp() + partStamp + (isRetirementChanged() ? 1 : 0);
    }

    public boolean isRetired() {
        return retired;
    }

    public void retire(boolean now) {
        retired = now;
    }

    public boolean isRetirementChanged() {
        return stored != null && stored.retired() != retired;
    }

    @Override
    public LogicRecord logic(Workspace workspace) {
        var there = logic;
        if (there == null) {
            there = new LogicRecord(workspace, this, slots.values());
            logic = there;
        }
        return there;
    }

    /** Whether storing it would change anything. */
    public boolean isChanged() {
        return isChangedByHand() || !slots.changed().isEmpty() || hasChangedItem(false);
    }

    /** Whether anything differs but what formulas work out. */
    public boolean isChangedByHand() {
        return stored == null
                || isRetirementChanged()
                || slots.isChangedByHand()
                || hasChangedItem(true);
    }

    private boolean hasChangedItem(boolean byHand) {
        var old = stored;
        return old != null
                && object.parts().stream().anyMatch(part -> partChanged(part, old, byHand));
    }

    private boolean partChanged(Part part, StoredRecord old, boolean byHand) {
        if (!removed(part).isEmpty()) {
            return true;
        }
        var now = items(part);
        var then = old.items().get(part.index());
        for (int i = 0; i < now.size(); i++) {
            boolean moved = i >= then.size() || then.get(i).line() != now.get(i).line();
            var slotsOfItem = now.get(i).slots();
            if (moved
                    || slotsOfItem.isNew()
                    || (byHand
                            ? slotsOfItem.isChangedByHand()
                            : !slotsOfItem.changed().isEmpty())) {
                return true;
            }
        }
        return false;
    }
}
