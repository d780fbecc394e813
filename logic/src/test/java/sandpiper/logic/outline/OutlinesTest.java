package sandpiper.logic.outline;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.util.List;
import net.jqwik.api.Arbitraries;
import net.jqwik.api.Arbitrary;
import net.jqwik.api.Combinators;
import net.jqwik.api.ForAll;
import net.jqwik.api.Property;
import net.jqwik.api.Provide;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.ValueSource;
import sandpiper.logic.outline.Outline.Comparison;
import sandpiper.logic.outline.Outline.Group;
import sandpiper.logic.outline.Side.Unit;
import sandpiper.logic.syntax.ExprText;
import sandpiper.logic.syntax.Parser;

class OutlinesTest {
    private static Side field(String path) {
        return new Side.Field(path);
    }

    private static Side text(String text) {
        return new Side.Value(Side.Kind.TEXT, text);
    }

    private static Side number(String text) {
        return new Side.Value(Side.Kind.NUMBER, text);
    }

    @Test
    void fieldOperatorAndValue() {
        assertThat(Outlines.read("vessel.length <= 12.5"))
                .isEqualTo(
                        new Comparison(
                                field("vessel.length"), Relation.AT_MOST, List.of(number("12.5"))));
        assertThat(Outlines.read("state in (\"Open\", \"Held\") and departure != null"))
                .isEqualTo(
                        new Group(
                                true,
                                false,
                                List.of(
                                        new Comparison(
                                                field("state"),
                                                Relation.ONE_OF,
                                                List.of(text("Open"), text("Held"))),
                                        new Comparison(
                                                field("departure"), Relation.FILLED, List.of()))));
    }

    @Test
    void daysAsSeenFromToday() {
        assertThat(Outlines.read("arrival >= today() + @\"P7D\""))
                .isEqualTo(
                        new Comparison(
                                field("arrival"),
                                Relation.AT_LEAST,
                                List.of(new Side.Relative(false, 1, Unit.WEEKS))));
        assertThat(Outlines.write(Outlines.read("changedAt < now() - @\"PT2H\"")))
                .isEqualTo("changedAt < now() - @\"PT2H\"");
    }

    @Test
    void lineItemsAndTheirTotals() {
        assertThat(Outlines.read("not(some c in charges satisfies c.net < 0)"))
                .isEqualTo(
                        new Outline.Items(
                                Outline.Quantity.NONE,
                                "charges",
                                "c",
                                new Comparison(
                                        field("c.net"), Relation.LESS, List.of(number("0")))));
        assertThat(Outlines.read("sum(charges.net) > count(charges)"))
                .isEqualTo(
                        new Comparison(
                                new Side.Total(Side.Function.SUM, "charges.net"),
                                Relation.GREATER,
                                List.of(new Side.Total(Side.Function.COUNT, "charges"))));
    }

    @ParameterizedTest
    @ValueSource(
            strings = {
                "if open then a else b",
                "a instance of number",
                "x in (1, < 5)",
                "some a in b, c in d satisfies a = c",
                "this is ( not",
                "",
                "1 = 1 /* why */ and (for a in b return a)[1]"
            })
    void whatCannotBeTakenApartStaysAsItIs(String text) {
        var outline = Outlines.read(text);
        if (outline instanceof Outline.Text whole) {
            assertThat(whole.text()).isEqualTo(text);
        } else {
            assertThat(ExprText.of(Parser.parse(Outlines.write(outline)).expr()))
                    .isEqualTo(ExprText.of(Parser.parse(text).expr()));
        }
    }

    @Test
    void textsAmongOthersGetTheBracketsTheyNeed() {
        var all =
                new Group(
                        true,
                        false,
                        List.of(new Outline.Text("a or b"), new Outline.Text("c = 1")));
        assertThat(Outlines.write(all)).isEqualTo("(a or b) and c = 1");
    }

    @Test
    void whatIsNotFinishedIsRefused() {
        var open = new Comparison(field("length"), Relation.LESS, List.of());
        assertThatThrownBy(() -> Outlines.write(open))
                .isInstanceOf(IllegalArgumentException.class)
                .hasMessageContaining("needs 1 values and has 0");
        assertThatThrownBy(() -> Outlines.write(new Group(true, false, List.of())))
                .hasMessage("A group has no condition.");
        var hidden = new Comparison(field("a"), Relation.EQUAL, List.of(number("1 or true")));
        assertThatThrownBy(() -> Outlines.write(hidden)).hasMessage("\"1 or true\" is no number.");
    }

    @Property(tries = 1000)
    void whatIsTakenApartAndPutTogetherMeansTheSame(@ForAll("conditions") String text) {
        var outline = Outlines.read(text);
        assertThat(outline).isNotInstanceOf(Outline.Text.class);
        var again = Outlines.write(outline);
        assertThat(ExprText.of(Parser.parse(again).expr()))
                .isEqualTo(ExprText.of(Parser.parse(text).expr()));
        assertThat(Outlines.read(again)).isEqualTo(outline);
    }

    @Provide
    Arbitrary<String> conditions() {
        var operand =
                Arbitraries.of(
                        "nights",
                        "vessel.length",
                        "14",
                        "-2.50",
                        "\"it's \\\"so\\\"\"",
                        "true",
                        "@\"2026-05-01\"",
                        "today()",
                        "today() + @\"P1M\"",
                        "now() - @\"P14D\"",
                        "(nights + 1) * 2",
                        "nights * (2 - count(charges))",
                        "sum(charges.net)",
                        "(if open then 1 else 2)",
                        "duration(\"P7D\")",
                        "charges[1].net");
        var relation = Arbitraries.of("=", "!=", "<", "<=", ">", ">=");
        var leaves =
                Arbitraries.oneOf(
                        Combinators.combine(operand, relation, operand).as("%s %s %s"::formatted),
                        Combinators.combine(operand, operand)
                                .as("nights between %s and %s"::formatted),
                        Combinators.combine(operand, operand).as("state in (%s, %s)"::formatted),
                        operand.map("contains(state, %s)"::formatted),
                        operand.map("%s = null"::formatted),
                        Arbitraries.of("open", "vessel.pier.open"));
        return Arbitraries.recursive(() -> leaves, OutlinesTest::grown, 0, 3);
    }

    private static Arbitrary<String> grown(Arbitrary<String> parts) {
        return Arbitraries.oneOf(
                parts.map("not(%s)"::formatted),
                Combinators.combine(parts, parts).as("(%s) or (%s)"::formatted),
                Combinators.combine(parts, parts).as("%s and (%s)"::formatted),
                Combinators.combine(parts, parts).as("((%s) or (%s)) and (open)"::formatted),
                parts.map("every c in charges satisfies %s"::formatted),
                parts.map("not(some c in vessel.stays satisfies (%s))"::formatted),
                parts.map("(if %s then open else nights > 1) and open"::formatted));
    }
}
