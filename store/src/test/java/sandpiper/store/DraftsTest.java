package sandpiper.store;

import static org.assertj.core.api.Assertions.assertThat;

import java.nio.file.Path;
import java.time.Clock;
import java.time.Duration;
import java.time.Instant;
import java.time.InstantSource;
import java.time.ZoneOffset;
import java.util.List;
import java.util.Map;
import java.util.Set;
import org.junit.jupiter.api.AfterEach;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import sandpiper.engine.access.Actor;
import sandpiper.engine.definition.Drafts;
import sandpiper.engine.delivery.Backoff;
import sandpiper.engine.port.DefinitionStorage.DraftFileState;

/** Several people at the files of a draft: nobody's work is lost without a word. */
class DraftsTest {
    private static final String PATH = "yard/objects/buoy.yaml";
    private static final Actor ANN = new Actor(Actor.Kind.USER, "ann", Set.of(), List.of());
    private static final Actor BEN = new Actor(Actor.Kind.USER, "ben", Set.of(), List.of());

    @TempDir Path folder;
    private Instant now = Instant.parse("2026-05-01T10:00:00Z");
    private Harness marina;
    private Drafts drafts;

    @BeforeEach
    void start() {
        InstantSource source = () -> now;
        marina =
                new Harness(
                        folder,
                        Clock.offset(source.withZone(ZoneOffset.UTC), Duration.ZERO),
                        Backoff.OF_HANDLERS);
        drafts = marina.engine.drafts();
    }

    @AfterEach
    void stop() {
        marina.close();
    }

    private void later(Duration time) {
        now = now.plus(time);
    }

    private List<String> versions() {
        return drafts.versions(PATH, 50).stream().map(DraftFileState::text).toList();
    }

    @Test
    void whoBeganBeforeSomebodyElseChangedTheFileIsToldAndLosesNothing() {
        drafts.put(PATH, "one", null, ANN);
        assertThat(drafts.put(PATH, "of ben", "one", BEN)).isEmpty();

        var theirs = drafts.put(PATH, "of ann", "one", ANN);
        assertThat(theirs).map(DraftFileState::by).contains("ben");
        assertThat(theirs).map(DraftFileState::text).contains("of ben");
        assertThat(drafts.files()).containsEntry(PATH, "of ben");

        assertThat(drafts.put(PATH, "of ann", null, ANN)).isEmpty();
        assertThat(drafts.files()).containsEntry(PATH, "of ann");
        assertThat(versions()).startsWith("of ben");
    }

    @Test
    void theSameTextFromTwoSidesIsNoQuarrel() {
        drafts.put(PATH, "one", null, ANN);
        drafts.put(PATH, "two", "one", BEN);
        assertThat(drafts.put(PATH, "two", "one", ANN)).isEmpty();
        assertThat(drafts.put("yard/objects/other.yaml", "new", "", ANN)).isEmpty();
    }

    @Test
    void oneSittingIsOneVersion() {
        drafts.put(PATH, "a", null, ANN);
        for (var text : List.of("ab", "abc", "abcd")) {
            later(Duration.ofSeconds(20));
            drafts.put(PATH, text, null, ANN);
        }
        assertThat(versions()).containsExactly("a");
        later(Duration.ofMinutes(10));
        drafts.put(PATH, "next day", null, ANN);
        assertThat(versions()).containsExactly("abcd", "a");
        drafts.remove(List.of(PATH));
        assertThat(versions()).containsExactly("next day", "abcd", "a");
        assertThat(drafts.versions(null, 1)).extracting(DraftFileState::path).containsExactly(PATH);
    }

    @Test
    void aFileMovesOnlyToWhereNoneIs() {
        drafts.put(PATH, "a", null, ANN);
        drafts.put("yard/objects/there.yaml", "b", null, ANN);
        assertThat(drafts.move(PATH, "yard/objects/there.yaml", ANN)).isFalse();
        assertThat(drafts.move("yard/objects/none.yaml", "yard/x.yaml", ANN)).isFalse();
        assertThat(drafts.move(PATH, "yard/objects/free.yaml", ANN)).isTrue();
        assertThat(drafts.files())
                .containsEntry("yard/objects/free.yaml", "a")
                .doesNotContainKey(PATH);
    }

    @Test
    void whatIsTakenBackIsAsItIsLiveAndStaysAmongTheVersions() {
        var object = "object: Buoy\nfields:\n  code: { type: text }\n";
        marina.release(Map.of("yard/package.yaml", "package: yard\nversion: 1\n", PATH, object));
        drafts.put(PATH, "broken", null, ANN);
        drafts.put("yard/objects/new.yaml", "new", null, ANN);
        drafts.remove(List.of("yard/package.yaml"));

        drafts.takeBack(List.of(PATH), ANN);
        assertThat(drafts.files())
                .containsEntry(PATH, object)
                .containsEntry("yard/objects/new.yaml", "new")
                .doesNotContainKey("yard/package.yaml");
        drafts.takeBack(null, ANN);
        assertThat(drafts.files().keySet()).containsExactly(PATH, "yard/package.yaml");
        assertThat(drafts.versions(null, 50))
                .extracting(DraftFileState::text)
                .contains("new", "broken");
    }

    @Test
    void beforeAnyReleaseTheWholeDraftIsTakenBackToNothing() {
        drafts.put(PATH, "a", null, ANN);
        drafts.takeBack(null, ANN);
        assertThat(drafts.files()).isEmpty();
    }
}
