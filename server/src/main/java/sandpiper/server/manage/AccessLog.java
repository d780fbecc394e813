package sandpiper.server.manage;

import org.springframework.stereotype.Component;
import sandpiper.engine.Engine;
import sandpiper.engine.access.Actor;
import sandpiper.engine.port.AccessStorage.AccessEntry;
import sandpiper.engine.port.Transaction;

/** Notes each change of who may do what, in the transaction that makes it. */
@Component
class AccessLog {
    private final Engine engine;

    AccessLog(Engine engine) {
        this.engine = engine;
    }

    void note(Transaction transaction, Actor actor, String what, String subject, String detail) {
        engine.storage()
                .access()
                .addEntry(
                        transaction,
                        new AccessEntry(
                                engine.clock().instant(), actor.name(), what, subject, detail));
    }
}
