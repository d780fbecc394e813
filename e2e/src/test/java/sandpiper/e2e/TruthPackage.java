package sandpiper.e2e;

import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Random;

/**
 * Packages made up at random: an object with a key of two fields, fields of any type, line items
 * and a reference to itself, functions with and without a record, and a service of all that there
 * is.
 */
final class TruthPackage {
    private static final List<String> TYPES =
            List.of(
                    "text, length: 12",
                    "text, length: 9, localised: true",
                    "text, multiline: true, length: 200",
                    "integer",
                    "decimal, scale: 2",
                    "percent, scale: 1",
                    "amount, currency: EUR",
                    "amount, currency: JPY",
                    "amount, currency: record",
                    "boolean",
                    "date",
                    "time",
                    "date-time",
                    "duration",
                    "choice, choices: [red, '+', 'q w']",
                    "uuid",
                    "email",
                    "web-address",
                    "file, accepts: [text/plain, image/*], largest: 900");

    private TruthPackage() {}

    /** The files of one, by their paths. */
    static Map<String, String> files(String name, Random random) {
        var fields = new StringBuilder();
        for (int i = 0; i < 12; i++) {
            var type = TYPES.get(random.nextInt(TYPES.size()));
            boolean required = random.nextInt(4) == 0;
            boolean standard = required && type.equals("integer");
            fields.append(
                    "  f%d: { type: %s%s%s }\n"
                            .formatted(
                                    i,
                                    type,
                                    required ? ", required: true" : "",
                                    standard ? ", default: 3" : ""));
        }
        var object =
                """
                object: %1$sSlot
                key: [row, number]
                fields:
                  row: { type: text, length: 8 }
                  number: { type: integer }
                  beside: { type: reference, to: %1$sSlot }
                %2$sparts:
                  posts:
                    fields:
                      height: { type: decimal, scale: 1, required: true, default: 1 }
                      note: { type: text, length: 20, localised: true }
                      slip: { type: file, largest: 900 }
                functions:
                  twice:
                    parameters: { n: { type: integer, required: true }, how: { type: choice, choices: [low, high] } }
                    returns: { type: integer }
                    on: object
                    external: true
                    body: |
                      return n * 2
                  lift:
                    parameters: { by: { type: decimal, scale: 1 } }
                    on: record
                    external: true
                    body: |
                      set this.beside = null
                """
                        .formatted(capital(name), fields);
        return Map.of(
                name + "/package.yaml",
                "package: %s\nversion: 1\nlanguages: [en, de]\n".formatted(name),
                name + "/objects/slot.yaml",
                object,
                name + "/services/desk.yaml",
                """
                service: %1$s
                version: 1
                protocols: [rest, soap, odata]
                functions: [%2$sSlot.twice]
                resources:
                  slots:
                    object: %2$sSlot
                    create: { fields: [all] }
                    update: { fields: [all] }
                    read: { fields: [all, beside.f0, beside.f1] }
                    query: { fields: [all], filter: [row, number, beside], sort: [number] }
                    remove: true
                    calls: [lift]
                """
                        .formatted(name, capital(name)));
    }

    private static String capital(String name) {
        return name.substring(0, 1).toUpperCase(Locale.ROOT) + name.substring(1);
    }
}
