package sandpiper.store;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.nio.file.Path;
import java.util.List;
import java.util.Map;
import org.junit.jupiter.api.AfterEach;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Tag;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import sandpiper.engine.Engine;
import sandpiper.engine.access.Actor;
import sandpiper.engine.definition.ContractRevisions;
import sandpiper.engine.port.DefinitionStorage.StoredRevision;
import sandpiper.engine.service.DeniedException;
import sandpiper.model.release.FieldPath;
import sandpiper.model.release.ResourceType.Operation;
import sandpiper.model.release.ServiceType;

/** A revision begins when answers of a service get another shape, and lives as long as its data. */
class ContractRevisionsTest {
    @TempDir Path folder;

    private Harness harness;

    @BeforeEach
    void open() {
        harness = new Harness(folder);
    }

    @AfterEach
    void close() {
        harness.close();
    }

    private static Map<String, String> files(String fields, String shown) {
        return Map.of(
                "quay/package.yaml",
                "package: quay\nversion: 1\n",
                "quay/objects/crane.yaml",
                """
                object: Crane
                key: code
                fields:
                  code: { type: text }
                """
                        + fields,
                "quay/services/lifts.yaml",
                """
                service: lifts
                version: 1
                resources:
                  cranes: { object: Crane, read: { fields: [%s] } }
                """
                        .formatted(shown));
    }

    private void release(String fields, String shown) {
        harness.release(files(fields, shown));
    }

    private ContractRevisions revisions() {
        return harness.engine.releases().revisions();
    }

    private ServiceType service() {
        return harness.engine.live().release().service("lifts", 1).orElseThrow();
    }

    private List<String> read(int revision) {
        return revisions()
                .at(harness.engine.live(), service(), revision)
                .resource("cranes")
                .orElseThrow()
                .tree(Operation.READ)
                .orElseThrow()
                .paths()
                .stream()
                .map(FieldPath::written)
                .toList();
    }

    private List<Integer> numbers() {
        return revisions().of("lifts", 1).stream().map(StoredRevision::number).toList();
    }

    @Test
    void onlyAReleaseThatChangesAnswersBeginsOne() {
        release("", "all");
        release("  reach: { type: integer }\n", "all");
        release("  reach: { type: integer, label: How far }\n", "all");

        assertThat(numbers()).containsExactly(1, 2);
        assertThat(revisions().newest(service())).isEqualTo(2);
        assertThat(read(1)).containsExactly("code");
        assertThat(read(2)).containsExactly("code", "reach");
    }

    /** Whoever took the contract in between does not know what comes back. */
    @Test
    void whatIsTakenAwayBeginsOneToo() {
        release("  reach: { type: integer }\n", "code, reach");
        release("  reach: { type: integer }\n", "code");
        release("  reach: { type: integer }\n", "code, reach");

        assertThat(numbers()).containsExactly(1, 2, 3);
        assertThat(read(2)).containsExactly("code");
        assertThat(read(1)).containsExactly("code", "reach");
    }

    @Test
    void theyAreThereAfterANewStart() {
        release("", "all");
        release("  reach: { type: integer }\n", "all");
        revisions().end("lifts", 1, 1, Actor.SYSTEM);
        harness.close();
        harness = new Harness(folder);

        assertThat(numbers()).containsExactly(1, 2);
        assertThat(revisions().of("lifts", 1).getFirst().endedBy()).isEqualTo(Actor.SYSTEM.name());
        assertThatThrownBy(() -> read(1))
                .isInstanceOf(DeniedException.class)
                .hasMessageContaining("Revision 1 of lifts v1 was ended");
    }

    /** A data file from before there were revisions has its first one from now on. */
    @Tag("sqlite")
    @Test
    void aServiceFromBeforeRevisionsGetsItsFirst() throws Exception {
        release("", "all");
        harness.close();
        try (var database =
                        java.sql.DriverManager.getConnection(
                                "jdbc:sqlite:" + folder.resolve("data.db"));
                var statement = database.createStatement()) {
            statement.execute("delete from sandpiper_contract_revision");
        }
        harness = new Harness(folder);

        assertThat(numbers()).containsExactly(1);
    }

    @Test
    void theNewestIsNotEnded() {
        release("", "all");

        assertThatThrownBy(() -> revisions().end("lifts", 1, 1, Actor.SYSTEM))
                .isInstanceOf(DeniedException.class)
                .hasMessageContaining("Revision 1 is the newest of lifts v1");
        assertThatThrownBy(() -> revisions().end("lifts", 1, 9, Actor.SYSTEM))
                .isInstanceOf(DeniedException.class)
                .hasMessageContaining("lifts v1 has no revision 9");
    }

    @Test
    void anEmptyInstanceHasNone() {
        assertThat(revisions().of("lifts", 1)).isEmpty();
    }

    /** Whoever looks at what a release brings hears what grows, and who calls it. */
    @Test
    void thePreviewSaysWhatGrowsForWhom() {
        release("", "all");
        harness.engine.drafts().push(files("  reach: { type: integer }\n", "all"), Actor.SYSTEM);

        assertThat(preview(harness.engine))
                .anySatisfy(sentence ->
                        assertThat(sentence)
                                .startsWith("Service lifts v1: answers of cranes get reach.")
                                .endsWith("Nobody has called it in the last 30 days."));
    }

    private static List<String> preview(Engine engine) {
        return engine.releases().preview().changes();
    }
}
