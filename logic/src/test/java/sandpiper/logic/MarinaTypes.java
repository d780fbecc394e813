package sandpiper.logic;

import java.util.ArrayList;
import java.util.Collection;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import org.jspecify.annotations.Nullable;
import sandpiper.logic.type.FunctionType;
import sandpiper.logic.type.FunctionType.Parameter;
import sandpiper.logic.type.LogicType;
import sandpiper.logic.type.LogicType.AmountOf;
import sandpiper.logic.type.LogicType.ChoiceOf;
import sandpiper.logic.type.LogicType.ListOf;
import sandpiper.logic.type.LogicType.RecordOf;
import sandpiper.logic.type.LogicType.Simple;
import sandpiper.logic.type.Member;
import sandpiper.logic.type.RecordType;
import sandpiper.logic.type.World;
import sandpiper.logic.value.Nothing;
import sandpiper.logic.value.RecordValue;

/** A small marina for tests of the language: stays with charges, vessels, piers. */
public final class MarinaTypes {
    public static final Type VESSEL = new Type("Vessel", "registration");
    public static final Type PIER = new Type("Pier", "code");
    public static final Type CHARGE = new Type("Charge", "code");
    public static final Type STAY = new Type("Stay", "number");

    static {
        VESSEL.field("registration", Simple.TEXT, false)
                .field("length", Simple.NUMBER, false)
                .field("insuredUntil", Simple.DATE, true)
                .related("stays", STAY, "vessel")
                .transition("layUp")
                .function(
                        new Function(
                                "fits",
                                true,
                                List.of(
                                        new Parameter("metres", Simple.NUMBER, true),
                                        new Parameter("day", Simple.DATE, false)),
                                Simple.BOOLEAN))
                .function(new Function("register", false, List.of(), null));
        PIER.field("code", Simple.TEXT, false)
                .field("open", Simple.BOOLEAN, false)
                .related("stays", STAY, "pier");
        CHARGE.field("code", Simple.TEXT, false)
                .field("net", new AmountOf("EUR"), true)
                .field("vat", Simple.PERCENT, true)
                .field("quantity", Simple.NUMBER, true);
        STAY.field("number", Simple.TEXT, false)
                .field("state", new ChoiceOf(List.of("Confirmed", "Alongside", "Departed")), false)
                .field("arrival", Simple.DATE, false)
                .field("departure", Simple.DATE, true)
                .field("changedAt", Simple.DATE_TIME, false)
                .field("nights", Simple.NUMBER, false)
                .field("open", Simple.BOOLEAN, false)
                .field("rate", new AmountOf("EUR"), false)
                .field("fee", new AmountOf("USD"), false)
                .field("vessel", new RecordOf(VESSEL), false)
                .field("pier", new RecordOf(PIER), true)
                .field("charges", new ListOf(new RecordOf(CHARGE)), false);
    }

    public static final World WORLD =
            new World() {
                private final Map<String, RecordType> all =
                        Map.of("Stay", STAY, "Vessel", VESSEL, "Pier", PIER);

                @Override
                public Optional<RecordType> object(String name) {
                    return Optional.ofNullable(all.get(name));
                }

                @Override
                public Collection<String> objectNames() {
                    return all.keySet();
                }
            };

    private MarinaTypes() {}

    private record Function(
            String name,
            boolean isOnRecord,
            List<Parameter> parameters,
            @Nullable LogicType returns)
            implements FunctionType {}

    record Field(String name, LogicType type, boolean mayBeEmpty, @Nullable String reference)
            implements Member {
        @Override
        public String describe() {
            return "The " + name + ".";
        }
    }

    /** A record type that is built up. */
    public static final class Type implements RecordType {
        private final String name;
        private final String key;
        private final Map<String, Member> members = new LinkedHashMap<>();
        private final Map<String, FunctionType> functions = new LinkedHashMap<>();
        private final List<String> transitions = new ArrayList<>();

        Type(String name, String key) {
            this.name = name;
            this.key = key;
        }

        Type field(String field, LogicType type, boolean mayBeEmpty) {
            members.put(field, new Field(field, type, mayBeEmpty, null));
            return this;
        }

        Type related(String field, Type other, String reference) {
            members.put(field, new Field(field, new ListOf(new RecordOf(other)), false, reference));
            return this;
        }

        Type function(FunctionType function) {
            functions.put(function.name(), function);
            return this;
        }

        Type transition(String transition) {
            transitions.add(transition);
            return this;
        }

        @Override
        public Optional<FunctionType> function(String function) {
            return Optional.ofNullable(functions.get(function));
        }

        @Override
        public List<String> functionNames() {
            return List.copyOf(functions.keySet());
        }

        @Override
        public List<String> transitions() {
            return transitions;
        }

        @Override
        public String name() {
            return name;
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
            return Optional.of(key);
        }
    }

    /** A record whose values stand in a map. */
    public record One(Type type, Map<String, Object> values) implements RecordValue {
        /** Names and values in turn. */
        public static One of(Type type, Object... namesAndValues) {
            var values = new LinkedHashMap<String, Object>();
            for (int i = 0; i < namesAndValues.length; i += 2) {
                values.put((String) namesAndValues[i], namesAndValues[i + 1]);
            }
            return new One(type, values);
        }

        @Override
        public Object read(Member member) {
            return read(member.name());
        }

        @Override
        public Object read(String member) {
            return values.getOrDefault(member, Nothing.NULL);
        }

        @Override
        public String object() {
            return type.name();
        }

        @Override
        public String written() {
            return String.valueOf(values.get(type.key));
        }

        @Override
        public long number() {
            return 1;
        }
    }

    /** A list of values. */
    public static List<Object> list(Object... items) {
        return new ArrayList<>(List.of(items));
    }
}
