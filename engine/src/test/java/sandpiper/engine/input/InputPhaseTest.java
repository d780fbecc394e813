package sandpiper.engine.input;

import static org.assertj.core.api.Assertions.assertThat;
import static sandpiper.engine.Yard.faults;
import static sandpiper.engine.Yard.messages;

import java.util.Arrays;
import java.util.List;
import java.util.Map;
import java.util.Set;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Nested;
import org.junit.jupiter.api.Test;
import sandpiper.engine.Yard;
import sandpiper.engine.access.Actor;
import sandpiper.engine.access.ObjectGrant;
import sandpiper.engine.command.Grouping;
import sandpiper.engine.command.Leave;
import sandpiper.engine.command.Outcome;
import sandpiper.engine.command.RecordCode;
import sandpiper.engine.command.Request;
import sandpiper.engine.record.StoredRecord;
import sandpiper.engine.write.RecordWrites;

/** What is given goes into records: lines, references, defaults, what chosen records give. */
class InputPhaseTest {
    private Yard yard;

    @BeforeEach
    void make() {
        yard =
                new Yard(
                        """
                        object: Tariff
                        key: code
                        fields:
                          code: { type: text }
                          price: { type: integer, default: 4 }
                        """,
                        """
                        object: Bill
                        key: number
                        numbering: { field: number, pattern: "B-{sequence:3}" }
                        fields:
                          number: { type: text }
                          tariff: { type: reference, to: Tariff, fill: { price: price } }
                          price: { type: integer }
                          day: { type: date, default: today() }
                          fixed: { type: integer, readOnly: true, default: 1 }
                          twice: { type: integer, formula: price * 2 }
                          before: { type: reference, to: Bill }
                        parts:
                          lines:
                            label: Lines
                            fields:
                              tariff: { type: reference, to: Tariff, fill: { price: price } }
                              price: { type: integer }
                              many: { type: integer, default: 1 }
                        """);
        yard.create("Tariff", "code", "T1");
        yard.create("Tariff", "code", "T2", "price", 9L);
    }

    private StoredRecord bill() {
        return yard.records.all(yard.object("Bill")).getFirst();
    }

    /** Number, price and how many of each line. */
    private List<List<Object>> lines() {
        return bill().items().getFirst().stream()
                .map(item -> Arrays.<Object>asList(item.line(), item.values()[1], item.values()[2]))
                .toList();
    }

    @Nested
    class Fields {
        @Test
        void haveTheirDefaultsAndWhatAChosenRecordGives() {
            yard.create("Bill", "tariff", "T2");

            assertThat(yard.records.values(yard.object("Bill"), "B-001"))
                    .containsEntry("price", 9L)
                    .containsEntry("twice", 18L)
                    .containsEntry("fixed", 1L)
                    .containsKey("day");
        }

        @Test
        void thatAreGivenWinOverWhatAChosenRecordGives() {
            yard.create("Bill", "tariff", "T2", "price", 5L);

            assertThat(yard.value("Bill", "B-001", "price")).isEqualTo(5L);
        }

        @Test
        void areFilledAnewWhenAnotherIsChosen() {
            yard.create("Bill", "tariff", "T2");

            yard.change("Bill", "B-001", "tariff", "T1");

            assertThat(yard.value("Bill", "B-001", "price")).isEqualTo(4L);
        }

        @Test
        void thatAreWorkedOutCannotBeGivenButMayStayAsTheyAre() {
            yard.create("Bill", "price", 5L);

            assertThat(messages(yard.change("Bill", "B-001", "twice", 11L)))
                    .containsExactly("Twice is worked out by its formula and cannot be set.");
            assertThat(yard.change("Bill", "B-001", "twice", 10L)).isInstanceOf(Outcome.Done.class);
        }

        @Test
        void ofTheServiceAloneCannotBeGiven() {
            assertThat(messages(yard.create("Bill", "fixed", 7L)))
                    .containsExactly("Fixed is set by the service alone and cannot be given.");
        }
    }

    @Nested
    class References {
        @Test
        void leadToWhatThereIs() {
            assertThat(messages(yard.create("Bill", "tariff", "T9")))
                    .containsExactly("Tariff: there is no Tariff \"T9\".");
        }

        @Test
        void doNotLeadToWhatIsRetiredUnlessTheyDidBefore() {
            yard.create("Bill", "tariff", "T1");
            yard.retire("Tariff", "T1");

            assertThat(faults(yard.create("Bill", "tariff", "T1")))
                    .extracting(fault -> fault.code())
                    .containsExactly(RecordCode.RETIRED_RECORD);
            assertThat(yard.change("Bill", "B-001", "tariff", "T1", "price", 1L))
                    .isInstanceOf(Outcome.Done.class);
        }

        @Test
        void leadOnlyToWhatWhoeverAsksCanSee() {
            var sees =
                    new ObjectGrant(
                            "Tariff",
                            Set.of(ObjectGrant.Action.VIEW),
                            "price < 5",
                            List.of(),
                            List.of());
            var bob = new Actor(Actor.Kind.USER, "bob", Set.of(), List.of(), List.of(sees));

            assertThat(messages(createAs(bob, "tariff", "T2")))
                    .containsExactly("Tariff: there is no Tariff \"T2\".");
            assertThat(createAs(bob, "tariff", "T1")).isInstanceOf(Outcome.Done.class);
        }

        private Outcome createAs(Actor actor, Object... values) {
            return yard.run(new Request(yard.creating("Bill", values), actor, "test", false));
        }

        @Test
        void ofRowsLeadToOthersOfTheSameFileWhicheverComesFirst() {
            var requests =
                    List.of(
                            row("number", "B-7", "before", "B-8"),
                            row("number", "B-8", "price", "3"));

            var outcomes =
                    yard.writes.write(
                            yard.live,
                            yard.transaction,
                            requests,
                            Grouping.TOGETHER,
                            RecordWrites.TurnListener.NONE);

            assertThat(outcomes).allMatch(Outcome.Done.class::isInstance);
            assertThat(yard.value("Bill", "B-7", "before")).isNotNull();
        }

        @Test
        void ofRowsThatLeadNowhereAreTold() {
            var outcomes =
                    yard.writes.write(
                            yard.live,
                            yard.transaction,
                            List.of(row("number", "B-7", "before", "B-9"), row("number", "B-8")),
                            Grouping.TOGETHER,
                            RecordWrites.TurnListener.NONE);

            assertThat(messages(outcomes.get(0)))
                    .containsExactly("Before: there is no Bill \"B-9\".");
            assertThat(outcomes.get(1)).isInstanceOf(Outcome.Done.class);
        }

        private Request row(Object... values) {
            return new Request(yard.creating("Bill", values), Actor.SYSTEM, "import", true);
        }
    }

    @Nested
    class Lines {
        @BeforeEach
        void two() {
            yard.create(
                    "Bill",
                    "lines",
                    List.of(Map.of("tariff", "T1"), Map.of("tariff", "T2", "many", 3L)));
        }

        @Test
        void haveNumbersDefaultsAndWhatTheirRecordsGive() {
            assertThat(lines()).containsExactly(List.of(1L, 4L, 1L), List.of(2L, 9L, 3L));
        }

        @Test
        void withoutNumbersChangeThoseInTheirPlaces() {
            yard.change("Bill", "B-001", "lines", List.of(Map.of("many", 5L)));

            assertThat(lines()).containsExactly(List.of(1L, 4L, 5L));
        }

        @Test
        void withNumbersChangeThoseTheyName() {
            yard.change(
                    "Bill",
                    "B-001",
                    "lines",
                    List.of(Map.of("line", 2L, "many", 7L), Map.of("line", 1L)));

            assertThat(lines()).containsExactly(List.of(2L, 9L, 7L), List.of(1L, 4L, 1L));
        }

        @Test
        void beyondThoseThatAreThereAreNew() {
            yard.change(
                    "Bill", "B-001", "lines", List.of(Map.of(), Map.of(), Map.of("tariff", "T1")));

            assertThat(lines())
                    .containsExactly(List.of(1L, 4L, 1L), List.of(2L, 9L, 3L), List.of(3L, 4L, 1L));
        }

        @Test
        void thatAreNotThereOrTwiceAreTold() {
            assertThat(messages(yard.change("Bill", "B-001", "lines", List.of(Map.of("line", 9L)))))
                    .containsExactly("Lines has no line 9; there is 1, 2.");
            assertThat(
                            messages(
                                    yard.change(
                                            "Bill",
                                            "B-001",
                                            "lines",
                                            List.of(Map.of("line", 1L), Map.of("line", 1L)))))
                    .containsExactly("Line 1 stands here twice.");
        }

        @Test
        void numbersOfLinesThatAreGoneAreNotGivenAgain() {
            yard.change("Bill", "B-001", "lines", List.of(Map.of("line", 1L)));
            yard.change("Bill", "B-001", "lines", List.of(Map.of("line", 1L), Map.of("many", 2L)));

            assertThat(lines().getLast().getFirst()).isIn(2L, 3L);
        }
    }

    @Test
    void dataFromElsewhereBringsItsNumbersAndWhatOnlyTheServiceGives() {
        var request =
                new Request(
                                yard.creating(
                                        "Bill", "number", "OLD-1", "fixed", 7L, "retired", "true"),
                                Actor.SYSTEM,
                                "import",
                                true)
                        .with(new Leave(true, false));

        assertThat(yard.run(request)).isInstanceOf(Outcome.Done.class);
        assertThat(yard.value("Bill", "OLD-1", "fixed")).isEqualTo(7L);
        assertThat(bill().retired()).isTrue();
    }
}
