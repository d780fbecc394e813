package sandpiper.engine.derive;

import static org.assertj.core.api.Assertions.assertThat;
import static sandpiper.engine.Yard.messages;

import java.util.List;
import java.util.Map;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import sandpiper.engine.Yard;
import sandpiper.engine.command.RecordCode;
import sandpiper.engine.trace.TraceStep;
import sandpiper.model.type.Localised;

/** Formulas of line items, over line items, through references, and of texts in languages. */
class WhatFollowsTest {
    private static final String TARIFF =
            """
            object: Tariff
            key: code
            fields:
              code: { type: text }
              price: { type: integer, default: 10 }
              label: { type: text, localised: true }
            """;

    private static final String BILL =
            """
            object: Bill
            key: code
            fields:
              code: { type: text }
              share: { type: integer, default: 100 }
              total: { type: integer, formula: sum(lines.cost) }
              short: { type: text, length: 5, formula: string(total) }
              first: { type: text, formula: "lines[1].what" }
              greeting: { type: text, localised: true }
              loud: { type: text, formula: upper case(greeting) }
            parts:
              lines:
                fields:
                  what: { type: text }
                  tariff: { type: reference, to: Tariff }
                  quantity: { type: integer, default: 1 }
                  cost: { type: integer, formula: quantity * tariff.price * share / 100 }
            rules:
              greet: { on: create, when: greeting = null, then: 'set greeting = "Hello"' }
              german: { on: change of share, then: 'set greeting.de = "Moin"' }
            """;

    private Yard yard;

    @BeforeEach
    void make() {
        yard =
                Yard.with(
                        Map.of(
                                "package.yaml",
                                "package: yard\nversion: 1.0\nlanguages: [en, de]\n"),
                        TARIFF,
                        BILL);
        yard.create("Tariff", "code", "night", "price", 30L);
        yard.create("Tariff", "code", "power", "price", 4L);
        yard.create(
                "Bill",
                "code",
                "B",
                "lines",
                List.of(
                        Map.of("what", "two nights", "tariff", "night", "quantity", 2L),
                        Map.of("what", "cable", "tariff", "power")));
    }

    private Object bill(String field) {
        return yard.value("Bill", "B", field);
    }

    @Test
    void lineItemsAreWorkedOutAndAddUp() {
        assertThat(bill("total")).isEqualTo(64L);
        assertThat(bill("short")).isEqualTo("64");
        assertThat(bill("first")).isEqualTo("two nights");
    }

    @Test
    void aFieldOfTheRecordReachesItsLineItems() {
        yard.change("Bill", "B", "share", 50L);

        assertThat(bill("total")).isEqualTo(32L);
        assertThat(bill("short")).isEqualTo("32");
    }

    @Test
    void aFieldBehindAReferenceReachesThemToo() {
        yard.change("Tariff", "night", "price", 31L);

        assertThat(bill("total")).isEqualTo(66L);
    }

    @Test
    void lineItemsThatComeGoAndMoveAreFollowed() {
        yard.change(
                "Bill",
                "B",
                "lines",
                List.of(Map.of("what", "cable", "tariff", "power", "quantity", 1L)));
        assertThat(bill("total")).isEqualTo(4L);
        assertThat(bill("first")).isEqualTo("cable");

        yard.change("Bill", "B", "lines", List.of());
        assertThat(bill("total")).isEqualTo(0L);
        assertThat(bill("first")).isNull();
    }

    @Test
    void whatCannotBeStoredOfAnotherRecordSaysOfWhich() {
        var outcome = yard.change("Tariff", "night", "price", 3_000_000L);

        assertThat(Yard.faults(outcome))
                .extracting(fault -> fault.code())
                .containsExactly(RecordCode.CANNOT_BE_STORED);
        assertThat(messages(outcome).getFirst()).startsWith("Bill B: Short");
        assertThat(Yard.faults(outcome).getFirst().path().isWhole()).isTrue();
    }

    @Test
    void aRuleSetsTheMainLanguageAndAnotherBesideIt() {
        assertThat(((Localised) bill("greeting")).text(0)).isEqualTo("Hello");
        assertThat(bill("loud")).isEqualTo("HELLO");

        yard.change("Bill", "B", "share", 90L);

        var greeting = (Localised) bill("greeting");
        assertThat(greeting.text(0)).isEqualTo("Hello");
        assertThat(greeting.text(1)).isEqualTo("Moin");
        assertThat(bill("loud")).isEqualTo("HELLO");
    }

    @Test
    void anAccountTellsEachValueWithWhatItWas() {
        assertThat(
                        yard.steps(
                                yard.changing("Bill", "B", null, "share", 50L),
                                TraceStep.Kind.FORMULA))
                .extracting(step -> step.title() + " | " + step.detail() + " | " + step.result())
                .contains(
                        "Bill B: total | sum(lines.cost) | 64 → 32",
                        "Bill B: short | string(total) | 64 → 32")
                .anyMatch(step -> step.contains("cost | quantity") && step.endsWith("60 → 30"));
    }

    @Test
    void whatDoesNotChangeIsNoStep() {
        assertThat(
                        yard.steps(
                                yard.changing("Bill", "B", null, "share", 100L),
                                TraceStep.Kind.FORMULA))
                .isEmpty();
    }
}
