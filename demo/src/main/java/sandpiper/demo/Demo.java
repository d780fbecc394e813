package sandpiper.demo;

import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.function.Consumer;
import sandpiper.client.ManageClient;

/** Brings the marina into an instance that has no release yet. */
public final class Demo {
    /** The first user of a demo instance, who has every duty. */
    public static final String ADMIN = "admin";

    /** Only for trying: a demo instance answers on the loopback address alone. */
    public static final String PASSWORD = "gullhaven";

    /** The booking site's secret, likewise. */
    public static final String BOOKING_SECRET = "berths-for-all";

    private static final String BOOKKEEPING = "bookkeeping";
    private static final String TIDE_TABLE = "tide-table";
    private static final int BATCH = 200;

    private final ManageClient client;
    private final Consumer<String> progress;

    /** Works through a client that has every duty; {@code progress} is told each step. */
    public Demo(ManageClient client, Consumer<String> progress) {
        this.client = client;
        this.progress = progress;
    }

    /** Whether the instance has a release, and so is not ours to fill. */
    public boolean isThere() {
        return client.get("/manage/v1/status").path("release").asInt() > 0;
    }

    /** Pushes the packages, releases them, loads the records and makes the sign-ins. */
    public void load() {
        progress.accept("packages harbour and gullhaven");
        client.post("/manage/v1/draft/push", Map.of("files", DemoPackages.files()));
        client.post("/manage/v1/releases", Map.of("note", "The marina as delivered"));
        DemoData.records().forEach(this::loadRecords);
        progress.accept("sign-ins");
        DemoRoles.all().forEach((name, role) -> client.put("/manage/v1/roles/" + name, role));
        user("consultant", "Wenke Quell");
        user("dock-master", "Ragna Tallow");
        user("clerk", "Jorrit Ebbing");
        user("auditor", "Imke Lorch");
        clientOf("booking-site", "Booking site", BOOKING_SECRET, "berth-desk/*/*");
        clientOf(
                "port-authority",
                "Port authority",
                "tide-tables-2026",
                "harbour-report/*/*",
                "vessel-registry/*/read",
                "vessel-registry/*/query");
        clientOf("yard-tablet", "Tablets in the boatyard", "sandpaper-and-varnish", "yard/*/*");
        clientOf(
                "bookkeeping",
                "Bookkeeping",
                "ledger-and-lantern",
                "berth-desk/stays/read where state = \"Departed\"",
                "berth-desk/stays/query where state = \"Departed\"",
                "vessel-registry/owners/read",
                "vessel-registry/owners/query");
    }

    /**
     * Lets the made-up bookkeeping system hear of stays and invoices. Its secret is made anew each
     * time, since nobody keeps it.
     */
    public void connect(Bookkeeping bookkeeping) {
        var known = client.get("/manage/v1/webhooks");
        boolean isThere = false;
        for (var one : known) {
            isThere |= one.path("name").asString().equals(BOOKKEEPING);
        }
        if (isThere) {
            client.patch(
                    "/manage/v1/webhooks/" + BOOKKEEPING,
                    Map.of("address", bookkeeping.address()),
                    null);
            bookkeeping.trust(
                    client.post(
                                    "/manage/v1/webhooks/" + BOOKKEEPING + "/rotate",
                                    Map.of("overlapHours", 0))
                            .path("secret")
                            .asString());
        } else {
            bookkeeping.trust(
                    client.post(
                                    "/manage/v1/webhooks",
                                    Map.of(
                                            "name",
                                            BOOKKEEPING,
                                            "label",
                                            "Bookkeeping",
                                            "address",
                                            bookkeeping.address(),
                                            "events",
                                            List.of("StayEnded", "InvoiceIssued")))
                            .path("secret")
                            .asString());
        }
    }

    /** Tells the instance where the made-up tide table answers. */
    public void connect(TideTable tides) {
        client.put(
                "/manage/v1/connections/reaches/" + TIDE_TABLE,
                Map.of("address", tides.address(), "scheme", "bearer", "secret", TideTable.TOKEN));
    }

    private void loadRecords(String object, List<Map<String, Object>> records) {
        progress.accept("%d of %s".formatted(records.size(), object));
        for (int start = 0; start < records.size(); start += BATCH) {
            var items = records.subList(start, Math.min(start + BATCH, records.size()));
            var answer =
                    client.post(
                            "/manage/v1/records/" + object + "/batch",
                            Map.of("items", items, "whole", true));
            var refused = new ArrayList<String>();
            answer.path("results")
                    .forEach(result -> {
                        if (result.has("problem")) {
                            refused.add(result.path("problem").toString());
                        }
                    });
            if (!refused.isEmpty()) {
                throw new IllegalStateException(
                        "%s: %d refused, such as %s"
                                .formatted(object, refused.size(), refused.getFirst()));
            }
        }
    }

    /** A user with the role of the same name. */
    private void user(String name, String label) {
        client.post(
                "/manage/v1/users",
                Map.of("name", name, "label", label, "password", PASSWORD, "roles", List.of(name)));
    }

    private void clientOf(String name, String label, String secret, String... grants) {
        client.post(
                "/manage/v1/clients",
                Map.of("name", name, "label", label, "secret", secret, "grants", List.of(grants)));
    }
}
