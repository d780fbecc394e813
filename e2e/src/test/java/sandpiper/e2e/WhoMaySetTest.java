package sandpiper.e2e;

import static org.assertj.core.api.Assertions.assertThat;

import java.net.URI;
import java.net.http.HttpClient;
import java.net.http.HttpRequest;
import java.net.http.HttpResponse;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.stream.Stream;
import org.junit.jupiter.api.AfterAll;
import org.junit.jupiter.api.BeforeAll;
import org.junit.jupiter.api.DynamicTest;
import org.junit.jupiter.api.TestFactory;
import org.junit.jupiter.api.io.TempDir;
import sandpiper.client.ManageClient;
import sandpiper.client.RefusedException;

/**
 * The table "Who may set what" of the guide, cell by cell, over every way in there is, on a service
 * that knows nothing of the marina.
 */
class WhoMaySetTest {
    private static final Path GUIDE = Path.of("../docs/guide/rules.md");
    private static final List<String> COLUMNS =
            List.of("derived", "state", "seal", "due", "retire");

    private static final String JOB =
            """
            object: Job
            key: code
            fields:
              code:  { type: text, length: 20, required: true }
              size:  { type: integer, default: 1 }
              twice: { type: integer, formula: size * 2 }
              seal:  { type: text, readOnly: true }
              paid:  { type: boolean, default: false }
              due:   { type: date, readOnlyWhen: paid }
              crew:  { type: reference, to: Crew, inverse: jobs }
            lifecycle:
              initial: Asked
              states: [Asked, Done]
              transitions: { finish: { from: Asked, to: Done } }
            rules:
              sealed:
                on: change of size
                when: size = 77
                then: |
                  set seal = "taken"
                  set due = @"2030-01-01"
            functions:
              put:
                external: true
                body: |
                  set seal = "taken"
                  set due = @"2030-01-01"
              dismiss:
                external: true
                body: retire crew
            """;
    private static final String CREW =
            """
            object: Crew
            key: code
            fields: { code: { type: text, length: 20, required: true } }
            """;
    private static final String DESK =
            """
            service: desk
            version: 1
            protocols: [rest, soap, odata]
            resources:
              jobs:
                object: Job
                create: { fields: [code, size, paid, due, crew] }
                read: { fields: all }
                update: { fields: [size, paid, due, crew] }
              crews:
                object: Crew
                create: { fields: all }
                read: { fields: all }
                remove: true
            """;

    @TempDir static Path folder;

    private static ServiceProcess service;
    private static ManageClient manage;
    private static String basic = "";
    private static int serial;

    @BeforeAll
    static void start() throws Exception {
        service = ServiceProcess.start(folder.resolve("data.db"), Map.of());
        manage = service.client();
        manage.post(
                "/manage/v1/draft/push",
                Map.of(
                        "files",
                        Map.of(
                                "yard/package.yaml", "package: yard\nversion: 1\n",
                                "yard/objects/job.yaml", JOB,
                                "yard/objects/crew.yaml", CREW,
                                "yard/services/desk.yaml", DESK)));
        manage.post("/manage/v1/releases", Map.of("note", "Yard"));
        var made =
                manage.post(
                        "/manage/v1/clients",
                        Map.of("name", "desk-site", "grants", List.of("desk/*/*")));
        basic = BasicSignIn.as("desk-site:" + made.path("secret").asString());
    }

    @AfterAll
    static void stop() {
        service.close();
    }

    /** The rows of the table: the way in, then what each column says. */
    private static Map<String, List<String>> table() throws Exception {
        var rows = new LinkedHashMap<String, List<String>>();
        for (var line : Files.readAllLines(GUIDE)) {
            var cells = List.of(line.split("\\|", -1));
            if (cells.size() == COLUMNS.size() + 3 && !line.startsWith("| ---")) {
                rows.put(
                        cells.get(1).strip(),
                        cells.subList(2, 2 + COLUMNS.size()).stream()
                                .map(cell -> cell.strip().split("[:;,]")[0])
                                .toList());
            }
        }
        rows.remove("way in");
        return rows;
    }

    @TestFactory
    Stream<DynamicTest> everyCellIsSo() throws Exception {
        var tests = new ArrayList<DynamicTest>();
        table().forEach((row, cells) -> {
            for (var way : ways(row)) {
                for (int i = 0; i < COLUMNS.size(); i++) {
                    var wanted = cells.get(i);
                    var column = COLUMNS.get(i);
                    if (!wanted.isEmpty()) {
                        tests.add(
                                DynamicTest.dynamicTest(
                                        "%s, %s: %s".formatted(way, column, wanted),
                                        () -> assertThat(tried(way, column)).isEqualTo(wanted)));
                    }
                }
            }
        });
        assertThat(tests).hasSizeGreaterThanOrEqualTo(40);
        return tests.stream();
    }

    private static List<String> ways(String row) {
        return switch (row) {
            case "console, manage API" -> List.of("manage");
            case "command line" -> List.of("cli");
            case "import" -> List.of("import");
            case "import with `--whole` (duty operate)" -> List.of("whole");
            case "REST, SOAP" -> List.of("rest", "soap");
            case "OData" -> List.of("odata");
            case "functions, rules, handlers, schedules" -> List.of("function", "rule");
            case "examples without `by`" -> List.of("example");
            default -> throw new AssertionError("Nobody tries this way in: " + row);
        };
    }

    /** What came of it: taken, refused, left out, or asked. */
    private String tried(String way, String column) throws Exception {
        return switch (way) {
            case "function", "rule" -> byLogic(way, column);
            case "example" -> byExample(column);
            default -> column.equals("retire") ? retire(way) : set(way, column);
        };
    }

    private static Object value(String column) {
        return switch (column) {
            case "derived" -> 99;
            case "state" -> "Done";
            case "seal" -> "taken";
            default -> "2030-01-01";
        };
    }

    private static String field(String column) {
        return column.equals("derived") ? "twice" : column;
    }

    /** A job that is there, for what binds changes only; its own date is set. */
    private static String existing(boolean paid) {
        var code = "J" + ++serial;
        manage.post(
                "/manage/v1/records/Job", Map.of("code", code, "due", "2026-01-01", "paid", paid));
        return code;
    }

    private String set(String way, String column) throws Exception {
        boolean change = column.equals("due");
        var code = change ? existing(true) : "N" + ++serial;
        var values = new LinkedHashMap<String, Object>();
        values.put(field(column), value(column));
        var said = send(way, code, values, change);
        if (!said.isEmpty()) {
            return "refused";
        }
        var now =
                manage.get("/manage/v1/records/Job/" + code)
                        .path("values")
                        .path(field(column))
                        .asString();
        return now.equals(String.valueOf(value(column))) ? "taken" : "left out";
    }

    /** Sends values of one job; what was said against it, empty when nothing was. */
    private String send(String way, String code, Map<String, Object> values, boolean change)
            throws Exception {
        var all = new LinkedHashMap<>(values);
        if (!change || way.equals("import") || way.equals("whole")) {
            all.put("code", code);
        }
        switch (way) {
            case "manage":
                try {
                    if (change) {
                        manage.patch("/manage/v1/records/Job/" + code, all, null);
                    } else {
                        manage.post("/manage/v1/records/Job", all);
                    }
                    return "";
                } catch (RefusedException e) {
                    return String.valueOf(e.getMessage());
                }
            case "cli":
                var words =
                        new ArrayList<>(List.of("records", change ? "change" : "create", "Job"));
                if (change) {
                    words.add(code);
                }
                all.forEach((name, value) -> words.add(name + "=" + value));
                return commandLine(words);
            case "import", "whole":
                var file = folder.resolve("rows" + ++serial + ".jsonl");
                Files.writeString(file, ManageClient.write(all) + "\n");
                var line = new ArrayList<>(List.of("records", "import", "Job", file.toString()));
                if (way.equals("whole")) {
                    line.add("--whole");
                }
                return commandLine(line);
            case "rest":
                return change
                        ? http(
                                "PATCH",
                                "/api/desk/v1/jobs/" + code,
                                ManageClient.write(all),
                                Map.of())
                        : http("POST", "/api/desk/v1/jobs", ManageClient.write(all), Map.of());
            case "odata":
                return change
                        ? http(
                                "PATCH",
                                "/odata/desk/v1/jobs('" + code + "')",
                                ManageClient.write(all),
                                Map.of())
                        : http("POST", "/odata/desk/v1/jobs", ManageClient.write(all), Map.of());
            default:
                return soap(change ? "UpdateJob" : "CreateJob", code, all, change);
        }
    }

    private static String soap(
            String operation, String code, Map<String, Object> values, boolean change)
            throws Exception {
        var fields = new StringBuilder();
        values.forEach((name, value) -> fields.append("<%1$s>%2$s</%1$s>".formatted(name, value)));
        var body =
                """
                <s:Envelope xmlns:s="http://schemas.xmlsoap.org/soap/envelope/"><s:Body>
                <%1$s xmlns="urn:sandpiper:desk:v1">%2$s<job>%3$s</job></%1$s></s:Body></s:Envelope>
                """
                        .formatted(operation, change ? "<key>" + code + "</key>" : "", fields);
        return http("POST", "/soap/desk/v1", body, Map.of("Content-Type", "text/xml"));
    }

    private String retire(String way) throws Exception {
        var crew = "C" + ++serial;
        manage.post("/manage/v1/records/Crew", Map.of("code", crew));
        manage.post("/manage/v1/records/Job", Map.of("code", "J" + ++serial, "crew", crew));
        assertThat(retire(way, crew, false)).isNotEmpty();
        return retire(way, crew, true).isEmpty() ? "asked" : "refused";
    }

    private static String retire(String way, String crew, boolean agreed) throws Exception {
        var headers = agreed ? Map.of("Sandpiper-Confirm", "in-use") : Map.<String, String>of();
        return switch (way) {
            case "manage" -> {
                try {
                    manage.delete("/manage/v1/records/Crew/" + crew, headers);
                    yield "";
                } catch (RefusedException e) {
                    yield String.valueOf(e.getMessage());
                }
            }
            case "cli" -> {
                var words = new ArrayList<>(List.of("records", "retire", "Crew", crew));
                if (agreed) {
                    words.add("--used");
                }
                yield commandLine(words);
            }
            case "rest" -> http("DELETE", "/api/desk/v1/crews/" + crew, "", headers);
            case "odata" -> http("DELETE", "/odata/desk/v1/crews('" + crew + "')", "", headers);
            default -> {
                var body =
                        """
                        <s:Envelope xmlns:s="http://schemas.xmlsoap.org/soap/envelope/"><s:Body>
                        <RemoveCrew xmlns="urn:sandpiper:desk:v1"><key>%s</key></RemoveCrew></s:Body></s:Envelope>
                        """
                                .formatted(crew);
                var all = new LinkedHashMap<>(headers);
                all.put("Content-Type", "text/xml");
                yield http("POST", "/soap/desk/v1", body, all);
            }
        };
    }

    /** Steps that set something; what the checker refuses cannot even be released. */
    private String byLogic(String way, String column) {
        if (column.equals("derived") || column.equals("state")) {
            var step = "set " + field(column) + " = " + (column.equals("state") ? "\"Done\"" : "9");
            var checked =
                    manage.post(
                            "/manage/v1/logic/check",
                            Map.of("object", "Job", "role", "THEN", "text", step));
            return checked.path("findings").toString().contains("cannot be set")
                    ? "refused"
                    : "taken";
        }
        if (column.equals("retire")) {
            var crew = "C" + ++serial;
            var code = "J" + ++serial;
            manage.post("/manage/v1/records/Crew", Map.of("code", crew));
            manage.post("/manage/v1/records/Job", Map.of("code", code, "crew", crew));
            manage.post("/manage/v1/functions/Job/dismiss", Map.of("key", code));
            return manage.get("/manage/v1/records/Crew/" + crew).path("retired").asBoolean()
                    ? "taken"
                    : "refused";
        }
        var code = existing(true);
        if (way.equals("rule")) {
            manage.patch("/manage/v1/records/Job/" + code, Map.of("size", 77), null);
        } else {
            manage.post("/manage/v1/functions/Job/put", Map.of("key", code));
        }
        var now =
                manage.get("/manage/v1/records/Job/" + code).path("values").path(column).asString();
        return now.equals(value(column)) ? "taken" : "refused";
    }

    private String byExample(String column) throws Exception {
        boolean change = column.equals("due");
        var name = field(column);
        var when =
                change
                        ? "[{ create: Job, as: job, values: { code: X, due: 2026-01-01, paid: true"
                                + " } }, { change: job, values: { due: 2030-01-01 } }]"
                        : "[{ create: Job, as: job, values: { code: X, %s: %s } }]"
                                .formatted(name, value(column));
        var requirement =
                """
                requirements:
                  R-1:
                    text: Tried.
                    examples:
                      tried:
                        when: %s
                        then: { values: { %s: %s } }
                """
                        .formatted(when, name, value(column));
        var target = Files.createDirectories(folder.resolve("package" + ++serial + "/yard"));
        for (var sub : List.of("objects", "requirements")) {
            Files.createDirectories(target.resolve(sub));
        }
        Files.writeString(target.resolve("package.yaml"), "package: yard\nversion: 1\n");
        Files.writeString(target.resolve("objects/job.yaml"), JOB);
        Files.writeString(target.resolve("objects/crew.yaml"), CREW);
        Files.writeString(target.resolve("requirements/all.yaml"), requirement);
        var said = commandLine(List.of("check", target.getParent().toString(), "--examples"));
        return said.isEmpty()
                ? "taken"
                : said.contains("cannot be") || said.contains("is changed by")
                        ? "refused"
                        : "left out";
    }

    /** Runs the command line; what it said when it failed, empty when it did not. */
    private static String commandLine(List<String> words) {
        var said = CommandRun.of(service, words.toArray(String[]::new));
        return said.endsWith("exit 0\n") ? "" : said;
    }

    /** Calls the service as a client; what was said against it, empty when nothing was. */
    private static String http(String method, String path, String body, Map<String, String> headers)
            throws Exception {
        var request =
                HttpRequest.newBuilder(URI.create(service.address() + path))
                        .header("Authorization", basic)
                        .method(method, HttpRequest.BodyPublishers.ofString(body));
        if (!headers.containsKey("Content-Type")) {
            request.header("Content-Type", "application/json");
        }
        headers.forEach(request::header);
        try (var client = HttpClient.newHttpClient()) {
            var answer = client.send(request.build(), HttpResponse.BodyHandlers.ofString());
            return answer.statusCode() < 300 ? "" : answer.statusCode() + " " + answer.body();
        }
    }
}
