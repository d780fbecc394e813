package sandpiper.store.move;

import java.util.EnumMap;
import java.util.List;
import java.util.Map;
import java.util.regex.Pattern;
import java.util.stream.Collectors;
import org.jooq.impl.DSL;
import org.slf4j.Logger;
import org.slf4j.LoggerFactory;
import sandpiper.engine.port.Session;
import sandpiper.engine.port.Storage;
import sandpiper.engine.port.StorageException;
import sandpiper.engine.rehearsal.Copies;
import sandpiper.engine.rehearsal.RehearsalException;
import sandpiper.model.check.Definitions;
import sandpiper.model.release.Release;
import sandpiper.store.PostgresStorage;
import sandpiper.store.postgres.PostgresSettings;
import sandpiper.store.schema.SchemaChanger;
import sandpiper.store.sql.SqlSession;
import sandpiper.store.sql.Statement;
import sandpiper.store.system.ReleaseFence;

/**
 * Copies in schemas beside that of the live data, made by the database itself: nothing is read here
 * and written back. Their names begin with that of the live schema and end with the process that
 * made them, so that what a process left that was killed is found by those that go on.
 */
public final class SchemaCopies implements Copies {
    private static final Logger LOG = LoggerFactory.getLogger(SchemaCopies.class);
    private static final Pattern OTHER_SCHEMA = Pattern.compile("([?&])currentSchema=[^&]*&?");
    private static final Statement SCHEMA = Statement.written("select current_schema()");
    private static final Statement SIZE =
            Statement.written(
                    "select coalesce(sum(pg_total_relation_size(c.oid)), 0) from pg_class c join"
                            + " pg_namespace n on n.oid = c.relnamespace where n.nspname ="
                            + " current_schema() and c.relkind = 'r'");
    private static final Statement LIKE =
            Statement.written(
                    "select schema_name from information_schema.schemata where"
                            + " strpos(schema_name, ?) = 1");

    private final Storage live;
    private final PostgresSettings settings;
    private final long largest;
    private final String schema;
    private final Map<Which, String> names = new EnumMap<>(Which.class);

    /**
     * Makes none yet.
     *
     * @param live the data that is copied, as {@code settings} reach it
     * @param largest bytes of data, with its indexes, that may be copied
     */
    public SchemaCopies(Storage live, PostgresSettings settings, long largest) {
        this.live = live;
        this.settings = settings;
        this.largest = largest;
        try (var session = live.snapshot()) {
            this.schema = first(session, SCHEMA);
            var own =
                    live.peers(session).stream()
                            .filter(Storage.Peer::own)
                            .map(SchemaCopies::mark)
                            .findFirst()
                            .orElse("0");
            names.put(Which.REHEARSED, beginning(Which.REHEARSED) + own);
            names.put(Which.BEFORE, beginning(Which.BEFORE) + own);
        }
    }

    private static String first(Session session, Statement statement) {
        return SqlSession.of(session).first(statement, row -> row.getString(1)).orElseThrow();
    }

    private String beginning(Which which) {
        return schema + (which == Which.REHEARSED ? "_rehearsal_" : "_before_");
    }

    /** What tells a process from others in a name. */
    private static String mark(Storage.Peer peer) {
        return "%08x".formatted((peer.name() + peer.since()).hashCode());
    }

    private String name(Which which) {
        return java.util.Objects.requireNonNull(names.get(which));
    }

    @Override
    public void requireRoom(boolean both) {
        try (var session = live.snapshot()) {
            long size = SqlSession.of(session).number(SIZE);
            if (size > largest) {
                throw new RehearsalException(
                        "The data has %,d MB, and a rehearsal copies up to %,d MB (sandpiper.database.largest-copy). Raise it if the database has room, or rehearse on a smaller copy."
                                .formatted(size >> 20, largest >> 20));
            }
        }
    }

    @Override
    public long make() throws InterruptedException {
        return copy(schema, live, Which.REHEARSED);
    }

    @Override
    public void makeBefore() throws InterruptedException {
        try (var copied = open()) {
            copy(name(Which.REHEARSED), copied, Which.BEFORE);
        }
    }

    @Override
    public Storage open() {
        return opened(Which.REHEARSED);
    }

    private PostgresStorage opened(Which which) {
        return PostgresStorage.open(settings.at(place(which)), live.clock());
    }

    @Override
    public String place(Which which) {
        var url = OTHER_SCHEMA.matcher(settings.url()).replaceAll("$1");
        var joined = url.endsWith("?") || url.endsWith("&") ? "" : url.contains("?") ? "&" : "?";
        return url + joined + "currentSchema=" + name(which);
    }

    private void run(String sql) {
        try (var transaction = live.begin(false)) {
            SqlSession.of(transaction).runOnce(sql);
            transaction.commit();
        }
    }

    private String quoted(String name) {
        try (var session = live.snapshot()) {
            return SqlSession.of(session).dialect().render(DSL.name(name));
        }
    }

    private long copy(String from, Storage source, Which which) throws InterruptedException {
        remove(which);
        run("create schema " + quoted(name(which)));
        try (var to = opened(which)) {
            fill(from, source, to);
            try (var session = to.snapshot()) {
                return SqlSession.of(session).number(SIZE);
            }
        }
    }

    private void fill(String from, Storage source, PostgresStorage to) throws InterruptedException {
        Map<String, Map<String, String>> columns;
        try (var session = source.snapshot()) {
            columns = MovedTables.columns(SqlSession.of(session));
        }
        try (var transaction = to.beginCopy()) {
            var sql = SqlSession.of(transaction);
            for (var table : MovedTables.own(columns)) {
                requireNotEnded();
                table.copyWithin(sql, from);
            }
            int number = to.definitions().newestRelease(transaction).orElse(0);
            var release =
                    number == 0
                            ? Release.EMPTY
                            : Definitions.reread(to.definitions().filesOf(transaction, number))
                                    .release()
                                    .orElseThrow();
            for (var table : MovedTables.kept(columns)) {
                requireNotEnded();
                table.remakeWithin(sql, from);
            }
            ((SchemaChanger) to.schema())
                    .build(
                            transaction,
                            release,
                            () ->
                                    MovedTables.of(release)
                                            .forEach(table -> table.copyWithin(sql, from)));
            requireNotEnded();
            MovedTables.numberOn(sql, MovedTables.all(columns, release));
            ReleaseFence.move(sql, number);
            transaction.commit();
        }
    }

    private static void requireNotEnded() throws InterruptedException {
        if (Thread.interrupted()) {
            throw new InterruptedException();
        }
    }

    @Override
    public void remove(Which which) {
        try {
            drop(List.of(name(which)));
        } catch (StorageException e) {
            LOG.warn("{} of a rehearsal could not be removed", name(which), e);
        }
    }

    @Override
    public void removeAll() {
        try {
            drop(left());
        } catch (StorageException e) {
            LOG.warn("Copies of rehearsals could not be removed", e);
        }
    }

    /** This process's own, and those of processes that are not there any more. */
    private List<String> left() {
        try (var session = live.snapshot()) {
            var others =
                    live.peers(session).stream()
                            .filter(peer -> !peer.own())
                            .map(SchemaCopies::mark)
                            .collect(Collectors.toSet());
            return List.of(Which.values()).stream()
                    .map(this::beginning)
                    .flatMap(beginning ->
                            SqlSession.of(session)
                                    .list(LIKE, row -> row.getString(1), beginning)
                                    .stream()
                                    .filter(name ->
                                            !others.contains(name.substring(beginning.length()))))
                    .toList();
        }
    }

    private void drop(List<String> schemas) {
        for (var one : schemas) {
            run("drop schema if exists %s cascade".formatted(quoted(one)));
        }
    }
}
