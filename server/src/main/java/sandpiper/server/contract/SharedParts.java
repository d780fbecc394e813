package sandpiper.server.contract;

import static java.util.Objects.requireNonNull;

import com.fasterxml.jackson.core.JsonProcessingException;
import io.swagger.v3.oas.models.Components;
import io.swagger.v3.oas.models.media.Content;
import io.swagger.v3.oas.models.media.MediaType;
import io.swagger.v3.oas.models.parameters.Parameter;
import io.swagger.v3.oas.models.responses.ApiResponse;
import io.swagger.v3.oas.models.responses.ApiResponses;
import java.io.IOException;
import java.io.InputStream;
import java.io.UncheckedIOException;
import java.math.BigDecimal;
import java.nio.charset.StandardCharsets;
import java.util.EnumSet;
import java.util.Set;
import java.util.TreeSet;
import sandpiper.server.json.Bounds;

/**
 * What operations of a contract share: parameters, problems and fixed schemas, written down in a
 * resource. A contract has only those that are used.
 */
final class SharedParts {
    /** What can go wrong, by the name it has in the resource. */
    enum Failing {
        BAD_REQUEST("BadRequest", "400"),
        UNAUTHORIZED("Unauthorized", "401"),
        FORBIDDEN("Forbidden", "403"),
        NOT_FOUND("NotFound", "404"),
        CONFLICT("Conflict", "409"),
        GONE("Gone", "410"),
        STALE("Stale", "412"),
        TOO_LARGE("TooLarge", "413"),
        UNSUPPORTED_TYPE("UnsupportedType", "415"),
        INVALID("Invalid", "422"),
        VERSION_NEEDED("VersionNeeded", "428"),
        TOO_MANY("TooMany", "429"),
        UNAVAILABLE("Unavailable", "503");

        private final String title;
        private final String status;

        Failing(String title, String status) {
            this.title = title;
            this.status = status;
        }
    }

    private static final String PROBLEM = "Problem";
    private static final String TEXT = text();

    private final Components parts;
    private final Set<String> parameters = new TreeSet<>();
    private final Set<String> responses = new TreeSet<>();

    SharedParts(String server, Bounds bounds) {
        try {
            parts = ContractText.MAPPER.readValue(TEXT, Components.class);
        } catch (JsonProcessingException e) {
            throw new IllegalStateException("The shared parts of contracts are not right", e);
        }
        var oauth = requireNonNull(parts.getSecuritySchemes().get("oauth2"));
        var flow = oauth.getFlows().getClientCredentials();
        flow.setTokenUrl(server + flow.getTokenUrl());
        var limit = requireNonNull(parts.getParameters().get("limit")).getSchema();
        limit.setMaximum(BigDecimal.valueOf(bounds.page()));
        limit.setDefault(bounds.usualPage());
    }

    private static String text() {
        try (InputStream in =
                requireNonNull(
                        SharedParts.class.getResourceAsStream("/contract/shared-parts.json"))) {
            return new String(in.readAllBytes(), StandardCharsets.UTF_8);
        } catch (IOException e) {
            throw new UncheckedIOException(e);
        }
    }

    /** Points to a shared parameter. */
    Parameter parameter(String name) {
        parameters.add(name);
        return new Parameter().$ref("#/components/parameters/" + name);
    }

    /** A fixed schema; gives its name, under which the contract must have it. */
    String schema(String name, RecordSchemas schemas) {
        return schemas.put(name, requireNonNull(parts.getSchemas().get(name)));
    }

    /** Adds answers of things that go wrong; every call can come too often, or at a bad time. */
    void fail(ApiResponses answers, Iterable<Failing> failures) {
        var all = EnumSet.of(Failing.TOO_MANY, Failing.UNAVAILABLE);
        failures.forEach(all::add);
        all.forEach(failing -> fail(answers, failing));
    }

    /** Adds the answer of one thing that goes wrong. */
    void fail(ApiResponses answers, Failing failing) {
        responses.add(failing.title);
        answers.addApiResponse(
                failing.status, new ApiResponse().$ref("#/components/responses/" + failing.title));
    }

    /** Everything that was pointed to, and the schemas of a contract. */
    Components components(RecordSchemas schemas) {
        schema(PROBLEM, schemas);
        var components = new Components().securitySchemes(parts.getSecuritySchemes());
        parts.getParameters()
                .forEach((name, parameter) -> {
                    if (parameters.contains(name)) {
                        components.addParameters(name, parameter);
                    }
                });
        var content =
                new Content()
                        .addMediaType(
                                "application/problem+json",
                                new MediaType().schema(ContractSchema.ref(PROBLEM)));
        parts.getResponses()
                .forEach((name, response) -> {
                    if (responses.contains(name)) {
                        components.addResponses(name, response.content(content));
                    }
                });
        schemas.all().forEach(components::addSchemas);
        return components;
    }
}
