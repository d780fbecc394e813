package sandpiper.server.contract;

import io.swagger.v3.oas.annotations.Operation;
import jakarta.servlet.http.HttpServletRequest;
import org.springframework.http.HttpHeaders;
import org.springframework.http.MediaType;
import org.springframework.http.ResponseEntity;
import org.springframework.security.core.annotation.AuthenticationPrincipal;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.RequestParam;
import org.springframework.web.bind.annotation.RestController;
import sandpiper.engine.Engine;
import sandpiper.engine.access.Actor;
import sandpiper.server.intake.PublicAddress;
import sandpiper.server.json.JsonReader;
import sandpiper.server.protocol.Protocol;
import sandpiper.server.service.ReleaseChoice;

/** Hands out contracts to those who may see the service. */
@RestController
class ContractController {
    private final PublicAddress addresses;
    private final Engine engine;
    private final JsonReader json;

    ContractController(Engine engine, PublicAddress addresses, JsonReader json) {
        this.addresses = addresses;
        this.engine = engine;
        this.json = json;
    }

    @Operation(summary = "The contract of a service over REST (OpenAPI)")
    @GetMapping({
        Protocol.REST_AT + "{service:[a-z0-9-]+}/v{version:\\d{1,3}}/openapi.json",
        "/manage/v1/contracts/{service:[a-z0-9-]+}/v{version:\\d{1,3}}/openapi.json"
    })
    ResponseEntity<String> openApi(
            @PathVariable String service,
            @PathVariable int version,
            @RequestParam(defaultValue = "LIVE") ReleaseChoice.Source of,
            @AuthenticationPrincipal Actor actor,
            HttpServletRequest request) {
        var release = ReleaseChoice.of(engine, actor, of);
        var type =
                ReleaseChoice.service(
                        release, actor, service, version, Protocol.REST::isSpokenBy, " over REST");
        var document = OpenApiContract.of(release, type, addresses.of(request), json.bounds());
        if (of == ReleaseChoice.Source.LIVE) {
            document.getInfo()
                    .addExtension("x-revision", engine.releases().revisions().newest(type));
        }
        return ResponseEntity.ok()
                .contentType(MediaType.APPLICATION_JSON)
                .header(
                        HttpHeaders.CONTENT_DISPOSITION,
                        "inline; filename=\"%s-v%d.openapi.json\"".formatted(service, version))
                .body(ContractText.of(document));
    }

    /** What its resources take and give, as JSON Schema. */
    @Operation(summary = "What its resources take and give, as JSON Schema")
    @GetMapping("/manage/v1/contracts/{service:[a-z0-9-]+}/v{version:\\d{1,3}}/jsonschema")
    ResponseEntity<String> jsonSchema(
            @PathVariable String service,
            @PathVariable int version,
            @RequestParam(defaultValue = "LIVE") ReleaseChoice.Source of,
            @AuthenticationPrincipal Actor actor,
            HttpServletRequest request) {
        var release = ReleaseChoice.of(engine, actor, of);
        var type = ReleaseChoice.service(release, actor, service, version, _ -> true, "");
        var server = addresses.of(request);
        return ResponseEntity.ok()
                .contentType(new MediaType("application", "schema+json"))
                .body(ContractText.of(ResourceSchemas.of(release, type, server, json.bounds())));
    }
}
