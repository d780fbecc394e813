package sandpiper.server.security;

import java.util.List;
import java.util.Objects;
import org.jspecify.annotations.Nullable;
import org.springframework.security.authentication.AbstractAuthenticationToken;
import sandpiper.engine.access.Actor;

/** A caller whose credentials were right. */
final class ActorAuthentication extends AbstractAuthenticationToken {
    private static final long serialVersionUID = 1L;

    private final transient Actor actor;

    ActorAuthentication(Actor actor) {
        super(List.of());
        this.actor = actor;
        setAuthenticated(true);
    }

    @Override
    public @Nullable Object getCredentials() {
        return null;
    }

    @Override
    public Actor getPrincipal() {
        return actor;
    }

    @Override
    public boolean equals(@Nullable Object other) {
        return other instanceof ActorAuthentication that && Objects.equals(actor, that.actor);
    }

    @Override
    public int hashCode() {
        return Objects.hashCode(actor);
    }
}
