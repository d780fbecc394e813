package sandpiper.server.manage.draft;

import java.util.List;
import java.util.Map;
import org.jspecify.annotations.Nullable;
import org.springframework.stereotype.Component;
import sandpiper.engine.example.ExampleResult;
import sandpiper.engine.example.Examples;

/**
 * Plays examples, and remembers what came of the last definitions: most often they are the same.
 */
@Component
public class ExampleRuns {
    private final Examples examples;
    private @Nullable Played last;

    private record Played(Map<String, String> files, List<ExampleResult> results) {}

    ExampleRuns(Examples examples) {
        this.examples = examples;
    }

    /** What came of the examples of definitions without errors. One at a time. */
    synchronized List<ExampleResult> of(Map<String, String> files) {
        var known = last;
        if (known == null || !known.files().equals(files)) {
            known = new Played(Map.copyOf(files), examples.run(files));
            last = known;
        }
        return known.results();
    }
}
