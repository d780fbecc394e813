package sandpiper.server.odata.contract;

import io.swagger.v3.oas.annotations.Operation;
import jakarta.servlet.http.HttpServletRequest;
import jakarta.servlet.http.HttpServletResponse;
import java.io.IOException;
import java.util.List;
import org.apache.olingo.commons.api.http.HttpHeader;
import org.apache.olingo.commons.api.http.HttpMethod;
import org.apache.olingo.server.api.ODataRequest;
import org.springframework.security.core.annotation.AuthenticationPrincipal;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.RequestParam;
import org.springframework.web.bind.annotation.RestController;
import sandpiper.engine.access.Actor;
import sandpiper.server.odata.ODataCalls;
import sandpiper.server.odata.request.Negotiation;
import sandpiper.server.service.ReleaseChoice;

/** Contracts of services over OData, and requests to try them with. */
@RestController
class ODataController {
    private static final String SERVICE =
            "/manage/v1/contracts/{service:[a-z0-9-]+}/v{version:\\d{1,3}}";

    private final ODataCalls calls;

    ODataController(ODataCalls calls) {
        this.calls = calls;
    }

    /** The contract, for people who are signed in. */
    @Operation(summary = "The contract, for people who are signed in")
    @GetMapping(SERVICE + "/odata")
    void contract(
            @PathVariable String service,
            @PathVariable int version,
            @RequestParam(defaultValue = "LIVE") ReleaseChoice.Source of,
            @AuthenticationPrincipal Actor actor,
            HttpServletRequest http,
            HttpServletResponse answer)
            throws IOException {
        var exchange = calls.exchange(service, version, of, actor, http);
        var request = new ODataRequest();
        request.setMethod(HttpMethod.GET);
        request.setRawBaseUri(exchange.root());
        request.setRawODataPath("/$metadata");
        request.setRawRequestUri(exchange.root() + "/$metadata");
        var format = http.getParameter("format");
        request.setHeader(
                HttpHeader.ACCEPT, "json".equals(format) ? "application/json" : "application/xml");
        var spoken = Negotiation.NEWEST;
        ODataCalls.write(calls.run(exchange, spoken).handle(request), answer, spoken);
    }

    /** Requests to try a service with. */
    @Operation(summary = "Requests to try a service with")
    @GetMapping(SERVICE + "/odata-examples")
    List<ODataExamples.Example> examples(
            @PathVariable String service,
            @PathVariable int version,
            @RequestParam(defaultValue = "LIVE") ReleaseChoice.Source of,
            @AuthenticationPrincipal Actor actor,
            HttpServletRequest http) {
        return ODataExamples.of(calls.exchange(service, version, of, actor, http).model());
    }
}
