package sandpiper.server.odata;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.List;
import java.util.Map;
import org.junit.jupiter.api.Test;
import sandpiper.model.check.Definitions;
import sandpiper.model.release.Release;
import sandpiper.server.odata.metadata.Annotations;
import sandpiper.server.odata.metadata.CsdlJson;
import sandpiper.server.odata.metadata.ServiceModel;

/** Metadata in JSON say what those in XML say, in the form of CSDL JSON 4.01. */
class CsdlJsonTest {
    private static final Release RELEASE =
            Definitions.check(
                            Map.of(
                                    "yard/package.yaml",
                                            "package: yard\nversion: 1\nlanguages: [en, de]\n",
                                    "yard/objects/slot.yaml",
                                            """
                                            object: Slot
                                            key: [row, number]
                                            fields:
                                              row: { type: text, length: 4 }
                                              number: { type: integer }
                                              name: { type: text, localised: true, length: 20 }
                                              fee: { type: amount, currency: EUR }
                                              kind: { type: choice, choices: [wide, "q w"] }
                                              beside: { type: reference, to: Slot }
                                            parts:
                                              posts: { fields: { height: { type: decimal, scale: 1 } } }
                                            functions:
                                              free:
                                                parameters: { least: { type: integer, required: true } }
                                                returns: { type: integer }
                                                on: object
                                                external: true
                                                body: |
                                                  return least
                                              lift:
                                                on: record
                                                external: true
                                                body: |
                                                  set this.kind = "wide"
                                            """,
                                    "yard/services/desk.yaml",
                                            """
                                            service: desk
                                            version: 1
                                            protocols: [odata]
                                            functions: [Slot.free]
                                            resources:
                                              slots:
                                                object: Slot
                                                create: { fields: [all] }
                                                read: { fields: [all, beside.name] }
                                                calls: [lift]
                                              lots: { object: Slot, read: { fields: [row, number, beside.name] } }
                                            """))
                    .release()
                    .orElseThrow();

    private static final Map<String, Object> DOCUMENT =
            CsdlJson.of(
                    new ServiceModel(RELEASE, RELEASE.service("desk", 1).orElseThrow()),
                    Annotations.references("http://localhost"),
                    "4.01");

    private static Object at(String... path) {
        Object at = DOCUMENT;
        for (var step : path) {
            at =
                    at instanceof List<?> list
                            ? list.get(Integer.parseInt(step))
                            : ((Map<?, ?>) at).get(step);
        }
        return at;
    }

    @SuppressWarnings("unchecked") // members of JSON have names
    private static Map<String, Object> map(String... path) {
        return (Map<String, Object>) at(path);
    }

    @Test
    void theContainerIsNamedOnTop() {
        assertThat(at("$Version")).isEqualTo("4.01");
        assertThat(String.valueOf(at("$EntityContainer"))).startsWith("Desk.v1.");
        assertThat(at("$Reference").toString()).contains("Org.OData.Capabilities.V1");
    }

    @Test
    void aTypeHasItsKeyAndWhatMayBeEmpty() {
        assertThat(at("Desk.v1", "Slot", "$Kind")).isEqualTo("EntityType");
        assertThat(at("Desk.v1", "Slot", "$Key")).isEqualTo(List.of("row", "number"));
        assertThat(map("Desk.v1", "Slot", "row"))
                .doesNotContainKeys("$Type", "$Nullable")
                .containsEntry("$MaxLength", 4);
        assertThat(map("Desk.v1", "Slot", "fee"))
                .containsEntry("$Type", "Edm.Decimal")
                .containsEntry("$Nullable", true)
                .containsEntry("$Scale", 2);
        assertThat(at("Desk.v1", "Slot", "version", "$Type")).isEqualTo("Edm.Int64");
        assertThat(at("Desk.v1", "Slot", "version", "@Org.OData.Core.V1.Computed")).isEqualTo(true);
    }

    @Test
    void whatARecordLeadsToIsANavigation() {
        assertThat(map("Desk.v1", "Slot", "beside"))
                .containsEntry("$Kind", "NavigationProperty")
                .containsEntry("$Nullable", true)
                .doesNotContainKey("$Collection");
        assertThat(map("Desk.v1", "Slot", "posts"))
                .containsEntry("$Collection", true)
                .containsEntry("$ContainsTarget", true)
                .doesNotContainKey("$Nullable");
    }

    @Test
    void whatIsOnlyShownBehindAReferenceHasNoKey() {
        assertThat(at("Desk.v1", "Lot", "beside", "$Type")).isEqualTo("Desk.v1.LotBeside");
        assertThat(map("Desk.v1", "LotBeside"))
                .containsEntry("$Kind", "EntityType")
                .containsKey("name")
                .doesNotContainKey("$Key");
    }

    @Test
    void choicesAreAListOfRecords() {
        assertThat(at("Desk.v1", "Slot", "kind", "@Org.OData.Validation.V1.AllowedValues"))
                .asInstanceOf(org.assertj.core.api.InstanceOfAssertFactories.LIST)
                .hasSize(2)
                .first()
                .asString()
                .contains("Value=wide");
    }

    @Test
    void operationsStandInLists() {
        assertThat(at("Desk.v1", "free", "0", "$Kind")).isEqualTo("Function");
        assertThat(map("Desk.v1", "free", "0", "$Parameter", "0"))
                .containsEntry("$Name", "least")
                .containsEntry("$Type", "Edm.Int64")
                .doesNotContainKey("$Nullable");
        assertThat(at("Desk.v1", "lift", "0", "$IsBound")).isEqualTo(true);
    }

    @Test
    void theSetSaysWhatCanBeDone() {
        var container = String.valueOf(at("$EntityContainer")).substring("Desk.v1.".length());
        assertThat(map("Desk.v1", container, "slots"))
                .containsEntry("$Collection", true)
                .containsEntry("$Type", "Desk.v1.Slot")
                .doesNotContainKey("$Kind");
        assertThat(at("Desk.v1", container, "slots", "@Org.OData.Capabilities.V1.ReadRestrictions"))
                .hasToString("{Readable=false, ReadByKeyRestrictions={Readable=true}}");
        assertThat(
                        at(
                                        "Desk.v1",
                                        container,
                                        "slots",
                                        "@Org.OData.Capabilities.V1.NavigationRestrictions")
                                .toString())
                .contains("NavigationProperty=posts", "Insertable=false");
        assertThat(at("Desk.v1", container, "@Org.OData.Capabilities.V1.ConformanceLevel"))
                .isEqualTo("Minimal");
        assertThat(at("Desk.v1", container, "free", "$Function")).isEqualTo("Desk.v1.free");
    }
}
