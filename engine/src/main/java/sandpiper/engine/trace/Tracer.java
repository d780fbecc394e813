package sandpiper.engine.trace;

import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import sandpiper.engine.trace.TraceStep.Kind;
import sandpiper.logic.value.ValueText;

/** Takes steps down while a request runs. One that is off costs a test of a flag for each step. */
public final class Tracer {
    /** Steps of one request; beyond it only the last word is written. */
    private static final int MOST_STEPS = 2_000;

    private static final int LONGEST_TEXT = 500;

    private final boolean on;
    private final long start = System.nanoTime();
    private final List<TraceStep> steps = new ArrayList<>();
    private int depth;

    private Tracer(boolean on) {
        this.on = on;
    }

    public static Tracer on() {
        return new Tracer(true);
    }

    public static Tracer off() {
        return new Tracer(false);
    }

    /** Whether steps are taken down; ask before making dear texts. */
    public boolean isOn() {
        return on;
    }

    /** A step by itself. */
    public void step(Kind kind, String title, String detail, String result) {
        if (!on || steps.size() > MOST_STEPS) {
            return;
        }
        if (steps.size() == MOST_STEPS) {
            steps.add(
                    new TraceStep(
                            0,
                            Kind.NOTE,
                            "…",
                            "The account ends here: it is too long.",
                            "",
                            micros()));
            return;
        }
        steps.add(new TraceStep(depth, kind, cut(title), cut(detail), cut(result), micros()));
    }

    /** A step with further ones inside, up to {@link #leave}. */
    public void enter(Kind kind, String title, String detail, String result) {
        step(kind, title, detail, result);
        depth++;
    }

    /** The values of names inside what was just looked at. */
    public void names(Map<String, Object> values) {
        depth++;
        values.forEach((name, value) -> step(Kind.LOCAL, name, "", ValueText.literal(value)));
        depth--;
    }

    public void leave() {
        depth--;
    }

    private long micros() {
        return (System.nanoTime() - start) / 1_000;
    }

    private static String cut(String text) {
        return text.length() > LONGEST_TEXT ? text.substring(0, LONGEST_TEXT) + "…" : text;
    }

    public List<TraceStep> steps() {
        return steps;
    }
}
