package sandpiper.engine.accounts;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;
import static org.mockito.ArgumentMatchers.any;
import static org.mockito.ArgumentMatchers.anyBoolean;
import static org.mockito.Mockito.mock;
import static org.mockito.Mockito.never;
import static org.mockito.Mockito.verify;
import static org.mockito.Mockito.when;

import java.time.Clock;
import java.time.Instant;
import java.time.ZoneOffset;
import java.util.Arrays;
import java.util.List;
import java.util.Optional;
import java.util.Set;
import org.assertj.core.api.ThrowableAssert.ThrowingCallable;
import org.junit.jupiter.api.AfterEach;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Nested;
import org.junit.jupiter.api.Test;
import sandpiper.engine.access.AccessEntry;
import sandpiper.engine.access.Actor;
import sandpiper.engine.access.Duty;
import sandpiper.engine.access.ObjectGrant;
import sandpiper.engine.access.Role;
import sandpiper.engine.access.StoredClient;
import sandpiper.engine.access.StoredSecret;
import sandpiper.engine.access.StoredUser;
import sandpiper.engine.accounts.AccountException.Reason;
import sandpiper.engine.port.AccessStorage;
import sandpiper.engine.port.Storage;
import sandpiper.engine.port.Transaction;
import sandpiper.engine.writer.Transactions;
import sandpiper.engine.writer.WriteMetrics;
import sandpiper.engine.writer.Writer;

/** Who may change whose account, and what is noted of it. */
class AccountsTest {
    private static final Instant NOW = Instant.parse("2026-05-01T12:00:00Z");
    private static final Actor ANN = actor("ann", Duty.ACCESS, Duty.DESIGN);
    private static final Role PILOTS =
            new Role(
                    "pilots",
                    "Pilots",
                    null,
                    Set.of(Duty.OPERATE),
                    List.of("desk/jobs/read"),
                    List.of(
                            new ObjectGrant(
                                    "Job",
                                    Set.of(ObjectGrant.Action.VIEW),
                                    null,
                                    List.of(),
                                    List.of())),
                    null);

    private final AccessStorage access = mock(AccessStorage.class);
    private final Storage storage = mock(Storage.class);
    private final Transaction transaction = mock(Transaction.class);
    private Writer writer;
    private Accounts accounts;

    private static Actor actor(String name, Duty... duties) {
        return new Actor(Actor.Kind.USER, name, Set.of(duties), List.of());
    }

    private static StoredUser user(String name, List<String> roles, Duty... duties) {
        return new StoredUser(
                name,
                name,
                "hash of " + name,
                Arrays.stream(duties).map(Duty::name).toList(),
                roles,
                false,
                false);
    }

    private static StoredClient client(String name) {
        return StoredClient.made(
                name, name, new StoredSecret("hash", null), List.of("desk/jobs/read"), NOW, 0);
    }

    @BeforeEach
    void open() {
        when(storage.begin(anyBoolean())).thenReturn(transaction);
        when(storage.snapshot()).thenReturn(transaction);
        when(access.roles(any())).thenReturn(List.of(PILOTS));
        writer = Writer.of(storage, 100, WriteMetrics.NONE);
        accounts =
                new Accounts(
                        access,
                        new Transactions(storage, writer),
                        Clock.fixed(NOW, ZoneOffset.UTC));
    }

    @AfterEach
    void close() {
        writer.close();
    }

    private static void refuses(Reason reason, String message, ThrowingCallable change) {
        assertThatThrownBy(change)
                .isInstanceOfSatisfying(
                        AccountException.class, e -> assertThat(e.reason()).isEqualTo(reason))
                .hasMessageContaining(message);
    }

    private void noted(String what, String subject, String detail) {
        verify(access).addEntry(transaction, new AccessEntry(NOW, "ann", what, subject, detail));
    }

    private void there(StoredUser user) {
        when(access.user(any(), org.mockito.ArgumentMatchers.eq(user.name())))
                .thenReturn(Optional.of(user));
    }

    @Nested
    class People {
        @Test
        void areMadeAndNotedInOneTransaction() {
            var bob = user("bob", List.of(), Duty.DESIGN);

            accounts.users().add(ANN, bob);

            verify(access).putUser(transaction, bob);
            noted("user made", "bob", "duties design");
        }

        @Test
        void haveNamesOfTheirOwn() {
            there(user("bob", List.of()));
            when(access.client(any(), org.mockito.ArgumentMatchers.eq("desk")))
                    .thenReturn(Optional.of(client("desk")));

            refuses(
                    Reason.CONFLICT,
                    "There is a user bob already.",
                    () -> accounts.users().add(ANN, user("bob", List.of())));
            refuses(
                    Reason.CONFLICT,
                    "desk is the name of a client already",
                    () -> accounts.users().add(ANN, user("desk", List.of())));
            refuses(
                    Reason.CONFLICT,
                    "system is the name of the service itself already",
                    () -> accounts.users().add(ANN, user("system", List.of())));
            verify(access, never()).putUser(any(), any());
        }

        @Test
        void getNoDutyThatTheGiverHasNot() {
            refuses(
                    Reason.CONFLICT,
                    "bob has or would have a duty that you do not have: operate",
                    () -> accounts.users().add(ANN, user("bob", List.of("pilots"))));
            refuses(
                    Reason.CONFLICT,
                    "records",
                    () -> accounts.users().add(ANN, user("bob", List.of(), Duty.RECORDS)));
        }

        @Test
        void areNotTakenOverByWhoHasLess() {
            there(user("root", List.of(), Duty.values()));

            refuses(
                    Reason.CONFLICT,
                    "root has or would have a duty",
                    () ->
                            accounts.users()
                                    .change(
                                            ANN,
                                            "root",
                                            "user changed",
                                            one -> user("root", List.of())));
        }

        @Test
        void haveOnlyRolesThatThereAre() {
            refuses(
                    Reason.INVALID,
                    "There is no role \"pilot\". Did you mean pilots?",
                    () -> accounts.users().add(ANN, user("bob", List.of("pilot"))));
        }

        @Test
        void changeThemselvesWhateverTheyAre() {
            var own = user("ann", List.of("pilots"), Duty.values());
            there(own);

            accounts.users()
                    .change(
                            ANN,
                            "ann",
                            "password changed",
                            one ->
                                    new StoredUser(
                                            "ann",
                                            "Ann",
                                            "other",
                                            one.duties(),
                                            one.roles(),
                                            false,
                                            false));

            noted("password changed", "ann", "new password");
        }

        @Test
        void areNotedWithWhatIsAnother() {
            there(user("bob", List.of(), Duty.DESIGN));

            accounts.users()
                    .change(
                            ANN,
                            "bob",
                            "user changed",
                            one ->
                                    new StoredUser(
                                            "bob",
                                            "Bob",
                                            one.passwordHash(),
                                            List.of(Duty.ACCESS.name()),
                                            List.of(),
                                            true,
                                            false));

            noted("user changed", "bob", "disabled; duties access");
        }

        @Test
        void doNotRemoveThemselvesNorNobody() {
            refuses(
                    Reason.CONFLICT,
                    "You cannot remove yourself.",
                    () -> accounts.users().remove(ANN, "ann"));
            refuses(
                    Reason.MISSING,
                    "There is no user \"bob\".",
                    () -> accounts.users().remove(ANN, "bob"));
            verify(access, never()).removeUser(any(), any());
        }

        @Test
        void mayWhatTheyAndTheirRolesMay() {
            var bob = accounts.users().actor(user("bob", List.of("pilots"), Duty.DESIGN));

            assertThat(bob.duties()).containsExactlyInAnyOrder(Duty.DESIGN, Duty.OPERATE);
            assertThat(bob.may("desk", "jobs", "read")).isTrue();
            assertThat(bob.on("Job").may(ObjectGrant.Action.VIEW)).isTrue();
            assertThat(bob.on("Job").may(ObjectGrant.Action.EDIT)).isFalse();
        }
    }

    @Nested
    class ClientsOfServices {
        @Test
        void areMadeAndNoted() {
            accounts.clients().add(ANN, client("desk"));

            verify(access).putClient(transaction, client("desk"));
            noted("client made", "desk", "may desk/jobs/read");
        }

        @Test
        void haveNamesOfTheirOwn() {
            there(user("bob", List.of()));

            refuses(
                    Reason.CONFLICT,
                    "bob is the name of a user already",
                    () -> accounts.clients().add(ANN, client("bob")));
        }

        @Test
        void areThereBeforeTheyAreChanged() {
            refuses(
                    Reason.MISSING,
                    "There is no client \"desk\".",
                    () -> accounts.clients().change(ANN, "desk", "client changed", "", one -> one));
        }

        @Test
        void areRemovedHoweverOften() {
            accounts.clients().remove(ANN, "desk");

            verify(access).removeClient(transaction, "desk");
            noted("client removed", "desk", "");
        }

        @Test
        void areDescribedByWhatTheyMay() {
            assertThat(Clients.described(List.of())).isEqualTo("no grants");
            assertThat(Clients.described(List.of("a/b/c", "a/b/d"))).isEqualTo("may a/b/c, a/b/d");
        }
    }

    @Nested
    class NamedGrants {
        @Test
        void stayAsLongAsSomebodyHasThem() {
            when(access.users(any())).thenReturn(List.of(user("bob", List.of("pilots"))));

            refuses(
                    Reason.CONFLICT,
                    "The role is held by bob; take it from them first.",
                    () -> accounts.roles().remove(ANN, "pilots"));
            assertThat(accounts.roles().all())
                    .containsExactly(new Roles.Held(PILOTS, List.of("bob")));
        }

        @Test
        void goWhenNobodyHasThem() {
            accounts.roles().remove(ANN, "pilots");

            verify(access).removeRole(transaction, "pilots");
            noted("role removed", "pilots", "");
        }

        @Test
        void areNotedWithAllTheyGive() {
            accounts.roles().put(ANN, PILOTS);

            noted("role set", "pilots", "OPERATE; desk/jobs/read; Job [VIEW]");
        }
    }
}
