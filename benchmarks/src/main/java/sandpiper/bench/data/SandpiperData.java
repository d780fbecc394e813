package sandpiper.bench.data;

import java.nio.file.Path;
import java.sql.DriverManager;
import java.sql.SQLException;
import java.sql.Statement;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import sandpiper.client.ManageClient;
import sandpiper.demo.Demo;
import sandpiper.server.SandpiperServer;
import sandpiper.server.config.StartOptions;

/**
 * A data file of Sandpiper with the marina and many stays more: copies of the marina's, put into
 * the tables directly, since a million requests would take longer than everything that is measured.
 */
public final class SandpiperData {
    private SandpiperData() {}

    /** Makes the file with the marina. */
    public static void make(Path file) {
        try (var service = SandpiperServer.start(new StartOptions(file, 0, Demo.PASSWORD))) {
            var manage = new ManageClient(service.address(), Demo.ADMIN, Demo.PASSWORD);
            new Demo(manage, _ -> {}).load();
            openEverything(manage);
        }
    }

    /** The berth desk also speaks SOAP, and tells of each new stay, as the control does. */
    private static void openEverything(ManageClient manage) {
        for (var file : manage.get("/manage/v1/draft").path("files")) {
            var path = file.path("path").asString();
            if (path.endsWith("/berth-desk.yaml")) {
                var text =
                        file.path("text")
                                .asString()
                                .replace("[rest, odata]", "[rest, soap, odata]")
                                .replace("events: [", "events: [Stay.created, ");
                manage.put("/manage/v1/draft/file", Map.of("path", path, "text", text));
            }
        }
        manage.post("/manage/v1/releases", Map.of("note", "Measured"));
    }

    /** Puts more stays beside the marina's. */
    public static void multiply(Path file, int stays) throws SQLException {
        try (var connection = DriverManager.getConnection("jdbc:sqlite:" + file);
                var sql = connection.createStatement()) {
            sql.execute("pragma synchronous = off");
            sql.execute("begin");
            var fields = columns(sql, "Stay");
            fields.removeAll(List.of("_number", "_id", "number"));
            var quoted = quoted(fields);
            long first = number(sql, "select max(_number) from Stay");
            // Identifiers in the order of creation, as the service makes them (RFC 9562, version
            // 7).
            sql.execute(
                    """
                    insert into Stay (_number, _id, number, %1$s)
                    with recursive n(i) as (select 1 union all select i + 1 from n where i < %3$d)
                    select %2$d + i, unhex(printf('%%012X7%%03X8%%015X', 1700000000000 + i, i %% 4096, i)),
                      printf('ST-2025-%%07d', i), %1$s
                    from n join Stay on _number = 1 + i %% %2$d\
                    """
                            .formatted(quoted, first, stays));
            var ofItems = columns(sql, "Stay_charges");
            ofItems.remove("_owner");
            var items = quoted(ofItems);
            sql.execute(
                    """
                    insert into Stay_charges (_owner, %1$s)
                    with recursive n(i) as (select 1 union all select i + 1 from n where i < %3$d)
                    select %2$d + i, %1$s from n join Stay_charges on _owner = 1 + i %% %2$d\
                    """
                            .formatted(items, first, stays));
            sql.execute("commit");
            sql.execute("analyze");
        }
    }

    /** Gives a vessel many inspections, with the totals that follow. */
    public static void inspect(Path file, String registration, int count) throws SQLException {
        try (var connection = DriverManager.getConnection("jdbc:sqlite:" + file);
                var sql = connection.createStatement()) {
            sql.execute("begin");
            var fields = columns(sql, "CraftInspection");
            fields.removeAll(List.of("_number", "_id", "vessel", "minutes"));
            sql.execute(
                    """
                    insert into CraftInspection (_id, vessel, minutes, %1$s)
                    with recursive n(i) as (select 1 union all select i + 1 from n where i < %2$d)
                    select randomblob(16), (select _number from Vessel where registration = '%3$s'), 1, %1$s
                    from n, (select * from CraftInspection limit 1)\
                    """
                            .formatted(quoted(fields), count, registration));
            sql.execute(
                    """
                    update Vessel set inspectionMinutes = (select sum(minutes) from CraftInspection where vessel = Vessel._number),
                      lastInspection = (select max(inspectedOn) from CraftInspection where vessel = Vessel._number and passed)
                    where registration = '%s'\
                    """
                            .formatted(registration));
            sql.execute("commit");
        }
    }

    private static List<String> columns(Statement sql, String table) throws SQLException {
        var names = new ArrayList<String>();
        try (var rows = sql.executeQuery("select name from pragma_table_info('" + table + "')")) {
            while (rows.next()) {
                names.add(rows.getString(1));
            }
        }
        return names;
    }

    private static String quoted(List<String> names) {
        return String.join(", ", names.stream().map(name -> '"' + name + '"').toList());
    }

    private static long number(Statement sql, String query) throws SQLException {
        try (var rows = sql.executeQuery(query)) {
            rows.next();
            return rows.getLong(1);
        }
    }
}
