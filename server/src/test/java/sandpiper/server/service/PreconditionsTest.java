package sandpiper.server.service;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import org.jspecify.annotations.Nullable;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import org.junit.jupiter.params.provider.ValueSource;
import sandpiper.engine.command.Expected;
import sandpiper.server.problem.ProblemException;

/** Which version a caller means, and whether what it has is still right. */
class PreconditionsTest {
    @ParameterizedTest
    @CsvSource({
        "'\"3\"', 3",
        "' \"12\" ', 12",
        "'\"0\"', 0",
        "'\"1\", \"3\"', '1 or 3'",
        // Weak tags and those of others fit no record.
        "'W/\"3\"', ''",
        "'W/\"3\", \"4\"', 4",
        "'\"a\", \"\", \"1234567890123456789\"', ''"
    })
    void oneOfTheVersionsOfItsTagsIsExpected(String header, String versions) {
        assertThat(Preconditions.expected(header, null))
                .isInstanceOf(Expected.Versions.class)
                .hasToString(versions);
    }

    @ParameterizedTest
    @ValueSource(strings = {"3", "\"a", "", "\"1\" \"2\"", "\"1\", *", "w/\"1\""})
    void whatIsNoTagIsRefused(String header) {
        assertThatThrownBy(() -> Preconditions.expected(header, null))
                .isInstanceOf(ProblemException.class)
                .hasMessageContaining("If-Match must be the ETag");
    }

    @Test
    void aStarIsAnyRecordOrNone() {
        assertThat(Preconditions.expected(" * ", null)).isEqualTo(new Expected.There());
        assertThat(Preconditions.expected(null, " * ")).isEqualTo(new Expected.Absent());
    }

    @ParameterizedTest
    @CsvSource({", '\"3\"'", "'\"3\"', *", "*, *"})
    void aChangeCannotDependOnATagItShallNotHave(@Nullable String match, String noneMatch) {
        assertThatThrownBy(() -> Preconditions.expected(match, noneMatch))
                .isInstanceOf(ProblemException.class)
                .hasMessageContaining("can only be *");
    }

    @Test
    void withoutAHeaderAnyVersionWillDo() {
        assertThat(Preconditions.expected(null, null)).isNull();
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
