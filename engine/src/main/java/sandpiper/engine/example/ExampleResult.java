package sandpiper.engine.example;

import java.util.List;
import sandpiper.engine.trace.TraceStep;

/**
 * What came of one example.
 *
 * @param requirement id of the requirement it is to prove
 * @param name of the example within it
 * @param problems what is another than expected, in sentences; none when it holds
 * @param steps the account of what was done last
 */
public record ExampleResult(
        String requirement,
        String name,
        String label,
        List<String> problems,
        List<TraceStep> steps) {
    public ExampleResult {
        problems = List.copyOf(problems);
        steps = List.copyOf(steps);
    }

    public boolean holds() {
        return problems.isEmpty();
    }
}
