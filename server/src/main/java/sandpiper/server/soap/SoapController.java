package sandpiper.server.soap;

import io.swagger.v3.oas.annotations.Operation;
import jakarta.servlet.http.HttpServletRequest;
import java.nio.charset.StandardCharsets;
import java.util.List;
import org.jspecify.annotations.Nullable;
import org.springframework.http.HttpHeaders;
import org.springframework.http.HttpStatus;
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
import sandpiper.server.service.RevisionParameter;

/** Contracts of services over SOAP, and messages to try them with. */
@RestController
class SoapController {
    private final PublicAddress addresses;
    private final JsonReader json;
    private static final String ADDRESS =
            Protocol.SOAP_AT + "{service:[a-z0-9-]+}/v{version:\\d{1,3}}";

    /** Behind the address, as contracts name it. */
    private static final String REVISION = "/r{revision:\\d{1,9}}";

    private final Engine engine;

    SoapController(Engine engine, JsonReader json, PublicAddress addresses) {
        this.engine = engine;
        this.json = json;
        this.addresses = addresses;
    }

    /** The contract, at {@code ?wsdl}. */
    @Operation(summary = "The contract, at ?wsdl")
    @GetMapping({
        ADDRESS,
        ADDRESS + REVISION,
        "/manage/v1/contracts/{service:[a-z0-9-]+}/v{version:\\d{1,3}}/wsdl"
    })
    ResponseEntity<String> contract(
            @PathVariable String service,
            @PathVariable int version,
            @PathVariable(required = false) @Nullable String revision,
            @RequestParam(defaultValue = "LIVE") ReleaseChoice.Source of,
            @AuthenticationPrincipal @Nullable Actor actor,
            HttpServletRequest request) {
        if (actor == null) {
            return ResponseEntity.status(HttpStatus.UNAUTHORIZED)
                    .header(HttpHeaders.WWW_AUTHENTICATE, "Basic realm=\"Sandpiper\"")
                    .build();
        }
        var release = ReleaseChoice.of(engine, actor, of);
        var type = Protocol.SOAP.open(release, actor, service, version).type();
        var address = addresses.of(request) + Protocol.SOAP.address(service, version);
        if (of == ReleaseChoice.Source.LIVE) {
            int had =
                    revision == null
                            ? engine.releases().revisions().newest(type)
                            : RevisionParameter.read(revision);
            type = RevisionParameter.narrow(engine, engine.live(), type, had);
            address += "/r" + had;
        }
        return ResponseEntity.ok()
                .contentType(new MediaType("text", "xml", StandardCharsets.UTF_8))
                .header(
                        HttpHeaders.CONTENT_DISPOSITION,
                        "inline; filename=\"%s-v%d.wsdl\"".formatted(service, version))
                .body(Wsdl.of(release, type, address, json.bounds()));
    }

    /** A message for each operation, for trying the service. */
    @Operation(summary = "A message for each operation, for trying the service")
    @GetMapping("/manage/v1/contracts/{service:[a-z0-9-]+}/v{version:\\d{1,3}}/soap-examples")
    List<SoapExamples.Example> examples(
            @PathVariable String service,
            @PathVariable int version,
            @RequestParam(defaultValue = "LIVE") ReleaseChoice.Source of,
            @AuthenticationPrincipal Actor actor) {
        return SoapExamples.of(
                Protocol.SOAP
                        .open(ReleaseChoice.of(engine, actor, of), actor, service, version)
                        .type());
    }
}
