package sandpiper.server.manage.record;

import java.util.Collection;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import sandpiper.engine.access.Actor;
import sandpiper.logic.type.LogicType;
import sandpiper.logic.type.Member;
import sandpiper.logic.type.RecordType;
import sandpiper.server.service.NarrowedReference;

/**
 * What somebody who does not see everything may name of an object in a filter: no hidden field, no
 * lists, and nothing but the key of records they may not see all of. What cannot be named cannot be
 * found out by asking.
 */
public final class VisibleRecordType implements RecordType {
    private final RecordType whole;
    private final Actor actor;

    VisibleRecordType(RecordType whole, Actor actor) {
        this.whole = whole;
        this.actor = actor;
    }

    @Override
    public String name() {
        return whole.name();
    }

    @Override
    public Collection<String> memberNames() {
        return whole.memberNames().stream().filter(name -> member(name).isPresent()).toList();
    }

    @Override
    public Optional<Member> member(String name) {
        if (actor.on(whole.name()).hidden().contains(name)) {
            return Optional.empty();
        }
        return whole.member(name).flatMap(this::seen);
    }

    private Optional<Member> seen(Member member) {
        return switch (member.type()) {
            case LogicType.RecordOf(var record) ->
                    Optional.of(
                            new NarrowedReference(
                                    member,
                                    new LogicType.RecordOf(
                                            actor.on(record.name()).seesAll()
                                                    ? new VisibleRecordType(record, actor)
                                                    : new KeyOnly(record))));
            // What belongs to a record, or refers to it, leads anywhere, back to what is hidden
            // too.
            case LogicType.ListOf _ -> Optional.empty();
            default -> Optional.of(member);
        };
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

    /** A record of which nothing but the key may be named. */
    private record KeyOnly(RecordType whole) implements RecordType {
        @Override
        public String name() {
            return whole.name();
        }

        @Override
        public Collection<String> memberNames() {
            return whole.keyMembers();
        }

        @Override
        public Optional<Member> member(String name) {
            return whole.keyMembers().contains(name) ? whole.member(name) : Optional.empty();
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
}
