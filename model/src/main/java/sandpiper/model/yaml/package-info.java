/**
 * Reads YAML 1.2 into a tree that knows where everything stands. Start at {@link
 * sandpiper.model.yaml.YamlFile}. Knows nothing of what the text means.
 */
@NullMarked
package sandpiper.model.yaml;

import org.jspecify.annotations.NullMarked;
