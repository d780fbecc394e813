package sandpiper.logic;

import static org.assertj.core.api.Assertions.assertThat;

import java.time.Instant;
import java.time.ZoneOffset;
import java.util.List;
import java.util.Random;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.Timeout;
import sandpiper.logic.check.Checker;
import sandpiper.logic.check.NameContext;
import sandpiper.logic.run.BudgetException;
import sandpiper.logic.run.Compiler;
import sandpiper.logic.run.Evaluation;
import sandpiper.logic.run.RecordSource;
import sandpiper.logic.type.LogicType;
import sandpiper.logic.type.World;

/** Whatever stands in an expression is either said to be wrong or comes to something, in time. */
class FuzzTest {
    private static final int TEXTS = 20_000;
    private static final String MARKS =
            "{}[]()<>\"'`,:;=+-*/\\|&%$#@!?~^.0123456789eE \t\n\u0000\u2028\ud83d\udea4äß";
    private static final List<String> WHOLE =
            List.of(
                    "sum(for x in [1, 2, 3] return if x > 1 then x * 2.5 else -x)",
                    "(date(\"2026-05-01\") - date(\"2026-04-01\")) / duration(\"P1D\")",
                    "some c in [{a: 1}, {a: null}] satisfies c.a in (> 0, [1..5))",
                    "nights > 14 and not(contains(vessel.registration, \"GH\")) or state in (\"a\","
                            + " \"b\")",
                    "{f: function(a, b) a + b, r: f(1, 2)}.r ** 3",
                    "substring(upper case(state), 2, 3) + string(nights) + \"\\u26f5\"",
                    "matches(state, \"(a+)+b\") and split(state, \",\")[1] = replace(state, \"x\","
                            + " \"$1\")",
                    "@\"2026-05-01T10:00:00Z\" between @\"2026-01-01T00:00:00Z\" and now()");

    private static String broken(String text, Random random) {
        var broken = new StringBuilder(text);
        for (int times = 1 + random.nextInt(3); times > 0; times--) {
            int at = broken.isEmpty() ? 0 : random.nextInt(broken.length());
            int end = Math.min(broken.length(), at + 1 + random.nextInt(12));
            switch (random.nextInt(6)) {
                case 0 -> broken.setLength(at);
                case 1 -> broken.insert(at, MARKS.charAt(random.nextInt(MARKS.length())));
                case 2 -> broken.delete(at, end);
                case 3 ->
                        broken.insert(at, broken.substring(at, end).repeat(1 + random.nextInt(5)));
                case 4 ->
                        broken.insert(
                                at,
                                List.of("(", "[", "{", "not(", "-", "if ")
                                        .get(random.nextInt(6))
                                        .repeat(1 + random.nextInt(3_000)));
                default -> broken.insert(at, "9".repeat(1 + random.nextInt(400)));
            }
        }
        return broken.toString();
    }

    @Test
    @Timeout(60)
    void anythingMayStandInAnExpression() {
        var random = new Random(26);
        int accepted = 0;
        for (int i = 0; i < TEXTS; i++) {
            var text = broken(WHOLE.get(i % WHOLE.size()), random);
            var checked =
                    Checker.value(
                            text,
                            NameContext.of(World.EMPTY, MarinaTypes.STAY),
                            LogicType.Simple.ANY);
            if (!checked.isAccepted()) {
                assertThat(checked.problems()).isNotEmpty();
                continue;
            }
            accepted++;
            var code = Compiler.compile(checked);
            try {
                assertThat(
                                code.run(
                                        code.frame(
                                                new Evaluation(
                                                        Instant.EPOCH,
                                                        ZoneOffset.UTC,
                                                        RecordSource.NONE))))
                        .isNotNull();
            } catch (BudgetException e) {
                assertThat(e.said()).isNotBlank();
            }
        }
        assertThat(accepted).isPositive();
    }
}
