package sandpiper.logic.assist;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.List;
import org.junit.jupiter.api.Test;
import sandpiper.logic.MarinaTypes;
import sandpiper.logic.check.NameContext;

class CompletionTest {
    private static final NameContext STAY =
            NameContext.ofChange(MarinaTypes.WORLD, MarinaTypes.STAY);

    /** Offers at the bar in a text. */
    private static List<String> offers(TextKind kind, String text) {
        int place = text.indexOf('|');
        return Completion.at(kind, text.replace("|", ""), place, STAY).items().stream()
                .map(Completion.Item::label)
                .toList();
    }

    @Test
    void offersMembersBehindAPoint() {
        assertThat(offers(TextKind.EXPRESSION, "vessel.|"))
                .contains("registration", "length", "stays")
                .doesNotContain("nights");
        assertThat(offers(TextKind.EXPRESSION, "vessel.sta|")).containsExactly("stays");
        assertThat(offers(TextKind.EXPRESSION, "arrival.y|")).contains("year");
    }

    @Test
    void offersItemsMembersInsideAFilterThatIsNotFinished() {
        assertThat(offers(TextKind.CONDITION, "count(charges[quan|")).startsWith("quantity");
        assertThat(offers(TextKind.EXPRESSION, "sum(vessel.stays[sta|")).startsWith("state");
    }

    @Test
    void offersCodesBehindAComparisonWithAChoice() {
        assertThat(offers(TextKind.CONDITION, "state = |"))
                .startsWith("\"Confirmed\"", "\"Alongside\"", "\"Departed\"");
        assertThat(offers(TextKind.CONDITION, "open and state in (|")).startsWith("\"Confirmed\"");
    }

    @Test
    void offersStepsAtTheBeginningOfALine() {
        assertThat(offers(TextKind.STEPS, "set nights = 3\n|")).startsWith("let", "set");
        assertThat(offers(TextKind.STEPS, "set nig|")).startsWith("nights");
    }

    @Test
    void offersNothingOutsideTheBracesOfAMessage() {
        assertThat(offers(TextKind.MESSAGE, "Stay |")).isEmpty();
        assertThat(offers(TextKind.MESSAGE, "Stay {num|")).startsWith("number");
    }

    @Test
    void saysWhatANameMeans() {
        var field = Hover.at(TextKind.EXPRESSION, "vessel.length > 3", 9, STAY).orElseThrow();
        var function =
                Hover.at(TextKind.EXPRESSION, "string length(number)", 3, STAY).orElseThrow();

        assertThat(field.title()).isEqualTo("length: a number");
        assertThat(function.title()).isEqualTo("string length(string)");
        assertThat(function.example()).isEqualTo("string length(\"berth\") = 5");
        assertThat(Hover.at(TextKind.EXPRESSION, "1 + 2", 2, STAY)).isEmpty();
    }
}
