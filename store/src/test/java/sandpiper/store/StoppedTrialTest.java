package sandpiper.store;

import static org.assertj.core.api.Assertions.assertThat;

import java.nio.file.Path;
import org.junit.jupiter.api.AfterEach;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;

/** Trials of what cannot be stored, of objects whose formulas and conditions ask the tables. */
class StoppedTrialTest {
    private static final String BOAT =
            """
            object: Boat
            key: code
            fields:
              code: { type: text, length: 4 }
              name: { type: text, length: 8 }
              visits: { type: integer, formula: "count(Boat[name = this.name and code <= string(today().year)])" }
              reason:
                type: text
                requiredWhen: count(Boat[name = this.name]) > 1
                hiddenWhen: count(Boat[name = this.name]) = 0
            """;

    @TempDir Path folder;

    private Harness boats;

    @BeforeEach
    void begin() {
        boats = new Harness(folder).release(BOAT);
        boats.create("Boat", "code", "A", "name", "Tern");
    }

    @AfterEach
    void end() {
        boats.close();
    }

    @Test
    void aPreviewSaysWhatIsWrongThoughTheTablesCannotBeAsked() {
        var taken = boats.preview("Boat", "code", "A", "name", "Tern");
        var tooLong = boats.preview("Boat", "code", "B", "name", "much too long");

        assertThat(taken.faults()).isNotEmpty();
        assertThat(tooLong.faults()).anyMatch(fault -> fault.message().contains("8 characters"));
        assertThat(tooLong.values()).containsEntry("code", "B").containsKey("visits");
        assertThat(tooLong.fields()).containsKey("reason");
    }

    @Test
    void whatIsRightIsWorkedOut() {
        assertThat(boats.preview("Boat", "code", "0001", "name", "Tern").values())
                .containsEntry("visits", 1L);
    }
}
