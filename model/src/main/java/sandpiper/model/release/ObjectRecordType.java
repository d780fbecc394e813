package sandpiper.model.release;

import java.util.Collection;
import java.util.LinkedHashMap;
import java.util.Map;
import java.util.Optional;
import sandpiper.logic.type.LogicType;
import sandpiper.logic.type.RecordType;
import sandpiper.model.type.FieldType;

/** An object as the language sees it: its fields and what every record has. */
public final class ObjectRecordType implements RecordType {
    private static final Map<String, LogicType> OF_EVERY_RECORD = everyRecord();

    private final Release release;
    private final ObjectType object;

    public ObjectRecordType(Release release, ObjectType object) {
        this.release = release;
        this.object = object;
    }

    private static Map<String, LogicType> everyRecord() {
        var members = new LinkedHashMap<String, LogicType>();
        members.put("createdAt", LogicType.Simple.DATE_TIME);
        members.put("createdBy", LogicType.Simple.TEXT);
        members.put("changedAt", LogicType.Simple.DATE_TIME);
        members.put("changedBy", LogicType.Simple.TEXT);
        members.put("retired", LogicType.Simple.BOOLEAN);
        return members;
    }

    @Override
    public String name() {
        return object.name();
    }

    @Override
    public Optional<LogicType> member(String member) {
        return object.fields()
                .find(member)
                .map(this::typeOf)
                .or(() -> Optional.ofNullable(OF_EVERY_RECORD.get(member)));
    }

    private LogicType typeOf(Field field) {
        return field.type() instanceof FieldType.Reference reference
                ? new LogicType.RecordOf(new ObjectRecordType(release, release.target(reference)))
                : field.type().logicType();
    }

    @Override
    public Collection<String> memberNames() {
        var names = new java.util.ArrayList<>(object.fields().names());
        names.addAll(OF_EVERY_RECORD.keySet());
        return names;
    }

    @Override
    public Optional<String> keyMember() {
        return object.key().size() == 1 ? Optional.of(object.key().getFirst()) : Optional.empty();
    }
}
