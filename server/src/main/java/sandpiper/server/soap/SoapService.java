package sandpiper.server.soap;

import java.io.IOException;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import javax.xml.transform.dom.DOMSource;
import javax.xml.validation.Schema;
import javax.xml.validation.Validator;
import org.jspecify.annotations.Nullable;
import org.springframework.http.HttpStatus;
import org.w3c.dom.Element;
import org.w3c.dom.Node;
import org.xml.sax.ErrorHandler;
import org.xml.sax.SAXException;
import org.xml.sax.SAXParseException;
import sandpiper.engine.command.FaultPath;
import sandpiper.logic.Nearest;
import sandpiper.logic.Quoted;
import sandpiper.model.release.ServiceType;
import sandpiper.server.problem.Problem.Wrong;
import sandpiper.server.problem.ProblemException;
import sandpiper.server.soap.xml.Pool;

/**
 * A service of one release as SOAP sees it, with what its requests are checked against. Safe for
 * many threads.
 */
final class SoapService {
    private static final String CODE = "SP4000";
    private static final int MOST_ERRORS = 20;
    private static final String CURRENT_ELEMENT =
            "http://apache.org/xml/properties/dom/current-element-node";

    private final ServiceType service;
    private final Map<String, SoapOperation> operations = new LinkedHashMap<>();
    private final Pool<Validator> validators;

    SoapService(ServiceType service, Schema schema) {
        this.service = service;
        SoapOperation.of(service).forEach(one -> operations.put(one.name(), one));
        this.validators = new Pool<>(schema::newValidator);
    }

    /**
     * The operation that an element asks for.
     *
     * @throws ProblemException when there is none, with those there are
     */
    SoapOperation operation(Element call) {
        var name = call.getLocalName();
        var operation = operations.get(name);
        if (operation == null) {
            var names = List.copyOf(operations.keySet());
            throw bad(
                    "%s has no operation %s; there are %s.%s"
                            .formatted(
                                    service.titled(),
                                    Quoted.of(name),
                                    String.join(", ", names),
                                    Nearest.to(name, names)
                                            .map(near -> " Did you mean %s?".formatted(near))
                                            .orElse("")));
        }
        var namespace = Wsdl.namespace(service);
        if (!namespace.equals(call.getNamespaceURI())) {
            throw bad("The element %s must be in the namespace %s.".formatted(name, namespace));
        }
        return operation;
    }

    /**
     * Passes a request that has the form its operation asks for.
     *
     * @throws ProblemException with every place at which it has not
     */
    void check(Element call) {
        List<Wrong> found;
        try {
            found =
                    validators.with(validator -> {
                        var errors = new Errors(validator, call);
                        validator.setErrorHandler(errors);
                        validator.validate(new DOMSource(call));
                        return errors.found;
                    });
        } catch (SAXException | IOException e) {
            throw new ProblemException(HttpStatus.BAD_REQUEST, String.valueOf(e.getMessage()), e);
        }
        if (!found.isEmpty()) {
            throw new ProblemException(
                    HttpStatus.BAD_REQUEST,
                    found.size() == 1
                            ? found.getFirst().message()
                            : "%d things do not fit the contract; see the detail."
                                    .formatted(found.size()),
                    found);
        }
    }

    private static ProblemException bad(String message) {
        return new ProblemException(HttpStatus.BAD_REQUEST, message);
    }

    /** Collects what does not fit, with the path of its element. */
    private static final class Errors implements ErrorHandler {
        private final Validator validator;
        private final Element call;
        private final List<Wrong> found = new ArrayList<>();

        Errors(Validator validator, Element call) {
            this.validator = validator;
            this.call = call;
        }

        @Override
        public void warning(SAXParseException exception) {
            // Nothing is wrong with what is only unusual.
        }

        @Override
        public void error(SAXParseException exception) {
            var path = path();
            boolean again = found.stream().anyMatch(one -> one.path().equals(path));
            // One wrong value is reported twice: for its type, and for its element.
            if (!again && found.size() < MOST_ERRORS) {
                found.add(new Wrong(path, CODE, sentence(exception)));
            }
        }

        @Override
        public void fatalError(SAXParseException exception) {
            error(exception);
        }

        private static String sentence(SAXParseException exception) {
            return String.valueOf(exception.getMessage())
                    .replaceFirst("^[a-zA-Z0-9.-]+: ", "")
                    .replaceAll("\"urn:sandpiper:[^\"]*\":", "")
                    .replaceAll("'\\{([^}]*)\\}'", "$1")
                    .replaceAll(" (for|of) type '#AnonType_[^']*'", "")
                    .replaceFirst(
                            "^Invalid content was found starting with element (\\S+)\\.",
                            "$1 may not stand here.");
        }

        private FaultPath path() {
            try {
                return path((Node) validator.getProperty(CURRENT_ELEMENT));
            } catch (SAXException _) {
                return FaultPath.WHOLE;
            }
        }

        private FaultPath path(@Nullable Node node) {
            return node == null || node == call
                    ? FaultPath.WHOLE
                    : path(node.getParentNode()).then(node.getLocalName());
        }
    }
}
