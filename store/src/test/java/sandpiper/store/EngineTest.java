package sandpiper.store;

import static org.assertj.core.api.Assertions.assertThat;

import java.math.BigDecimal;
import java.nio.file.Path;
import java.time.Clock;
import java.time.Instant;
import java.time.ZoneOffset;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import java.util.function.Function;
import org.junit.jupiter.api.AfterEach;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import sandpiper.engine.Engine;
import sandpiper.engine.access.Actor;
import sandpiper.engine.command.Expected;
import sandpiper.engine.command.Outcome;
import sandpiper.engine.command.RecordCommand;
import sandpiper.engine.command.Request;
import sandpiper.engine.definition.ReleasePreview;
import sandpiper.engine.definition.Releases;
import sandpiper.engine.read.PlainRecords;
import sandpiper.engine.record.Query;
import sandpiper.engine.release.LiveRelease;
import sandpiper.logic.filter.Checked;
import sandpiper.logic.filter.ConditionChecker;
import sandpiper.model.release.ObjectType;

/** The engine on real storage: what happens to records, from command to row and back. */
class EngineTest {
    private static final Clock CLOCK =
            Clock.fixed(Instant.parse("2026-05-01T10:00:00Z"), ZoneOffset.UTC);

    @TempDir Path folder;

    private Engine engine;

    @BeforeEach
    void start() {
        engine = new Engine(Stores.open(folder.resolve("data.db"), CLOCK), CLOCK);
        engine.drafts().push(Marina.files(), Actor.SYSTEM);
        var result = engine.releases().release("first", Releases.Accepted.NOTHING, Actor.SYSTEM);
        assertThat(result).isInstanceOf(ReleasePreview.Result.Released.class);
        create("Owner", Map.of("code", "OW-0001", "name", "Tilda Moor"));
        create(
                "Vessel",
                Map.of(
                        "registration",
                        "GH-100",
                        "name",
                        "Sea Pink",
                        "length",
                        9L,
                        "owner",
                        "OW-0001"));
        create(
                "Pier",
                Map.of(
                        "code",
                        "N",
                        "name",
                        Map.of("en", "North pier", "de", "Nordsteg"),
                        "powerCapacity",
                        400L));
        create(
                "Berth",
                Map.of(
                        "code",
                        "N-07",
                        "pier",
                        "N",
                        "maxLength",
                        12L,
                        "nightlyRate",
                        new BigDecimal("24.50")));
        create(
                "Tariff",
                Map.of(
                        "code",
                        "POWER",
                        "description",
                        "Power",
                        "unitPrice",
                        new BigDecimal("0.45")));
    }

    @AfterEach
    void stop() {
        engine.close();
    }

    private Outcome write(String object, Function<ObjectType, RecordCommand> command) {
        return engine.records()
                .write(live -> request(live, command.apply(live.release().object(object))));
    }

    private static Request request(LiveRelease live, RecordCommand command) {
        return new Request(command, Actor.SYSTEM, "test", false);
    }

    private Outcome create(String object, Map<String, Object> values) {
        return engine.records()
                .write(live -> {
                    var type = live.release().object(object);
                    return request(
                            live,
                            new RecordCommand.Create(
                                    type,
                                    live.release().everythingOf(type),
                                    new HashMap<>(values)));
                });
    }

    private Outcome change(String object, String key, Map<String, Object> values, Long version) {
        return engine.records()
                .write(live -> {
                    var type = live.release().object(object);
                    return request(
                            live,
                            new RecordCommand.Change(
                                    type,
                                    live.release().everythingOf(type),
                                    key,
                                    new HashMap<>(values),
                                    Expected.version(version)));
                });
    }

    private Map<String, Object> read(String object, String key) {
        return engine.records()
                .read((live, session) -> {
                    var type = live.release().object(object);
                    var tree = live.release().everythingOf(type);
                    return PlainRecords.of(
                            tree,
                            engine.records().find(live, session, type, key, tree).orElseThrow());
                });
    }

    private static List<String> faultPaths(Outcome outcome) {
        return ((Outcome.Refused) outcome)
                .faults().stream().map(fault -> fault.path().toString()).toList();
    }

    @Test
    void aStayIsNumberedFilledAndReadBackWithItsCharges() {
        create("Stay", stay());

        var stay = read("Stay", "ST-2026-000001");

        assertThat(stay)
                .containsEntry("vessel", "GH-100")
                .containsEntry("state", "Requested")
                .containsEntry("arrival", "2026-06-01")
                .containsEntry("approvalRequired", false);
        assertThat((List<?>) stay.get("charges"))
                .singleElement()
                .satisfies(charge ->
                        assertThat(charge)
                                .hasToString(
                                        "{line=1, tariff=POWER, quantity=2.50, unitPrice=0.45,"
                                                + " vat=19.00, net=1.13, gross=1.34,"
                                                + " costCentre=null}"));
    }

    private static Map<String, Object> stay() {
        return Map.of(
                "vessel",
                "GH-100",
                "berth",
                "N-07",
                "arrival",
                "2026-06-01",
                "departure",
                "2026-06-04",
                "charges",
                List.of(Map.of("tariff", "POWER", "quantity", new BigDecimal("2.5"))));
    }

    @Test
    void allFaultsComeAtOnceEachAtItsField() {
        var outcome =
                create(
                        "Stay",
                        Map.of(
                                "vessel", "GH-999",
                                "arival", "2026-06-01",
                                "departure", "2026-02-30",
                                "charges", List.of(Map.of("quantity", new BigDecimal("1.234")))));

        assertThat(faultPaths(outcome))
                .containsExactlyInAnyOrder(
                        "vessel",
                        "arival",
                        "departure",
                        "berth",
                        "arrival",
                        "charges.0.tariff",
                        "charges.0.quantity");
        assertThat(((Outcome.Refused) outcome).faults())
                .anySatisfy(fault -> assertThat(fault.message()).contains("Did you mean arrival?"));
    }

    @Test
    void aPatchOfLineItemsAddsChangesAndRemoves() {
        create("Stay", stay());
        change(
                "Stay",
                "ST-2026-000001",
                Map.of("charges", List.of(Map.of(), Map.of("tariff", "POWER"))),
                null);

        var outcome =
                change(
                        "Stay",
                        "ST-2026-000001",
                        Map.of(
                                "charges",
                                List.of(
                                        Map.of("line", 2L, "quantity", 7L),
                                        Map.of("tariff", "POWER"))),
                        null);

        assertThat(outcome).isInstanceOf(Outcome.Done.class);
        assertThat(read("Stay", "ST-2026-000001").get("charges"))
                .hasToString(
                        "[{line=2, tariff=POWER, quantity=7.00, unitPrice=0.45, vat=19.00,"
                                + " net=3.15, gross=3.75, costCentre=null}, {line=3, tariff=POWER,"
                                + " quantity=1.00, unitPrice=0.45, vat=19.00, net=0.45, gross=0.54,"
                                + " costCentre=null}]");
    }

    @Test
    void aStaleVersionIsRefusedAndNothingChanges() {
        change("Vessel", "GH-100", Map.of("name", "Sea Holly"), 1L);

        var outcome = change("Vessel", "GH-100", Map.of("name", "Samphire"), 1L);

        assertThat(((Outcome.Refused) outcome).reason()).isEqualTo(Outcome.Reason.STALE);
        assertThat(read("Vessel", "GH-100")).containsEntry("name", "Sea Holly");
    }

    @Test
    void aDuplicateKeyIsAConflictThatNamesTheRecord() {
        var outcome = create("Owner", Map.of("code", "OW-0001", "name", "Somebody else"));

        assertThat((Outcome.Refused) outcome)
                .satisfies(refused -> {
                    assertThat(refused.reason()).isEqualTo(Outcome.Reason.CONFLICT);
                    assertThat(refused.faults())
                            .singleElement()
                            .satisfies(fault ->
                                    assertThat(fault.message())
                                            .isEqualTo("There is an Owner \"OW-0001\" already."));
                });
    }

    @Test
    void conditionsPathsAndSortsBecomeSql() {
        for (int i = 0; i < 20; i++) {
            var values = new HashMap<>(stay());
            values.put("arrival", "2026-06-%02d".formatted(i + 1));
            values.put("departure", "2026-06-%02d".formatted(i + 4));
            create("Stay", values);
        }

        assertThat(count("Stay", "arrival in [date(\"2026-06-05\")..date(\"2026-06-09\")]"))
                .isEqualTo(5);
        assertThat(count("Stay", "vessel.owner.name = \"Tilda Moor\" and berth.pier.open"))
                .isEqualTo(20);
        assertThat(
                        count(
                                "Stay",
                                "starts with(vessel.name, \"Sea\") and not(arrival <"
                                        + " date(\"2026-06-19\"))"))
                .isEqualTo(2);
        assertThat(count("Stay", "nightlyRate = 24.5")).isEqualTo(20);
        assertThat(count("Stay", "nightlyRate != 5")).isEqualTo(20);
        assertThat(count("Berth", "maxLength > 11.999 and maxLength < 12.001")).isEqualTo(1);
        assertThat(count("Stay", "number between \"ST-2026-000003\" and \"ST-2026-000004\""))
                .isEqualTo(2);
    }

    private long count(String object, String filter) {
        return engine.records()
                .read((live, session) -> {
                    var type = live.release().object(object);
                    var checked =
                            ConditionChecker.check(filter, live.release().recordType(type), CLOCK);
                    assertThat(checked).as(filter).isInstanceOf(Checked.Accepted.class);
                    var query =
                            new Query(
                                    type,
                                    live.release().everythingOf(type),
                                    ((Checked.Accepted) checked).condition(),
                                    null,
                                    List.of(),
                                    false,
                                    null,
                                    0,
                                    3,
                                    true,
                                    Query.Retired.WITHOUT);
                    return Objects.requireNonNull(
                            engine.records().page(live, session, query).total());
                });
    }
}
