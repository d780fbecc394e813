package sandpiper.model.route;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.List;
import java.util.Map;
import java.util.Objects;
import java.util.TreeMap;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import sandpiper.model.Diagnostic;
import sandpiper.model.change.ReleaseChange;
import sandpiper.model.check.CheckedDefinitions;
import sandpiper.model.check.Definitions;
import sandpiper.model.release.Field;
import sandpiper.model.release.FieldTree;
import sandpiper.model.release.Release;
import sandpiper.model.release.ResourceType.Operation;
import sandpiper.model.type.FieldType;

class TravellingFieldsTest {
    private static final String ROUTE =
            """
            route: papers
            describe: From whoever pays to what is posted.
            steps:
              - { from: Payer, to: Job, through: boat.payer }
              - { from: Job, to: Job.hours }
              - { from: Job, to: Bill, through: job }
              - { from: Bill, to: Posting, through: bill }
            services: [desk]
            """;

    private static Map<String, String> files(String field, String route) {
        var files = new TreeMap<String, String>();
        files.put("yard/package.yaml", "package: yard\nversion: 1\nlanguages: [en, de]\n");
        files.put(
                "yard/objects/payer.yaml",
                "object: Payer\n"
                        + "key: [land, code]\n"
                        + "fields:\n"
                        + "  land: { type: text, required: true }\n"
                        + "  code: { type: text, required: true }\n"
                        + "  "
                        + field
                        + "\n");
        files.put(
                "yard/objects/boat.yaml",
                "object: Boat\nfields:\n  payer: { type: reference, to: Payer }\n"
                        + "  taken: { type: text }\n");
        files.put(
                "yard/objects/job.yaml",
                """
                object: Job
                fields:
                  boat: { type: reference, to: Boat }
                  taken: { type: text }
                parts:
                  hours:
                    fields: { count: { type: integer } }
                """);
        files.put(
                "yard/objects/bill.yaml",
                "object: Bill\nfields:\n  job: { type: reference, to: Job }\n");
        files.put(
                "yard/objects/posting.yaml",
                "object: Posting\nfields:\n  bill: { type: reference, to: Bill }\n");
        files.put(
                "yard/services/desk.yaml",
                """
                service: desk
                version: 1
                resources:
                  jobs:
                    object: Job
                    create: { fields: [boat, hours(count)] }
                    read: { fields: [boat, hours(count)] }
                    query: { fields: [boat], filter: [boat] }
                  payers:
                    object: Payer
                    read: { fields: [land, code] }
                  boats:
                    object: Boat
                    read: { fields: [payer] }
                """);
        if (!route.isEmpty()) {
            files.put("yard/routes/papers.yaml", route);
        }
        return files;
    }

    private static CheckedDefinitions check(String field, String route) {
        return Definitions.check(files(field, route));
    }

    private static Release release(String field) {
        var checked = check(field, ROUTE);
        assertThat(checked.diagnostics()).isEmpty();
        return checked.release().orElseThrow();
    }

    private static Field field(Release release, String object, String name) {
        return release.object(object).fields().get(name);
    }

    private static String from(Field field) {
        var source = Objects.requireNonNull(field.logic().source());
        return source.object() + " " + source.written();
    }

    @Test
    void aFieldIsMadeOnEveryObjectAndPartOfTheRoute() {
        var release = release("centre: { type: text, length: 4, label: Centre, travels: papers }");

        for (var object : List.of("Job", "Bill", "Posting")) {
            var made = field(release, object, "centre");
            assertThat(made.type()).isEqualTo(field(release, "Payer", "centre").type());
            assertThat(made.label()).isEqualTo("Centre");
            assertThat(made.readOnly()).isFalse();
        }
        assertThat(from(field(release, "Job", "centre"))).isEqualTo("Payer boat.payer.centre");
        assertThat(from(field(release, "Bill", "centre"))).isEqualTo("Job job.centre");
        assertThat(from(field(release, "Posting", "centre"))).isEqualTo("Bill bill.centre");
        var hours = release.object("Job").part("hours").orElseThrow();
        assertThat(from(hours.fields().get("centre"))).isEqualTo("Job centre");
        assertThat(release.object("Boat").fields().find("centre")).isEmpty();
    }

    @Test
    void whatIsLeftOutIsPassedOver() {
        var release = release("centre: { type: text, travels: { route: papers, to: [Posting] } }");

        assertThat(from(field(release, "Posting", "centre")))
                .isEqualTo("Payer bill.job.boat.payer.centre");
        assertThat(release.object("Bill").fields().find("centre")).isEmpty();
        assertThat(release.object("Job").fields().find("centre")).isEmpty();
    }

    @Test
    void whatFollowsIsWorkedOutAndOnlyRead() {
        var release =
                release("centre: { type: text, travels: [{ route: papers, follows: true }] }");

        var ofJob = field(release, "Job", "centre");
        assertThat(ofJob.isDerived()).isTrue();
        assertThat(ofJob.readOnly()).isTrue();
        assertThat(ofJob.logic().formula()).hasToString("boat.payer.centre");
        var hours = release.object("Job").part("hours").orElseThrow();
        assertThat(hours.fields().get("centre").logic().formula()).hasToString("centre");
    }

    @Test
    void theServicesOfTheRouteShowIt() {
        var release = release("centre: { type: text, travels: papers }");
        var desk = release.service("desk", 1).orElseThrow();
        var jobs = desk.resources().get(0);

        for (var operation : List.of(Operation.CREATE, Operation.READ)) {
            var tree = jobs.tree(operation).orElseThrow();
            assertThat(written(tree)).containsExactly("boat", "centre");
            assertThat(tree.part("hours").orElseThrow().paths())
                    .extracting(path -> path.written())
                    .containsExactly("count", "centre");
        }
        assertThat(written(jobs.tree(Operation.QUERY).orElseThrow()))
                .containsExactly("boat", "centre");
        assertThat(written(desk.resources().get(1).tree(Operation.READ).orElseThrow()))
                .containsExactly("land", "code", "centre");
        assertThat(written(desk.resources().get(2).tree(Operation.READ).orElseThrow()))
                .containsExactly("payer");
    }

    @Test
    void aServiceTakesNothingThatFollowsAndCanLeaveAllOut() {
        var follows = release("centre: { type: text, travels: { route: papers, follows: true } }");
        var files = files("centre: { type: text, travels: papers }", ROUTE);
        files.compute(
                "yard/services/desk.yaml",
                (_, text) -> text.replace("version: 1", "version: 1\ntravelling: false"));
        var without = Definitions.check(files).release().orElseThrow();

        assertThat(written(tree(follows, Operation.CREATE))).containsExactly("boat");
        assertThat(written(tree(follows, Operation.READ))).containsExactly("boat", "centre");
        assertThat(written(tree(without, Operation.READ))).containsExactly("boat");
    }

    private static FieldTree tree(Release release, Operation operation) {
        return release.service("desk", 1)
                .orElseThrow()
                .resources()
                .getFirst()
                .tree(operation)
                .orElseThrow();
    }

    private static List<String> written(FieldTree tree) {
        return tree.paths().stream().map(path -> path.written()).toList();
    }

    @Test
    void labelsAndTypesOfEveryKindTravel() {
        var localised =
                release(
                        "centre: { type: text, localised: true, label: { en: Centre, de: Stelle },"
                                + " travels: papers }");
        var reference =
                release("other: { type: reference, to: Payer, inverse: others, travels: papers }");
        var money = release("owed: { type: amount, currency: record, travels: papers }");
        var derived = release("long: { type: text, formula: code + land, travels: papers }");

        assertThat(localised.labels().texts().get("Job.hours.centre"))
                .containsEntry("de", "Stelle");
        assertThat(field(localised, "Bill", "centre").type())
                .isEqualTo(field(localised, "Payer", "centre").type());
        assertThat(field(reference, "Bill", "other").isReference()).isTrue();
        assertThat(field(reference, "Bill", "other").type())
                .isEqualTo(new FieldType.Reference("Payer", null));
        assertThat(field(money, "Posting", "owed").readOnly()).isFalse();
        assertThat(field(derived, "Job", "long").isDerived()).isFalse();
        assertThat(field(derived, "Job", "long").readOnly()).isTrue();
    }

    @ParameterizedTest
    @CsvSource(
            delimiter = '|',
            value = {
                "centre: { type: text, travels: paper } | SP3035 | no route \"paper\" | papers",
                "taken: { type: text, travels: papers } | SP3008 | Job already has something | ",
                "centre: { type: text, travels: { route: papers, to: [Bil] } } | SP3036 | leads to"
                        + " Job, Job.hours, Bill, Posting | Bill",
                "'centre: { type: text, localised: true, travels: { route: papers, follows: true }"
                        + " }' | SP3014 | do not follow | ",
                "'other: { type: reference, to: Payer, travels: { route: papers, follows: true }"
                        + " }' | SP3014 | do not follow | ",
                "centre: { type: text, travels: [papers, papers] } | SP3008 | gets \"centre\" from"
                        + " Payer on the route papers already | ",
                "centre: { type: text, travels: 7up! } | SP3003 | small letters | "
            })
    void whatCannotTravelIsToldWhereItIsSentFrom(
            String field, String code, String said, String suggestion) {
        var wrong = check(field, ROUTE).errors();

        assertThat(wrong).isNotEmpty();
        assertThat(wrong.getFirst().file()).isEqualTo("yard/objects/payer.yaml");
        assertThat(wrong.getFirst().line()).isEqualTo(6);
        assertThat(wrong.getFirst().code()).isEqualTo(code);
        assertThat(wrong.getFirst().message()).contains(said);
        assertThat(wrong.getFirst().suggestion()).isEqualTo(suggestion);
    }

    @Test
    void aFieldOfLineItemsOrOfNoBeginningStays() {
        var files = files("centre: { type: text }", ROUTE);
        files.compute(
                "yard/objects/job.yaml",
                (_, text) ->
                        text.replace("{ type: integer }", "{ type: integer, travels: papers }"));
        files.compute(
                "yard/objects/boat.yaml",
                (_, text) -> text.replace("{ type: text }", "{ type: text, travels: papers }"));

        assertThat(Definitions.check(files).errors())
                .extracting(Diagnostic::message)
                .containsExactly(
                        "Nothing is made from Boat on the route papers; it goes on from Payer, Job,"
                                + " Bill.",
                        "Fields of a record travel, those of its line items do not.");
    }

    @ParameterizedTest
    @CsvSource(
            delimiter = '|',
            value = {
                "{ from: Payer, to: Job } | SP3004 | references of Job that lead to Payer | ",
                "{ from: Job, to: Bill } | SP3004 | references of Bill that lead to Job | job",
                "{ from: Job, to: Bil, through: job } | SP3009 | no object \"Bil\" | Bill",
                "{ from: Job, to: Job.hour } | SP3010 | no line items \"hour\" | hours",
                "{ from: Job, to: Bill, through: jobb } | SP3010 | no field \"jobb\" | job",
                "{ from: Job, to: Bill, through: job.boat } | SP3036 | leads to Boat, not to Job |"
                        + " job",
                "{ from: Job, to: Bill, through: job.taken } | SP3014 | taken of Job is not a"
                        + " reference | ",
                "{ from: Job, to: job, through: job } | SP3003 | an object | ",
                "{ from: Bill, to: Job, through: boat } | SP3036 | leads to Boat | "
            })
    void aStepThatLeadsNowhereIsToldInTheRoute(
            String step, String code, String said, String suggestion) {
        var wrong =
                check("centre: { type: text }", "route: papers\nsteps:\n  - %s\n".formatted(step))
                        .errors();

        assertThat(wrong).isNotEmpty();
        assertThat(wrong.getFirst().file()).isEqualTo("yard/routes/papers.yaml");
        assertThat(wrong.getFirst().line()).isEqualTo(3);
        assertThat(wrong.getFirst().code()).isEqualTo(code);
        assertThat(wrong.getFirst().message()).contains(said);
        assertThat(wrong.getFirst().suggestion()).isEqualTo(suggestion);
    }

    @Test
    void circlesUnknownServicesAndSecondRoutesOfANameAreFound() {
        var files = files("centre: { type: text, travels: papers }", ROUTE);
        files.compute(
                "yard/objects/payer.yaml",
                (_, text) -> text + "  last: { type: reference, to: Posting }\n");
        files.put(
                "yard/routes/papers.yaml",
                ROUTE.replace("services: [desk]", "services: [deks]")
                        .replace(
                                "services:",
                                "  - { from: Posting, to: Payer, through: last }\nservices:"));
        files.put("yard/routes/second.yaml", "route: papers\nsteps: []\n");
        files.put("yard/routes/third.yaml", "route: none\nsteps: []\n");

        assertThat(Definitions.check(files).errors())
                .extracting(Diagnostic::message)
                .anySatisfy(one -> assertThat(one).contains("There is a route \"papers\" already"))
                .anySatisfy(one -> assertThat(one).contains("There is no service \"deks\""))
                .anySatisfy(one -> assertThat(one).contains("A route needs at least one step"))
                .anySatisfy(
                        one -> assertThat(one).contains("Payer to Job to Bill to Posting to Payer"))
                .hasSize(4);
    }

    @Test
    void aPackageMayOnlyNameWhatItCanSee() {
        var files = files("centre: { type: text }", "");
        files.put("other/package.yaml", "package: other\nversion: 1\n");
        files.put("other/routes/papers.yaml", ROUTE);

        assertThat(Definitions.check(files).errors())
                .isNotEmpty()
                .allSatisfy(one -> assertThat(one.code()).isEqualTo("SP3020"));
    }

    @Test
    void whatARouteAddsAndTakesIsToldOfEachObject() {
        var before = check("centre: { type: text }", ROUTE).release().orElseThrow();
        var after = release("centre: { type: text, travels: papers }");

        assertThat(ReleaseChange.between(before, after).sentences())
                .anySatisfy(one ->
                        assertThat(one)
                                .contains("Bill")
                                .contains(
                                        "field centre is added (text up to 200, from Job by"
                                                + " the route papers)"));
        assertThat(ReleaseChange.between(after, before).sentences())
                .anySatisfy(one ->
                        assertThat(one).contains("Bill").contains("field centre is removed"));
    }
}
