package sandpiper.server.service;

import java.util.ArrayList;
import java.util.List;
import org.jspecify.annotations.Nullable;
import sandpiper.engine.read.PlainRecords;
import sandpiper.engine.record.RecordView;
import sandpiper.model.release.Field;
import sandpiper.model.release.FieldPath;
import sandpiper.model.release.FieldTree;
import sandpiper.model.release.PathGroup;
import tools.jackson.core.JsonGenerator;
import tools.jackson.core.SerializableString;
import tools.jackson.core.io.SerializedString;

/**
 * Writes records straight from their values, as JSON or to another {@link RecordSink}, as {@link
 * PlainRecords} shows them with their id and version before. What stands where is found out once
 * for a tree of fields.
 */
public final class RecordWriter {
    private static final SerializableString ID = new SerializedString("id");
    private static final SerializableString VERSION = new SerializedString("version");
    private static final SerializableString LINE = new SerializedString("line");
    private static final SerializableString KEY = new SerializedString(PlainRecords.KEY);

    private final List<Member> members;
    private final List<PartWriter> parts;

    /**
     * One member of an object.
     *
     * @param index the place of its value, or below 0 when only what is behind it was chosen
     * @param inside what was chosen behind a reference
     */
    private record Member(SerializableString name, Field field, int index, List<Member> inside) {
        /** Whether there is no value, or no record behind a reference. */
        boolean isEmpty(@Nullable Object[] values) {
            return index >= 0
                    ? values[index] == null
                    : inside.stream().allMatch(member -> member.isEmpty(values));
        }
    }

    private record PartWriter(SerializableString name, List<Member> members) {}

    /** A writer of the fields of a tree. */
    public RecordWriter(FieldTree tree) {
        members = members(tree.paths(), tree.paths(), 0);
        parts =
                tree.parts().stream()
                        .map(part ->
                                new PartWriter(
                                        new SerializedString(part.part().name()),
                                        members(part.paths(), part.paths(), 0)))
                        .toList();
    }

    private static List<Member> members(List<FieldPath> all, List<FieldPath> some, int depth) {
        var members = new ArrayList<Member>();
        for (var group : PathGroup.of(some, depth)) {
            var own =
                    some.stream()
                            .filter(path -> path.steps().size() == depth + 1)
                            .filter(path -> path.steps().get(depth).equals(group.field()))
                            .findFirst();
            members.add(
                    new Member(
                            new SerializedString(group.field().name()),
                            group.field(),
                            own.map(all::indexOf).orElse(-1),
                            group.behind().isEmpty()
                                    ? List.of()
                                    : members(all, group.behind(), depth + 1)));
        }
        return members;
    }

    /** Writes a record as a JSON object. */
    public void write(JsonGenerator to, RecordView record) {
        to.writeStartObject();
        write(new JsonSink(to), record);
        to.writeEndObject();
    }

    /** Writes the members of a record. */
    public void write(RecordSink to, RecordView record) {
        to.value(ID, record.id().toString());
        to.value(VERSION, record.version());
        write(to, members, record.values());
        for (int i = 0; i < parts.size(); i++) {
            var part = parts.get(i);
            to.beginItems(part.name());
            for (var item : record.parts().get(i)) {
                to.beginItem();
                to.value(LINE, item.line());
                write(to, part.members(), item.values());
                to.end();
            }
            to.endItems();
        }
    }

    private static void write(RecordSink to, List<Member> members, @Nullable Object[] values) {
        for (var member : members) {
            var value =
                    member.index() < 0
                            ? null
                            : PlainRecords.write(member.field(), values[member.index()]);
            if (member.inside().isEmpty()) {
                to.value(member.name(), value);
                continue;
            }
            if (member.isEmpty(values)) {
                to.value(member.name(), null);
                continue;
            }
            to.begin(member.name());
            if (member.index() >= 0) {
                to.value(KEY, value);
            }
            write(to, member.inside(), values);
            to.end();
        }
    }
}
