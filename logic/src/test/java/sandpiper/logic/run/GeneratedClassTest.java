package sandpiper.logic.run;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.time.Instant;
import java.time.LocalDate;
import java.time.ZoneOffset;
import java.util.List;
import java.util.Objects;
import java.util.stream.Stream;
import net.jqwik.api.Arbitraries;
import net.jqwik.api.Arbitrary;
import net.jqwik.api.Combinators;
import net.jqwik.api.ForAll;
import net.jqwik.api.Property;
import net.jqwik.api.Provide;
import org.jspecify.annotations.Nullable;
import org.junit.jupiter.api.Test;
import sandpiper.logic.MarinaTypes;
import sandpiper.logic.check.CheckedTerm;
import sandpiper.logic.check.Checker;
import sandpiper.logic.check.NameContext;
import sandpiper.logic.type.LogicType;
import sandpiper.logic.type.World;
import sandpiper.logic.value.Amount;
import sandpiper.logic.value.Decimal;
import sandpiper.logic.value.Nothing;
import sandpiper.logic.value.RecordValue;

/** An expression comes to the same as a class and as a tree of functions. */
class GeneratedClassTest {
    private static final List<Object> NUMBERS =
            List.of(
                    Nothing.NULL,
                    Decimal.of(3),
                    Decimal.of(14),
                    Decimal.of(1450, 2),
                    Decimal.of(new java.math.BigDecimal("123456789012345678901234")));

    /** What came of it and what was noted. */
    private record Outcome(Object value, List<String> notes) {}

    private static Evaluation evaluation() {
        return new Evaluation(
                Instant.parse("2026-05-01T10:00:00Z"), ZoneOffset.UTC, RecordSource.NONE);
    }

    private static CheckedTerm checked(String text) {
        return Checker.value(
                text, NameContext.of(World.EMPTY, MarinaTypes.STAY), LogicType.Simple.ANY);
    }

    private static Outcome run(Op op, int slots, @Nullable RecordValue record) {
        var run = evaluation();
        var frame = new Frame(slots, run);
        if (record != null) {
            frame.set(NameContext.THIS, record);
        }
        return new Outcome(op.eval(frame), run.notes());
    }

    private static Outcome about(Op op, int slots, RecordValue record) {
        var run = evaluation();
        return new Outcome(op.about(record, run, slots), run.notes());
    }

    @Provide
    Arbitrary<String> conditions() {
        var number = Arbitraries.of("nights", "14", "3.0", "nights * 2 - 1", "vessel.length");
        var order = Arbitraries.of("<", "<=", ">", ">=", "=", "!=");
        var compared = Combinators.combine(number, order, number).as("%s %s %s"::formatted);
        var leaves =
                Arbitraries.oneOf(
                        compared,
                        Arbitraries.of(
                                "open",
                                "state = \"Alongside\"",
                                "state != \"Departed\"",
                                "state in (\"Confirmed\", \"Alongside\")",
                                "nights in (< 3, [14..20])",
                                "nights between 3 and 14",
                                "contains(state, \"part\")",
                                "rate > fee",
                                "arrival < departure",
                                "arrival = date(\"2026-05-01\")",
                                "state = 3",
                                "null",
                                "(if open then nights > 3 else nights < 3)"));
        return Arbitraries.recursive(() -> leaves, GeneratedClassTest::joined, 0, 2);
    }

    private static Arbitrary<String> joined(Arbitrary<String> parts) {
        var three = Combinators.combine(parts, parts, parts);
        return Arbitraries.oneOf(
                parts.map("not(%s)"::formatted),
                Combinators.combine(parts, parts).as("(%s or %s)"::formatted),
                three.as("(%s and %s and %s)"::formatted),
                three.as("(if %s then %s else %s)"::formatted));
    }

    @Provide
    Arbitrary<RecordValue> stays() {
        var vessels =
                Arbitraries.of(NUMBERS)
                        .map(length ->
                                (Object) MarinaTypes.One.of(MarinaTypes.VESSEL, "length", length));
        var flags = Arbitraries.of(List.<Object>of(true, false, Nothing.NULL));
        var states = Arbitraries.of(List.<Object>of("Alongside", "Departed", "", Nothing.NULL));
        var dates =
                Arbitraries.of(
                        List.<Object>of(
                                LocalDate.parse("2026-05-01"),
                                LocalDate.parse("2026-05-09"),
                                Nothing.NULL));
        return Combinators.combine(Arbitraries.of(NUMBERS), flags, states, dates, dates, vessels)
                .as((nights, open, state, arrival, departure, vessel) ->
                        MarinaTypes.One.of(
                                MarinaTypes.STAY,
                                "nights",
                                nights,
                                "open",
                                open,
                                "state",
                                state,
                                "arrival",
                                arrival,
                                "departure",
                                departure,
                                "vessel",
                                vessel,
                                "rate",
                                new Amount(Decimal.of(30), "EUR"),
                                "fee",
                                new Amount(Decimal.of(20), "USD")));
    }

    @Property(tries = 2_000)
    void conditionsOverARecord(
            @ForAll("conditions") String text, @ForAll("stays") RecordValue stay) {
        var checked = checked(text);
        var functions = Compiler.op(checked.term());
        var written = Objects.requireNonNull(GeneratedClass.of(checked.term()));

        var expected = run(functions, checked.slots(), stay);
        assertThat(run(written, checked.slots(), stay)).isEqualTo(expected);
        assertThat(about(written, checked.slots(), stay)).isEqualTo(expected);
        assertThat(run(written, checked.slots(), null))
                .isEqualTo(run(functions, checked.slots(), null));
    }

    @Test
    void allThatTheLanguageHas() throws IOException {
        try (var files = Files.list(Path.of("src/test/resources/conformance"))) {
            for (var file : files.sorted().toList()) {
                Files.readAllLines(file).stream()
                        .filter(line -> !line.isBlank() && !line.startsWith("#"))
                        .flatMap(line -> Stream.of(line.split(" => ", 2)))
                        .forEach(GeneratedClassTest::assertSame);
            }
        }
    }

    private static void assertSame(String text) {
        var checked = Checker.check(text, NameContext.ALONE);
        var written = Objects.requireNonNull(GeneratedClass.of(checked.term()));
        assertThat(run(written, checked.slots(), null))
                .as(text)
                .usingRecursiveComparison()
                .isEqualTo(run(Compiler.op(checked.term()), checked.slots(), null));
    }

    @Test
    void whatIsTooLongStaysATreeOfFunctions() {
        var checked = checked("nights > 1" + " and nights < 99".repeat(400));
        assertThat(checked.problems()).isEmpty();

        assertThat(GeneratedClass.of(checked.term())).isNull();
    }

    @Test
    void expressionsThatRunOftenAreWrittenAndComeToTheSame() throws InterruptedException {
        var code = Compiler.compile(checked("nights > 14 and state = \"Alongside\""));
        var stay =
                MarinaTypes.One.of(
                        MarinaTypes.STAY, "nights", Decimal.of(20), "state", "Alongside");
        var run = evaluation();
        for (int times = 0; times < 20_000; times++) {
            assertThat(code.run(stay, run)).isEqualTo(true);
        }
        for (int tries = 0; !code.isWritten() && tries < 1_000; tries++) {
            Thread.sleep(10);
        }

        assertThat(code.isWritten()).isTrue();
        assertThat(code.run(stay, run)).isEqualTo(true);
    }
}
