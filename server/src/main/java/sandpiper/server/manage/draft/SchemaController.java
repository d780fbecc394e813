package sandpiper.server.manage.draft;

import io.swagger.v3.oas.annotations.Operation;
import java.util.Arrays;
import java.util.List;
import org.springframework.http.HttpStatus;
import org.springframework.http.MediaType;
import org.springframework.http.ResponseEntity;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.RequestMapping;
import org.springframework.web.bind.annotation.RestController;
import sandpiper.model.shape.FileKind;
import sandpiper.model.shape.JsonSchemas;
import sandpiper.server.json.JsonText;
import sandpiper.server.problem.ProblemException;

/** JSON Schemas of the kinds of definition files, for editors. */
@RestController
@RequestMapping("/manage/v1/schemas")
public class SchemaController {
    @Operation(summary = "List the schemas of definition files")
    @GetMapping
    List<String> kinds() {
        return Arrays.stream(FileKind.values()).map(FileKind::id).toList();
    }

    @Operation(summary = "The JSON Schema of a kind of definition file")
    @GetMapping("/{kind}.json")
    ResponseEntity<String> schema(@PathVariable String kind) {
        var found =
                Arrays.stream(FileKind.values())
                        .filter(candidate -> candidate.id().equals(kind))
                        .findFirst()
                        .orElseThrow(() ->
                                new ProblemException(
                                        HttpStatus.NOT_FOUND,
                                        "There is no kind of file %s; there are %s."
                                                .formatted(kind, String.join(", ", kinds()))));
        return ResponseEntity.ok()
                .contentType(MediaType.APPLICATION_JSON)
                .body(JsonText.writePretty(JsonSchemas.of(found)));
    }
}
