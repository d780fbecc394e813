package sandpiper.server.security;

import sandpiper.engine.Engine;
import sandpiper.engine.access.StoredClient;
import sandpiper.engine.access.StoredUser;

/**
 * Who comes in beside what is stored here: nobody more. On a copy, those who would come in to the
 * live service as well, so that a secret that is taken back there is of no use on the copy.
 */
public interface Admission {
    /** Whether a client is let in whose secret is right. */
    boolean admits(StoredClient client);

    /** Whether a person is let in whose password is right. */
    boolean admits(StoredUser user);

    /** Of everybody who is stored here. */
    Admission OF_ALL =
            new Admission() {
                @Override
                public boolean admits(StoredClient client) {
                    return true;
                }

                @Override
                public boolean admits(StoredUser user) {
                    return true;
                }
            };

    /** Of those who are the same with the same secret in another engine. */
    static Admission asIn(Engine live) {
        return new Admission() {
            @Override
            public boolean admits(StoredClient client) {
                return live.accounts()
                        .clients()
                        .find(client.name())
                        .filter(now -> !now.disabled())
                        .filter(now -> now.secret().equals(client.secret()))
                        .isPresent();
            }

            @Override
            public boolean admits(StoredUser user) {
                return live.accounts()
                        .users()
                        .find(user.name())
                        .filter(now -> !now.disabled())
                        .filter(now -> now.passwordHash().equals(user.passwordHash()))
                        .isPresent();
            }
        };
    }
}
