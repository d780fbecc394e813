package sandpiper.server.contract;

import io.swagger.v3.oas.models.headers.Header;
import io.swagger.v3.oas.models.media.Content;
import io.swagger.v3.oas.models.media.MediaType;
import io.swagger.v3.oas.models.parameters.RequestBody;
import io.swagger.v3.oas.models.responses.ApiResponse;
import io.swagger.v3.oas.models.responses.ApiResponses;
import java.util.EnumSet;
import java.util.List;
import java.util.Set;
import sandpiper.model.release.Parameter;
import sandpiper.model.release.ValueType;
import sandpiper.server.contract.SharedParts.Failing;

/** Bodies that are sent, and answers with what can go wrong. */
final class Answers {
    private static final String JSON = "application/json";

    private final SharedParts shared;

    Answers(SharedParts shared) {
        this.shared = shared;
    }

    /** A good answer with a schema of the contract. */
    static ApiResponse of(String describe, String schema) {
        return new ApiResponse().description(describe).content(content(JSON, schema));
    }

    /** The same, of one record: with its version, and where it is when it is new. */
    static ApiResponse ofRecord(String describe, String schema, boolean isNew) {
        var answer = of(describe, schema);
        answer.addHeaderObject("ETag", header("The record's version, for If-Match."));
        if (isNew) {
            answer.addHeaderObject("Location", header("Where the record is read."));
        }
        return answer;
    }

    private static Header header(String describe) {
        return new Header().description(describe).schema(ContractSchema.text());
    }

    /** A body in JSON that must be sent. */
    static RequestBody body(String schema) {
        return body(schema, JSON);
    }

    /** A body of another type that must be sent. */
    static RequestBody body(String schema, String type) {
        return new RequestBody().required(true).content(content(type, schema));
    }

    /** A body with arguments: needed when one of them is. */
    static RequestBody body(String schema, ValueType.Group arguments) {
        return body(schema).required(arguments.entries().stream().anyMatch(Parameter::required));
    }

    private static Content content(String type, String schema) {
        return new Content().addMediaType(type, new MediaType().schema(ContractSchema.ref(schema)));
    }

    /** Adds what can go wrong of itself, and all that any call without a body can meet. */
    void withoutBody(ApiResponses answers, List<Failing> failures) {
        shared.fail(answers, usual(failures));
    }

    /** Adds what can go wrong of itself, and all that any call with a body can meet. */
    void withBody(ApiResponses answers, List<Failing> failures) {
        var all = usual(failures);
        all.add(Failing.TOO_LARGE);
        all.add(Failing.UNSUPPORTED_TYPE);
        shared.fail(answers, all);
    }

    private static Set<Failing> usual(List<Failing> failures) {
        var all = EnumSet.of(Failing.BAD_REQUEST, Failing.UNAUTHORIZED, Failing.FORBIDDEN);
        all.addAll(failures);
        return all;
    }
}
