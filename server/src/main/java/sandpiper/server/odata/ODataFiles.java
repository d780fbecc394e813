package sandpiper.server.odata;

import java.io.ByteArrayInputStream;
import java.util.Optional;
import org.apache.olingo.commons.api.http.HttpHeader;
import org.apache.olingo.server.api.ODataRequest;
import org.apache.olingo.server.api.ODataResponse;
import org.springframework.http.HttpStatus;
import sandpiper.engine.record.RecordView;
import sandpiper.model.release.FieldTree;
import sandpiper.model.release.ResourceType.Operation;
import sandpiper.model.type.FileType;
import sandpiper.server.odata.metadata.EntityShape;
import sandpiper.server.odata.metadata.ServiceModel;
import sandpiper.server.odata.request.Refusals;
import sandpiper.server.service.FilePlace;
import sandpiper.server.service.FileTransfer;

/** Files of records, which are stream properties (OData 4.01 Protocol §11.1.7 and §11.4.8). */
record ODataFiles(ODataContext exchange) {
    private static final String VALUE = "/$value";

    /** Whether a path, as it came, leads to a file. */
    static boolean isFile(ServiceModel model, String path) {
        var whole = path.endsWith(VALUE) ? path.substring(0, path.length() - VALUE.length()) : path;
        var steps = whole.substring(whole.startsWith("/") ? 1 : 0).split("/", -1);
        if (steps.length < 2 || !model.hasSet(name(steps[0]))) {
            return false;
        }
        var shape = Optional.of(model.shape(name(steps[0])));
        for (int i = 1; i < steps.length - 1; i++) {
            var step = name(steps[i]);
            shape = shape.flatMap(one -> behind(one, step));
        }
        return shape.filter(one -> isFile(one, steps[steps.length - 1])).isPresent();
    }

    private static String name(String step) {
        int bracket = step.indexOf('(');
        return bracket < 0 ? step : step.substring(0, bracket);
    }

    private static Optional<EntityShape> behind(EntityShape shape, String step) {
        return shape.reference(step)
                .map(EntityShape.ToOne::target)
                .or(() -> shape.items(step).map(EntityShape.Items::target));
    }

    private static boolean isFile(EntityShape shape, String name) {
        return shape.value(name)
                .filter(value -> value.path().last().type() instanceof FileType)
                .isPresent();
    }

    /** The file an address leads to; nothing when it leads to something else. */
    static Optional<FilePlace> at(ServiceModel model, Address address) {
        if (address.properties().size() != 1) {
            return Optional.empty();
        }
        var name = address.properties().getFirst();
        var shape = Optional.of(model.shape(address.set()));
        for (var step : address.references()) {
            shape = shape.flatMap(one -> behind(one, step));
        }
        var items = address.items();
        if (items != null) {
            shape = shape.flatMap(one -> behind(one, items));
        }
        if (shape.filter(one -> isFile(one, name)).isEmpty()) {
            return Optional.empty();
        }
        if (!address.references().isEmpty()) {
            throw Refusals.notOffered("Ask for a file at the record that has it.");
        }
        var line = address.line();
        return Optional.of(
                items == null || line == null
                        ? FilePlace.of(name)
                        : new FilePlace(items, line, name));
    }

    /** Answers with a file; with nothing where there is none. */
    void read(Address address, FilePlace place, ODataRequest request, ODataResponse response) {
        exchange.engine()
                .records()
                .read((live, session) -> {
                    var call = exchange.call(address.set());
                    var tree =
                            tree(call.resource(live, Operation.READ).tree(Operation.READ), place);
                    var file = place.of(call.read(live, session, address.oneKey(), tree));
                    if (file.isEmpty()) {
                        ODataResponses.empty(response, HttpStatus.NO_CONTENT);
                        return true;
                    }
                    FileTransfer.headers(file.get()).forEach(response::setHeader);
                    if (FileTransfer.isFresh(
                            request.getHeader(HttpHeader.IF_NONE_MATCH), file.get())) {
                        ODataResponses.empty(response, HttpStatus.NOT_MODIFIED);
                        return true;
                    }
                    var bytes =
                            exchange.engine().records().bytes(session, file.get()).orElseThrow();
                    response.setStatusCode(HttpStatus.OK.value());
                    response.setContent(new ByteArrayInputStream(bytes.array()));
                    return true;
                });
    }

    /** The line items of a record, among which one is to get a file. */
    RecordView lines(Address address, FilePlace place) {
        return exchange.engine()
                .records()
                .read((live, session) -> {
                    var call = exchange.call(address.set());
                    var type = call.resource(live, Operation.UPDATE);
                    return call.read(
                            live,
                            session,
                            address.oneKey(),
                            tree(type.tree(Operation.UPDATE), place));
                });
    }

    private static FieldTree tree(Optional<FieldTree> of, FilePlace place) {
        return of.flatMap(place::in)
                .orElseThrow(() -> Refusals.bad("%s is not shown.".formatted(place.field())));
    }
}
