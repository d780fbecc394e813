package sandpiper.model.release;

import static org.assertj.core.api.Assertions.assertThat;

import java.time.LocalDate;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import sandpiper.model.check.CheckedDefinitions;
import sandpiper.model.check.Definitions;
import sandpiper.model.release.ResourceType.Operation;

class ServiceFieldsTest {
    private static CheckedDefinitions check(String operation) {
        return Definitions.check(
                Map.of(
                        "m/package.yaml", "package: m\nversion: 1\n",
                        "m/objects/owner.yaml",
                                "object: Owner\n"
                                    + "key: code\n"
                                    + "fields: { code: { type: text }, name: { type: text } }\n",
                        "m/objects/vessel.yaml",
                                "object: Vessel\n"
                                    + "key: code\n"
                                    + "fields: { code: { type: text }, owner: { type: reference,"
                                    + " to: Owner } }\n",
                        "m/objects/stay.yaml",
                                """
                                object: Stay
                                key: number
                                numbering: { field: number, pattern: "ST-{year}-{month}-{sequence:4}" }
                                fields:
                                  number: { type: text, readOnly: true }
                                  vessel: { type: reference, to: Vessel, required: true }
                                  total: { type: amount, readOnly: true }
                                parts:
                                  charges: { fields: { what: { type: text }, net: { type: amount, readOnly: true } } }
                                """,
                        "m/services/desk.yaml",
                                "service: desk\n"
                                        + "version: 2\n"
                                        + "resources:\n"
                                        + "  stays:\n"
                                        + "    object: Stay\n"
                                        + operation.indent(4)));
    }

    private static List<String> names(String text, Operation operation) {
        var tree =
                check(text)
                        .release()
                        .orElseThrow()
                        .service("desk", 2)
                        .orElseThrow()
                        .resource("stays")
                        .orElseThrow()
                        .tree(operation)
                        .orElseThrow();
        var names = new ArrayList<>(tree.paths().stream().map(FieldPath::written).toList());
        tree.parts()
                .forEach(part ->
                        part.paths()
                                .forEach(path ->
                                        names.add(part.part().name() + "/" + path.written())));
        return names;
    }

    @Test
    void aFieldListMayStandInBracketsAlthoughYamlCutsItAtCommas() {
        assertThat(
                        names(
                                "read: { fields: [number, vessel.owner.name, charges(what, net)] }",
                                Operation.READ))
                .containsExactly("number", "vessel.owner.name", "charges/what", "charges/net");
        assertThat(names("read: { fields: \"number, charges\" }", Operation.READ))
                .containsExactly("number", "charges/what", "charges/net");
    }

    @Test
    void allLeavesOutWhatOnlyTheServiceSetsWhereItIsWritten() {
        assertThat(names("create: { fields: all }", Operation.CREATE))
                .containsExactly("vessel", "charges/what");
        assertThat(names("read: { fields: all }", Operation.READ))
                .containsExactly("number", "vessel", "total", "charges/what", "charges/net");
    }

    @ParameterizedTest
    @CsvSource(
            delimiter = '|',
            textBlock =
                    """
                    read: { fields: [numbr] }                     | Stay has no field "numbr".
                    read: { fields: [vessel.owner.nam] }          | Owner has no field "nam".
                    read: { fields: [number.x] }                  | "number" is not a reference, so nothing comes behind it.
                    read: { fields: [charges(wat)] }              | charges has no field "wat".
                    read: { fields: [chargs(what)] }              | Stay has no line items "chargs".
                    read: { fields: "number, charges(what" }      | A bracket is missing in "number, charges(what".
                    create: { fields: [vessel, total] }           | total is set by the service and cannot be written.
                    create: { fields: [vessel, vessel.code] }     | vessel.code belongs to another record and cannot be written here.
                    """)
    void aFieldThatIsNoneIsToldWithItsOwner(String operation, String message) {
        assertThat(check(operation).errors())
                .first()
                .satisfies(error -> {
                    assertThat(error.message()).isEqualTo(message);
                    assertThat(error.file()).isEqualTo("m/services/desk.yaml");
                });
    }

    @Test
    void numbersBeginAnewWithEachSeries() {
        var numbering =
                check("read: { fields: all }").release().orElseThrow().object("Stay").numbering();
        var may = LocalDate.of(2026, 5, 31);

        assertThat(numbering.number(may, 42)).isEqualTo("ST-2026-05-0042");
        assertThat(numbering.number(may, 123456)).isEqualTo("ST-2026-05-123456");
        assertThat(numbering.series(may)).isNotEqualTo(numbering.series(may.plusDays(1)));
    }
}
