package sandpiper.server.contract;

import com.fasterxml.jackson.core.JsonGenerator;
import com.fasterxml.jackson.core.JsonProcessingException;
import com.fasterxml.jackson.databind.ObjectWriter;
import io.swagger.v3.core.util.Json31;

/** Writes contracts as JSON text with line breaks. */
final class ContractText {
    private static final ObjectWriter WRITER =
            Json31.pretty().with(JsonGenerator.Feature.WRITE_BIGDECIMAL_AS_PLAIN);

    private ContractText() {}

    static String of(Object contract) {
        try {
            return WRITER.writeValueAsString(contract);
        } catch (JsonProcessingException e) {
            throw new IllegalStateException("A contract could not be written", e);
        }
    }
}
