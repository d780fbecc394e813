package sandpiper.e2e;

import static org.assertj.core.api.Assertions.assertThat;

import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.TreeMap;
import java.util.stream.Collectors;
import java.util.stream.Stream;
import org.junit.jupiter.api.DynamicTest;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.TestFactory;
import org.junit.jupiter.api.extension.ExtendWith;
import org.springframework.web.servlet.mvc.method.annotation.RequestMappingHandlerMapping;

/**
 * Every endpoint there is, read from the running service: each stands in the list with who may come
 * in, and lets nobody else in. One that is not in the list fails here, so that none is forgotten.
 */
@ExtendWith(Marina.class)
class EndpointMatrixTest {
    private static final Path LIST = Path.of("src/test/resources/endpoints.txt");

    /** Nobody has to say who asks. */
    private static final String ANYBODY = "anybody";

    /** Whoever is signed in sees something of his own, or what is told to all. */
    private static final String SIGNED_IN = "signed-in";

    /** Of those signed in, who has a duty or a grant. */
    private static final String GRANTED = "granted";

    /** Calls of services, which are led by their address and not by patterns. */
    private static final Set<String> CALLS =
            Set.of(
                    "GET /api/{service}/v{version}/{resource}",
                    "POST /api/{service}/v{version}/{resource}:batch",
                    "PATCH /api/{service}/v{version}/{resource}/{key}",
                    "GET /odata/{service}/v{version}",
                    "GET /odata/{service}/v{version}/{resource}",
                    "POST /odata/{service}/v{version}/$batch",
                    "POST /soap/{service}/v{version}",
                    "POST /soap/{service}/v{version}/r{revision}");

    private static Set<String> endpoints() {
        var patterns =
                Marina.context()
                        .getBean("requestMappingHandlerMapping", RequestMappingHandlerMapping.class)
                        .getHandlerMethods()
                        .keySet()
                        .stream()
                        .flatMap(mapping -> {
                            var methods = mapping.getMethodsCondition().getMethods();
                            var names =
                                    methods.isEmpty()
                                            ? List.of("GET")
                                            : methods.stream().map(Enum::name).toList();
                            return mapping.getPatternValues().stream()
                                    .flatMap(path -> names.stream().map(name -> name + " " + path));
                        })
                        .filter(one -> !one.endsWith("/error"))
                        .collect(Collectors.toCollection(java.util.TreeSet::new));
        patterns.addAll(CALLS);
        return patterns;
    }

    private static Map<String, String> listed() throws Exception {
        var listed = new TreeMap<String, String>();
        for (var line : Files.readAllLines(LIST, StandardCharsets.UTF_8)) {
            if (!line.isBlank() && !line.startsWith("#")) {
                int space = line.indexOf(' ');
                listed.put(line.substring(space + 1).strip(), line.substring(0, space));
            }
        }
        return listed;
    }

    @Test
    void everyEndpointIsInTheList() throws Exception {
        assertThat(listed().keySet()).containsExactlyInAnyOrderElementsOf(endpoints());
        assertThat(listed().values()).containsOnly(ANYBODY, SIGNED_IN, GRANTED);
    }

    @TestFactory
    Stream<DynamicTest> nobodyElseIsLetIn() throws Exception {
        var name = "matrix-nobody";
        Marina.call(
                "admin:gullhaven",
                "POST",
                "/manage/v1/users",
                "{\"name\": \"%s\", \"password\": \"nothing at all\", \"duties\": []}"
                        .formatted(name));
        return listed().entrySet().stream()
                .map(one ->
                        DynamicTest.dynamicTest(
                                one.getValue() + " " + one.getKey(),
                                () ->
                                        check(
                                                one.getKey(),
                                                one.getValue(),
                                                name + ":nothing at all")));
    }

    private static void check(String endpoint, String who, String nobody) {
        var words = endpoint.split(" ");
        var path = concrete(words[1]);
        var body = words[0].equals("GET") || words[0].equals("DELETE") ? "" : "{}";
        int anonymous = Marina.call("", words[0], path, body).status();
        if (who.equals(ANYBODY)) {
            return;
        }
        assertThat(anonymous).as("without credentials").isIn(401, 403);
        if (who.equals(GRANTED)) {
            assertThat(Marina.call(nobody, words[0], path, body).status())
                    .as("without any duty or grant")
                    .isIn(400, 401, 403, 404, 405, 415, 422);
        }
    }

    /** An address of the pattern that leads to something that is there. */
    private static String concrete(String pattern) {
        return pattern.replaceAll("\\{service[^}]*\\}", "berth-desk")
                .replaceAll("\\{version:[^/]*\\}\\}?", "1")
                .replaceAll("\\{version\\}", "1")
                .replaceAll("\\{object[^}]*\\}", "Owner")
                .replaceAll("\\{key[^}]*\\}", "OW-0001")
                .replaceAll("\\{field[^}]*\\}", "owner")
                .replaceAll("\\{resource[^}]*\\}", "stays")
                .replaceAll("\\{[^}/]*\\}+", "1")
                .replaceAll("\\*+", "1");
    }
}
