package sandpiper.logic.filter;

import static org.assertj.core.api.Assertions.assertThat;

import java.time.Clock;
import java.time.Instant;
import java.time.ZoneId;
import java.util.List;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import org.junit.jupiter.params.provider.ValueSource;
import sandpiper.logic.LogicCode;
import sandpiper.logic.LogicProblem;
import sandpiper.logic.MarinaTypes;

class ConditionCheckerTest {
    private static final Clock CLOCK =
            Clock.fixed(Instant.parse("2026-05-01T22:30:00Z"), ZoneId.of("Europe/Berlin"));

    private static Checked check(String text) {
        return ConditionChecker.check(text, MarinaTypes.STAY, CLOCK);
    }

    private static List<LogicProblem> problems(String text) {
        return ((Checked.Rejected) check(text)).problems();
    }

    @ParameterizedTest
    @ValueSource(
            strings = {
                "state = \"Alongside\" and arrival >= date(\"2026-05-01\")",
                "state in (\"Alongside\", \"Departed\")",
                "state in [\"Alongside\"]",
                "arrival in [date(\"2026-05-01\")..date(\"2026-05-31\"))",
                "arrival in (> @\"2026-05-01\", @\"2026-01-01\")",
                "nights between 3 and 7 or nights = -1",
                "not(open) and (open or nights != 1.5)",
                "contains(vessel.registration, \"GH\") and starts with(number, \"ST\") and ends"
                        + " with(number, \"2\")",
                "vessel = \"GH-101\"",
                "contains(vessel, \"GH\")",
                "vessel.length > 12 // metres",
                "departure > arrival",
                "\"Alongside\" = state",
                "nights = null or null != arrival",
                "changedAt > @\"2026-05-01T10:00:00Z\" and changedAt <= now()",
                "arrival = today()",
                "((((open))))",
                "arrival.year = 2026",
                "nights + 1 >= 2 * 3",
                "departure - arrival > @\"P3D\" and (departure - arrival).days < 9",
                "(if open then nights else 0) = 1",
                "arrival + @\"P7D\" < today()",
                "not(vessel.length < 5) or pier = null"
            })
    void takesWhatCanBeAskedOfStoredFields(String text) {
        assertThat(check(text)).as(text).isInstanceOf(Checked.Accepted.class);
    }

    @ParameterizedTest
    @CsvSource(
            delimiter = '|',
            quoteCharacter = '`',
            textBlock =
                    """
                    stat = "Alongside"          | UNKNOWN_NAME       | 0  | 4  | state
                    vessel.lenght > 3           | UNKNOWN_MEMBER     | 7  | 13 | length
                    state = "Alongsid"          | UNKNOWN_CHOICE     | 8  | 18 | "Alongside"
                    nights = "three"            | WRONG_TYPE         | 0  | 16 |
                    arrival > 5                 | WRONG_TYPE         | 0  | 11 |
                    nights / 2 = 2              | NOT_IN_SQL         | 0  | 14 |
                    nights ++ 1                 | UNEXPECTED_TOKEN   | 8  | 9  |
                    count(charges) > 1          | NOT_IN_SQL         | 0  | 18 |
                    open and                    | UNEXPECTED_TOKEN   | 8  | 8  |
                    contain(number, "x")        | UNKNOWN_FUNCTION   | 0  | 7  | contains
                    contains(nights, "x")       | WRONG_ARGUMENTS    | 9  | 15 |
                    date("2026-02-30") = arrival | BAD_TEMPORAL      | 5  | 17 |
                    nights                      | NOT_A_CONDITION    | 0  | 6  |
                    5                           | NOT_A_CONDITION    | 0  | 1  |
                    1 = 1                       | NO_FIELD           | 0  | 5  |
                    number = "x                 | UNFINISHED_TEXT    | 9  | 11 |
                    open > true                 | WRONG_TYPE         | 0  | 11 |
                    nights > null               | NEVER_TRUE         | 0  | 13 |
                    number.x = "1"              | UNKNOWN_MEMBER     | 7  | 8  |
                    'a' = number                | UNEXPECTED_CHARACTER | 0 | 1 |
                    """)
    void saysWhatIsWrongAndWhere(
            String text, LogicCode code, int start, int end, String suggestion) {
        assertThat(problems(text))
                .first()
                .satisfies(problem -> {
                    assertThat(problem.code()).isEqualTo(code);
                    assertThat(problem.span().start()).isEqualTo(start);
                    assertThat(problem.span().end()).isEqualTo(end);
                    assertThat(problem.suggestion()).isEqualTo(suggestion);
                    assertThat(problem.message()).endsWith(".");
                });
    }

    @Test
    void findsEveryUnknownNameAtOnce() {
        assertThat(problems("stat = \"x\" and arival > today() and night = 1"))
                .extracting(LogicProblem::suggestion)
                .containsExactly("state", "arrival", "nights");
    }

    @Test
    void aValueThatTakesTooMuchWorkIsAProblemOfTheFilter() {
        assertThat(
                        problems(
                                "nights > count(for i in 1..3000 return count(for j in 1..3000"
                                        + " return j))"))
                .singleElement()
                .satisfies(problem -> {
                    assertThat(problem.code()).isEqualTo(LogicCode.TOO_COSTLY);
                    assertThat(problem.message()).contains("was stopped");
                });
    }

    @Test
    void todayIsTheDayOfTheGivenZone() {
        var accepted = (Checked.Accepted) check("arrival = today()");

        assertThat(accepted.condition().toString()).contains("2026-05-02");
    }

    @Test
    void aDateAndTimeWithoutOffsetIsMeantInTheGivenZone() {
        var accepted =
                (Checked.Accepted) check("changedAt = date and time(\"2026-05-01T14:00:00\")");

        assertThat(accepted.condition().toString()).contains("2026-05-01T12:00:00Z");
    }

    @ParameterizedTest
    @ValueSource(
            strings = {
                "vessel.stays[1].open",
                "not(vessel.stays[1].open)",
                "vessel.stays[1].open = true",
                "open and vessel.stays[1].open"
            })
    void aFlagOfSomethingAStoreCannotFindIsRefused(String text) {
        assertThat(check(text))
                .isInstanceOfSatisfying(
                        Checked.Rejected.class,
                        rejected ->
                                assertThat(rejected.problems())
                                        .extracting(sandpiper.logic.LogicProblem::code)
                                        .containsExactly(sandpiper.logic.LogicCode.NOT_IN_SQL));
    }
}
