package sandpiper.logic.syntax;

import static org.assertj.core.api.Assertions.assertThat;

import java.time.Duration;
import net.jqwik.api.ForAll;
import net.jqwik.api.Property;
import net.jqwik.api.constraints.StringLength;
import org.junit.jupiter.api.Assertions;
import org.junit.jupiter.api.Test;
import sandpiper.logic.LogicCode;
import sandpiper.logic.LogicProblem;

class ParserTest {
    @Test
    void andBindsTighterThanOr() {
        var expr = (Expr.Logical) Parser.parse("a or b and c").expr();

        assertThat(expr.isAnd()).isFalse();
        assertThat(expr.parts().get(1)).isInstanceOf(Expr.Logical.class);
    }

    @Test
    void aRoundBracketAfterInOpensTestsOrARange() {
        var tests = (Expr.In) Parser.parse("a in (1, > 5, [2..3])").expr();
        var range = (Expr.In) Parser.parse("a in (1..5]").expr();

        assertThat(tests.tests()).hasSize(3);
        assertThat(range.tests())
                .singleElement()
                .isInstanceOfSatisfying(
                        Expr.Range.class,
                        one -> {
                            assertThat(one.lowIncluded()).isFalse();
                            assertThat(one.highIncluded()).isTrue();
                        });
    }

    @Test
    void resolvesEscapesAndCountsCodePoints() {
        var parsed = Parser.parse("\"⛵\" = \"\\u26F5\\n\\U01F6A2\"");

        var comparison = (Expr.Comparison) parsed.expr();
        assertThat(((Expr.TextLiteral) comparison.right()).value()).isEqualTo("⛵\n🚢");
        assertThat(comparison.left().span().end()).isEqualTo(3);
    }

    @Test
    void boundsNestingAndLength() {
        assertThat(Parser.parse("(".repeat(5_000)).problems())
                .extracting(LogicProblem::code)
                .containsExactly(LogicCode.NESTED_TOO_DEEP);
        assertThat(Parser.parse("x".repeat(Parser.LONGEST + 1)).problems())
                .extracting(LogicProblem::code)
                .containsExactly(LogicCode.TEXT_TOO_LONG);
        assertThat(Parser.parse("1".repeat(41)).problems())
                .extracting(LogicProblem::code)
                .containsExactly(LogicCode.BAD_NUMBER);
    }

    @Property(tries = 500)
    void readsAnyTextWithoutThrowing(@ForAll @StringLength(max = 200) String text) {
        Assertions.assertTimeoutPreemptively(
                Duration.ofSeconds(2),
                () -> {
                    var length = text.codePointCount(0, text.length());
                    assertThat(Parser.parse(text).problems())
                            .allSatisfy(problem ->
                                    assertThat(problem.span().end()).isLessThanOrEqualTo(length));
                });
    }
}
