package sandpiper.server.security;

import java.util.function.Supplier;
import javax.crypto.SecretKey;
import org.jspecify.annotations.Nullable;
import org.springframework.stereotype.Component;
import sandpiper.engine.Engine;
import sandpiper.engine.access.Actor;

/**
 * The keys of tokens and cursors. They are made of the key file and a generation that stands in the
 * data, so that new ones can be made at any time, which ends all tokens given so far.
 */
@Component
public class Keys {
    private static final String GENERATION = "key-generation";

    private final Engine engine;
    private final SecretCipher seal;
    private volatile String generation;

    Keys(Engine engine, SecretCipher seal) {
        this.engine = engine;
        this.seal = seal;
        this.generation = engine.settings().get(GENERATION, Secrets.make());
        // The key file is there from the first start on, as a sign that there is data.
        seal.derived(GENERATION);
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
