package sandpiper.logic.check;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.Collection;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import org.jspecify.annotations.Nullable;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.ValueSource;
import sandpiper.logic.LogicProblem;
import sandpiper.logic.assist.Completion;
import sandpiper.logic.assist.TextKind;
import sandpiper.logic.term.Act;
import sandpiper.logic.type.LogicType;
import sandpiper.logic.type.LogicType.Simple;
import sandpiper.logic.type.OutsideService;
import sandpiper.logic.type.RecordType;
import sandpiper.logic.type.World;

class OutsideCallsTest {
    private record Call(
            String name, List<Parameter> parameters, @Nullable LogicType returns, boolean isKept)
            implements OutsideService.OutsideFunction {
        @Override
        public String written() {
            return "tide-table." + name;
        }
    }

    private record Service(String name, List<Call> functions) implements OutsideService {}

    private static final List<Call> CALLS =
            List.of(
                    new Call(
                            "rate",
                            List.of(
                                    new Call.Parameter("currency", Simple.TEXT, true),
                                    new Call.Parameter("day", Simple.DATE, false)),
                            Simple.NUMBER,
                            true),
                    new Call("tell", List.of(), null, false));

    private static final World WORLD =
            new World() {
                @Override
                public Optional<RecordType> object(String name) {
                    return Optional.empty();
                }

                @Override
                public Collection<String> objectNames() {
                    return List.of();
                }

                @Override
                public Optional<OutsideService> connection(String name) {
                    return List.of(new Service("tide-table", CALLS), new Service("tides", CALLS))
                            .stream()
                            .filter(one -> one.name().equals(name))
                            .<OutsideService>map(one -> one)
                            .findFirst();
                }

                @Override
                public List<String> connectionNames() {
                    return List.of("tide-table", "tides");
                }
            };

    private static NameContext names(Map<String, LogicType> more) {
        return new NameContext(WORLD, null, null, false, null, more);
    }

    private static CheckedSteps check(String text) {
        return StepChecker.check(text, names(Map.of()));
    }

    private static List<String> messages(CheckedSteps checked) {
        return checked.problems().stream().map(LogicProblem::message).toList();
    }

    @ParameterizedTest
    @ValueSource(
            strings = {
                "let r = call tide-table.rate(\"USD\", today())\nnote r",
                "let r = call tide-table.rate(currency: \"USD\")\nnote r",
                "call tide-table.rate(\"USD\") as r\nnote r + 1",
                "let r = call tides.rate(\"USD\")\nnote r",
                "if true then\n  let r = call tide-table.rate(\"USD\")\n  note r\nend"
            })
    void whatIsCalledMayHaveHyphensInItsName(String text) {
        assertThat(messages(check(text))).isEmpty();
    }

    @Test
    void anAnswerHasTheTypeOfTheCall() {
        var checked = check("let r = call tide-table.rate(\"USD\")\nnote r + \"x\"");

        assertThat(messages(checked)).singleElement().asString().contains("number");
        assertThat(checked.acts().getFirst()).isInstanceOf(Act.Ask.class);
    }

    @Test
    void aMinusBetweenSpacesIsStillOne() {
        var setting =
                names(Map.of("tide", Simple.NUMBER, "table", Simple.NUMBER, "call", Simple.NUMBER));

        assertThat(
                        StepChecker.check(
                                        "let x = tide - table\nlet y = call\nnote x + y + call",
                                        setting)
                                .problems())
                .isEmpty();
    }

    @Test
    void whatGivesNothingHasNoName() {
        assertThat(messages(check("let x = call tide-table.tell()\nnote x")))
                .containsExactly("tide-table.tell answers nothing that could have a name.");
        assertThat(messages(check("call tide-table.tell()"))).isEmpty();
    }

    @Test
    void aNameOfItsOwnComesBeforeAServiceOfThatName() {
        var setting = names(Map.of("tides", Simple.TEXT));

        assertThat(StepChecker.check("call tides.rate(\"USD\")", setting).problems())
                .extracting(LogicProblem::message)
                .containsExactly("This must be a record or an object, but is text.");
    }

    @Test
    void onlyWhatIsKeptIsPartOfAChange() {
        assertThat(
                        StepChecker.checkWithin(
                                        "call tide-table.rate(\"USD\") as r\nnote r",
                                        names(Map.of()))
                                .problems())
                .isEmpty();
        assertThat(StepChecker.checkWithin("call tide-table.tell()", names(Map.of())).problems())
                .extracting(LogicProblem::message)
                .singleElement()
                .asString()
                .startsWith("tide-table.tell waits for an outside service at every call");
    }

    private static List<String> offers(String text) {
        int place = text.indexOf('|');
        return Completion.at(TextKind.STEPS, text.replace("|", ""), place, names(Map.of()))
                .items()
                .stream()
                .map(Completion.Item::label)
                .toList();
    }

    @Test
    void servicesAreOfferedBehindCallAndWhatTheyGiveBehindTheirName() {
        assertThat(offers("call |")).contains("tide-table", "tides");
        assertThat(offers("let x = call tide-table.|")).containsExactly("rate", "tell");
        assertThat(offers("call tide-table.ra|")).containsExactly("rate");
        assertThat(offers("call nowhere.|")).doesNotContain("rate");
        assertThat(offers("note |")).doesNotContain("tides");
    }
}
