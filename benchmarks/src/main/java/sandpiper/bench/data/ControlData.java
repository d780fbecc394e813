package sandpiper.bench.data;

import java.math.BigDecimal;
import java.nio.file.Path;
import java.sql.Connection;
import java.sql.DriverManager;
import java.sql.SQLException;
import java.time.LocalDate;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import org.jspecify.annotations.Nullable;
import sandpiper.bench.control.Tables;
import sandpiper.demo.DemoData;

/** A data file of the service written by hand, with the same records as Sandpiper's. */
public final class ControlData {
    private final Connection connection;

    private ControlData(Connection connection) {
        this.connection = connection;
    }

    /** Makes the file with the marina and some stays besides. */
    public static void make(Path file, int stays) throws SQLException {
        try (var connection = DriverManager.getConnection("jdbc:sqlite:" + file)) {
            var data = new ControlData(connection);
            data.run("pragma journal_mode = wal");
            data.run("pragma synchronous = off");
            for (var table : Tables.STATEMENTS) {
                data.run(table);
            }
            data.run("begin");
            data.load(DemoData.records());
            if (stays > 0) {
                data.multiply(stays);
            }
            data.run("commit");
            data.run("analyze");
        }
    }

    private void run(String sql, @Nullable Object... values) throws SQLException {
        try (var statement = connection.prepareStatement(sql)) {
            for (int i = 0; i < values.length; i++) {
                statement.setObject(i + 1, values[i]);
            }
            statement.execute();
        }
    }

    private static List<Map<String, Object>> of(
            Map<String, List<Map<String, Object>>> records, String object) {
        return Objects.requireNonNull(records.get(object));
    }

    private static long hundredths(Map<String, Object> record, String field) {
        var value = record.get(field);
        return value == null
                ? 0
                : new BigDecimal(value.toString()).movePointRight(2).longValueExact();
    }

    private static int flag(Map<String, Object> record, String field) {
        return Boolean.TRUE.equals(record.get(field)) ? 1 : 0;
    }

    private void load(Map<String, List<Map<String, Object>>> records) throws SQLException {
        for (var owner : of(records, "Owner")) {
            run(
                    "insert into owner (code, name) values (?, ?)",
                    owner.get("code"),
                    owner.get("name"));
        }
        for (var vessel : of(records, "Vessel")) {
            run(
                    "insert into vessel (registration, name, kind, length, draught, shore_power,"
                            + " owner) select ?, ?, ?, ?, ?, ?, id from owner where code = ?",
                    vessel.get("registration"),
                    vessel.get("name"),
                    vessel.get("kind"),
                    hundredths(vessel, "length"),
                    hundredths(vessel, "draught"),
                    vessel.get("shorePower"),
                    vessel.get("owner"));
        }
        for (var pier : of(records, "Pier")) {
            run(
                    "insert into pier (code, open) values (?, ?)",
                    pier.get("code"),
                    flag(pier, "open"));
        }
        for (var berth : of(records, "Berth")) {
            run(
                    "insert into berth (code, pier, max_length, max_draught, powered,"
                            + " nightly_rate) select ?, id, ?, ?, ?, ? from pier where code = ?",
                    berth.get("code"),
                    hundredths(berth, "maxLength"),
                    hundredths(berth, "maxDraught"),
                    flag(berth, "powered"),
                    hundredths(berth, "nightlyRate"),
                    berth.get("pier"));
        }
        for (var tariff : of(records, "Tariff")) {
            run(
                    "insert into tariff (code, unit_price, vat, once_per_stay) values (?, ?, ?,"
                            + " ?)",
                    tariff.get("code"),
                    hundredths(tariff, "unitPrice"),
                    hundredths(tariff, "vat") / 100,
                    flag(tariff, "oncePerStay"));
        }
        stays(of(records, "Stay"));
        run("insert into series (name, last) values ('2026', (select count(*) from stay))");
    }

    private void stays(List<Map<String, Object>> stays) throws SQLException {
        for (var stay : stays) {
            long arrival = day(stay, "arrival");
            long nights = day(stay, "departure") - arrival;
            run(
                    "insert into stay (number, public_id, version, vessel, berth, state, arrival,"
                        + " departure, nights, nightly_rate, approval_required, remarks, net_total,"
                        + " vat_total, gross_total, created_at, created_by, changed_at, changed_by)"
                        + " select ?, randomblob(16), 1, vessel.id, berth.id, ?, ?, ?, ?,"
                        + " nightly_rate, ? > 14, '', nightly_rate * ?, 0, nightly_rate * ?, 0,"
                        + " 'import', 0, 'import' from vessel, berth where registration = ? and"
                        + " code = ?",
                    stay.get("number"),
                    stay.get("state"),
                    arrival,
                    arrival + nights,
                    nights,
                    nights,
                    nights,
                    nights,
                    stay.get("vessel"),
                    stay.get("berth"));
            int line = 0;
            for (var charge : (List<?>) Objects.requireNonNull(stay.get("charges"))) {
                var values = (Map<?, ?>) charge;
                run(
                        "insert into charge (stay, line, tariff, quantity, unit_price, vat, net,"
                            + " gross) select last, ?, id, ? * 100, unit_price, vat, unit_price *"
                            + " ?, unit_price * ? * (100 + vat) / 100 from tariff, (select max(id)"
                            + " as last from stay) where code = ?",
                        ++line,
                        values.get("quantity"),
                        values.get("quantity"),
                        values.get("quantity"),
                        values.get("tariff"));
            }
        }
    }

    private static long day(Map<String, Object> stay, String field) {
        return LocalDate.parse(String.valueOf(stay.get(field))).toEpochDay();
    }

    private void multiply(int stays) throws SQLException {
        run(
                """
                insert into stay
                with recursive n(i) as (select 1 union all select i + 1 from n where i < ?), m(first) as (select max(id) from stay)
                select first + i, printf('ST-2025-%07d', i), unhex(printf('%012X7%03X8%015X', 1700000000000 + i, i % 4096, i)), version, vessel,
                  berth, state, arrival, departure, nights, nightly_rate, approval_required, remarks, net_total, vat_total, gross_total,
                  created_at, created_by, changed_at, changed_by
                from n, m join stay on stay.id = 1 + i % first\
                """,
                stays);
        run(
                """
                insert into charge
                with recursive n(i) as (select 1 union all select i + 1 from n where i < ?),
                  m(first) as (select max(id) from stay where number like 'ST-2026-%')
                select first + i, line, tariff, quantity, unit_price, vat, net, gross
                from n, m join charge on charge.stay = 1 + i % first\
                """,
                stays);
    }
}
