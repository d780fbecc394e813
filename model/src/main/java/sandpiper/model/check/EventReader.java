package sandpiper.model.check;

import java.util.List;
import java.util.Map;
import sandpiper.model.Names;
import sandpiper.model.definition.PackageType;
import sandpiper.model.release.EventType;
import sandpiper.model.source.Source;
import sandpiper.model.type.ChoiceList;

/** Reads an event; whether there is the object it is about is for whoever knows the objects. */
final class EventReader {
    private EventReader() {}

    static EventType read(
            Source source, PackageType owner, Map<String, ChoiceList> choices, String name) {
        var root = source.root();
        return new EventType(
                name,
                owner.name(),
                Source.text(root, "label").orElseGet(() -> Names.label(name)),
                Source.text(root, "describe").orElse(null),
                Source.text(root, "about").orElse(null),
                new ValueReader(source, owner, choices)
                        .group(Source.mapping(root, "fields"), List.of("fields")),
                false);
    }
}
