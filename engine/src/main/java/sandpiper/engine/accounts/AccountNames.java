package sandpiper.engine.accounts;

import sandpiper.engine.accounts.AccountException.Reason;
import sandpiper.engine.port.AccessStorage;
import sandpiper.engine.port.Session;

/**
 * Users, clients and the service itself have names in common, since history tells them apart by
 * name.
 */
final class AccountNames {
    private static final String OF_THE_SERVICE = "system";

    private AccountNames() {}

    /**
     * Lets a name be given to somebody new.
     *
     * @throws AccountException when it is somebody's
     */
    static void requireFree(Session session, AccessStorage storage, String name) {
        var holder =
                name.equals(OF_THE_SERVICE)
                        ? "the service itself"
                        : storage.user(session, name).isPresent()
                                ? "a user"
                                : storage.client(session, name).isPresent() ? "a client" : null;
        if (holder != null) {
            throw new AccountException(
                    Reason.CONFLICT,
                    "%s is the name of %s already; choose another.".formatted(name, holder));
        }
    }
}
