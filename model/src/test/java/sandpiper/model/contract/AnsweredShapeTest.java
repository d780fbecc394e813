package sandpiper.model.contract;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.List;
import java.util.Map;
import org.junit.jupiter.api.Test;
import sandpiper.model.check.Definitions;
import sandpiper.model.release.FieldPath;
import sandpiper.model.release.ResourceType.Operation;
import sandpiper.model.release.ServiceType;

class AnsweredShapeTest {
    private static ServiceType service(
            String fields, String itemFields, String shown, String returned) {
        var checked =
                Definitions.check(
                        Map.of(
                                "m/package.yaml",
                                "package: m\nversion: 1\n",
                                "m/objects/yard.yaml",
                                "object: Yard\n"
                                    + "key: code\n"
                                    + "fields: { code: { type: text }, name: { type: text } }\n",
                                "m/objects/slot.yaml",
                                """
                                object: Slot
                                key: [code, bay]
                                fields:
                                  code: { type: text }
                                  bay: { type: integer }
                                  yard: { type: reference, to: Yard }
                                  rent: { type: amount }
                                  next: { type: reference, to: Slot }
                                %s
                                parts:
                                  posts:
                                    fields:
                                      height: { type: integer }
                                %s
                                functions:
                                  quote:
                                    external: true
                                    returns: { type: context, fields: { total: amount%s } }
                                    body: |
                                      return { total: rent%s }
                                """
                                        .formatted(
                                                fields,
                                                itemFields,
                                                returned.isEmpty()
                                                        ? ""
                                                        : ", " + returned + ": text",
                                                returned.isEmpty()
                                                        ? ""
                                                        : ", " + returned + ": code"),
                                "m/services/desk.yaml",
                                """
                                service: desk
                                version: 1
                                resources:
                                  slots:
                                    object: Slot
                                    create: { fields: [code, bay, yard, rent] }
                                    update: { fields: [rent] }
                                    read: { fields: [%s] }
                                    query: { fields: [code, bay] }
                                    calls: [quote]
                                """
                                        .formatted(shown)));
        return checked.release()
                .orElseThrow(() -> new AssertionError(checked.errors()))
                .service("desk", 1)
                .orElseThrow();
    }

    private static final ServiceType BEFORE =
            service("", "", "code, bay, yard, rent, next, posts", "");
    private static final ServiceType AFTER =
            service(
                    "  tag: { type: text }",
                    "      note: { type: text }",
                    "code, bay, yard, yard.name, rent, next, next.code, tag, posts",
                    "words");

    private static List<String> paths(ServiceType service, Operation operation) {
        return service
                .resource("slots")
                .orElseThrow()
                .tree(operation)
                .orElseThrow()
                .paths()
                .stream()
                .map(FieldPath::written)
                .toList();
    }

    @Test
    void whatIsAddedIsTold() {
        var old = AnsweredShape.of(BEFORE);
        var now = AnsweredShape.of(AFTER);

        assertThat(now.besides(old, "slots"))
                .containsExactlyInAnyOrder("next.code", "posts.note", "tag", "yard.name");
        assertThat(now.besides(old)).contains("slots call quote words");
        assertThat(old.besides(now)).isEmpty();
        assertThat(now.resources()).containsExactly("slots");
    }

    @Test
    void aContractFromBeforeIsAnsweredAsItWas() {
        var narrowed = AnsweredShape.of(BEFORE).narrow(AFTER);

        assertThat(paths(narrowed, Operation.READ)).isEqualTo(paths(BEFORE, Operation.READ));
        assertThat(
                        narrowed.resource("slots")
                                .orElseThrow()
                                .tree(Operation.READ)
                                .orElseThrow()
                                .part("posts")
                                .orElseThrow()
                                .paths())
                .extracting(FieldPath::written)
                .containsExactly("height");
        assertThat(AnsweredShape.of(narrowed).besides(AnsweredShape.of(BEFORE)))
                .containsExactly("slots call quote words");
    }

    @Test
    void whatIsAsItIsNowStays() {
        assertThat(paths(AnsweredShape.of(AFTER).narrow(AFTER), Operation.READ))
                .isEqualTo(paths(AFTER, Operation.READ));
    }

    /** Something that was withdrawn does not come back with an old contract. */
    @Test
    void whatIsNoLongerThereIsNotInvented() {
        assertThat(paths(AnsweredShape.of(AFTER).narrow(BEFORE), Operation.READ))
                .isEqualTo(paths(BEFORE, Operation.READ));
    }

    @Test
    void anOperationThatWasNotOfferedThenIsAnsweredInFull() {
        var without =
                new AnsweredShape(
                        new java.util.HashSet<>(
                                AnsweredShape.of(BEFORE).places().stream()
                                        .filter(place -> !place.startsWith("slots query"))
                                        .toList()));

        assertThat(paths(without.narrow(AFTER), Operation.QUERY))
                .isEqualTo(paths(AFTER, Operation.QUERY));
    }

    @Test
    void whatAFunctionGivesBackHasNoMoreThanItHad() {
        var money = Map.of("value", "12.00", "currency", "EUR");
        var given = Map.of("total", money, "words", "K1");

        assertThat(AnsweredShape.of(BEFORE).narrow("slots", "quote", given))
                .isEqualTo(Map.of("total", money));
        assertThat(AnsweredShape.of(AFTER).narrow("slots", "quote", given)).isEqualTo(given);
        assertThat(AnsweredShape.of(BEFORE).narrow("slots", "added-later", given)).isEqualTo(given);
        assertThat(AnsweredShape.of(BEFORE).narrow("slots", "quote", null)).isNull();
    }
}
