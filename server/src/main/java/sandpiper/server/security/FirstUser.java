package sandpiper.server.security;

import java.util.Arrays;
import java.util.List;
import org.slf4j.Logger;
import org.slf4j.LoggerFactory;
import org.springframework.beans.factory.SmartInitializingSingleton;
import org.springframework.security.crypto.password.PasswordEncoder;
import org.springframework.stereotype.Component;
import sandpiper.engine.Engine;
import sandpiper.engine.access.Duty;
import sandpiper.engine.access.StoredUser;
import sandpiper.server.settings.Settings;

/** Makes the first user of a new instance, who then makes the others, before anybody can ask. */
@Component
class FirstUser implements SmartInitializingSingleton {
    private static final Logger LOG = LoggerFactory.getLogger(FirstUser.class);
    private static final String NAME = "admin";

    private final Engine engine;
    private final PasswordEncoder passwords;
    private final String chosen;

    FirstUser(Engine engine, PasswordEncoder passwords, Settings settings) {
        this.engine = engine;
        this.passwords = passwords;
        this.chosen = settings.firstPassword();
    }

    @Override
    public void afterSingletonsInstantiated() {
        if (!engine.accounts().users().all().isEmpty()) {
            return;
        }
        var password = chosen.isEmpty() ? Secrets.make().substring(0, 20) : chosen;
        var hash = String.valueOf(passwords.encode(password));
        engine.accounts()
                .users()
                .addFirst(
                        new StoredUser(
                                NAME,
                                "First user",
                                hash,
                                Arrays.stream(Duty.values()).map(Duty::name).toList(),
                                List.of(),
                                false,
                                // It stands in the log, where others may read it.
                                chosen.isEmpty()));
        if (chosen.isEmpty()) {
            LOG.info(
                    "This instance is new. Sign in to the console as {} with the password {} and"
                            + " choose your own there; this one opens nothing else.",
                    NAME,
                    password);
        }
    }
}
