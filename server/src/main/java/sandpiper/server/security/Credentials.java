package sandpiper.server.security;

import java.time.Duration;
import java.time.Instant;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import java.util.Optional;
import java.util.Set;
import java.util.concurrent.ConcurrentHashMap;
import java.util.concurrent.locks.ReentrantLock;
import java.util.function.BooleanSupplier;
import java.util.function.Supplier;
import java.util.stream.Stream;
import org.springframework.security.crypto.password.PasswordEncoder;
import org.springframework.stereotype.Component;
import sandpiper.engine.Engine;
import sandpiper.engine.access.Actor;
import sandpiper.engine.access.StoredClient;
import sandpiper.engine.access.StoredSecret;
import sandpiper.engine.access.StoredUser;
import sandpiper.server.problem.ProblemException;

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
    private final SignInFailures failures;
    private final Map<String, Remembered> remembered = new ConcurrentHashMap<>();
    private final Map<String, Remembered> chosen = new ConcurrentHashMap<>();
    private final List<ReentrantLock> locks =
            Stream.generate(ReentrantLock::new).limit(64).toList();

    /**
     * A password that was right, as a hash that is quick to compare, for the stored hash it was
     * right for.
     */
    private record Remembered(String quickHash, String storedHash, Instant until) {}

    /** A client as it was at a stamp, with what it may do. */
    private record Known(long stamp, StoredClient client, Actor actor) {}

    private final Map<String, Known> clients = new ConcurrentHashMap<>();
    private final RateLimits limits;
    private final SecretCipher seal;
    private final PasswordDigests digests;
    private final SignInLog log;
    private final Admission admission;
    private static final int LONGEST_NAME = 60;
    private static final int LONGEST_PASSWORD = 200;

    Credentials(
            Engine engine,
            PasswordEncoder passwords,
            RateLimits limits,
            SecretCipher seal,
            SignInLog log,
            Admission admission,
            SignInFailures failures) {
        this.engine = engine;
        this.log = log;
        this.failures = failures;
        this.admission = admission;
        this.digests = new PasswordDigests(engine.clock().instant());
        this.limits = limits;
        this.seal = seal;
        this.passwords = passwords;
        this.nobodysHash = String.valueOf(passwords.encode(Secrets.make()));
    }

    /**
     * The client of an id and secret, or nothing when they are not right.
     *
     * @param address from which they come
     * @throws ProblemException after too many wrong ones, where people chose the secret
     */
    public Optional<Actor> client(String name, String secret, String address) {
        return known(name)
                .filter(found -> isRight(found.client(), secret, address))
                .flatMap(this::use);
    }

    /** The client a token was given to, or nothing when it may do nothing any more. */
    Optional<Actor> client(String name) {
        return known(name).flatMap(this::use);
    }

    private boolean isRight(StoredClient client, String secret, String address) {
        return secret.length() <= LONGEST_PASSWORD
                && rightSecrets(client).stream()
                        .anyMatch(right -> isRight(client.name(), secret, right.hash(), address));
    }

    /** Looks whether a secret that somebody chose, and others may guess, is right; tries count. */
    private boolean guessed(String name, String address, BooleanSupplier right) {
        var of = "client " + name;
        try {
            failures.begin(of, address, engine.clock().instant());
        } catch (ProblemException tooMany) {
            log.note(name, address, "client locked");
            throw tooMany;
        }
        if (!right.getAsBoolean()) {
            log.note(name, address, "client refused");
            return false;
        }
        failures.right(of, address);
        return true;
    }

    private static boolean isChosen(String hash) {
        return hash.startsWith("{");
    }

    /** One that was made is compared at once; one that somebody chose was hashed slowly. */
    private boolean isRight(String client, String secret, String hash, String address) {
        if (!isChosen(hash)) {
            return Secrets.matches(secret, hash);
        }
        var now = engine.clock().instant();
        var quick = quick("client " + client, secret);
        var known = chosen.get(client);
        if (known != null
                && known.until().isAfter(now)
                && known.storedHash().equals(hash)
                && known.quickHash().equals(quick)) {
            return true;
        }
        // One after the other: many calls that begin at once need one look.
        return oneByOne(
                "client " + client,
                () -> {
                    var meanwhile = chosen.get(client);
                    if (meanwhile != null
                            && meanwhile.storedHash().equals(hash)
                            && meanwhile.quickHash().equals(quick)) {
                        return true;
                    }
                    boolean right = guessed(client, address, () -> passwords.matches(secret, hash));
                    if (right) {
                        chosen.put(client, new Remembered(quick, hash, now.plus(REMEMBERED)));
                    }
                    return right;
                });
    }

    /** Has looks at secrets of one name wait for each other. */
    private <T> T oneByOne(String name, Supplier<T> look) {
        var lock = locks.get(Math.floorMod(name.hashCode(), locks.size()));
        lock.lock();
        try {
            return look.get();
        } finally {
            lock.unlock();
        }
    }

    /** The secret of a client, and the one before as long as it is right as well. */
    private List<StoredSecret> rightSecrets(StoredClient client) {
        var until = client.previousUntil();
        var previous = client.previous();
        return previous != null && until != null && engine.clock().instant().isBefore(until)
                ? List.of(client.secret(), previous)
                : List.of(client.secret());
    }

    /** The client that proves to know its secret, or nothing when it does not, or not in time. */
    public Optional<Actor> client(
            String name, String nonce, String created, String digest, String address) {
        var proof = new PasswordDigests.Proof(nonce, created, digest);
        if (!PasswordDigests.isInTime(proof, engine.clock().instant())) {
            return Optional.empty();
        }
        return known(name)
                .filter(found ->
                        isChosen(found.client().secret().hash())
                                ? guessed(name, address, () -> isRight(found.client(), proof))
                                : isRight(found.client(), proof))
                .filter(found -> digests.isFirst(found.client().name(), proof))
                .flatMap(this::use);
    }

    private boolean isRight(StoredClient client, PasswordDigests.Proof proof) {
        return rightSecrets(client).stream()
                .map(StoredSecret::sealed)
                .filter(Objects::nonNull)
                .map(seal::open)
                .flatMap(Optional::stream)
                .anyMatch(secret -> PasswordDigests.isRight(proof, secret));
    }

    /** A client, read again only after something of access was changed. */
    private Optional<Known> known(String name) {
        long stamp = engine.accounts().stamp();
        var before = clients.get(name);
        if (before != null && before.stamp() == stamp) {
            return Optional.of(before);
        }
        var now =
                engine.accounts()
                        .clients()
                        .find(name)
                        .map(client ->
                                new Known(
                                        stamp,
                                        client,
                                        new Actor(
                                                Actor.Kind.CLIENT,
                                                client.name(),
                                                Set.of(),
                                                client.grants())));
        now.ifPresentOrElse(found -> clients.put(name, found), () -> clients.remove(name));
        return now;
    }

    private Optional<Actor> use(Known known) {
        var client = known.client();
        if (client.disabled() || !admission.admits(client)) {
            return Optional.empty();
        }
        noteUse(client.name());
        limits.keep(client.name(), client.callsPerMinute());
        return Optional.of(known.actor());
    }

    private void noteUse(String name) {
        var now = engine.clock().instant();
        var last = lastUses.get(name);
        if (last == null || last.plus(LAST_USE_STEP).isBefore(now)) {
            lastUses.put(name, now);
            // Who reads does not wait for writing, and reads when nothing can be written.
            engine.accounts().clients().used(name, now);
        }
    }

    /**
     * The person of a name and password, or nothing when they are not right; takes the same time
     * for a name that is not known.
     *
     * @param address from which they come
     * @throws ProblemException after too many wrong passwords
     */
    Optional<Actor> user(String name, String password, String address) {
        if (name.length() > LONGEST_NAME || password.length() > LONGEST_PASSWORD) {
            return Optional.empty();
        }
        var user = engine.accounts().users().find(name);
        if (user.isPresent() && isRemembered(user.get(), password)) {
            return user.filter(this::mayComeIn).map(engine.accounts().users()::actor);
        }
        // Many calls that begin at once with the right password are no tries.
        return oneByOne(name, () -> lookedAt(user, name, password, address));
    }

    private Optional<Actor> lookedAt(
            Optional<StoredUser> user, String name, String password, String address) {
        if (user.isPresent() && isRemembered(user.get(), password)) {
            return user.filter(this::mayComeIn).map(engine.accounts().users()::actor);
        }
        try {
            failures.begin(name, address, engine.clock().instant());
        } catch (ProblemException tooMany) {
            log.note(name, address, "sign-in locked");
            throw tooMany;
        }
        if (user.isEmpty()) {
            passwords.matches(password, nobodysHash);
        }
        if (user.isEmpty() || !isRight(user.get(), password)) {
            log.note(name, address, "sign-in refused");
            return Optional.empty();
        }
        failures.right(name, address);
        log.note(name, address, user.get().disabled() ? "sign-in of a disabled user" : "signed in");
        return user.filter(this::mayComeIn).map(engine.accounts().users()::actor);
    }

    private boolean mayComeIn(StoredUser user) {
        return !user.disabled() && admission.admits(user);
    }

    /**
     * Whether a password is a user's, asked once more by somebody who is signed in.
     *
     * @throws ProblemException after too many wrong ones
     */
    public boolean isCurrent(StoredUser user, String password) {
        failures.begin(user.name(), "signed in", engine.clock().instant());
        boolean right = passwords.matches(password, user.passwordHash());
        if (right) {
            failures.right(user.name(), "signed in");
        }
        return right;
    }

    /**
     * Who somebody signed in is now: rights may have changed since, or been taken.
     *
     * @param stamp of the password with which the session began
     */
    Optional<Actor> signedIn(String name, String stamp) {
        return engine.accounts()
                .users()
                .find(name)
                .filter(user -> mayComeIn(user) && stamp(user.passwordHash()).equals(stamp))
                .map(engine.accounts().users()::actor);
    }

    /** What tells a password from the one before, and nothing about it. */
    String stamp(String passwordHash) {
        return Secrets.hash(passwordHash);
    }

    /** The stamp of a user's password as it is now. */
    Optional<String> stampOf(String name) {
        return engine.accounts().users().find(name).map(user -> stamp(user.passwordHash()));
    }

    /** Whether somebody has to choose a password before anything else. */
    public boolean isTemporary(String name) {
        return engine.accounts().users().find(name).map(StoredUser::temporary).orElse(false);
    }

    private boolean isRemembered(StoredUser user, String password) {
        var known = remembered.get(user.name());
        return known != null
                && known.until().isAfter(engine.clock().instant())
                && known.storedHash().equals(user.passwordHash())
                && known.quickHash().equals(quick(user.name(), password));
    }

    private static String quick(String name, String secret) {
        return Secrets.hash(name + '\0' + secret);
    }

    private boolean isRight(StoredUser user, String password) {
        boolean right = passwords.matches(password, user.passwordHash());
        if (right) {
            remembered.put(
                    user.name(),
                    new Remembered(
                            quick(user.name(), password),
                            user.passwordHash(),
                            engine.clock().instant().plus(REMEMBERED)));
        }
        return right;
    }
}
