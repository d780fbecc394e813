package sandpiper.logic.run;

import org.jspecify.annotations.Nullable;
import sandpiper.logic.value.Nothing;
import sandpiper.logic.value.RecordValue;

/**
 * The places of one run: the record, parameters, items.
 *
 * <p>Most runs need the first place alone, which is the record. The others are made when one of
 * them is set.
 */
public final class Frame {
    private final int size;
    private final Evaluation run;
    private @Nullable Object first;
    private @Nullable Object @Nullable [] others;
    private @Nullable Object result;

    /** Makes a frame with this many places, all empty. */
    public Frame(int size, Evaluation run) {
        this.size = size;
        this.run = run;
    }

    public Evaluation run() {
        return run;
    }

    private @Nullable Object at(int slot) {
        if (slot == 0) {
            return first;
        }
        return others == null ? null : others[slot];
    }

    Object get(int slot) {
        var value = at(slot);
        return value == null ? Nothing.NULL : value;
    }

    /** The record in a place, or one with nothing in it when something else is. */
    RecordValue record(int slot) {
        return at(slot) instanceof RecordValue record ? record : NoRecord.NONE;
    }

    public void set(int slot, Object value) {
        if (slot == 0) {
            first = value;
            return;
        }
        if (others == null) {
            others = new Object[size];
        }
        others[slot] = value;
    }

    /** Ends the function that runs in this frame. */
    void end(Object value) {
        result = value;
    }

    boolean isEnded() {
        return result != null;
    }

    /** What the function in this frame gave back. */
    Object result() {
        return result == null ? Nothing.NULL : result;
    }

    Frame copy() {
        var copy = new Frame(size, run);
        copy.first = first;
        copy.others = others == null ? null : others.clone();
        return copy;
    }
}
