package sandpiper.demo;

import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;

/** Who does what in the marina, besides the role that its package brings. */
final class DemoRoles {
    private DemoRoles() {}

    /** Each role by its name, as the manage API takes it. */
    static Map<String, Map<String, Object>> all() {
        var roles = new LinkedHashMap<String, Map<String, Object>>();
        roles.put(
                "consultant",
                Map.of(
                        "label",
                        "Consultant",
                        "describe",
                        "Builds and releases, and looks after who may do what.",
                        "duties",
                        List.of("DESIGN", "RELEASE", "RECORDS", "ACCESS", "AUDIT", "OPERATE")));
        roles.put(
                "clerk",
                Map.of(
                        "label",
                        "Clerk",
                        "describe",
                        "Enters owners, vessels and stays, and writes invoices.",
                        "objects",
                        List.of(
                                grant("*", List.of("VIEW")),
                                grant("Owner", List.of("VIEW", "CREATE", "EDIT")),
                                grant("Vessel", List.of("VIEW", "CREATE", "EDIT")),
                                with(
                                        grant("Stay", List.of("VIEW", "CREATE", "EDIT", "RETIRE")),
                                        "readOnly",
                                        List.of("nightlyRate", "approvedBy")),
                                grant("Invoice", List.of("VIEW", "CREATE", "EDIT")),
                                grant("WorkRequest", List.of("VIEW", "CREATE")))));
        roles.put(
                "auditor",
                Map.of(
                        "label",
                        "Auditor",
                        "describe",
                        "Sees what was charged and who changed it; no addresses of people.",
                        "duties",
                        List.of("AUDIT"),
                        "objects",
                        List.of(
                                grant("Pier", List.of("VIEW")),
                                grant("Berth", List.of("VIEW")),
                                grant("Tariff", List.of("VIEW")),
                                grant("Vessel", List.of("VIEW")),
                                with(
                                        grant("Owner", List.of("VIEW")),
                                        "hidden",
                                        List.of("email", "phone")),
                                with(
                                        grant("Stay", List.of("VIEW")),
                                        "where",
                                        "state = \"Departed\""),
                                grant("Invoice", List.of("VIEW")))));
        return roles;
    }

    private static Map<String, Object> grant(String object, List<String> actions) {
        return Map.of("object", object, "actions", actions);
    }

    private static Map<String, Object> with(Map<String, Object> grant, String key, Object value) {
        var more = new LinkedHashMap<>(grant);
        more.put(key, value);
        return more;
    }
}
