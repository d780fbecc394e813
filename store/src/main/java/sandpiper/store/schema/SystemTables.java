package sandpiper.store.schema;

import java.util.List;
import sandpiper.engine.port.StorageException;
import sandpiper.store.sql.SqlSession;

/**
 * The service's own tables. Each step brings a file from one version to the next; a step is never
 * changed once it was delivered.
 */
public final class SystemTables {
    private static final List<List<String>> STEPS =
            List.of(
                    List.of(
                            """
                            create table sandpiper_draft (
                              path text primary key,
                              content text not null,
                              changed_at integer not null,
                              changed_by text not null
                            ) without rowid\
                            """,
                            """
                            create table sandpiper_release (
                              number integer primary key,
                              released_at integer not null,
                              released_by text not null,
                              note text not null,
                              changes text not null
                            )\
                            """,
                            """
                            create table sandpiper_release_file (
                              release integer not null references sandpiper_release,
                              path text not null,
                              content text not null,
                              primary key (release, path)
                            ) without rowid\
                            """,
                            """
                            create table sandpiper_history (
                              number integer primary key,
                              object text not null,
                              record blob not null,
                              version integer not null,
                              at integer not null,
                              actor text not null,
                              via text not null,
                              operation text not null,
                              changes text not null
                            )\
                            """,
                            "create index sandpiper_history_record on sandpiper_history (record)",
                            """
                            create table sandpiper_answer (
                              actor text not null,
                              key text not null,
                              fingerprint text not null,
                              content text not null,
                              at integer not null,
                              primary key (actor, key)
                            ) without rowid\
                            """,
                            "create index sandpiper_answer_at on sandpiper_answer (at)",
                            """
                            create table sandpiper_series (
                              object text not null,
                              series text not null,
                              last integer not null,
                              primary key (object, series)
                            ) without rowid\
                            """,
                            """
                            create table sandpiper_user (
                              name text primary key,
                              label text not null,
                              password_hash text not null,
                              duties text not null
                            ) without rowid\
                            """,
                            """
                            create table sandpiper_client (
                              name text primary key,
                              label text not null,
                              secret_hash text not null,
                              grants text not null,
                              created_at integer not null,
                              last_used integer
                            ) without rowid\
                            """,
                            """
                            create table sandpiper_setting (
                              name text primary key,
                              value text not null
                            ) without rowid\
                            """),
                    List.of(
                            """
                            create table sandpiper_trace (
                              number integer primary key,
                              id blob not null unique,
                              at integer not null,
                              actor text not null,
                              via text not null,
                              what text not null,
                              outcome text not null
                            )\
                            """,
                            """
                            create table sandpiper_trace_step (
                              trace integer not null references sandpiper_trace on delete cascade,
                              number integer not null,
                              depth integer not null,
                              kind text not null,
                              title text not null,
                              detail text not null,
                              result text not null,
                              micros integer not null,
                              primary key (trace, number)
                            ) without rowid\
                            """),
                    List.of(
                            "alter table sandpiper_client add column previous_hash text",
                            "alter table sandpiper_client add column previous_until integer",
                            "alter table sandpiper_client add column disabled integer not null"
                                    + " default 0"),
                    List.of(
                            "alter table sandpiper_user add column roles text not null default ''",
                            "alter table sandpiper_user add column disabled integer not null"
                                    + " default 0",
                            """
                            create table sandpiper_role (
                              name text primary key,
                              label text not null,
                              describe text not null,
                              duties text not null,
                              services text not null
                            ) without rowid\
                            """,
                            """
                            create table sandpiper_role_object (
                              role text not null references sandpiper_role on delete cascade,
                              number integer not null,
                              object text not null,
                              actions text not null,
                              condition text not null,
                              hidden text not null,
                              read_only text not null,
                              primary key (role, number)
                            ) without rowid\
                            """,
                            """
                            create table sandpiper_access_entry (
                              number integer primary key,
                              at integer not null,
                              actor text not null,
                              what text not null,
                              subject text not null,
                              detail text not null
                            )\
                            """,
                            """
                            create table sandpiper_traffic (
                              day integer not null,
                              service text not null,
                              version integer not null,
                              resource text not null,
                              operation text not null,
                              protocol text not null,
                              caller text not null,
                              calls integer not null,
                              errors integer not null,
                              micros integer not null,
                              slowest integer not null,
                              last integer not null,
                              primary key (day, service, version, resource, operation, protocol, caller)
                            ) without rowid\
                            """,
                            """
                            create table sandpiper_failed_request (
                              number integer primary key,
                              at integer not null,
                              service text not null,
                              version integer not null,
                              resource text not null,
                              operation text not null,
                              protocol text not null,
                              caller text not null,
                              status integer not null,
                              message text not null,
                              trace text not null
                            )\
                            """),
                    List.of(
                            "alter table sandpiper_client add column sealed text",
                            "alter table sandpiper_client add column previous_sealed text",
                            "alter table sandpiper_client add column calls_per_minute integer not"
                                    + " null default 0"),
                    List.of(
                            """
                            create table sandpiper_event (
                              number integer primary key autoincrement,
                              id blob not null,
                              name text not null,
                              kind text not null,
                              unit blob not null,
                              object text,
                              record blob,
                              key text,
                              at integer not null,
                              actor text not null,
                              via text not null,
                              depth integer not null,
                              data text not null
                            )\
                            """,
                            """
                            create table sandpiper_event_position (
                              reader text primary key,
                              number integer not null
                            ) without rowid\
                            """,
                            """
                            create table sandpiper_delivery (
                              number integer primary key,
                              event integer not null references sandpiper_event,
                              kind text not null,
                              target text not null,
                              record blob,
                              state text not null,
                              tries integer not null,
                              due integer not null,
                              done_at integer,
                              said text not null,
                              trace blob
                            )\
                            """,
                            "create index sandpiper_delivery_due on sandpiper_delivery (state,"
                                    + " kind, due)",
                            "create index sandpiper_delivery_event on sandpiper_delivery (event)",
                            "create index sandpiper_delivery_record on sandpiper_delivery (state,"
                                    + " target, record, event)",
                            """
                            create table sandpiper_delivery_try (
                              number integer primary key,
                              delivery integer not null references sandpiper_delivery on delete
                                cascade,
                              at integer not null,
                              millis integer not null,
                              status integer not null,
                              request text not null,
                              answer text not null,
                              said text not null
                            )\
                            """,
                            "create index sandpiper_delivery_try_of on sandpiper_delivery_try"
                                    + " (delivery)",
                            """
                            create table sandpiper_webhook (
                              name text primary key,
                              label text not null,
                              address text not null,
                              events text not null,
                              filter text,
                              secret text not null,
                              previous_secret text,
                              previous_until integer,
                              disabled integer not null
                            ) without rowid\
                            """,
                            """
                            create table sandpiper_schedule (
                              name text primary key,
                              ran_for integer not null,
                              running integer,
                              after integer not null
                            ) without rowid\
                            """,
                            """
                            create table sandpiper_run (
                              number integer primary key,
                              at integer not null,
                              kind text not null,
                              name text not null,
                              object text not null,
                              key text not null,
                              outcome text not null,
                              said text not null,
                              micros integer not null,
                              actor text not null,
                              via text not null,
                              trace blob
                            )\
                            """),
                    List.of(
                            """
                            create table sandpiper_recomputation (
                              formula text primary key,
                              reached integer not null
                            ) without rowid\
                            """),
                    List.of(
                            "alter table sandpiper_answer add column rights text not null default"
                                    + " ''",
                            "alter table sandpiper_user add column temporary integer not null"
                                    + " default 0"),
                    List.of(
                            """
                            create table sandpiper_draft_version (
                              number integer primary key,
                              path text not null,
                              content text not null,
                              changed_at integer not null,
                              changed_by text not null,
                              kept_at integer not null
                            )\
                            """,
                            "create index sandpiper_draft_version_path on sandpiper_draft_version"
                                    + " (path)"),
                    List.of(
                            """
                            create table sandpiper_view (
                              object text not null,
                              owner text not null,
                              name text not null,
                              filter text,
                              search text,
                              sort text,
                              retired text,
                              columns text not null,
                              chart text not null,
                              primary key (object, owner, name)
                            ) without rowid\
                            """),
                    List.of(
                            """
                            create table sandpiper_contract_revision (
                              service text not null,
                              version integer not null,
                              number integer not null,
                              places text not null,
                              ended_at integer,
                              ended_by text,
                              primary key (service, version, number)
                            ) without rowid\
                            """,
                            "alter table sandpiper_traffic rename to sandpiper_traffic_before",
                            """
                            create table sandpiper_traffic (
                              day integer not null,
                              service text not null,
                              version integer not null,
                              revision integer not null,
                              resource text not null,
                              operation text not null,
                              protocol text not null,
                              caller text not null,
                              calls integer not null,
                              errors integer not null,
                              micros integer not null,
                              slowest integer not null,
                              last integer not null,
                              primary key (day, service, version, revision, resource, operation, protocol, caller)
                            ) without rowid\
                            """,
                            """
                            insert into sandpiper_traffic
                            select day, service, version, 0, resource, operation, protocol, caller,
                              calls, errors, micros, slowest, last
                            from sandpiper_traffic_before\
                            """,
                            "drop table sandpiper_traffic_before"),
                    List.of(
                            """
                            create table sandpiper_kept (
                              number integer primary key autoincrement,
                              kept_at integer not null,
                              release integer not null,
                              object text not null,
                              part text,
                              field text,
                              object_now text not null,
                              part_now text,
                              field_now text,
                              rows integer not null
                            )\
                            """,
                            """
                            create table sandpiper_package_origin (
                              package text not null,
                              content text not null,
                              version text not null,
                              manifest text not null,
                              signer text,
                              unpacked_at integer not null,
                              unpacked_by text not null,
                              primary key (package, content)
                            ) without rowid\
                            """),
                    List.of("alter table sandpiper_role add column package text"),
                    List.of(
                            """
                            create table sandpiper_reach (
                              setting text primary key,
                              address text not null,
                              scheme text not null,
                              user text not null,
                              secret text,
                              token_address text not null,
                              scope text not null,
                              changed_at integer not null,
                              changed_by text not null
                            ) without rowid\
                            """,
                            """
                            create table sandpiper_outside_answer (
                              connection text not null,
                              key text not null,
                              content text not null,
                              until integer not null,
                              primary key (connection, key)
                            ) without rowid\
                            """,
                            "create index sandpiper_outside_answer_until"
                                    + " on sandpiper_outside_answer (until)"),
                    List.of(
                            """
                            create table sandpiper_file (
                              sha256 text primary key,
                              content blob not null
                            )\
                            """));

    private SystemTables() {}

    /** The format this version of the service writes. */
    public static int newest() {
        return STEPS.size();
    }

    /** Brings the file up to this version of the service. */
    public static void prepare(SqlSession session) {
        prepare(session, newest());
    }

    /** Brings the file up to a format. */
    static void prepare(SqlSession session, int format) {
        long version = session.number("pragma user_version");
        if (version > STEPS.size()) {
            throw new StorageException(
                    "The data file was written by a newer version of the service (format %d, this one knows %d)."
                            .formatted(version, STEPS.size()),
                    new IllegalStateException());
        }
        for (int i = (int) version; i < format; i++) {
            STEPS.get(i).forEach(session::runOnce);
        }
        session.runOnce("pragma user_version = " + format);
    }
}
