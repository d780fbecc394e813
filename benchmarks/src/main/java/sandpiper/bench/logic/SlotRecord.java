package sandpiper.bench.logic;

import java.util.Collection;
import java.util.LinkedHashMap;
import java.util.Map;
import java.util.Optional;
import org.jspecify.annotations.Nullable;
import sandpiper.logic.type.LogicType;
import sandpiper.logic.type.Member;
import sandpiper.logic.type.RecordType;
import sandpiper.logic.value.Decimal;
import sandpiper.logic.value.Nothing;
import sandpiper.logic.value.RecordValue;

/** A record of slots in stored form, read as the engine reads its own. */
final class SlotRecord implements RecordValue {
    private final @Nullable Object[] slots;

    SlotRecord(@Nullable Object... slots) {
        this.slots = slots;
    }

    /** A slot with the decimal places of what is in it; below 0 for what is no number. */
    record Slot(String name, int index, int scale, LogicType type) implements Member {
        @Override
        public boolean mayBeEmpty() {
            return false;
        }

        @Override
        public String describe() {
            return "";
        }
    }

    /** The members by name. */
    record Type(Map<String, Member> members) implements RecordType {
        static Type of(Slot... slots) {
            var members = new LinkedHashMap<String, Member>();
            for (var slot : slots) {
                members.put(slot.name(), slot);
            }
            return new Type(members);
        }

        @Override
        public String name() {
            return "Stay";
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

    @Override
    public Object read(Member member) {
        var slot = (Slot) member;
        var value = slots[slot.index()];
        if (value == null) {
            return Nothing.NULL;
        }
        return slot.scale() < 0 ? value : Decimal.of((Long) value, slot.scale());
    }

    @Override
    public Object read(String member) {
        return Nothing.NULL;
    }

    @Override
    public String object() {
        return "Stay";
    }

    @Override
    public String written() {
        return "a stay";
    }

    @Override
    public long number() {
        return 1;
    }
}
