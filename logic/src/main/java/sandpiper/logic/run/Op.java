package sandpiper.logic.run;

/** One compiled term. */
@FunctionalInterface
interface Op {
    Object eval(Frame frame);
}
