package sandpiper.store.postgres;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatCode;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.time.Clock;
import java.time.Duration;
import java.time.Instant;
import java.util.ArrayList;
import java.util.List;
import java.util.concurrent.Callable;
import java.util.concurrent.Executors;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Tag;
import org.junit.jupiter.api.Test;
import sandpiper.engine.Engine;
import sandpiper.engine.port.Storage.Peer;
import sandpiper.engine.port.StorageException;
import sandpiper.store.PostgresStorage;
import sandpiper.testing.PrivatePostgres;

/** Processes that come, go, are of another version, or have a wrong clock. */
@Tag("postgres")
class ProcessRegisterTest {
    private PostgresSettings settings;

    @BeforeEach
    void schema() {
        settings = PostgresSettings.usual(PrivatePostgres.shared().schema());
    }

    private static List<Peer> peers(PostgresStorage storage) {
        try (var session = storage.snapshot()) {
            return storage.peers(session);
        }
    }

    @Test
    void eachSeesTheOthersForAsLongAsTheyAreThere() {
        try (var first = PostgresStorage.open(settings)) {
            try (var second = PostgresStorage.open(settings)) {
                assertThat(peers(first)).extracting(Peer::own).containsExactly(true, false);
                assertThat(peers(second)).extracting(Peer::own).containsExactly(false, true);
            }
            assertThat(peers(first)).hasSize(1);
        }
    }

    @Test
    void manyMayBeginAtOneMomentOnNothing() throws Exception {
        try (var starting = Executors.newFixedThreadPool(4)) {
            Callable<PostgresStorage> start = () -> PostgresStorage.open(settings);
            var all = new ArrayList<PostgresStorage>();
            for (var one : starting.invokeAll(List.of(start, start, start, start))) {
                all.add(one.get());
            }
            assertThat(peers(all.getFirst())).hasSize(4);
            all.forEach(PostgresStorage::close);
        }
    }

    @Test
    void aWrongClockIsPutRight() {
        var wrong = Clock.offset(Clock.systemUTC(), Duration.ofMinutes(11));
        try (var storage = PostgresStorage.open(settings);
                var database = PostgresDatabase.open(settings);
                var register = ProcessRegister.enter(database, 17, wrong)) {
            assertThat(Duration.between(storage.clock().instant(), register.clock().instant()))
                    .isBetween(Duration.ofSeconds(-2), Duration.ofSeconds(2));
            assertThat(storage.clock().instant())
                    .isBetween(Instant.now().minusSeconds(2), Instant.now().plusSeconds(2));
        }
    }

    @Test
    void tablesAreNotChangedUnderAnOlderVersionThatWorks() {
        try (var storage = PostgresStorage.open(settings);
                var database = PostgresDatabase.open(settings);
                var session = database.write()) {
            assertThat(peers(storage)).hasSize(1);
            assertThatThrownBy(() -> ProcessRegister.requireNoOther(session, 17, 18))
                    .isInstanceOf(StorageException.class)
                    .hasMessageContaining("An older version of the service works on this database")
                    .hasMessageContaining(peers(storage).getFirst().name());
        }
        try (var database = PostgresDatabase.open(settings);
                var session = database.write()) {
            assertThatCode(() -> ProcessRegister.requireNoOther(session, 17, 18))
                    .as("when it has ended")
                    .doesNotThrowAnyException();
        }
    }

    @Test
    void whoWasForgottenWhileTheTablesChangedWritesNoMore() {
        try (var engine = new Engine(PostgresStorage.open(settings), Clock.systemUTC())) {
            engine.checkWritable();
            try (var database = PostgresDatabase.open(settings);
                    var session = database.write()) {
                sandpiper.store.system.ReleaseFence.reformat(session, 18);
                session.commit();
            }
            assertThatThrownBy(engine::checkWritable)
                    .isInstanceOf(StorageException.class)
                    .hasMessageContaining("A newer version of the service works on this database");
        }
    }
}
