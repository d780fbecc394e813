package sandpiper.server.service;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;
import static org.mockito.ArgumentMatchers.anyString;
import static org.mockito.Mockito.mock;
import static org.mockito.Mockito.when;

import java.math.BigDecimal;
import java.time.Clock;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.Base64;
import java.util.List;
import java.util.Map;
import java.util.function.Supplier;
import javax.crypto.SecretKey;
import javax.crypto.spec.SecretKeySpec;
import net.jqwik.api.Arbitraries;
import net.jqwik.api.Arbitrary;
import net.jqwik.api.ForAll;
import net.jqwik.api.Property;
import net.jqwik.api.Provide;
import org.jspecify.annotations.Nullable;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import org.junit.jupiter.params.provider.ValueSource;
import sandpiper.logic.condition.Condition;
import sandpiper.logic.condition.Operand;
import sandpiper.logic.filter.Checked;
import sandpiper.logic.filter.ConditionChecker;
import sandpiper.model.check.Definitions;
import sandpiper.model.release.Release;
import sandpiper.server.problem.ProblemException;
import sandpiper.server.security.Keys;

/** The small parts that every protocol's calls are made of. */
public class CallPartsTest {
    private static final Release RELEASE =
            Definitions.check(
                            Map.of(
                                    "m/package.yaml",
                                    "package: m\nversion: 1\n",
                                    "m/objects/buoy.yaml",
                                    "object: Buoy\n"
                                        + "key: code\n"
                                        + "fields: { code: { type: text }, depth: { type: decimal,"
                                        + " scale: 9 } }\n"))
                    .release()
                    .orElseThrow();

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

    @Test
    void aKeyOfARepeatedRequestHasALength() {
        assertThat(IdempotencyKey.checked(null)).isNull();
        assertThat(IdempotencyKey.checked("k-1")).isEqualTo("k-1");
        assertThat(IdempotencyKey.checked("x".repeat(255))).hasSize(255);
        for (var wrong : List.of("", "  ", "x".repeat(256))) {
            assertThatThrownBy(() -> IdempotencyKey.checked(wrong))
                    .hasMessageContaining("1 to 255 characters");
        }
    }

    @ParameterizedTest
    @CsvSource({
        "Stays, Stay",
        "Berths, Berth",
        "Companies, Company",
        "Glass, Glass",
        "Fish, Fish",
        "WorkRequests, WorkRequest"
    })
    void severalAreNamedAfterOne(String many, String one) {
        assertThat(ResourceNames.singular(many)).isEqualTo(one);
    }

    @Test
    void namesAreWrittenAsEachProtocolHasThem() {
        assertThat(ResourceNames.joined("check-in")).isEqualTo("CheckIn");
        assertThat(ResourceNames.capital("stay")).isEqualTo("Stay");
        assertThat(ResourceNames.small("Stay")).isEqualTo("stay");
    }

    private static Condition condition(String text) {
        return ((Checked.Accepted)
                        ConditionChecker.check(
                                text,
                                RELEASE.recordType(RELEASE.object("Buoy")),
                                Clock.systemUTC()))
                .condition();
    }

    @Provide
    Arbitrary<String> texts() {
        return Arbitraries.strings().withChars("\"\\{}'\n\r\t ab\u00e4\u2603/n").ofMaxLength(15);
    }

    @Property
    void aTextInQuotesIsThatTextInTheLanguage(@ForAll("texts") String text) {
        var compared = (Condition.Compare) condition("code = " + FeelText.quoted(text));

        assertThat(((Operand.Value) compared.right()).value()).isEqualTo(text);
    }

    @ParameterizedTest
    @ValueSource(strings = {"0", "-1.5", "1E+3", "1e-5", "000.10", "+2"})
    void aNumberIsThatNumberInTheLanguage(String text) {
        var compared = (Condition.Compare) condition("depth = " + FeelText.number(text));

        assertThat(((Operand.Value) compared.right()).value().toString())
                .satisfies(value -> assertThat(new BigDecimal(value)).isEqualByComparingTo(text));
    }

    @ParameterizedTest
    @ValueSource(strings = {"", "x", "1,5", "1e999999999", "0x1F", "NaN"})
    void whatIsNoNumberIsNone(String text) {
        assertThatThrownBy(() -> FeelText.number(text)).isInstanceOf(NumberFormatException.class);
    }

    private static Cursors cursors(String secret) {
        Keys keys = mock();
        Supplier<SecretKey> key =
                () -> new SecretKeySpec(Arrays.copyOf(secret.getBytes(), 32), "HmacSHA256");
        var made = key.get();
        when(keys.of(anyString())).thenReturn(() -> made);
        return new Cursors(keys);
    }

    @Test
    void aPlaceComesBackAsItWas() {
        var place = new ArrayList<@Nullable Object>(Arrays.asList("N-07", 12L, null, true));
        var cursors = cursors("one");

        assertThat(cursors.read("q", cursors.write("q", place))).isEqualTo(place);
        assertThat(cursors.read("q", null)).isNull();
        assertThat(cursors.read("q", "")).isNull();
    }

    @Test
    void aPlaceIsGoodForItsQueryAndItsInstance() {
        var cursor = cursors("one").write("filter=a", List.of(1L));

        for (var wrong :
                List.of(
                        cursor.substring(1),
                        cursor + "A",
                        "!!!",
                        Base64.getUrlEncoder().encodeToString(new byte[40]))) {
            assertThatThrownBy(() -> cursors("one").read("filter=a", wrong))
                    .isInstanceOf(ProblemException.class)
                    .hasMessageContaining("after is not a cursor of this query");
        }
        assertThatThrownBy(() -> cursors("one").read("filter=b", cursor))
                .isInstanceOf(ProblemException.class);
        assertThatThrownBy(() -> cursors("two").read("filter=a", cursor))
                .isInstanceOf(ProblemException.class);
    }
}
