package sandpiper.server.soap;

import java.io.IOException;
import java.io.StringReader;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.concurrent.ConcurrentHashMap;
import javax.xml.XMLConstants;
import javax.xml.transform.dom.DOMSource;
import javax.xml.transform.stream.StreamSource;
import javax.xml.validation.SchemaFactory;
import javax.xml.validation.Validator;
import org.jspecify.annotations.Nullable;
import org.springframework.http.HttpStatus;
import org.springframework.stereotype.Component;
import org.w3c.dom.Element;
import org.w3c.dom.Node;
import org.xml.sax.ErrorHandler;
import org.xml.sax.SAXException;
import org.xml.sax.SAXParseException;
import sandpiper.engine.command.FaultPath;
import sandpiper.engine.release.LiveRelease;
import sandpiper.model.release.ServiceType;
import sandpiper.server.json.Bounds;
import sandpiper.server.json.JsonReader;
import sandpiper.server.problem.Problem.Wrong;
import sandpiper.server.problem.ProblemException;

/** Checks what comes in against the schema of its service, which is made once for each release. */
@Component
class Requests {
    private static final String CODE = "SP4000";
    private static final int MOST_ERRORS = 20;
    private static final String CURRENT_ELEMENT =
            "http://apache.org/xml/properties/dom/current-element-node";

    private final Map<String, Pool<Validator>> validators = new ConcurrentHashMap<>();
    private final Bounds bounds;

    Requests(JsonReader json) {
        this.bounds = json.bounds();
    }

    /**
     * Passes a request that has the form its operation asks for.
     *
     * @param revision of the contract that {@code service} is of
     * @throws ProblemException with every place at which it has not
     */
    void check(LiveRelease live, ServiceType service, int revision, Element call) {
        List<Wrong> found;
        try {
            found =
                    validators(live, service, revision)
                            .with(validator -> {
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

    private Pool<Validator> validators(LiveRelease live, ServiceType service, int revision) {
        var name = "%d %s r%d".formatted(live.number(), service.titled(), revision);
        var there = validators.get(name);
        if (there != null) {
            return there;
        }
        validators.keySet().removeIf(old -> !old.startsWith(live.number() + " "));
        try {
            var factory = SchemaFactory.newDefaultInstance();
            factory.setProperty(XMLConstants.ACCESS_EXTERNAL_SCHEMA, "");
            factory.setProperty(XMLConstants.ACCESS_EXTERNAL_DTD, "");
            var made =
                    factory.newSchema(
                            new StreamSource(
                                    new StringReader(
                                            withoutLengths(
                                                    Wsdl.schema(
                                                            live.release(), service, bounds)))));
            var pool = new Pool<>(made::newValidator);
            validators.put(name, pool);
            return pool;
        } catch (SAXException e) {
            throw new IllegalStateException(
                    "The schema of " + service.titled() + " is not right", e);
        }
    }

    /**
     * The library counts a character outside the first plane as two; lengths are told where values
     * are read, which counts as XML Schema does.
     */
    private static String withoutLengths(String schema) {
        return schema.replaceAll("<xs:maxLength value=\"\\d+\"\\s*(/>|></xs:maxLength>)", "");
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
