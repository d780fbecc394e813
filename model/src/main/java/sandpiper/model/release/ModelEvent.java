package sandpiper.model.release;

import java.util.List;
import java.util.Optional;
import sandpiper.logic.type.EventShape;
import sandpiper.logic.type.FunctionType;
import sandpiper.logic.type.RecordType;

/** An event of the model as logic that raises it sees it. */
public record ModelEvent(EventType type, Release release) implements EventShape {
    @Override
    public String name() {
        return type.name();
    }

    @Override
    public Optional<RecordType> about() {
        return Optional.ofNullable(type.about()).flatMap(release::find).map(release::recordType);
    }

    @Override
    public List<FunctionType.Parameter> values() {
        return type.fields().entries().stream()
                .map(one ->
                        new FunctionType.Parameter(
                                one.name(), one.type().logicType(release), one.required()))
                .toList();
    }
}
