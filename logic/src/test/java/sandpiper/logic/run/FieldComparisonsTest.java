package sandpiper.logic.run;

import static org.assertj.core.api.Assertions.assertThat;

import java.time.Instant;
import java.time.ZoneOffset;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import sandpiper.logic.MarinaTypes;
import sandpiper.logic.check.Checker;
import sandpiper.logic.check.Setting;
import sandpiper.logic.type.LogicType;
import sandpiper.logic.type.World;
import sandpiper.logic.value.Decimal;
import sandpiper.logic.value.Nothing;

/** A field compared with a fixed value comes to the same as written the other way round. */
class FieldComparisonsTest {
    private static String run(String text, Object value) {
        var checked =
                Checker.value(
                        text, Setting.of(World.EMPTY, MarinaTypes.STAY), LogicType.Simple.ANY);
        assertThat(checked.problems()).isEmpty();
        var code = Compiler.compile(checked);
        var frame = code.frame(new Evaluation(Instant.EPOCH, ZoneOffset.UTC, RecordSource.NONE));
        frame.set(
                Setting.THIS,
                MarinaTypes.One.of(MarinaTypes.STAY, "nights", value, "state", value));
        return String.valueOf(code.run(frame));
    }

    @ParameterizedTest
    @CsvSource({
        "nights > 14, 14 < nights",
        "nights >= 14, 14 <= nights",
        "nights < 14.0, 14.0 > nights",
        "nights <= 14, 14 >= nights",
        "nights = 14, 14 = nights",
        "nights != 14, 14 != nights"
    })
    void numbers(String field, String reversed) {
        for (var value : new Object[] {13L, 14L, 15L}) {
            var number = Decimal.of((Long) value);
            assertThat(run(field, number)).isEqualTo(run(reversed, number)).isIn("true", "false");
        }
        assertThat(run(field, Decimal.of(140, 1))).isEqualTo(run(reversed, Decimal.of(140, 1)));
        assertThat(run(field, Nothing.NULL)).isEqualTo(run(reversed, Nothing.NULL));
    }

    @ParameterizedTest
    @CsvSource({
        "state = \"Alongside\", \"Alongside\" = state",
        "state != \"Alongside\", \"Alongside\" != state"
    })
    void texts(String field, String reversed) {
        for (var value : new Object[] {"Alongside", "Departed", "", Nothing.NULL}) {
            assertThat(run(field, value)).isEqualTo(run(reversed, value));
        }
        assertThat(run(field, "Alongside")).isNotEqualTo(run(field, "Departed"));
    }
}
