package sandpiper.model.release;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.util.List;
import java.util.Map;
import java.util.Optional;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.ValueSource;
import sandpiper.model.check.Definitions;

class FieldPathTest {
    private static final Release RELEASE =
            Definitions.check(
                            Map.of(
                                    "yard/package.yaml",
                                    "package: yard\nversion: 1.0\n",
                                    "yard/objects/part.yaml",
                                    """
                                    object: Part
                                    key: code
                                    fields:
                                      code: { type: text, length: 9 }
                                      weight: { type: integer }
                                      partOf: { type: reference, to: Part }
                                    """))
                    .release()
                    .orElseThrow();
    private static final ObjectType PART = RELEASE.object("Part");

    private static Optional<FieldPath> resolved(String written) {
        return FieldPath.resolve(RELEASE, PART, List.of(written.split("\\.")));
    }

    @ParameterizedTest
    @ValueSource(strings = {"code", "partOf", "partOf.code", "partOf.partOf.partOf.weight"})
    void leadsThroughReferencesBackToTheSameObject(String written) {
        var path = resolved(written).orElseThrow();

        assertThat(path.written()).isEqualTo(written);
        assertThat(path).hasToString(written);
        assertThat(path.steps()).hasSize(written.split("\\.").length);
        assertThat(path.way()).allMatch(Field::isReference).hasSize(path.steps().size() - 1);
        assertThat(path.owner(RELEASE, PART)).isEqualTo(PART);
        assertThat(path.isOwn()).isEqualTo(!written.contains("."));
    }

    @ParameterizedTest
    @ValueSource(strings = {"size", "code.weight", "partOf.size", "weight.partOf"})
    void leadsNowhereByWhatIsNoField(String written) {
        assertThat(resolved(written)).isEmpty();
    }

    @Test
    void isEqualByItsSteps() {
        var one = resolved("partOf.code").orElseThrow();

        assertThat(one)
                .isEqualTo(resolved("partOf.code").orElseThrow())
                .hasSameHashCodeAs(resolved("partOf.code").orElseThrow())
                .isNotEqualTo(resolved("code").orElseThrow())
                .isNotEqualTo("partOf.code");
    }

    @Test
    void needsAField() {
        assertThat(FieldPath.resolve(RELEASE, PART, List.of())).isEmpty();
        assertThatThrownBy(() -> new FieldPath(List.of()))
                .isInstanceOf(IllegalArgumentException.class)
                .hasMessage("A path needs a field");
    }
}
