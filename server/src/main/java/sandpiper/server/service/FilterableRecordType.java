package sandpiper.server.service;

import java.util.Collection;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import sandpiper.logic.type.LogicType;
import sandpiper.logic.type.Member;
import sandpiper.logic.type.RecordType;
import sandpiper.model.release.FieldPath;
import sandpiper.model.release.FieldTree;

/**
 * What of an object a service lets callers filter by: only the paths it names, and nothing beside
 * them.
 */
final class FilterableRecordType implements RecordType {
    private final RecordType whole;
    private final List<FieldPath> allowed;
    private final List<FieldTree.PartTree> items;
    private final List<String> at;

    FilterableRecordType(
            RecordType whole, List<FieldPath> allowed, List<FieldTree.PartTree> items) {
        this(whole, allowed, items, List.of());
    }

    private FilterableRecordType(
            RecordType whole,
            List<FieldPath> allowed,
            List<FieldTree.PartTree> items,
            List<String> at) {
        this.whole = whole;
        this.allowed = allowed;
        this.items = items;
        this.at = at;
    }

    @Override
    public String name() {
        return whole.name();
    }

    @Override
    public Optional<Member> member(String member) {
        if (!memberNames().contains(member)) {
            // The key of a reference may be compared wherever the reference may.
            boolean keyOfAllowed = whole.keyMembers().contains(member) && isAllowedItself();
            return keyOfAllowed ? whole.member(member) : Optional.empty();
        }
        for (var one : items) {
            if (one.part().name().equals(member)) {
                return whole.member(member).map(known -> narrowed(known, one));
            }
        }
        var further = new java.util.ArrayList<>(at);
        further.add(member);
        return whole.member(member)
                .map(known ->
                        known.type() instanceof LogicType.RecordOf(var record)
                                ? new NarrowedReference(
                                        known,
                                        new LogicType.RecordOf(
                                                new FilterableRecordType(
                                                        record, allowed, List.of(), further)))
                                : known);
    }

    /** The line items of a part, with some of their fields. */
    private static Member narrowed(Member list, FieldTree.PartTree items) {
        if (!(list.type() instanceof LogicType.ListOf(LogicType.RecordOf(var record)))) {
            return list;
        }
        var some = new FilterableRecordType(record, items.paths(), List.of());
        return new NarrowedReference(list, new LogicType.ListOf(new LogicType.RecordOf(some)));
    }

    private boolean isAllowedItself() {
        return !at.isEmpty() && allowed.stream().anyMatch(path -> names(path).equals(at));
    }

    private static List<String> names(FieldPath path) {
        return path.steps().stream().map(field -> field.name()).toList();
    }

    @Override
    public Collection<String> memberNames() {
        var names = new LinkedHashSet<String>();
        for (var path : allowed) {
            var steps = names(path);
            if (steps.size() > at.size() && steps.subList(0, at.size()).equals(at)) {
                names.add(steps.get(at.size()));
            }
        }
        items.forEach(one -> names.add(one.part().name()));
        return names;
    }

    @Override
    public List<String> keyMembers() {
        return whole.keyMembers();
    }

    @Override
    public Optional<Map<String, Object>> keyValues(String text) {
        return whole.keyValues(text);
    }

    @Override
    public Optional<String> keyMember() {
        return whole.keyMember();
    }
}
