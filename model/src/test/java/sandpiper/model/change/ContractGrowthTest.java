package sandpiper.model.change;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.List;
import java.util.Map;
import org.junit.jupiter.api.Test;
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

    private static List<String> growth(String field, String ofPosts) {
        return ContractGrowth.between(
                        release("\"rest\", soap", "", ""),
                        release("\"rest\", soap", field, ofPosts))
                .stream()
                .map(ContractGrowth::sentence)
                .toList();
    }

    @Test
    void whatAnswersGetIsTold() {
        assertThat(growth(", tag: { type: text }", ", note: { type: text }"))
                .containsExactly(
                        "Service desk v1: answers of slots get posts.note, tag. Callers keep what"
                                + " their contract has; a contract that is fetched anew has it.");
    }

    @Test
    void whatStaysIsNoGrowth() {
        assertThat(growth("", "")).isEmpty();
    }
}
