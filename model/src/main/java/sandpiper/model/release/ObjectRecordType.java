package sandpiper.model.release;

import java.util.ArrayList;
import java.util.Collection;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.TreeSet;
import sandpiper.logic.type.FunctionType;
import sandpiper.logic.type.LogicType;
import sandpiper.logic.type.Member;
import sandpiper.logic.type.RecordType;
import sandpiper.model.definition.Lifecycle;
import sandpiper.model.type.FieldType;

/**
 * An object as the language sees it: its fields, its parts, the records that refer to it, and what
 * every record has.
 */
public final class ObjectRecordType implements RecordType {
    private final Release release;
    private final ObjectType object;
    private final Map<String, Member> members = new LinkedHashMap<>();

    ObjectRecordType(Release release, ObjectType object) {
        this.release = release;
        this.object = object;
    }

    public ObjectType object() {
        return object;
    }

    /** The members by name; made when they are first asked for, since objects refer in circles. */
    private Map<String, Member> members() {
        synchronized (members) {
            if (members.isEmpty()) {
                object.fields()
                        .forEach(field ->
                                members.put(field.name(), ModelMember.of(release, object, field)));
                object.parts()
                        .forEach(part ->
                                members.put(
                                        part.name(),
                                        new ModelMember.OfPart(
                                                part, new PartRecordType(release, object, part))));
                release.referencesTo(object).forEach(this::addInverse);
                for (var own : ModelMember.OfEveryRecord.Kind.values()) {
                    members.put(own.memberName(), new ModelMember.OfEveryRecord(own));
                }
            }
            return members;
        }
    }

    private void addInverse(Inverse inverse) {
        if (inverse.part() == null
                && inverse.field().type() instanceof FieldType.Reference(_, var name)
                && name != null) {
            members.putIfAbsent(
                    name,
                    new ModelMember.Related(
                            name,
                            inverse.from(),
                            inverse.field(),
                            new LogicType.ListOf(
                                    new LogicType.RecordOf(release.recordType(inverse.from())))));
        }
    }

    /** The record type of a part's line items. */
    public PartRecordType part(Part part) {
        return ((ModelMember.OfPart) java.util.Objects.requireNonNull(members().get(part.name())))
                .items();
    }

    @Override
    public String name() {
        return object.name();
    }

    @Override
    public Optional<Member> member(String member) {
        return Optional.ofNullable(members().get(member));
    }

    @Override
    public Collection<String> memberNames() {
        return members().keySet();
    }

    @Override
    public List<String> sortedMemberNames() {
        var names = new TreeSet<>(object.fields().names());
        members().values().stream()
                .filter(member -> member.reference() != null)
                .forEach(member -> names.add(member.name()));
        return new ArrayList<>(names);
    }

    @Override
    public Optional<String> keyMember() {
        return object.key().size() == 1 ? Optional.of(object.key().getFirst()) : Optional.empty();
    }

    @Override
    public List<String> keyMembers() {
        return object.key();
    }

    @Override
    public Optional<Map<String, Object>> keyValues(String text) {
        if (object.key().size() < 2) {
            return Optional.empty();
        }
        return KeyText.read(object, text)
                .map(stored -> {
                    var values = new LinkedHashMap<String, Object>();
                    for (int i = 0; i < stored.size(); i++) {
                        var field = object.keyFields().get(i);
                        values.put(
                                field.name(),
                                Codec.toLogic(field.type(), stored.get(i), object.zone()));
                    }
                    return values;
                });
    }

    @Override
    public Optional<FunctionType> function(String name) {
        return object.function(name).map(one -> ObjectFunctionType.of(release, object, one));
    }

    @Override
    public List<String> functionNames() {
        return object.functions().stream().map(FunctionDefinition::name).toList();
    }

    @Override
    public List<String> transitions() {
        var lifecycle = object.lifecycle();
        return lifecycle == null
                ? List.of()
                : lifecycle.transitions().stream().map(Lifecycle.Transition::name).toList();
    }
}
