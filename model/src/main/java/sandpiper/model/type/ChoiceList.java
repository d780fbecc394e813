package sandpiper.model.type;

import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;

/**
 * A closed list of codes with labels.
 *
 * @param name the list's own name, or the name of the field it stands in
 * @param labels labels by code, in the order of the definition
 */
public record ChoiceList(String name, Map<String, String> labels) {
    public ChoiceList {
        labels = java.util.Collections.unmodifiableMap(new LinkedHashMap<>(labels));
    }

    /** The codes in the order of the definition. */
    public List<String> codes() {
        return List.copyOf(labels.keySet());
    }
}
