package sandpiper.logic.check;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.List;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import org.junit.jupiter.params.provider.ValueSource;
import sandpiper.logic.LogicCode;
import sandpiper.logic.LogicProblem;
import sandpiper.logic.MarinaTypes;

class CheckerTest {
    private static final NameContext STAY =
            NameContext.ofChange(MarinaTypes.WORLD, MarinaTypes.STAY);
    private static final NameContext CHARGE =
            NameContext.ofItem(MarinaTypes.WORLD, MarinaTypes.CHARGE, MarinaTypes.STAY);

    @ParameterizedTest
    @ValueSource(
            strings = {
                "nights * rate",
                "sum(charges.net)",
                "sum(charges.net) + nights * rate",
                "count(vessel.stays[state = \"Alongside\"]) > 2",
                "vessel.stays.pier.code",
                "Stay[pier = this.pier and number != this.number]",
                "if departure = null then 0 else (departure - arrival) / duration(\"P1D\")",
                "every c in charges satisfies c.quantity > 0",
                "for c in charges return c.net",
                "sort(charges, function(a, b) a.net < b.net)",
                "changed(departure) and old.departure < departure",
                "is new and state in (\"Confirmed\", \"Alongside\")",
                "find first Stay where state = \"Departed\" order by departure descending",
                "find Stay where pier = this.pier take 5",
                "arrival.year = today().year",
                "max(vessel.stays.departure)",
                "vessel = \"GH-101\""
            })
    void takesWhatTheModelHas(String text) {
        assertThat(Checker.check(text, STAY).problems()).as(text).isEmpty();
    }

    @ParameterizedTest
    @CsvSource(
            delimiter = '|',
            quoteCharacter = '`',
            textBlock =
                    """
                    nigths > 3                      | UNKNOWN_NAME     | nights
                    vessel.lenght                   | UNKNOWN_MEMBER   | length
                    vessel.stays.nigths             | UNKNOWN_MEMBER   | nights
                    charges[quantty > 1]            | UNKNOWN_NAME     | quantity
                    summ(charges.net)               | UNKNOWN_FUNCTION | sum
                    state = "Alongsid"              | UNKNOWN_CHOICE   | "Alongside"
                    state in ("Confirmd")           | UNKNOWN_CHOICE   | "Confirmed"
                    arrival + 3                     | WRONG_TYPE       | arrival + 3 * duration("P1D")
                    "Stay " + nights                | WRONG_TYPE       | "Stay " + string(nights)
                    rate + fee                      | MIXED_CURRENCIES |
                    rate * fee                      | MIXED_UNITS      |
                    arrival = nights                | WRONG_TYPE       |
                    nights > null                   | NEVER_TRUE       |
                    arrival.hour                    | UNKNOWN_MEMBER   |
                    substring(nights, 1)            | WRONG_ARGUMENTS  |
                    substring()                     | WRONG_ARGUMENTS  |
                    date("2026-02-30")              | BAD_TEMPORAL     |
                    sum(charges)                    | WRONG_ARGUMENTS  |
                    changed(nights + 1)             | WRONG_ARGUMENTS  |
                    if nights then 1 else 2         | NOT_A_CONDITION  |
                    x instance of strng             | UNKNOWN_NAME     |
                    """)
    void saysWhatIsWrongAndWhatWasMeant(String text, LogicCode code, String suggestion) {
        assertThat(Checker.check(text, STAY).problems())
                .first()
                .satisfies(problem -> {
                    assertThat(problem.code()).isEqualTo(code);
                    assertThat(problem.suggestion()).isEqualTo(suggestion);
                    assertThat(problem.isError()).isTrue();
                    assertThat(problem.message()).endsWith(".");
                });
    }

    @Test
    void addingAPercentIsRefusedWithTheWayToWriteIt() {
        var problem = Checker.check("net + vat", CHARGE).problems().getFirst();

        assertThat(problem.code()).isEqualTo(LogicCode.MIXED_UNITS);
        assertThat(problem.suggestion()).isEqualTo("net * (1 + vat)");
        assertThat(Checker.check("net * (1 + vat)", CHARGE).problems()).isEmpty();
    }

    @Test
    void aPercentIsComparedAsItIsWritten() {
        assertThat(Checker.check("vat > 19", CHARGE).problems()).isEmpty();
        assertThat(Checker.check("vat > 0.19", CHARGE).problems())
                .singleElement()
                .satisfies(problem -> {
                    assertThat(problem.isError()).isFalse();
                    assertThat(problem.suggestion()).isEqualTo("19");
                });
    }

    @Test
    void findsEveryMistakeOfATextAtOnce() {
        var problems =
                Checker.check("nigths > 3 and (arival < or vessel.lenght = 2", STAY).problems();

        assertThat(problems)
                .extracting(LogicProblem::code)
                .contains(
                        LogicCode.UNKNOWN_NAME,
                        LogicCode.UNEXPECTED_TOKEN,
                        LogicCode.UNKNOWN_MEMBER);
    }

    @ParameterizedTest
    @CsvSource(
            delimiter = '|',
            quoteCharacter = '`',
            textBlock =
                    """
                    departure > arrival                             | 1
                    departure = null or departure > arrival         | 0
                    departure != null and departure > arrival       | 0
                    vessel.insuredUntil >= departure                | 2
                    if departure = null then true else departure > arrival | 0
                    nights > 3                                      | 0
                    some c in charges satisfies c.net > 5           | 0
                    """)
    void aCheckOfAFieldThatMayBeEmptyAsksWhatEmptyMeans(String text, int warnings) {
        var problems = Checker.check(text, STAY, true).problems();

        assertThat(problems).hasSize(warnings);
        assertThat(problems).allMatch(problem -> problem.code() == LogicCode.MAY_BE_EMPTY);
    }

    @ParameterizedTest
    @ValueSource(
            strings = {
                "state = \"Alongside\" and state = \"Departed\"",
                "nights > 5 and nights < 3",
                "nights = 3 and nights != 3",
                "nights >= 5 and open and nights < 5",
                "nights > 3 and open and not(nights > 3)",
                "not(open) and open"
            })
    void warnsOfWhatCanNeverBeTrue(String text) {
        assertThat(Checker.condition(text, STAY).problems())
                .singleElement()
                .satisfies(problem -> {
                    assertThat(problem.code()).isEqualTo(LogicCode.NEVER_TRUE);
                    assertThat(problem.isError()).isFalse();
                });
    }

    @ParameterizedTest
    @CsvSource(
            delimiter = ';',
            textBlock =
                    """
                    nights == 3             ; =
                    open && nights > 3      ; and
                    open || nights > 3      ; or
                    """)
    void saysHowAForeignSignIsWrittenHere(String text, String meant) {
        assertThat(Checker.condition(text, STAY).problems())
                .singleElement()
                .satisfies(problem -> assertThat(problem.suggestion()).isEqualTo(meant));
    }

    @Test
    void warnsOfABranchThatIsNeverReached() {
        assertThat(
                        Checker.check("if nights > 3 then 1 else if nights > 3 then 2 else 3", STAY)
                                .problems())
                .extracting(LogicProblem::code)
                .containsExactly(LogicCode.UNREACHABLE);
        assertThat(Checker.check("if true then 1 else 2", STAY).problems())
                .extracting(LogicProblem::code)
                .containsExactly(LogicCode.UNREACHABLE);
    }

    @Test
    void messagesAreCheckedLikeAllOthers() {
        var problems = Checker.template("Stay {numbr} of {vessel.registration}", STAY).problems();

        assertThat(problems)
                .singleElement()
                .satisfies(problem -> {
                    assertThat(problem.suggestion()).isEqualTo("number");
                    assertThat(problem.span().start()).isEqualTo(6);
                });
        assertThat(Checker.template("{{no}} brace {number", STAY).problems()).hasSize(1);
    }

    @ParameterizedTest
    @CsvSource(
            delimiter = '|',
            quoteCharacter = '`',
            textBlock =
                    """
                    set nights = 3                             |
                    set nights = "x"                           | NOT_ASSIGNABLE
                    set state = "Alongsid"                     | UNKNOWN_CHOICE
                    sett nights = 3                            | UNKNOWN_STEP
                    set nights + 1 = 3                         | NOT_ASSIGNABLE
                    let x = 5                                  | UNUSED_NAME
                    create Stay { numbr: "a" }                 | UNKNOWN_MEMBER
                    create Sty { number: "a" }                 | UNKNOWN_NAME
                    create charges { quantity: 1 }             |
                    save Stay by key { nights: 1 }             | NOT_ASSIGNABLE
                    update vessel { lenght: 1 }                | UNKNOWN_MEMBER
                    retire nights                              | NOT_ASSIGNABLE
                    transition depart                          | UNKNOWN_TRANSITION
                    reject "Stay {numbr}" at departure         | UNKNOWN_NAME
                    warn "ok" at nights                        |
                    require nights > 3 else reject "Too short" |
                    for each c in charges set c.quantity = 1 end |
                    if nights > 3 then set open = true         | UNEXPECTED_TOKEN
                    note "x" note "y"                          |
                    """)
    void stepsAreCheckedOneByOne(String text, LogicCode code) {
        var problems = StepChecker.check(text, STAY).problems();

        if (code == null) {
            assertThat(problems).isEmpty();
        } else {
            assertThat(problems).extracting(LogicProblem::code).contains(code);
        }
    }

    @Test
    void oneBadLineOfStepsCostsNothingButItself() {
        var checked =
                StepChecker.check(
                        "set nights = = 3\nset open = true\nfrobnicate\nset nights = 4", STAY);

        assertThat(checked.problems())
                .extracting(LogicProblem::code)
                .isEqualTo(List.of(LogicCode.UNEXPECTED_TOKEN, LogicCode.UNKNOWN_STEP));
        assertThat(checked.acts()).hasSize(3);
    }
}
