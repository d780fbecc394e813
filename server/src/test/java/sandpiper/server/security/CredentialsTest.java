package sandpiper.server.security;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;
import static org.mockito.ArgumentMatchers.any;
import static org.mockito.ArgumentMatchers.anyString;
import static org.mockito.Mockito.clearInvocations;
import static org.mockito.Mockito.mock;
import static org.mockito.Mockito.never;
import static org.mockito.Mockito.times;
import static org.mockito.Mockito.verify;
import static org.mockito.Mockito.when;

import java.time.Duration;
import java.time.Instant;
import java.util.List;
import java.util.Optional;
import java.util.Set;
import org.jspecify.annotations.Nullable;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Nested;
import org.junit.jupiter.api.Test;
import org.springframework.security.crypto.password.PasswordEncoder;
import sandpiper.engine.Engine;
import sandpiper.engine.access.Actor;
import sandpiper.engine.access.StoredClient;
import sandpiper.engine.access.StoredSecret;
import sandpiper.engine.access.StoredUser;
import sandpiper.engine.accounts.Accounts;
import sandpiper.engine.accounts.Clients;
import sandpiper.engine.accounts.Users;
import sandpiper.server.problem.ProblemException;
import sandpiper.testing.SettableClock;

/** Who is let in, who is not, what is asked of the slow hash, and what is noted. */
class CredentialsTest {
    private static final String HERE = "10.0.0.1";

    private final Engine engine = mock(Engine.class);
    private final Accounts accounts = mock(Accounts.class);
    private final Users users = mock(Users.class);
    private final Clients clients = mock(Clients.class);
    private final PasswordEncoder passwords = mock(PasswordEncoder.class);
    private final SignInLog log = mock(SignInLog.class);
    private final RateLimits limits = mock(RateLimits.class);
    private final SecretCipher cipher = mock(SecretCipher.class);
    private final SettableClock clock = new SettableClock(Instant.parse("2026-05-01T12:00:00Z"));
    private Credentials credentials;

    @BeforeEach
    void make() {
        when(engine.clock()).thenReturn(clock);
        when(engine.accounts()).thenReturn(accounts);
        when(accounts.users()).thenReturn(users);
        when(accounts.clients()).thenReturn(clients);
        when(users.find(anyString())).thenReturn(Optional.empty());
        when(clients.find(anyString())).thenReturn(Optional.empty());
        when(users.actor(any()))
                .thenAnswer(call ->
                        new Actor(
                                Actor.Kind.USER,
                                call.<StoredUser>getArgument(0).name(),
                                Set.of(),
                                List.of()));
        when(passwords.encode(any())).thenReturn("{slow}nobody");
        when(passwords.matches(any(), any()))
                .thenAnswer(call ->
                        ("{slow}" + call.getArgument(0)).equals(call.<String>getArgument(1)));
        credentials =
                new Credentials(
                        engine,
                        passwords,
                        limits,
                        cipher,
                        log,
                        Admission.OF_ALL,
                        new SignInFailures());
    }

    private void user(String name, String password, boolean disabled) {
        when(users.find(name))
                .thenReturn(
                        Optional.of(
                                new StoredUser(
                                        name,
                                        name,
                                        "{slow}" + password,
                                        List.of(),
                                        List.of(),
                                        disabled,
                                        false)));
    }

    private void client(
            String name,
            StoredSecret secret,
            @Nullable StoredSecret previous,
            @Nullable Instant until,
            boolean disabled) {
        when(clients.find(name))
                .thenReturn(
                        Optional.of(
                                new StoredClient(
                                        name,
                                        name,
                                        secret,
                                        List.of("desk/*/*"),
                                        clock.instant(),
                                        null,
                                        previous,
                                        until,
                                        disabled,
                                        9)));
    }

    private static StoredSecret made(String secret) {
        return new StoredSecret(Secrets.hash(secret), null);
    }

    private static StoredSecret chosen(String secret) {
        return new StoredSecret("{slow}" + secret, null);
    }

    @Nested
    class People {
        @Test
        void comeInWithTheirPassword() {
            user("ann", "right", false);

            assertThat(credentials.user("ann", "right", HERE)).isPresent();
            verify(log).note("ann", HERE, "signed in");
        }

        @Test
        void doNotWithAnother() {
            user("ann", "right", false);

            assertThat(credentials.user("ann", "wrong", HERE)).isEmpty();
            verify(log).note("ann", HERE, "sign-in refused");
        }

        @Test
        void whoAreNotThereTakeAsLong() {
            assertThat(credentials.user("nobody", "right", HERE)).isEmpty();

            verify(passwords).matches("right", "{slow}nobody");
        }

        @Test
        void whoAreDisabledStayOutsideEvenWithTheRightOne() {
            user("ann", "right", true);

            assertThat(credentials.user("ann", "right", HERE)).isEmpty();
            verify(log).note("ann", HERE, "sign-in of a disabled user");
        }

        @Test
        void areRememberedForMinutesSoThatTheSlowHashIsAskedOnce() {
            user("ann", "right", false);

            credentials.user("ann", "right", HERE);
            credentials.user("ann", "right", HERE);
            verify(passwords, times(1)).matches("right", "{slow}right");

            clock.advance(Duration.ofMinutes(6));
            credentials.user("ann", "right", HERE);
            verify(passwords, times(2)).matches("right", "{slow}right");
        }

        @Test
        void areNotRememberedWithAPasswordThatWasChanged() {
            user("ann", "right", false);
            credentials.user("ann", "right", HERE);

            user("ann", "other", false);

            assertThat(credentials.user("ann", "right", HERE)).isEmpty();
        }

        @Test
        void areKeptFromGuessingOn() {
            user("ann", "right", false);
            for (int i = 0; i < 5; i++) {
                credentials.user("ann", "wrong" + i, HERE);
            }
            clearInvocations(passwords);

            assertThatThrownBy(
                            () -> {
                                for (int i = 0; i < 20; i++) {
                                    credentials.user("ann", "wrong again" + i, HERE);
                                }
                            })
                    .isInstanceOf(ProblemException.class);
            verify(log, org.mockito.Mockito.atLeastOnce()).note("ann", HERE, "sign-in locked");
        }

        @Test
        void withNamesOrPasswordsLongerThanThereAreAreNotEvenLookedFor() {
            assertThat(credentials.user("a".repeat(61), "x", HERE)).isEmpty();
            assertThat(credentials.user("ann", "x".repeat(201), HERE)).isEmpty();

            verify(users, never()).find(any());
        }

        @Test
        void whoAreSignedInStaySoOnlyWithTheSamePassword() {
            user("ann", "right", false);
            var stamp = credentials.stampOf("ann").orElseThrow();

            assertThat(credentials.signedIn("ann", stamp)).isPresent();
            user("ann", "other", false);
            assertThat(credentials.signedIn("ann", stamp)).isEmpty();
        }

        @Test
        void whoAreDisabledMeanwhileAreOut() {
            user("ann", "right", false);
            var stamp = credentials.stampOf("ann").orElseThrow();

            user("ann", "right", true);

            assertThat(credentials.signedIn("ann", stamp)).isEmpty();
        }
    }

    @Nested
    class OutsideSystems {
        @Test
        void comeInWithASecretThatWasMadeWithoutTheSlowHash() {
            client("desk", made("s3cret"), null, null, false);

            var actor = credentials.client("desk", "s3cret", HERE).orElseThrow();

            assertThat(actor.kind()).isEqualTo(Actor.Kind.CLIENT);
            assertThat(actor.may("desk", "jobs", "read")).isTrue();
            verify(passwords, never()).matches(any(), any());
            verify(limits).keep("desk", 9);
        }

        @Test
        void comeInWithTheSecretBeforeAsLongAsThatIsSaid() {
            client("desk", made("new"), made("old"), clock.instant().plusSeconds(60), false);

            assertThat(credentials.client("desk", "old", HERE)).isPresent();
            clock.advance(Duration.ofSeconds(61));
            assertThat(credentials.client("desk", "old", HERE)).isEmpty();
            assertThat(credentials.client("desk", "new", HERE)).isPresent();
        }

        @Test
        void withASecretThatSomebodyChoseAskTheSlowHashOnce() {
            client("desk", chosen("s3cret"), null, null, false);

            credentials.client("desk", "s3cret", HERE);
            credentials.client("desk", "s3cret", HERE);

            verify(passwords, times(1)).matches("s3cret", "{slow}s3cret");
        }

        @Test
        void withAWrongSecretThatOthersMayGuessAreNoted() {
            client("desk", chosen("s3cret"), null, null, false);

            assertThat(credentials.client("desk", "wrong", HERE)).isEmpty();
            verify(log).note("desk", HERE, "client refused");
        }

        @Test
        void areReadOnceUntilSomethingOfAccessChanges() {
            client("desk", made("s3cret"), null, null, false);
            when(accounts.stamp()).thenReturn(1L);

            credentials.client("desk", "s3cret", HERE);
            credentials.client("desk", "s3cret", HERE);
            verify(clients, times(1)).find("desk");

            when(accounts.stamp()).thenReturn(2L);
            client("desk", made("s3cret"), null, null, true);
            assertThat(credentials.client("desk", "s3cret", HERE)).isEmpty();
        }

        @Test
        void areNotedAsUsedOnceAMinute() {
            client("desk", made("s3cret"), null, null, false);

            credentials.client("desk", "s3cret", HERE);
            credentials.client("desk", "s3cret", HERE);
            verify(clients, times(1)).used(any(), any());

            clock.advance(Duration.ofSeconds(61));
            credentials.client("desk", "s3cret", HERE);
            verify(clients, times(2)).used(any(), any());
        }

        @Test
        void withATokenNeedNoSecretButMustStillBeThere() {
            client("desk", made("s3cret"), null, null, false);
            assertThat(credentials.client("desk")).isPresent();

            assertThat(credentials.client("gone")).isEmpty();
        }

        @Test
        void withADigestThatIsTooOldStayOutside() {
            client("desk", new StoredSecret("h", "sealed"), null, null, false);
            when(cipher.open("sealed")).thenReturn(Optional.of("s3cret"));

            assertThat(
                            credentials.client(
                                    "desk",
                                    "bm9uY2U=",
                                    clock.instant().minus(Duration.ofHours(1)).toString(),
                                    "x",
                                    HERE))
                    .isEmpty();
            verify(clients, never()).find(any());
        }
    }
}
