package sandpiper.store;

import static org.assertj.core.api.Assertions.assertThat;

import java.nio.file.Path;
import java.time.Instant;
import java.util.List;
import java.util.Map;
import java.util.Set;
import org.junit.jupiter.api.AfterEach;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import sandpiper.engine.access.Actor;
import sandpiper.engine.access.Duty;
import sandpiper.engine.access.ObjectGrant;
import sandpiper.engine.access.ObjectGrant.Action;
import sandpiper.engine.access.RecordScope;
import sandpiper.engine.access.Role;
import sandpiper.engine.access.StoredClient;
import sandpiper.engine.access.StoredSecret;
import sandpiper.engine.command.Outcome;
import sandpiper.engine.definition.Releases;
import sandpiper.engine.event.Webhook;
import sandpiper.engine.record.NamedView;

/** Grants and views go by names, and names change. */
class FollowersTest {
    private static final String JOB =
            """
            object: Job
            key: code
            fields:
              code: { type: text, required: true }
              pay: { type: integer }
              secret: { type: text }
              due: { type: date }
            parts:
              steps:
                fields: { what: { type: text } }
            """;
    private static final String SERVICE =
            """
            service: desk
            version: 1
            resources:
              jobs:
                object: Job
                read: { fields: [code, pay] }
            """;

    @TempDir Path folder;
    private Harness yard;

    @BeforeEach
    void begin() {
        yard = new Harness(folder).release(files(JOB, SERVICE));
        yard.engine
                .accounts()
                .roles()
                .put(
                        Actor.SYSTEM,
                        new Role(
                                "hand",
                                "Hand",
                                null,
                                Set.of(Duty.RECORDS),
                                List.of(),
                                List.of(
                                        new ObjectGrant(
                                                "Job",
                                                Set.of(Action.VIEW),
                                                "pay < 100",
                                                List.of("secret", "steps"),
                                                List.of("pay")),
                                        new ObjectGrant(
                                                ObjectGrant.EVERY,
                                                Set.of(Action.VIEW),
                                                null,
                                                List.of("secret"),
                                                List.of())),
                                null));
        yard.engine
                .views()
                .put(
                        "ann",
                        new NamedView(
                                "Job",
                                "ann",
                                "Late",
                                "pay > 5",
                                null,
                                "-due",
                                null,
                                List.of("code", "secret", "pay"),
                                new NamedView.Chart(NamedView.Chart.Kind.BAR, "due", null, "pay")));
    }

    @AfterEach
    void end() {
        yard.close();
    }

    private static Map<String, String> files(String object, String service) {
        return Map.of(
                "yard/package.yaml",
                "package: yard\nversion: 1\n",
                "yard/objects/job.yaml",
                object,
                "yard/services/desk.yaml",
                service);
    }

    private static String renamed() {
        return JOB.replace("object: Job", "object: Task\nwas: Job")
                .replace("secret: {", "hush: { was: secret,")
                .replace("due: {", "dueOn: { was: due,")
                .replace("steps:\n", "moves:\n    was: steps\n");
    }

    private List<String> left(String object, String service) {
        yard.engine.drafts().push(files(object, service), Actor.SYSTEM);
        assertThat(yard.engine.drafts().check().errors()).isEmpty();
        return yard.engine.releases().preview().leftBehind();
    }

    private Role role() {
        return yard.engine.accounts().roles().all().stream()
                .filter(one -> one.role().name().equals("hand"))
                .findFirst()
                .orElseThrow()
                .role();
    }

    @Test
    void whatWasHiddenStaysHiddenUnderItsNewName() {
        yard.release(files(renamed(), SERVICE.replace("object: Job", "object: Task")));

        var grants = role().objects();
        assertThat(grants.getFirst())
                .isEqualTo(
                        new ObjectGrant(
                                "Task",
                                Set.of(Action.VIEW),
                                "pay < 100",
                                List.of("hush", "moves"),
                                List.of("pay")));
        assertThat(grants.getLast().hidden()).containsExactly("secret", "hush");
        assertThat(yard.engine.accounts().log().latest(1).getFirst().detail())
                .isEqualTo("renamed by a release");
    }

    @Test
    void viewsFollowTheirObjectAndFields() {
        yard.release(files(renamed(), SERVICE.replace("object: Job", "object: Task")));

        assertThat(yard.engine.views().of("Job", "ann")).isEmpty();
        var view = yard.engine.views().of("Task", "ann").getFirst();
        assertThat(view.columns()).containsExactly("code", "hush", "pay");
        assertThat(view.sort()).isEqualTo("-dueOn");
        assertThat(view.chart().by()).isEqualTo("dueOn");
        assertThat(view.chart().sum()).isEqualTo("pay");
    }

    @Test
    void whatFollowsIsToldBeforehand() {
        hook("Job.created");
        yard.engine
                .drafts()
                .push(
                        files(renamed(), SERVICE.replace("object: Job", "object: Task")),
                        Actor.SYSTEM);

        assertThat(yard.engine.releases().preview().follows())
                .contains(
                        "Role hand takes the new names.", "The webhook books takes the new names.")
                .contains("A view of ann on Job takes the new names.");
    }

    private void hook(String... events) {
        yard.engine
                .deliveries()
                .put(
                        new Webhook(
                                "books",
                                "Books",
                                "https://books.example/",
                                List.of(events),
                                null,
                                "sealed",
                                null,
                                null,
                                false));
    }

    @Test
    void aWebhookHearsTheEventsOfItsObjectUnderTheirNewNames() {
        hook("Job.created", "Job.retired");

        yard.release(files(renamed(), SERVICE.replace("object: Job", "object: Task")));

        assertThat(yard.engine.deliveries().webhooks().getFirst().events())
                .containsExactly("Task.created", "Task.retired");
        assertThat(yard.create("Task", "code", "J1")).isInstanceOf(Outcome.Done.class);
        yard.untilArrived();
        long newest = yard.look(session -> yard.storage.events().newest(session));
        assertThat(newest).isPositive();
    }

    @Test
    void aWebhookThatWillHearNothingIsTold() {
        hook("Job.created");

        assertThat(
                        left(
                                "object: Buoy\nfields: { name: { type: text } }\n",
                                SERVICE.replaceFirst(
                                        "(?s)resources:.*",
                                        "resources: { buoys: { object: Buoy, read: { fields: [name]"
                                                + " } } }\n")))
                .contains("The webhook books hears Job.created, which is not raised any more.");
    }

    @Test
    void namesComeBackWithAnEarlierRelease() {
        yard.release(files(renamed(), SERVICE.replace("object: Job", "object: Task")));
        yard.engine
                .releases()
                .takeBack(
                        1,
                        new Releases.Order("", new Releases.Accepted(true, true), false),
                        Actor.SYSTEM);

        assertThat(role().objects().getFirst().hidden()).containsExactly("secret", "steps");
        assertThat(yard.engine.views().of("Job", "ann").getFirst().sort()).isEqualTo("-due");
    }

    @Test
    void whatNamesSomethingThatIsRemovedIsTold() {
        var without =
                JOB.replace("  pay: { type: integer }\n", "")
                        .replace("  due: { type: date }\n", "");

        assertThat(left(without, SERVICE.replace("[code, pay]", "[code]")))
                .containsExactlyInAnyOrder(
                        "Role hand has a grant whose condition no longer fits Job.",
                        "A view of ann on Job names pay, which is removed.",
                        "A view of ann on Job names due, which is removed.",
                        "A view of ann on Job has a filter whose condition no longer fits Job.");
    }

    private boolean isSeen(String where) {
        return yard.engine
                .records()
                .read((live, session) -> {
                    var object = live.release().object("Job");
                    var tree = live.release().everythingOf(object);
                    return yard.engine
                            .records()
                            .find(live, session, object, "J1", tree, RecordScope.ALL.and(where))
                            .isPresent();
                });
    }

    @Test
    void aConditionThatNoLongerFitsLetsNothingThrough() {
        yard.create("Job", "code", "J1", "pay", 7L);
        assertThat(isSeen("pay < 100")).isTrue();

        yard.release(
                files(
                        JOB.replace("  pay: { type: integer }\n", ""),
                        SERVICE.replace("[code, pay]", "[code]")));

        assertThat(isSeen("pay < 100")).isFalse();
        assertThat(isSeen("code != null")).isTrue();
    }

    @Test
    void anObjectAndAResourceThatGoAreTold() {
        try (var transaction = yard.storage.begin(false)) {
            yard.storage
                    .access()
                    .putClient(
                            transaction,
                            StoredClient.made(
                                    "board",
                                    "Board",
                                    new StoredSecret("hash", null),
                                    List.of(
                                            "desk/jobs/read",
                                            "desk/jobs/query where pay > 1",
                                            "*/*/*"),
                                    Instant.EPOCH,
                                    0));
            transaction.commit();
        }
        yard.engine
                .drafts()
                .push(
                        Map.of(
                                "yard/package.yaml",
                                "package: yard\nversion: 1\n",
                                "yard/objects/buoy.yaml",
                                "object: Buoy\nfields: { name: { type: text } }\n"),
                        Actor.SYSTEM);

        assertThat(yard.engine.releases().preview().leftBehind())
                .containsExactlyInAnyOrder(
                        "Role hand has a grant on Job, which is removed.",
                        "Client board has a grant on desk/jobs, which is withdrawn.",
                        "A view of ann on Job goes with its object.");
        assertThat(left(JOB.replace("pay: { type: integer }", "pay: { type: text }"), SERVICE))
                .contains(
                        "Client board has a grant on desk/jobs whose condition no longer fits"
                                + " Job.");
    }

    @Test
    void nothingIsToldWhereNothingIsLeftBehind() {
        assertThat(left(JOB.replace("due:", "more: { type: text }\n  due:"), SERVICE)).isEmpty();
        assertThat(left(renamed(), SERVICE.replace("object: Job", "object: Task"))).isEmpty();
    }
}
