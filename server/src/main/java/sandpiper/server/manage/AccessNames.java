package sandpiper.server.manage;

import org.springframework.http.HttpStatus;
import sandpiper.engine.port.AccessStorage;
import sandpiper.engine.port.Session;
import sandpiper.server.problem.ProblemException;

/**
 * Users, clients and the service itself have names in common, since history tells them apart by
 * name.
 */
final class AccessNames {
    private static final String OF_THE_SERVICE = "system";

    private AccessNames() {}

    /**
     * Lets a name be given to somebody new.
     *
     * @throws ProblemException when it is somebody's
     */
    static void requireFree(Session session, AccessStorage access, String name) {
        var holder =
                name.equals(OF_THE_SERVICE)
                        ? "the service itself"
                        : access.user(session, name).isPresent()
                                ? "a user"
                                : access.client(session, name).isPresent() ? "a client" : null;
        if (holder != null) {
            throw new ProblemException(
                    HttpStatus.CONFLICT,
                    "%s is the name of %s already; choose another.".formatted(name, holder));
        }
    }
}
