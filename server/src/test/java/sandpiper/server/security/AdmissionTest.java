package sandpiper.server.security;

import static org.assertj.core.api.Assertions.assertThat;
import static org.mockito.Mockito.RETURNS_DEEP_STUBS;
import static org.mockito.Mockito.mock;
import static org.mockito.Mockito.when;

import java.time.Instant;
import java.util.List;
import java.util.Optional;
import org.junit.jupiter.api.Test;
import sandpiper.engine.Engine;
import sandpiper.engine.access.StoredClient;
import sandpiper.engine.access.StoredSecret;
import sandpiper.engine.access.StoredUser;

class AdmissionTest {
    private final Engine live = mock(Engine.class, RETURNS_DEEP_STUBS);
    private final Admission admission = Admission.asIn(live);

    private static StoredUser ann(String hash, boolean disabled) {
        return new StoredUser("ann", "Ann", hash, List.of(), List.of(), disabled, false);
    }

    private static StoredClient site(String hash) {
        return StoredClient.made(
                "site", "Site", new StoredSecret(hash, null), List.of(), Instant.EPOCH, 0);
    }

    @Test
    void aPersonComesInWhoWouldInTheLiveService() {
        when(live.accounts().users().find("ann")).thenReturn(Optional.of(ann("h", false)));
        assertThat(admission.admits(ann("h", false))).isTrue();

        when(live.accounts().users().find("ann")).thenReturn(Optional.of(ann("new", false)));
        assertThat(admission.admits(ann("h", false))).isFalse();
        when(live.accounts().users().find("ann")).thenReturn(Optional.of(ann("h", true)));
        assertThat(admission.admits(ann("h", false))).isFalse();
        when(live.accounts().users().find("ann")).thenReturn(Optional.empty());
        assertThat(admission.admits(ann("h", false))).isFalse();
    }

    @Test
    void aClientComesInThatWouldInTheLiveService() {
        when(live.accounts().clients().find("site")).thenReturn(Optional.of(site("h")));
        assertThat(admission.admits(site("h"))).isTrue();

        when(live.accounts().clients().find("site")).thenReturn(Optional.of(site("new")));
        assertThat(admission.admits(site("h"))).isFalse();
        when(live.accounts().clients().find("site"))
                .thenReturn(Optional.of(site("h").changed(null, null, true, null)));
        assertThat(admission.admits(site("h"))).isFalse();
        when(live.accounts().clients().find("site")).thenReturn(Optional.empty());
        assertThat(admission.admits(site("h"))).isFalse();
    }
}
