package sandpiper.server.security;

import java.time.Duration;
import java.time.Instant;
import java.util.EnumSet;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.concurrent.ConcurrentHashMap;
import org.springframework.security.crypto.password.PasswordEncoder;
import org.springframework.stereotype.Component;
import sandpiper.engine.Engine;
import sandpiper.engine.access.Actor;
import sandpiper.engine.access.Duty;
import sandpiper.engine.port.AccessStorage.StoredClient;
import sandpiper.engine.port.AccessStorage.StoredUser;

/** Finds out who somebody is from name and secret. */
@Component
public class Credentials {
    /**
     * Last use is shown to people, for whom a minute is exact enough; writing it at each request
     * would cost a commit.
     */
    private static final Duration LAST_USE_STEP = Duration.ofMinutes(1);

    /**
     * A right password is remembered for this long, since checking it takes a tenth of a second on
     * purpose.
     */
    private static final Duration REMEMBERED = Duration.ofMinutes(5);

    private final Engine engine;
    private final PasswordEncoder passwords;
    private final String nobodysHash;
    private final Map<String, Instant> lastUses = new ConcurrentHashMap<>();
    private final Map<String, Remembered> remembered = new ConcurrentHashMap<>();

    /**
     * A password that was right, as a hash that is quick to compare, for the stored hash it was
     * right for.
     */
    private record Remembered(String quickHash, String storedHash, Instant until) {}

    Credentials(Engine engine, PasswordEncoder passwords) {
        this.engine = engine;
        this.passwords = passwords;
        this.nobodysHash = String.valueOf(passwords.encode(Secrets.make()));
    }

    /** The client of an id and secret, or nothing when they are not right. */
    public Optional<Actor> client(String name, String secret) {
        var client = engine.read(session -> engine.storage().access().client(session, name));
        return client.filter(found -> isRight(found, secret)).flatMap(this::use);
    }

    /** The client a token was given to, or nothing when it may do nothing any more. */
    Optional<Actor> client(String name) {
        return engine.read(session -> engine.storage().access().client(session, name))
                .flatMap(this::use);
    }

    private boolean isRight(StoredClient client, String secret) {
        var until = client.previousUntil();
        var previous = client.previousHash();
        boolean current = Secrets.matches(secret, client.secretHash());
        boolean before =
                previous != null
                        && until != null
                        && Secrets.matches(secret, previous)
                        && engine.clock().instant().isBefore(until);
        return current || before;
    }

    private Optional<Actor> use(StoredClient client) {
        if (client.disabled()) {
            return Optional.empty();
        }
        noteUse(client.name());
        return Optional.of(new Actor(Actor.Kind.CLIENT, client.name(), Set.of(), client.grants()));
    }

    private void noteUse(String name) {
        var now = engine.clock().instant();
        var last = lastUses.get(name);
        if (last == null || last.plus(LAST_USE_STEP).isBefore(now)) {
            lastUses.put(name, now);
            engine.write(transaction -> {
                engine.storage().access().touchClient(transaction, name, now);
                return true;
            });
        }
    }

    /**
     * The person of a name and password, or nothing when they are not right; takes the same time
     * for a name that is not known.
     */
    Optional<Actor> user(String name, String password) {
        var user = engine.read(session -> engine.storage().access().user(session, name));
        if (user.isEmpty()) {
            passwords.matches(password, nobodysHash);
            return Optional.empty();
        }
        return isRight(user.get(), password) ? Optional.of(actor(user.get())) : Optional.empty();
    }

    private boolean isRight(StoredUser user, String password) {
        var now = engine.clock().instant();
        var quick = Secrets.hash(user.name() + '\0' + password);
        var known = remembered.get(user.name());
        if (known != null
                && known.until().isAfter(now)
                && known.storedHash().equals(user.passwordHash())
                && known.quickHash().equals(quick)) {
            return true;
        }
        boolean right = passwords.matches(password, user.passwordHash());
        if (right) {
            remembered.put(
                    user.name(), new Remembered(quick, user.passwordHash(), now.plus(REMEMBERED)));
        }
        return right;
    }

    private static Actor actor(StoredUser user) {
        var duties = EnumSet.noneOf(Duty.class);
        user.duties().forEach(duty -> duties.add(Duty.valueOf(duty)));
        return new Actor(Actor.Kind.USER, user.name(), duties, List.of());
    }
}
