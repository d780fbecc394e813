package sandpiper.model.service;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.List;
import java.util.Map;
import java.util.TreeMap;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import sandpiper.model.change.ReleaseChange;
import sandpiper.model.check.CheckedDefinitions;
import sandpiper.model.check.Definitions;
import sandpiper.model.release.FieldPath;
import sandpiper.model.release.ResourceType;
import sandpiper.model.release.ResourceType.Operation;

class ServiceExtensionsTest {
    private static final String ADDED =
            """
            extend: desk
            resources:
              jobs:
                create: centre
                read: [centre, double]
                query: centre
                filter: centre
                sort: [centre]
            """;

    private static Map<String, String> files(String extension) {
        var files = new TreeMap<String, String>();
        files.put("yard/package.yaml", "package: yard\nversion: 1\nsealed: true\n");
        files.put(
                "yard/objects/job.yaml",
                """
                object: Job
                key: [pier, number]
                fields:
                  pier: { type: text, required: true }
                  number: { type: integer, required: true }
                  secret: { type: text }
                """);
        files.put(
                "yard/services/desk.yaml",
                """
                service: desk
                version: 1
                resources:
                  jobs:
                    object: Job
                    create: { fields: [pier, number] }
                    read: { fields: [pier, number] }
                    query: { fields: [pier, number], filter: [pier], sort: [number] }
                """);
        files.put("own/package.yaml", "package: own\nversion: 1\ndepends: [yard]\n");
        files.put(
                "own/extensions/job.yaml",
                """
                extend: Job
                fields:
                  centre: { type: text }
                  double: { type: integer, formula: 2 * number }
                  today: { type: date, formula: today() }
                """);
        files.put("own/services/mine.yaml", "service: mine\nversion: 1\nresources: {}\n");
        if (!extension.isEmpty()) {
            files.put("own/service-extensions/desk.yaml", extension);
        }
        return files;
    }

    private static CheckedDefinitions check(String extension) {
        return Definitions.check(files(extension));
    }

    private static List<String> written(List<FieldPath> paths) {
        return paths.stream().map(FieldPath::written).toList();
    }

    private static List<String> written(ResourceType resource, Operation operation) {
        return written(resource.tree(operation).orElseThrow().paths());
    }

    @Test
    void whatAPackageAddedToAnObjectIsAddedToTheServiceOfAnother() {
        var checked = check(ADDED);

        assertThat(checked.errors()).isEmpty();
        var service = checked.release().orElseThrow().service("desk", 1).orElseThrow();
        var jobs = service.resources().getFirst();
        assertThat(service.packageName()).isEqualTo("yard");
        assertThat(written(jobs, Operation.CREATE)).containsExactly("pier", "number", "centre");
        assertThat(written(jobs, Operation.READ))
                .containsExactly("pier", "number", "centre", "double");
        assertThat(written(jobs, Operation.QUERY)).containsExactly("pier", "number", "centre");
        assertThat(written(jobs.filterable())).containsExactly("pier", "centre");
        assertThat(written(jobs.sortable())).containsExactly("number", "centre");
        assertThat(jobs.object().fields().get("centre").told()).isEqualTo("Centre. Added by own.");
        assertThat(jobs.object().fields().get("pier").told()).isEqualTo("Pier.");
    }

    @Test
    void whatTheServiceGrowsByIsToldAndNothingOfItBreaks() {
        var before = check("").release().orElseThrow();
        var after = check(ADDED).release().orElseThrow();

        assertThat(ReleaseChange.between(before, after).sentences())
                .anySatisfy(one -> assertThat(one).contains("Service desk v1: resource jobs"));
    }

    @ParameterizedTest
    @CsvSource(
            delimiter = '|',
            value = {
                "'extend: dsk' | SP3003 | There is no service dsk v1 | desk",
                "'extend: desk, version: 2' | SP3003 | no service desk v2 | ",
                "'extend: mine' | SP3014 | is a service of this package | ",
                "'extend: desk, resources: { job: { read: centre } }' | SP3003 | no resource"
                        + " \"job\" | jobs",
                "'extend: desk, resources: { jobs: { update: centre } }' | SP3014 | does not offer"
                        + " update | ",
                "'extend: desk, resources: { jobs: { read: center } }' | SP3010 | no field"
                        + " \"center\" | centre",
                "'extend: desk, resources: { jobs: { read: secret } }' | SP3020 | not added by own"
                        + " | ",
                "'extend: desk, resources: { jobs: { create: double } }' | SP3024 | set by the"
                        + " service | ",
                "'extend: desk, resources: { jobs: { filter: today } }' | SP3019 | cannot be used"
                        + " to filter | "
            })
    void whatCannotBeAddedIsTold(String said, String code, String message, String suggestion) {
        var whole = said.contains("resources") ? said : said + ", resources: {}";
        var wrong = check("{ %s }".formatted(whole)).errors();

        assertThat(wrong).isNotEmpty();
        assertThat(wrong.getFirst().file()).isEqualTo("own/service-extensions/desk.yaml");
        assertThat(wrong.getFirst().code()).isEqualTo(code);
        assertThat(wrong.getFirst().message()).contains(message);
        assertThat(wrong.getFirst().suggestion()).isEqualTo(suggestion);
    }

    @Test
    void aPackageThatDoesNotSeeItAddsNothing() {
        var files = files(ADDED);
        files.put("own/package.yaml", "package: own\nversion: 1\n");

        assertThat(Definitions.check(files).errors())
                .anySatisfy(one -> {
                    assertThat(one.file()).isEqualTo("own/service-extensions/desk.yaml");
                    assertThat(one.code()).isEqualTo("SP3020");
                });
    }
}
