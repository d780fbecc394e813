package sandpiper.engine.write;

import java.util.ArrayList;
import java.util.List;
import java.util.UUID;
import org.jspecify.annotations.Nullable;
import sandpiper.engine.port.StoredRecord;
import sandpiper.model.release.ObjectType;
import sandpiper.model.release.Part;

/**
 * A record while it is being changed. There is one for each record in a unit of work, so that
 * nobody sees an old copy.
 */
final class RecordState {
    private final ObjectType object;
    private final UUID id;
    private final @Nullable StoredRecord stored;
    private final Slots slots;
    private final List<List<ItemState>> items = new ArrayList<>();
    private final List<List<ItemState>> removed = new ArrayList<>();
    private boolean retired;

    /**
     * A line item while its record is being changed. {@code line} is 0 until the item is first
     * stored.
     */
    static final class ItemState {
        private final long line;
        private final Slots slots;

        ItemState(long line, Slots slots) {
            this.line = line;
            this.slots = slots;
        }

        long line() {
            return line;
        }

        Slots slots() {
            return slots;
        }
    }

    /** A new record. */
    RecordState(ObjectType object, UUID id) {
        this.object = object;
        this.id = id;
        this.stored = null;
        this.slots = new Slots(object.fields());
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
        this.slots = new Slots(object.fields(), stored.values());
        this.retired = stored.retired();
        for (var part : object.parts()) {
            var there = new ArrayList<ItemState>();
            for (var item : stored.items().get(part.index())) {
                there.add(new ItemState(item.line(), new Slots(part.fields(), item.values())));
            }
            items.add(there);
            removed.add(new ArrayList<>());
        }
    }

    ObjectType object() {
        return object;
    }

    UUID id() {
        return id;
    }

    /** What is stored now, or {@code null} when the record is new. */
    @Nullable StoredRecord stored() {
        return stored;
    }

    Slots slots() {
        return slots;
    }

    List<ItemState> items(Part part) {
        return items.get(part.index());
    }

    /** Items that were stored and shall go. */
    List<ItemState> removed(Part part) {
        return removed.get(part.index());
    }

    /** Puts other items in the place of those of a part; those that are left out shall go. */
    void replaceItems(Part part, List<ItemState> replacement) {
        var before = items.get(part.index());
        for (var item : before) {
            if (!item.slots().isNew() && !replacement.contains(item)) {
                removed.get(part.index()).add(item);
            }
        }
        items.set(part.index(), new ArrayList<>(replacement));
    }

    boolean isRetired() {
        return retired;
    }

    void retire(boolean now) {
        retired = now;
    }

    /** Whether storing it would change anything. */
    boolean isChanged() {
        if (stored == null || stored.retired() != retired || !slots.changed().isEmpty()) {
            return true;
        }
        return object.parts().stream().anyMatch(part -> partChanged(part, stored));
    }

    private boolean partChanged(Part part, StoredRecord old) {
        if (!removed(part).isEmpty()) {
            return true;
        }
        var now = items(part);
        var then = old.items().get(part.index());
        for (int i = 0; i < now.size(); i++) {
            boolean moved = i >= then.size() || then.get(i).line() != now.get(i).line();
            if (moved || !now.get(i).slots().changed().isEmpty()) {
                return true;
            }
        }
        return false;
    }
}
