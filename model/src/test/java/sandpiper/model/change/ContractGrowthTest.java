package sandpiper.model.change;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.List;
import java.util.Map;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import sandpiper.model.check.Definitions;
import sandpiper.model.release.Release;

/** What a release says of fields that published services get. */
class ContractGrowthTest {
    private static final String SLOT =
            """
            object: Slot
            key: code
            fields: { code: { type: text }, size: { type: integer }%s }
            parts: { posts: { fields: { height: { type: integer }%s } } }
            """;

    private static Release release(String protocols, String field, String ofPosts) {
        return Definitions.check(
                        Map.of(
                                "m/package.yaml",
                                "package: m\nversion: 1\n",
                                "m/objects/slot.yaml",
                                SLOT.formatted(field, ofPosts),
                                "m/services/desk.yaml",
                                """
                                service: desk
                                version: 1
                                protocols: [%s]
                                resources:
                                  slots: { object: Slot, create: { fields: [code, size] }, read: { fields: [all] }, query: { fields: [code] } }
                                """
                                        .formatted(protocols)))
                .release()
                .orElseThrow();
    }

    private static List<String> growth(String protocols, String field, String ofPosts) {
        return ReleaseChange.between(release(protocols, "", ""), release(protocols, field, ofPosts))
                .sentences()
                .stream()
                .filter(sentence -> sentence.contains("over SOAP"))
                .toList();
    }

    @Test
    void clientsOverSoapAreThoughtOf() {
        assertThat(growth("\"rest\", soap", ", tag: { type: text }", ", note: { type: text }"))
                .containsExactly(
                        "Service desk v1: over SOAP, answers of slots get tag, posts.note; clients"
                                + " that were generated before may refuse them and should be made"
                                + " anew.");
    }

    @ParameterizedTest
    @CsvSource({"rest", "odata"})
    void othersPassOverWhatTheyDoNotKnow(String protocol) {
        assertThat(growth(protocol, ", tag: { type: text }", "")).isEmpty();
    }

    @Test
    void whatStaysIsNoGrowth() {
        assertThat(growth("soap", "", "")).isEmpty();
    }
}
