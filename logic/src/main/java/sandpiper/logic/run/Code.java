package sandpiper.logic.run;

/** A compiled expression. Immutable and safe to share between threads. */
public final class Code {
    private final Op op;
    private final int slots;

    Code(Op op, int slots) {
        this.op = op;
        this.slots = slots;
    }

    /** A frame to fill before it is run. */
    public Frame frame(Evaluation run) {
        return new Frame(slots, run);
    }

    /**
     * Runs it.
     *
     * @throws BudgetException when it takes more than it may
     */
    public Object run(Frame frame) {
        return op.eval(frame);
    }

    /** Whether it comes to true; null is not true. */
    public boolean holds(Frame frame) {
        return op.eval(frame) == Boolean.TRUE;
    }
}
