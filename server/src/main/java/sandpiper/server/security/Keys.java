package sandpiper.server.security;

import java.util.Base64;
import java.util.function.Supplier;
import javax.crypto.SecretKey;
import org.jspecify.annotations.Nullable;
import org.springframework.stereotype.Component;
import sandpiper.engine.Engine;
import sandpiper.engine.access.Actor;
import sandpiper.engine.port.StorageException;

/**
 * The keys of tokens and cursors. They are made of the key file and a generation that stands in the
 * data, so that new ones can be made at any time, which ends all tokens given so far.
 */
@Component
public class Keys {
    private static final String GENERATION = "key-generation";
    private static final String FINGERPRINT = "key-fingerprint";

    private final Engine engine;
    private final SecretCipher seal;
    private volatile String generation;

    Keys(Engine engine, SecretCipher seal) {
        this.engine = engine;
        this.seal = seal;
        this.generation = engine.settings().get(GENERATION, Secrets.make());
        engine.settings()
                .whenChangedElsewhere(
                        () -> this.generation = engine.settings().get(GENERATION, this.generation));
        // The key file is there from the first start on, as a sign that there is data.
        var own = fingerprint(seal.derived(FINGERPRINT));
        if (!engine.isInFile() && !engine.settings().get(FINGERPRINT, own).equals(own)) {
            engine.close();
            throw new StorageException(
                    "The key file of this process is not the one the data was sealed with: give"
                            + " every process the same (sandpiper.key-file).",
                    new IllegalStateException(FINGERPRINT));
        }
    }

    private static String fingerprint(SecretKey key) {
        return Secrets.hash(Base64.getEncoder().encodeToString(key.getEncoded()));
    }

    /** The key for a purpose, made anew when there is another generation. */
    public Supplier<SecretKey> of(String purpose) {
        return new Supplier<>() {
            private volatile @Nullable Made made;

            @Override
            public SecretKey get() {
                var now = generation;
                var known = made;
                if (known == null || !known.generation().equals(now)) {
                    known = new Made(now, seal.derived(purpose + ' ' + now));
                    made = known;
                }
                return known.key();
            }
        };
    }

    private record Made(String generation, SecretKey key) {}

    /** Makes new keys for somebody, who is noted with it. */
    public void renew(Actor actor) {
        var next = Secrets.make();
        engine.settings().put(GENERATION, next, actor.name(), "keys renewed", "tokens and cursors");
        generation = next;
    }
}
