package sandpiper.store;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.nio.file.Path;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Set;
import org.junit.jupiter.api.AfterEach;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import sandpiper.engine.access.Actor;
import sandpiper.engine.access.ObjectGrant.Action;
import sandpiper.engine.access.Role;
import sandpiper.engine.access.StoredUser;
import sandpiper.engine.accounts.AccountException;
import sandpiper.engine.definition.ReleasePreview.Result;
import sandpiper.engine.definition.Releases;

/** Roles that come with packages, from release to release. */
class RolesOfPackagesTest {
    private static final String JOB =
            """
            object: Job
            key: code
            fields:
              code: { type: text, required: true }
              pay: { type: decimal, scale: 2 }
            """;
    private static final String ROLE =
            """
            role: hand
            objects:
              Job: { actions: [view], where: pay < 100, hidden: [pay] }
            """;

    @TempDir Path folder;
    private Harness yard;

    @BeforeEach
    void begin() {
        yard = new Harness(folder);
    }

    @AfterEach
    void end() {
        yard.close();
    }

    private static Map<String, String> files(String job, String role) {
        var files = new HashMap<String, String>();
        files.put("yard/package.yaml", "package: yard\nversion: 1\n");
        files.put("yard/objects/job.yaml", job);
        if (!role.isEmpty()) {
            files.put("yard/roles/hand.yaml", role);
        }
        return files;
    }

    private Role role(String name) {
        return yard.engine.accounts().roles().all().stream()
                .map(held -> held.role())
                .filter(role -> role.name().equals(name))
                .findFirst()
                .orElse(null);
    }

    private void give(String user) {
        try (var transaction = yard.storage.begin(false)) {
            yard.storage
                    .access()
                    .putUser(
                            transaction,
                            new StoredUser(
                                    user, user, "x", List.of(), List.of("hand"), false, false));
            transaction.commit();
        }
    }

    @Test
    void theyFollowTheLiveReleaseThereAndBack() {
        yard.release(files(JOB, ROLE));
        var first = role("hand");
        assertThat(first.from()).isEqualTo("yard");
        assertThat(first.objects().getFirst().actions()).containsExactly(Action.VIEW);
        assertThat(first.duties()).isEmpty();

        var renamed = JOB.replace("pay:", "wage:").replace("scale: 2", "scale: 2, was: pay");
        yard.release(files(renamed, ROLE.replace("pay", "wage").replace("[view]", "[view, edit]")));
        assertThat(role("hand").objects().getFirst().where()).isEqualTo("wage < 100");
        assertThat(role("hand").objects().getFirst().hidden()).containsExactly("wage");
        assertThat(role("hand").objects().getFirst().actions())
                .containsExactlyInAnyOrder(Action.VIEW, Action.EDIT);

        yard.engine
                .releases()
                .takeBack(
                        1,
                        new Releases.Order("", new Releases.Accepted(true, true), false),
                        Actor.SYSTEM);
        assertThat(role("hand")).isEqualTo(first);
    }

    @Test
    void oneThatNobodyHasGoesWithItsPackageAndOthersKeepIt() {
        yard.release(files(JOB, ROLE));
        yard.release(files(JOB, ""));
        assertThat(role("hand")).isNull();

        yard.release(files(JOB, ROLE));
        give("ann");
        yard.engine.drafts().push(files(JOB, ""), Actor.SYSTEM);
        var preview = yard.engine.releases().preview();
        assertThat(preview.changes()).contains("Role hand is removed.");
        assertThat(preview.leftBehind())
                .containsExactly(
                        "Role hand no longer comes with a package; one person keeps it as it is.");
        yard.release(files(JOB, ""));
        assertThat(role("hand").from()).isNull();
        assertThat(role("hand").objects()).hasSize(1);
    }

    @Test
    void oneThatWasMadeHereIsNotReplaced() {
        yard.engine
                .accounts()
                .roles()
                .put(
                        Actor.SYSTEM,
                        new Role("hand", "Own", null, Set.of(), List.of(), List.of(), null));
        yard.engine.drafts().push(files(JOB, ROLE), Actor.SYSTEM);

        var result =
                yard.engine.releases().release("", new Releases.Accepted(true, true), Actor.SYSTEM);

        assertThat(result).isInstanceOf(Result.Refused.class);
        assertThat(((Result.Refused) result).preview().obstacles())
                .singleElement()
                .asString()
                .contains("brings a role hand, and there is one that was made in this instance");
        assertThat(role("hand").label()).isEqualTo("Own");
    }

    @Test
    void theyAreChangedInTheirPackageAlone() {
        yard.release(files(JOB, ROLE));
        var roles = yard.engine.accounts().roles();

        assertThatThrownBy(() ->
                        roles.put(
                                Actor.SYSTEM,
                                new Role("hand", "x", null, Set.of(), List.of(), List.of(), null)))
                .isInstanceOf(AccountException.class)
                .hasMessageContaining("comes with the package yard");
        assertThatThrownBy(() -> roles.remove(Actor.SYSTEM, "hand"))
                .isInstanceOf(AccountException.class);
        assertThat(role("hand").objects()).hasSize(1);
    }
}
