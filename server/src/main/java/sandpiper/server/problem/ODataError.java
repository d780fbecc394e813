package sandpiper.server.problem;

import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.function.UnaryOperator;
import org.jspecify.annotations.Nullable;
import org.springframework.http.HttpStatus;

/** A problem as OData has it (JSON Format 4.01, 21.1). */
public final class ODataError {
    private ODataError() {}

    /** As plain values; {@code targets} turns a JSON Pointer into the name of a property. */
    public static Map<String, @Nullable Object> of(Problem problem, UnaryOperator<String> targets) {
        var error = new LinkedHashMap<String, @Nullable Object>();
        var errors = problem.errors();
        error.put("code", errors.size() == 1 ? errors.getFirst().code() : code(problem.status()));
        error.put("message", problem.detail().replace("see errors.", "see details."));
        if (errors.size() == 1 && !errors.getFirst().pointer().isEmpty()) {
            error.put("target", targets.apply(errors.getFirst().pointer()));
        }
        var details = new ArrayList<Map<String, Object>>();
        for (var one : errors.size() > 1 ? errors : List.<Problem.Wrong>of()) {
            var detail = new LinkedHashMap<String, Object>();
            detail.put("code", one.code());
            detail.put("message", one.message());
            if (!one.pointer().isEmpty()) {
                detail.put("target", targets.apply(one.pointer()));
            }
            details.add(detail);
        }
        if (!details.isEmpty()) {
            error.put("details", details);
        }
        var body = new LinkedHashMap<String, @Nullable Object>();
        body.put("error", error);
        return body;
    }

    private static String code(int status) {
        var known = HttpStatus.resolve(status);
        return known == null
                ? String.valueOf(status)
                : known.name().toLowerCase(Locale.ROOT).replace('_', '-');
    }
}
