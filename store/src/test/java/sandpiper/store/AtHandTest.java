package sandpiper.store;

import static org.assertj.core.api.Assertions.assertThat;

import java.nio.file.Path;
import org.junit.jupiter.api.AfterEach;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import sandpiper.engine.command.Outcome;

/** The writer keeps records at hand; nobody must notice but by its being quick. */
class AtHandTest {
    private static final String BERTH =
            """
            object: Berth
            key: code
            fields:
              code: { type: text, length: 10, required: true }
              rate: { type: amount, required: true }
            """;
    private static final String STAY =
            """
            object: Stay
            key: number
            fields:
              number: { type: text, length: 10, required: true }
              berth:
                type: reference
                to: Berth
                required: true
                fill: { rate: rate }
              rate: { type: amount }
              nights: { type: integer, default: 1 }
            checks:
              - { name: short, that: nights < 10, say: "Too long.", at: nights }
            """;

    @TempDir Path folder;
    private Harness marina;

    @BeforeEach
    void start() {
        marina = new Harness(folder).release(BERTH, STAY);
        marina.create("Berth", "code", "N-01", "rate", 20L);
    }

    @AfterEach
    void stop() {
        marina.close();
    }

    private String rateOf(String number) {
        return marina.text("Stay", number, "rate");
    }

    @Test
    void aChangeOfWhatWasReferredToIsSeenByTheNext() {
        marina.create("Stay", "number", "S-1", "berth", "N-01");
        marina.change("Berth", "N-01", "rate", 30L);
        marina.create("Stay", "number", "S-2", "berth", "N-01");

        assertThat(rateOf("S-1")).isEqualTo("20.00");
        assertThat(rateOf("S-2")).isEqualTo("30.00");
    }

    @Test
    void aChangedKeyNoLongerLeadsThere() {
        marina.create("Stay", "number", "S-1", "berth", "N-01");
        marina.change("Berth", "N-01", "code", "N-02");
        marina.create("Berth", "code", "N-01", "rate", 99L);
        marina.create("Stay", "number", "S-2", "berth", "N-01");

        assertThat(rateOf("S-2")).isEqualTo("99.00");
        assertThat(marina.text("Stay", "S-1", "berth")).isEqualTo("N-02");
    }

    @Test
    void aRetiredRecordCannotBeChosenAnyMore() {
        marina.create("Stay", "number", "S-1", "berth", "N-01");
        marina.remove("Berth", "N-01");

        assertThat(Harness.messages(marina.create("Stay", "number", "S-2", "berth", "N-01")))
                .anyMatch(message -> message.contains("retired"));
    }

    @Test
    void whatWasRefusedLeavesNothingBehind() {
        assertThat(marina.create("Stay", "number", "S-1", "berth", "N-01", "nights", 20L))
                .isInstanceOf(Outcome.Refused.class);
        assertThat(marina.preview("Stay", "number", "S-1", "berth", "N-01").faults()).isEmpty();

        // The tables give the same number again.
        marina.create("Stay", "number", "S-9", "berth", "N-01", "nights", 3L);
        marina.change("Stay", "S-9", "nights", 4L);

        assertThat(marina.show("Stay", "S-9"))
                .containsEntry("nights", 4L)
                .containsEntry("number", "S-9");
        assertThat(marina.create("Stay", "number", "S-1", "berth", "N-01"))
                .isInstanceOf(Outcome.Done.class);
    }
}
