package sandpiper.logic.run;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.math.BigDecimal;
import java.time.Duration;
import java.time.Instant;
import java.time.LocalDate;
import java.time.LocalTime;
import java.time.ZoneId;
import java.time.ZoneOffset;
import java.util.List;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.MethodSource;
import sandpiper.logic.value.Amount;
import sandpiper.logic.value.Decimal;
import sandpiper.logic.value.Moment;
import sandpiper.logic.value.Months;
import sandpiper.logic.value.Nothing;
import sandpiper.logic.value.TimeOfDay;

/** Arithmetic over every kind of value there is. */
class ArithmeticOpsTest {
    private static final LocalDate MAY = LocalDate.of(2026, 5, 1);
    private static final ZoneId BERLIN = ZoneId.of("Europe/Berlin");
    private static final String NONE = "no result";

    private final Evaluation run =
            new Evaluation(Instant.EPOCH, ZoneOffset.UTC, RecordSource.NONE, 500_000);

    private static Decimal number(String text) {
        return Decimal.of(new BigDecimal(text));
    }

    private static Amount euros(String text) {
        return new Amount(number(text), "EUR");
    }

    private record Case(Object a, char operator, Object b, Object comesTo) {}

    private static Case of(Object a, char operator, Object b, Object comesTo) {
        return new Case(a, operator, b, comesTo);
    }

    static List<Case> cases() {
        var dollars = new Amount(number("2"), "USD");
        var night = new TimeOfDay(LocalTime.of(23, 0), null);
        var summer = Moment.of(Instant.parse("2026-03-28T22:30:00Z"), BERLIN);
        return List.of(
                of(euros("1.50"), '+', euros("2"), euros("3.50")),
                of(euros("1.50"), '-', euros("2"), euros("-0.50")),
                of(euros("1.50"), '+', number("2"), euros("3.50")),
                of(number("2"), '+', euros("1.50"), euros("3.50")),
                of(euros("1.50"), '-', number("2"), euros("-0.50")),
                of(euros("1.50"), '+', dollars, NONE),
                of(euros("1.50"), '-', dollars, NONE),
                of(euros("1.50"), '+', "x", NONE),
                of(euros("1.50"), '*', number("3"), euros("4.50")),
                of(number("3"), '*', euros("1.50"), euros("4.50")),
                of(euros("3"), '*', euros("3"), NONE),
                of(euros("4.50"), '/', number("3"), euros("1.5")),
                of(euros("4.50"), '/', euros("3"), number("1.5")),
                of(euros("4.50"), '/', dollars, NONE),
                of(euros("4.50"), '/', number("0"), NONE),
                of("a", '+', "b", "ab"),
                of("a", '-', "b", NONE),
                of(Duration.ofHours(2), '+', Duration.ofHours(3), Duration.ofHours(5)),
                of(Duration.ofHours(2), '-', Duration.ofHours(3), Duration.ofHours(-1)),
                of(Duration.ofHours(2), '*', number("1.5"), Duration.ofHours(3)),
                of(number("1.5"), '*', Duration.ofHours(2), Duration.ofHours(3)),
                of(Duration.ofNanos(3), '*', number("-0.5"), Duration.ofNanos(-2)),
                of(Duration.ofHours(3), '/', number("2"), Duration.ofMinutes(90)),
                of(Duration.ofHours(3), '/', number("0"), NONE),
                of(Duration.ofHours(3), '/', Duration.ofHours(2), number("1.5")),
                of(Duration.ofMillis(1500), '/', Duration.ofMillis(500), number("3")),
                of(Duration.ofSeconds(3), '/', Duration.ofMillis(500), number("6")),
                of(Duration.ofHours(3), '/', Duration.ZERO, NONE),
                of(new Months(5), '+', new Months(8), new Months(13)),
                of(new Months(5), '-', new Months(8), new Months(-3)),
                of(new Months(5), '*', number("1.5"), new Months(7)),
                of(number("1.5"), '*', new Months(5), new Months(7)),
                of(new Months(5), '*', number("1e18"), NONE),
                of(new Months(9), '/', number("2"), new Months(4)),
                of(new Months(9), '/', new Months(2), number("4.5")),
                of(new Months(9), '/', new Months(0), NONE),
                of(new Months(9), '/', number("0"), NONE),
                of(MAY, '+', new Months(1), LocalDate.of(2026, 6, 1)),
                of(new Months(1), '+', MAY, LocalDate.of(2026, 6, 1)),
                of(MAY, '-', new Months(1), LocalDate.of(2026, 4, 1)),
                of(MAY, '+', Duration.ofHours(47), LocalDate.of(2026, 5, 2)),
                of(Duration.ofDays(2), '+', MAY, LocalDate.of(2026, 5, 3)),
                of(MAY, '-', Duration.ofHours(1), LocalDate.of(2026, 4, 30)),
                of(MAY, '-', LocalDate.of(2026, 4, 28), Duration.ofDays(3)),
                of(MAY, '+', number("1"), NONE),
                of(MAY, '-', number("1"), NONE),
                of(Duration.ofDays(1), '+', new Months(1), NONE),
                of(night, '+', Duration.ofHours(2), new TimeOfDay(LocalTime.of(1, 0), null)),
                of(night, '-', Duration.ofHours(2), new TimeOfDay(LocalTime.of(21, 0), null)),
                of(night, '-', new TimeOfDay(LocalTime.of(21, 30), null), Duration.ofMinutes(90)),
                of(
                        new TimeOfDay(LocalTime.of(10, 0), ZoneOffset.ofHours(2)),
                        '-',
                        new TimeOfDay(LocalTime.of(10, 0), ZoneOffset.ofHours(1)),
                        Duration.ofHours(-1)),
                of(night, '-', new TimeOfDay(LocalTime.of(1, 0), ZoneOffset.UTC), NONE),
                of(night, '+', new Months(1), NONE),
                // Over the change to summer time a day of the clock has 23 hours.
                of(
                        summer,
                        '+',
                        Duration.ofHours(24),
                        Moment.of(Instant.parse("2026-03-29T22:30:00Z"), BERLIN)),
                of(
                        summer,
                        '-',
                        Duration.ofHours(1),
                        Moment.of(Instant.parse("2026-03-28T21:30:00Z"), BERLIN)),
                of(
                        summer,
                        '+',
                        new Months(1),
                        Moment.of(Instant.parse("2026-04-28T21:30:00Z"), BERLIN)),
                of(summer, '-', summer, Duration.ZERO),
                of(summer, '+', number("1"), NONE),
                of(Moment.of(MAY), '-', LocalDate.of(2026, 4, 30), Duration.ofDays(1)),
                of(MAY, '-', Moment.of(LocalDate.of(2026, 4, 30)), Duration.ofDays(1)),
                of(true, '+', true, NONE),
                of(true, '*', number("2"), NONE),
                of("a", '/', number("2"), NONE),
                of("a", '^', number("2"), NONE));
    }

    private Object run(Object a, char operator, Object b) {
        return switch (operator) {
            case '+' -> ArithmeticOps.plus(a, b, run);
            case '-' -> ArithmeticOps.minus(a, b, run);
            case '*' -> ArithmeticOps.times(a, b, run);
            case '/' -> ArithmeticOps.divided(a, b, run);
            default -> ArithmeticOps.power(a, b, run);
        };
    }

    @ParameterizedTest
    @MethodSource("cases")
    void comesTo(Case one) {
        var came = run(one.a(), one.operator(), one.b());
        if (one.comesTo().equals(NONE)) {
            assertThat(came).isEqualTo(Nothing.NULL);
            assertThat(run.notes()).singleElement().asString().contains("has no result");
        } else {
            assertThat(came).isEqualTo(one.comesTo());
            assertThat(run.notes()).isEmpty();
        }
    }

    @Test
    void nothingIsNoted() {
        for (char operator : "+-*/^".toCharArray()) {
            assertThat(run(Nothing.NULL, operator, number("1"))).isEqualTo(Nothing.NULL);
            assertThat(run(MAY, operator, Nothing.NULL)).isEqualTo(Nothing.NULL);
        }
        assertThat(run.notes()).isEmpty();
    }

    @Test
    void beyondAllDatesIsNoted() {
        assertThat(run(MAY, '+', new Months(Long.MAX_VALUE))).isEqualTo(Nothing.NULL);
        assertThat(run(new Months(Long.MAX_VALUE), '+', new Months(1))).isEqualTo(Nothing.NULL);
        assertThat(run(Duration.ofDays(1), '*', number("1e15"))).isEqualTo(Nothing.NULL);
        assertThat(run.notes()).containsExactly("The result is beyond all dates and durations.");
    }

    @Test
    void divisionByNothingIsNoted() {
        assertThat(run(number("1"), '/', number("0"))).isEqualTo(Nothing.NULL);
        assertThat(run.notes()).containsExactly("This divides by 0.");
        assertThat(run(number("1"), '/', number("8"))).isEqualTo(number("0.125"));
        assertThat(run.notes()).hasSize(1);
    }

    @Test
    void powers() {
        assertThat(run(number("0"), '^', number("3"))).isEqualTo(number("0"));
        assertThat(run(number("0"), '^', number("0"))).isEqualTo(number("1"));
        assertThat(run(number("-2"), '^', number("3"))).isEqualTo(number("-8"));
        assertThat(run(number("2"), '^', number("-2"))).isEqualTo(number("0.25"));
        assertThat(run(number("4"), '^', number("0.5"))).isEqualTo(number("2"));
        assertThat(run.notes()).isEmpty();
        assertThat(run(number("0"), '^', number("-1"))).isEqualTo(Nothing.NULL);
        assertThat(run(number("-4"), '^', number("0.5"))).isEqualTo(Nothing.NULL);
        assertThat(run(number("10"), '^', number("99999"))).isEqualTo(Nothing.NULL);
        assertThat(run.notes())
                .containsExactly("This power has no result, or one too large to be written.");
    }

    @Test
    void minusBefore() {
        assertThat(ArithmeticOps.negated(number("2"), run)).isEqualTo(number("-2"));
        assertThat(ArithmeticOps.negated(euros("2"), run)).isEqualTo(euros("-2"));
        assertThat(ArithmeticOps.negated(new Months(2), run)).isEqualTo(new Months(-2));
        assertThat(ArithmeticOps.negated(Duration.ofHours(2), run)).isEqualTo(Duration.ofHours(-2));
        assertThat(ArithmeticOps.negated(Nothing.NULL, run)).isEqualTo(Nothing.NULL);
        assertThat(run.notes()).isEmpty();
        assertThat(ArithmeticOps.negated("a", run)).isEqualTo(Nothing.NULL);
        assertThat(run.notes()).singleElement().asString().contains("not text");
    }

    @Test
    void textsTogetherArePaidForByTheirLength() {
        var half = "x".repeat(Evaluation.LONGEST_TEXT / 2);
        assertThat(run(half, '+', half)).isEqualTo(half + half);
        var more = "x".repeat(Evaluation.LONGEST_TEXT / 2 + 1);
        assertThatThrownBy(() -> run(half, '+', more))
                .isInstanceOf(BudgetException.class)
                .hasMessageContaining("more than 1,000,000 characters");
    }
}
