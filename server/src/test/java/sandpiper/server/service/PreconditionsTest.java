package sandpiper.server.service;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import org.jspecify.annotations.Nullable;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import org.junit.jupiter.params.provider.ValueSource;
import sandpiper.server.problem.ProblemException;

/** Which version a caller means, and whether what it has is still right. */
class PreconditionsTest {
    @ParameterizedTest
    @CsvSource({"'\"3\"', 3", "' \"12\" ', 12", "*, ", "' * ', ", "'\"0\"', 0"})
    void aVersionIsExpectedByItsTag(String header, @Nullable Long version) {
        assertThat(Preconditions.expectedVersion(header)).isEqualTo(version);
    }

    @ParameterizedTest
    @ValueSource(strings = {"3", "\"a\"", "\"\"", "\"1234567890123456789\"", "\"-1\""})
    void whatIsNoTagOfOursIsRefused(String header) {
        assertThatThrownBy(() -> Preconditions.expectedVersion(header))
                .isInstanceOf(ProblemException.class)
                .hasMessageContaining("If-Match must be the ETag");
    }

    @Test
    void withoutAHeaderAnyVersionWillDo() {
        assertThat(Preconditions.expectedVersion(null)).isNull();
        assertThat(Preconditions.isFresh(null, 3)).isFalse();
    }

    @ParameterizedTest
    @CsvSource({
        "'\"3\"', true",
        "'W/\"3\"', true",
        "'\"1\", \"3\"', true",
        "*, true",
        "'\"33\"', false",
        "'\"2\"', false",
        "3, false"
    })
    void whatACallerHasIsFreshByAnyOfItsTags(String header, boolean fresh) {
        assertThat(Preconditions.isFresh(header, 3)).isEqualTo(fresh);
    }
}
