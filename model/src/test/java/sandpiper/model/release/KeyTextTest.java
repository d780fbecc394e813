package sandpiper.model.release;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.List;
import java.util.Map;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import sandpiper.model.check.Definitions;

class KeyTextTest {
    private static ObjectType object(String key) {
        var text =
                "object: Lamp\nkey: %s\nfields: { pier: { type: text }, place: { type: integer }, lit: { type: date } }\n"
                        .formatted(key);
        return Definitions.check(
                        Map.of(
                                "m/package.yaml",
                                "package: m\nversion: 1\n",
                                "m/objects/lamp.yaml",
                                text))
                .release()
                .orElseThrow()
                .object("Lamp");
    }

    @ParameterizedTest
    @CsvSource(
            delimiter = '|',
            textBlock =
                    """
                    N        | 7  | N,7
                    N,S      | -1 | N\\,S,-1
                    a\\b/"c" | 0  | a\\\\b/"c",0
                    """)
    void aKeyOfSeveralFieldsComesBackAsItWas(String pier, long place, String written) {
        var lamp = object("[pier, place]");

        assertThat(KeyText.write(lamp, List.of(pier, place))).isEqualTo(written);
        assertThat(KeyText.read(lamp, written)).contains(List.of(pier, place));
    }

    @ParameterizedTest
    @CsvSource({"'N', 1", "'N,x', 1", "'N,1,2', 1", "'', 1"})
    void whatIsNoKeyIsNone(String text, int ignored) {
        assertThat(KeyText.read(object("[pier, place]"), text))
                .as("%s %d", text, ignored)
                .isEmpty();
    }

    @ParameterizedTest
    @CsvSource({"'N,S', true", "'a\\b', true"})
    void aKeyOfOneFieldIsItsTextWhateverStandsInIt(String text, boolean there) {
        assertThat(KeyText.read(object("pier"), text).isPresent()).isEqualTo(there);
        assertThat(KeyText.write(object("pier"), List.of(text))).isEqualTo(text);
    }
}
