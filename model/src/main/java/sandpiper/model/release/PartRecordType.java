package sandpiper.model.release;

import java.util.Collection;
import java.util.LinkedHashMap;
import java.util.Map;
import java.util.Optional;
import sandpiper.logic.type.LogicType;
import sandpiper.logic.type.Member;
import sandpiper.logic.type.RecordType;

/** The line items of a part as the language sees them: their fields, and their line. */
public final class PartRecordType implements RecordType {
    private final Part part;
    private final Map<String, Member> members = new LinkedHashMap<>();

    PartRecordType(Release release, ObjectType object, Part part) {
        this.part = part;
        part.fields()
                .forEach(
                        field -> members.put(field.name(), ModelMember.of(release, object, field)));
        members.put("line", new ModelMember.Line(LogicType.Simple.NUMBER));
    }

    public Part part() {
        return part;
    }

    @Override
    public String name() {
        return part.name();
    }

    @Override
    public Optional<Member> member(String member) {
        return Optional.ofNullable(members.get(member));
    }

    @Override
    public Collection<String> memberNames() {
        return members.keySet();
    }

    @Override
    public Optional<String> keyMember() {
        return Optional.empty();
    }
}
