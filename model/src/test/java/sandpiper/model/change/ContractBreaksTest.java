package sandpiper.model.change;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.List;
import java.util.Map;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import sandpiper.model.check.Definitions;
import sandpiper.model.release.Release;

class ContractBreaksTest {
    private static final String OBJECT =
            """
            object: Berth
            key: code
            fields:
              code: { type: text, length: 8, required: true }
              rate: { type: decimal, scale: 2 }
              kind: { type: choice, choices: [fixed, guest] }
              pier: { type: reference, to: Pier }
              remarks: { type: text, length: 100 }
            parts:
              works:
                fields:
                  what: { type: text }
                  cost: { type: decimal }
            """;
    private static final String PIER =
            """
            object: Pier
            key: code
            fields:
              code: { type: text, length: 8, required: true }
              name: { type: text }
            """;
    private static final String SERVICE =
            """
            service: desk
            version: 1
            protocols: [rest, odata]
            resources:
              berths:
                object: Berth
                create: { fields: [code, rate, kind, remarks, works(what, cost)] }
                read: { fields: [code, rate, kind, pier, works(what, cost)] }
                update: { fields: [rate, remarks] }
                query: { fields: [code, rate], filter: [code, rate], sort: [code] }
                remove: true
            """;

    private static Release release(String object, String service) {
        var checked =
                Definitions.check(
                        Map.of(
                                "m/package.yaml",
                                "package: m\nversion: 1\n",
                                "m/objects/berth.yaml",
                                object,
                                "m/objects/pier.yaml",
                                PIER,
                                "m/services/desk.yaml",
                                service));
        return checked.release().orElseThrow(() -> new AssertionError(checked.errors().toString()));
    }

    private static List<String> breaks(String object, String service) {
        return ContractBreaks.between(release(OBJECT, SERVICE), release(object, service)).stream()
                .map(ContractBreak::sentence)
                .toList();
    }

    @ParameterizedTest
    @CsvSource(
            delimiter = '|',
            value = {
                "rate, kind, pier, works(what, cost)] | rate, pier, works(what, cost)] | desk v1,"
                        + " berths read: no longer shows kind.",
                "pier, works(what, cost)] | pier, works(what)] | desk v1, berths read: no longer"
                        + " shows works.cost.",
                "pier, works(what, cost)] | pier] | desk v1, berths read: no longer shows works.",
                "kind, pier, works | kind, pier, pier.name, works | desk v1, berths read: pier"
                        + " becomes an object, because fields behind it are shown.",
                "[rate, remarks] | [rate] | desk v1, berths update: no longer takes remarks.",
                "filter: [code, rate] | filter: [code] | desk v1, berths query: can no longer be"
                        + " filtered by rate.",
                "sort: [code] | sort: [rate] | desk v1, berths query: can no longer be sorted by"
                        + " code.",
                "remove: true | remove: false | desk v1, berths remove: is no longer offered.",
                "object: Berth | object: Berth\\n"
                    + "    where: rate > 3 | desk v1, berths: shows only records for which rate >"
                    + " 3.",
                "[rest, odata] | [rest] | desk v1: no longer speaks ODATA.",
                "berths: | places: | desk v1, berths: the resource is gone.",
                "version: 1 | version: 2 | desk v1: the service is gone.",
            })
    void whatAServiceTakesAwayIsTold(String before, String after, String told) {
        assertThat(breaks(OBJECT, SERVICE.replace(before, after.replace("\\n", "\n"))))
                .containsExactly(told);
    }

    @ParameterizedTest
    @CsvSource(
            delimiter = '|',
            value = {
                "length: 100 | length: 50 | desk v1, berths create: remarks takes 50 characters"
                        + " instead of 100.",
                "decimal, scale: 2 | decimal, scale: 1 | desk v1, berths create: rate takes 1"
                        + " decimal place instead of 2.",
                "[fixed, guest] | [fixed] | desk v1, berths create: kind no longer takes guest.",
                "decimal, scale: 2 | text | desk v1, berths read: rate is text instead of decimal.",
                "scale: 2 } | scale: 2, required: true } | desk v1, berths create: needs rate from"
                        + " now on.",
                "what: { type: text } | what: { type: text, required: true } | desk v1, berths"
                        + " create: needs works.what from now on.",
            })
    void whatAnObjectTakesAwayIsTold(String before, String after, String told) {
        assertThat(breaks(OBJECT.replace(before, after), SERVICE)).contains(told);
    }

    @Test
    void aRenamedFieldIsToldByItsNewName() {
        var object = OBJECT.replace("rate: {", "price: { was: rate,");

        assertThat(breaks(object, SERVICE.replace("rate", "price")))
                .contains("desk v1, berths read: no longer shows rate, which is called price now.");
    }

    @Test
    void whatIsAddedBreaksNobody() {
        var object =
                OBJECT.replace("length: 100", "length: 200")
                        .replace("[fixed, guest]", "[fixed, guest, dry]")
                        .replace("  remarks:", "  depth: { type: decimal }\n  remarks:");
        var service =
                SERVICE.replace("[rest, odata]", "[rest, odata, soap]")
                        .replace("[code, rate, kind, pier", "[code, rate, depth, kind, pier")
                        .replace("[code, rate, kind, remarks", "[code, rate, depth, kind, remarks");

        assertThat(breaks(object, service)).isEmpty();
    }
}
