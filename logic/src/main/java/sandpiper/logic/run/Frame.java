package sandpiper.logic.run;

import org.jspecify.annotations.Nullable;
import sandpiper.logic.value.Nothing;

/** The places of one run: the record, parameters, items. */
public final class Frame {
    private final @Nullable Object[] slots;
    private final Evaluation run;
    private @Nullable Object result;

    Frame(@Nullable Object[] slots, Evaluation run) {
        this.slots = slots;
        this.run = run;
    }

    /** Makes a frame with this many places, all empty. */
    public Frame(int slots, Evaluation run) {
        this(new Object[slots], run);
    }

    public Evaluation run() {
        return run;
    }

    Object get(int slot) {
        var value = slots[slot];
        return value == null ? Nothing.NULL : value;
    }

    public void set(int slot, Object value) {
        slots[slot] = value;
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
        return new Frame(slots.clone(), run);
    }
}
