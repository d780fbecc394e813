package sandpiper.server.webhook;

import io.swagger.v3.oas.annotations.Operation;
import jakarta.servlet.http.HttpServletRequest;
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
import sandpiper.server.json.JsonText;
import sandpiper.server.protocol.Protocol;
import sandpiper.server.service.ReleaseChoice;

/** Hands out what a service publishes, as AsyncAPI, to those who may see it. */
@RestController
class AsyncApiController {
    private final PublicAddress addresses;
    private final Engine engine;

    AsyncApiController(Engine engine, PublicAddress addresses) {
        this.addresses = addresses;
        this.engine = engine;
    }

    @Operation(summary = "The contract of a service for its events (AsyncAPI)")
    @GetMapping({
        Protocol.REST_AT + "{service:[a-z0-9-]+}/v{version:\\d{1,3}}/asyncapi.json",
        "/manage/v1/contracts/{service:[a-z0-9-]+}/v{version:\\d{1,3}}/asyncapi.json"
    })
    ResponseEntity<String> asyncApi(
            @PathVariable String service,
            @PathVariable int version,
            @RequestParam(defaultValue = "LIVE") ReleaseChoice.Source of,
            @AuthenticationPrincipal Actor actor,
            HttpServletRequest request) {
        var release = ReleaseChoice.of(engine, actor, of);
        var type =
                ReleaseChoice.service(
                        release,
                        actor,
                        service,
                        version,
                        found -> !found.events().isEmpty(),
                        " with events");
        var server = addresses.of(request);
        return ResponseEntity.ok()
                .contentType(MediaType.APPLICATION_JSON)
                .body(JsonText.writePretty(AsyncApi.of(release, type, server)));
    }
}
