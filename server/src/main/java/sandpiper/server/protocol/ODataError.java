package sandpiper.server.protocol;

import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.function.Function;
import org.jspecify.annotations.Nullable;
import org.springframework.http.HttpStatus;
import sandpiper.engine.command.FaultPath;
import sandpiper.server.json.JsonText;
import sandpiper.server.problem.Problem;

/** A problem as OData has it (JSON Format 4.01, 21.1). */
public final class ODataError implements ProblemWriter {
    @Override
    public String contentType() {
        return "application/json;charset=UTF-8";
    }

    @Override
    public String text(Problem problem) {
        return JsonText.write(of(problem, path -> path.joined("/")));
    }

    /** As plain values; {@code targets} tells the name of the property at a place. */
    public static Map<String, @Nullable Object> of(
            Problem problem, Function<FaultPath, String> targets) {
        var error = new LinkedHashMap<String, @Nullable Object>();
        var errors = problem.errors();
        error.put("code", errors.size() == 1 ? errors.getFirst().code() : code(problem.status()));
        error.put("message", problem.detail());
        if (errors.size() == 1 && !errors.getFirst().path().isWhole()) {
            error.put("target", targets.apply(errors.getFirst().path()));
        }
        var details = new ArrayList<Map<String, Object>>();
        for (var one : errors.size() > 1 ? errors : List.<Problem.Wrong>of()) {
            var detail = new LinkedHashMap<String, Object>();
            detail.put("code", one.code());
            detail.put("message", one.message());
            if (!one.path().isWhole()) {
                detail.put("target", targets.apply(one.path()));
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
