package sandpiper.model.logic;

import java.util.List;
import sandpiper.model.Diagnostic;
import sandpiper.model.release.ObjectType;

/**
 * What looking at the logic of a release came to.
 *
 * @param objects the objects, with the fields marked that are worked out on read
 */
public record Findings(List<Diagnostic> diagnostics, List<ObjectType> objects) {}
