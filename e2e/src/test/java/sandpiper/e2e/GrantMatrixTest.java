package sandpiper.e2e;

import static org.assertj.core.api.Assertions.assertThat;

import java.net.URLEncoder;
import java.nio.charset.StandardCharsets;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.concurrent.atomic.AtomicInteger;
import java.util.regex.Pattern;
import java.util.stream.Stream;
import org.junit.jupiter.api.DynamicTest;
import org.junit.jupiter.api.Tag;
import org.junit.jupiter.api.TestFactory;
import org.junit.jupiter.api.extension.ExtendWith;

/**
 * Every operation is tried with the grant for every operation, with and without a condition, on a
 * record inside and one outside of it, over every protocol: what is granted works, and nothing else
 * does.
 */
@Tag("each-engine")
@ExtendWith(Marina.class)
class GrantMatrixTest {
    private static final String SECRET = "a-secret-of-the-matrix";
    private static final String SERVICE = "vessel-registry/v1";
    private static final AtomicInteger NUMBER = new AtomicInteger();

    /** Records inside the condition are motor yachts, those outside sail. */
    private static final String CONDITION = " where kind = \"motor\"";

    private enum Operation {
        CREATE,
        READ,
        UPDATE,
        QUERY,
        REMOVE
    }

    /** What came of a call, whatever the protocol. */
    private enum Result {
        DONE,
        FORBIDDEN,
        NOT_THERE,
        REFUSED
    }

    /** A way to call the service. */
    private interface Caller {
        Result call(String who, Operation operation, String key, String kind);
    }

    private static final Map<String, Caller> PROTOCOLS =
            Map.of(
                    "REST", GrantMatrixTest::rest,
                    "OData", GrantMatrixTest::odata,
                    "SOAP", GrantMatrixTest::soap);

    @TestFactory
    Stream<DynamicTest> whatIsGrantedWorksAndNothingElse() {
        var tests = new ArrayList<DynamicTest>();
        for (var granted : Operation.values()) {
            for (var condition : List.of("", CONDITION)) {
                var name = "%s%s".formatted(word(granted), condition);
                tests.add(DynamicTest.dynamicTest(name, () -> tryAll(granted, condition)));
            }
        }
        return tests.stream();
    }

    private static String word(Operation operation) {
        return operation.name().toLowerCase(java.util.Locale.ROOT);
    }

    private static void tryAll(Operation granted, String condition) {
        var client = client("vessel-registry/vessels/" + word(granted) + condition);
        PROTOCOLS.forEach((protocol, caller) -> {
            for (var tried : Operation.values()) {
                for (var kind : List.of("motor", "sail")) {
                    var key = "MX-" + NUMBER.incrementAndGet();
                    if (tried != Operation.CREATE) {
                        make(key, kind);
                    }
                    assertThat(caller.call(client, tried, key, kind))
                            .as("%s %s of a %s", protocol, tried, kind)
                            .isEqualTo(expected(granted, tried, condition, kind));
                }
            }
        });
    }

    private static Result expected(
            Operation granted, Operation tried, String condition, String kind) {
        if (tried != granted) {
            return Result.FORBIDDEN;
        }
        boolean inside = condition.isEmpty() || kind.equals("motor");
        return inside ? Result.DONE : tried == Operation.CREATE ? Result.REFUSED : Result.NOT_THERE;
    }

    private static String client(String grant) {
        var name = "matrix-" + NUMBER.incrementAndGet();
        var answer =
                Marina.call(
                        "consultant:gullhaven",
                        "POST",
                        "/manage/v1/clients",
                        "{\"name\": \"%s\", \"secret\": \"%s\", \"grants\": [\"%s\"]}"
                                .formatted(name, SECRET, grant.replace("\"", "\\\"")));
        assertThat(answer.status()).as(answer.whole().body()).isEqualTo(201);
        return name + ":" + SECRET;
    }

    private static String values(String key, String kind) {
        return """
        {"registration": "%s", "name": "Matrix", "kind": "%s", "length": 9, "beam": 3, "draught": 1,
         "%s": "OW-0040"}\
        """
                .formatted(key, kind, "owner");
    }

    private static void make(String key, String kind) {
        var answer =
                Marina.call(
                        "consultant:gullhaven",
                        "POST",
                        "/manage/v1/records/Vessel",
                        values(key, kind));
        assertThat(answer.status()).as(answer.whole().body()).isEqualTo(201);
    }

    private static Result result(Marina.Answer answer, String key, Operation operation) {
        var body = answer.whole().body();
        return switch (answer.status()) {
            case 200, 201, 204 ->
                    operation != Operation.QUERY || body.contains(key)
                            ? Result.DONE
                            : Result.NOT_THERE;
            case 403 -> Result.FORBIDDEN;
            case 404 -> Result.NOT_THERE;
            case 409 -> Result.REFUSED;
            default -> throw new AssertionError(answer.status() + ": " + body);
        };
    }

    private static String encoded(String text) {
        return URLEncoder.encode(text, StandardCharsets.UTF_8).replace("+", "%20");
    }

    private static Result rest(String who, Operation operation, String key, String kind) {
        var set = "/api/" + SERVICE + "/vessels";
        var one = set + "/" + key;
        return result(
                switch (operation) {
                    case CREATE -> Marina.call(who, "POST", set, values(key, kind));
                    case READ -> Marina.get(who, one);
                    case UPDATE -> Marina.call(who, "PATCH", one, "{\"name\": \"Other\"}");
                    case REMOVE -> Marina.call(who, "DELETE", one, "");
                    case QUERY ->
                            Marina.get(
                                    who,
                                    set
                                            + "?filter="
                                            + encoded("registration = \"%s\"".formatted(key)));
                },
                key,
                operation);
    }

    private static Result odata(String who, Operation operation, String key, String kind) {
        var set = "/odata/" + SERVICE + "/vessels";
        var one = "%s('%s')".formatted(set, key);
        var values = values(key, kind).replace("\"owner\"", "\"ownerKey\"");
        return result(
                switch (operation) {
                    case CREATE -> Marina.call(who, "POST", set, values);
                    case READ -> Marina.get(who, one);
                    case UPDATE ->
                            Marina.call(
                                    who, "PATCH", one, "{\"name\": \"Other\"}", "If-Match", "*");
                    case REMOVE -> Marina.call(who, "DELETE", one, "");
                    case QUERY ->
                            Marina.get(
                                    who,
                                    set
                                            + "?$filter="
                                            + encoded("registration eq '%s'".formatted(key)));
                },
                key,
                operation);
    }

    private static final Pattern STATUS = Pattern.compile("<(?:\\w+:)?status>(\\d+)<");

    private static Result soap(String who, Operation operation, String key, String kind) {
        var one = "<key>%s</key>".formatted(key);
        var message =
                switch (operation) {
                    case CREATE ->
                            "<CreateVessel><vessel><registration>%s</registration><name>Matrix</name><kind>%s</kind><length>9</length><beam>3</beam><draught>1</draught><owner>OW-0040</owner></vessel></CreateVessel>"
                                    .formatted(key, kind);
                    case READ -> "<GetVessel>%s</GetVessel>".formatted(one);
                    case UPDATE ->
                            "<UpdateVessel>%s<vessel><name>Other</name></vessel></UpdateVessel>"
                                    .formatted(one);
                    case REMOVE -> "<RemoveVessel>%s</RemoveVessel>".formatted(one);
                    case QUERY ->
                            "<FindVessels><criteria><registration><equals>%s</equals></registration></criteria></FindVessels>"
                                    .formatted(key);
                };
        var name = message.substring(0, message.indexOf('>'));
        var envelope =
                "<s:Envelope xmlns:s=\"http://schemas.xmlsoap.org/soap/envelope/\"><s:Body>%s xmlns=\"urn:sandpiper:vessel-registry:v1\"%s</s:Body></s:Envelope>"
                        .formatted(name, message.substring(name.length()));
        var answer =
                Marina.call(who, "POST", "/soap/" + SERVICE, envelope, "Content-Type", "text/xml");
        var fault = STATUS.matcher(answer.whole().body());
        if (answer.status() == 500 && fault.find()) {
            return switch (fault.group(1)) {
                case "403" -> Result.FORBIDDEN;
                case "404" -> Result.NOT_THERE;
                case "409" -> Result.REFUSED;
                default -> throw new AssertionError(answer.whole().body());
            };
        }
        return result(answer, key, operation);
    }
}
