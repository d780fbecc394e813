package sandpiper.bench.control;

import java.util.List;

/** The tables of the control and their indexes, as one would write them down for this service. */
public final class Tables {
    private Tables() {}

    /** Makes what is not there. */
    public static final List<String> STATEMENTS =
            List.of(
                    "create table if not exists owner (id integer primary key, code text unique,"
                            + " name text)",
                    "create table if not exists vessel (id integer primary key, registration text"
                            + " unique, name text, kind text, length integer, draught integer,"
                            + " shore_power integer, owner integer references owner)",
                    "create table if not exists pier (id integer primary key, code text unique,"
                            + " open integer)",
                    "create table if not exists berth (id integer primary key, code text unique,"
                            + " pier integer references pier, max_length integer, max_draught"
                            + " integer, powered integer, nightly_rate integer)",
                    "create table if not exists tariff (id integer primary key, code text unique,"
                            + " unit_price integer, vat integer, once_per_stay integer)",
                    "create table if not exists stay (id integer primary key, number text unique,"
                            + " public_id blob not null unique, version integer not null, vessel"
                            + " integer not null references vessel, berth integer not null"
                            + " references berth, state text not null, arrival integer not null,"
                            + " departure integer not null, nights integer, nightly_rate integer,"
                            + " approval_required integer, remarks text, net_total integer,"
                            + " vat_total integer, gross_total integer, created_at integer,"
                            + " created_by text, changed_at integer, changed_by text)",
                    "create index if not exists stay_vessel on stay (vessel)",
                    "create index if not exists stay_berth on stay (berth, state)",
                    "create index if not exists stay_arrival on stay (arrival)",
                    "create index if not exists stay_departure on stay (departure)",
                    "create table if not exists charge (stay integer references stay on delete"
                            + " cascade, line integer, tariff integer references tariff, quantity"
                            + " integer, unit_price integer, vat integer, net integer, gross"
                            + " integer, primary key (stay, line)) without rowid",
                    "create index if not exists charge_tariff on charge (tariff)",
                    "create table if not exists history (id integer primary key, stay integer, at"
                            + " integer, actor text, changes text)",
                    "create index if not exists history_stay on history (stay)",
                    "create table if not exists outbox (id integer primary key, at integer, name"
                            + " text, stay integer, data text)",
                    "create table if not exists series (name text primary key, last integer)"
                            + " without rowid");
}
