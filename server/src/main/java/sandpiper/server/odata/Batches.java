package sandpiper.server.odata;

import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import java.util.UUID;
import java.util.function.Function;
import org.apache.olingo.commons.api.format.ContentType;
import org.apache.olingo.commons.api.http.HttpHeader;
import org.apache.olingo.commons.api.http.HttpStatusCode;
import org.apache.olingo.server.api.OData;
import org.apache.olingo.server.api.ODataApplicationException;
import org.apache.olingo.server.api.ODataLibraryException;
import org.apache.olingo.server.api.ODataRequest;
import org.apache.olingo.server.api.ODataResponse;
import org.apache.olingo.server.api.ServiceMetadata;
import org.apache.olingo.server.api.batch.BatchFacade;
import org.apache.olingo.server.api.deserializer.batch.BatchOptions;
import org.apache.olingo.server.api.deserializer.batch.BatchRequestPart;
import org.apache.olingo.server.api.deserializer.batch.ODataResponsePart;
import org.apache.olingo.server.api.processor.BatchProcessor;
import org.springframework.http.HttpStatus;
import sandpiper.server.odata.request.Refusals;
import sandpiper.server.service.Performed;
import sandpiper.server.service.StoredReply;

/**
 * Several requests in one, in the multipart form. Those of a change set are done or left as one.
 */
public final class Batches implements BatchProcessor {
    /** Most requests of one batch. */
    static final int MOST = 1_000;

    private final OData odata;
    private final String root;
    private final ChangeRun run;
    private final Function<ODataRequest, Optional<ODataResponse>> refusal;

    /**
     * @param refusal brings a request to the form that the library knows, or says why not
     */
    Batches(
            OData odata,
            String root,
            ChangeRun run,
            Function<ODataRequest, Optional<ODataResponse>> refusal) {
        this.refusal = refusal;
        this.odata = odata;
        this.root = root;
        this.run = run;
    }

    @Override
    public void init(OData library, ServiceMetadata metadata) {
        // has what it needs
    }

    @Override
    public void processBatch(BatchFacade facade, ODataRequest request, ODataResponse response)
            throws ODataApplicationException, ODataLibraryException {
        var boundary =
                facade.extractBoundaryFromContentType(request.getHeader(HttpHeader.CONTENT_TYPE));
        var options =
                BatchOptions.with()
                        .rawBaseUri(root)
                        .rawServiceResolutionUri(request.getRawServiceResolutionUri())
                        .build();
        var parts = parts(request, boundary, options);
        checkSize(run.exchange(), parts.stream().mapToInt(part -> part.getRequests().size()).sum());
        boolean goesOn = goesOn(request);
        var answers = new ArrayList<ODataResponsePart>();
        for (var part : parts) {
            var answer = answered(facade, part);
            answer.getResponses().forEach(Batches::inKnownStatus);
            answers.add(answer);
            boolean failed =
                    answer.getResponses().stream().anyMatch(one -> one.getStatusCode() >= 400);
            if (failed && !goesOn) {
                break;
            }
        }
        var separator = "batch_" + UUID.randomUUID();
        response.setContent(odata.createFixedFormatSerializer().batchResponse(answers, separator));
        response.setHeader(
                HttpHeader.CONTENT_TYPE,
                ContentType.MULTIPART_MIXED.toContentTypeString() + ";boundary=" + separator);
        response.setStatusCode(HttpStatus.OK.value());
    }

    /** A request, or those of a change set, of which one that is refused ends all. */
    private ODataResponsePart answered(BatchFacade facade, BatchRequestPart part)
            throws ODataApplicationException, ODataLibraryException {
        for (var request : part.getRequests()) {
            var refused = refusal.apply(request);
            if (refused.isPresent()) {
                return new ODataResponsePart(identified(request, refused.get()), false);
            }
        }
        return facade.handleBatchRequest(part);
    }

    /** The library's reader stumbles over some of what is malformed instead of refusing it. */
    private List<BatchRequestPart> parts(
            ODataRequest request, String boundary, BatchOptions options)
            throws ODataLibraryException {
        try {
            return odata.createFixedFormatDeserializer()
                    .parseBatchRequest(request.getBody(), boundary, options);
        } catch (RuntimeException _) {
            throw Refusals.bad(
                    "The batch cannot be read: its parts, or the headers of one, do not have the"
                            + " form of multipart/mixed.");
        }
    }

    /** The library writes no status that is newer than itself; wrong values are 400 in a batch. */
    private static void inKnownStatus(ODataResponse response) {
        if (HttpStatusCode.fromStatusCode(response.getStatusCode()) == null) {
            response.setStatusCode(HttpStatus.BAD_REQUEST.value());
        }
    }

    static void checkSize(ODataContext exchange, int requests) {
        if (requests > MOST) {
            throw Refusals.bad(
                    "A batch may have %,d requests, but has %,d.".formatted(MOST, requests));
        }
        exchange.limits().countRest(exchange.actor(), requests);
    }

    /** Whether a failure does not stop what comes behind it. */
    static boolean goesOn(ODataRequest request) {
        var prefer = request.getHeaders(HttpHeader.PREFER);
        return prefer != null
                && prefer.stream()
                        .anyMatch(one ->
                                one.contains("continue-on-error") && !one.contains("=false"));
    }

    @Override
    public ODataResponsePart processChangeSet(BatchFacade facade, List<ODataRequest> requests)
            throws ODataApplicationException, ODataLibraryException {
        run.gather();
        var changes = new ArrayList<Change>();
        try {
            for (var request : requests) {
                var answer = facade.handleODataRequest(request);
                if (answer.getStatusCode() >= 400) {
                    return new ODataResponsePart(answer, false);
                }
            }
        } finally {
            changes.addAll(run.gathered());
        }
        var answers = answers(requests, changes);
        return answers.size() == 1 && answers.getFirst().getStatusCode() >= 400
                ? new ODataResponsePart(answers.getFirst(), false)
                : new ODataResponsePart(answers, true);
    }

    /**
     * Carries gathered changes out as one.
     *
     * @return an answer for each; or only one, which says why nothing was done
     */
    List<ODataResponse> answers(List<ODataRequest> requests, List<Change> changes) {
        var outcomes = run.together(changes);
        if (!outcomes.isEmpty() && outcomes.getLast() instanceof Performed.Refused) {
            int last = outcomes.size() - 1;
            return List.of(answer(requests.get(last), changes.get(last), outcomes.getLast()));
        }
        var answers = new ArrayList<ODataResponse>();
        for (int i = 0; i < outcomes.size(); i++) {
            answers.add(answer(requests.get(i), changes.get(i), outcomes.get(i)));
        }
        return answers;
    }

    private ODataResponse answer(
            ODataRequest request, Change change, Performed<StoredReply> performed) {
        var response = new ODataResponse();
        run.answer(change, performed, response);
        return identified(request, response);
    }

    private static ODataResponse identified(ODataRequest request, ODataResponse response) {
        var id = request.getHeader(HttpHeader.CONTENT_ID);
        if (id != null) {
            response.setHeader(HttpHeader.CONTENT_ID, id);
        }
        return response;
    }
}
