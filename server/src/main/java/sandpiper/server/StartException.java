package sandpiper.server;

import java.io.Serial;
import java.time.Duration;
import org.jspecify.annotations.Nullable;
import org.slf4j.Logger;
import org.slf4j.LoggerFactory;
import org.springframework.boot.context.properties.bind.BindException;
import org.springframework.boot.context.properties.bind.UnboundConfigurationPropertiesException;
import org.springframework.boot.context.properties.source.ConfigurationProperty;
import org.springframework.boot.web.server.PortInUseException;
import org.springframework.core.convert.ConversionException;
import org.springframework.util.unit.DataSize;
import sandpiper.engine.port.StorageException;
import sandpiper.logic.Quoted;

/** The service could not be started; the message says why, for people. */
public final class StartException extends RuntimeException {
    @Serial private static final long serialVersionUID = 1L;

    private static final Logger LOG = LoggerFactory.getLogger(StartException.class);

    private StartException(String message, Throwable cause) {
        super(message, cause);
    }

    /** Finds in what the framework threw the part that says what is wrong. */
    static StartException of(RuntimeException thrown) {
        Throwable innermost = thrown;
        for (Throwable cause = thrown; cause != null; cause = cause.getCause()) {
            innermost = cause;
            if (cause instanceof StorageException) {
                return new StartException(String.valueOf(cause.getMessage()), thrown);
            }
            if (cause instanceof UnboundConfigurationPropertiesException unknown) {
                return new StartException(
                        "There is no setting %s; the guide \"Operating\" lists those there are."
                                .formatted(
                                        unknown.getUnboundProperties().iterator().next().getName()),
                        thrown);
            }
            if (cause instanceof BindException wrong
                    && wrong.getProperty() != null
                    && wrong.getCause() instanceof ConversionException) {
                return mistyped(wrong, wrong.getProperty(), thrown);
            }
            if (cause instanceof PortInUseException inUse) {
                return new StartException(
                        "Port %d is in use; choose another, for instance with --port."
                                .formatted(inUse.getPort()),
                        thrown);
            }
        }
        if (!(innermost instanceof IllegalArgumentException)) {
            LOG.error("The service does not start", thrown);
        }
        return new StartException("The service does not start: " + innermost.getMessage(), thrown);
    }

    private static StartException mistyped(
            BindException wrong, ConfigurationProperty property, RuntimeException thrown) {
        return new StartException(
                "The setting %s has the value %s, where %s is needed."
                        .formatted(
                                wrong.getName(),
                                Quoted.of(String.valueOf(property.getValue())),
                                needed(wrong.getTarget().getType().resolve())),
                thrown);
    }

    private static String needed(@Nullable Class<?> type) {
        if (type == int.class || type == long.class) {
            return "a whole number";
        }
        if (type == Duration.class) {
            return "a time such as 15s";
        }
        return type == DataSize.class ? "a size such as 5MB" : "another kind of value";
    }
}
