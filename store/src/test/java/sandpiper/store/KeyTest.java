package sandpiper.store;

import static org.assertj.core.api.Assertions.assertThat;

import java.math.BigDecimal;
import java.nio.file.Path;
import java.util.List;
import java.util.Map;
import org.junit.jupiter.api.AfterEach;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import sandpiper.engine.command.Outcome;

/** Keys of several fields, and references to records that have one. */
class KeyTest {
    private static final String PENNANT =
            """
            object: Pennant
            key: [flag, day, turn]
            fields:
              flag: { type: text, required: true }
              day: { type: date, required: true }
              turn: { type: integer, required: true }
              worth: { type: decimal, scale: 1 }
              before: { type: reference, to: Pennant }
            """;
    private static final String HALYARD =
            """
            object: Halyard
            key: name
            fields:
              name: { type: text, required: true }
            parts:
              hoists:
                fields:
                  pennant: { type: reference, to: Pennant, required: true, fill: { worth: worth } }
                  worth: { type: decimal, scale: 1 }
            """;

    private static final String WATCH =
            """
            object: Watch
            key: [mast, day]
            fields:
              mast: { type: text, required: true }
              day: { type: date, required: true }
            parts:
              calls:
                fields:
                  said: { type: text, localised: true }
                  pennant: { type: reference, to: Pennant }
              relieved:
                fields:
                  by: { type: text }
            """;

    @TempDir Path folder;
    private Harness port;

    @BeforeEach
    void start() {
        port = new Harness(folder).release(PENNANT, HALYARD, WATCH);
        for (long turn = 1; turn <= 3; turn++) {
            var before = turn == 1 ? null : key(turn - 1);
            assertThat(
                            port.create(
                                    "Pennant",
                                    "flag",
                                    "K, 2",
                                    "day",
                                    "2026-05-01",
                                    "turn",
                                    turn,
                                    "worth",
                                    new BigDecimal(turn + ".5"),
                                    "before",
                                    before))
                    .isInstanceOf(Outcome.Done.class);
        }
    }

    @AfterEach
    void stop() {
        port.close();
    }

    private static String key(long turn) {
        return "K\\, 2,2026-05-01," + turn;
    }

    private Outcome hoisted(String name, Object... pennants) {
        var items = List.of(pennants).stream().map(one -> Harness.values("pennant", one)).toList();
        return port.create("Halyard", "name", name, "hoists", items);
    }

    private List<Object> worths(String name) {
        return ((List<?>) port.show("Halyard", name).get("hoists"))
                .stream()
                        .<Object>map(item -> String.valueOf(((Map<?, ?>) item).get("worth")))
                        .toList();
    }

    @Test
    void aRecordIsReadByItsKey() {
        assertThat(port.show("Pennant", key(2)))
                .containsEntry("flag", "K, 2")
                .containsEntry("before", key(1))
                .containsEntry("turn", 2L);
    }

    @Test
    void aRecordIsReadByItsKeyWithTheLineItemsOfEachPart() {
        var calls =
                List.of(
                        Harness.values("said", "Ahoy", "pennant", key(3)),
                        Harness.values("said", "Belay"));
        for (var day : List.of("2026-05-01", "2026-05-02")) {
            port.create("Watch", "mast", "N, 1", "day", day, "calls", calls);
            calls = calls.subList(0, 1);
        }

        var read = port.show("Watch", "N\\, 1,2026-05-01");

        assertThat(read).containsEntry("day", "2026-05-01").containsEntry("relieved", List.of());
        assertThat((List<?>) read.get("calls"))
                .hasSize(2)
                .first()
                .asString()
                .contains("Ahoy", key(3));
        assertThat(port.show("Watch", "N\\, 1,2026-05-02").get("calls")).asList().hasSize(1);
    }

    @Test
    void aReferenceThatIsChangedIsToldByItsKeyBeforeAndAfter() {
        assertThat(port.change("Pennant", key(3), "before", key(1)))
                .isInstanceOf(Outcome.Done.class);

        assertThat(port.text("Pennant", key(3), "before")).isEqualTo(key(1));
    }

    @Test
    void lineItemsReferToSeveral() {
        assertThat(hoisted("Main", key(3), key(1), key(3), key(2)))
                .isInstanceOf(Outcome.Done.class);

        assertThat(worths("Main")).containsExactly("3.5", "1.5", "3.5", "2.5");
    }

    @Test
    void oneThatIsNotThereIsToldAtItsPlace() {
        var refused = (Outcome.Refused) hoisted("Main", key(1), key(7), "", key(2), "K,2");

        assertThat(refused.faults().stream().map(fault -> fault.path().toString()).toList())
                .containsExactlyInAnyOrder(
                        "hoists.1.pennant", "hoists.2.pennant", "hoists.4.pennant");
    }

    @Test
    void whatChangedJustBeforeIsSeenByLineItems() {
        port.change("Pennant", key(1), "worth", new BigDecimal("9.5"));
        port.remove("Pennant", key(2));

        hoisted("Main", key(1), key(3));

        assertThat(worths("Main")).containsExactly("9.5", "3.5");
        assertThat(Harness.messages(hoisted("Fore", key(1), key(2))))
                .singleElement()
                .asString()
                .contains("retired");
    }
}
