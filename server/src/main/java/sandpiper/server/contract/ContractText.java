package sandpiper.server.contract;

import com.fasterxml.jackson.core.JsonGenerator;
import com.fasterxml.jackson.core.JsonProcessingException;
import com.fasterxml.jackson.databind.MapperFeature;
import com.fasterxml.jackson.databind.ObjectMapper;
import com.fasterxml.jackson.databind.SerializationFeature;
import io.swagger.v3.core.util.Json31;

/** Writes contracts as JSON text with line breaks. */
final class ContractText {
    /** What reads and writes parts of contracts. */
    static final ObjectMapper MAPPER = mapper();

    private ContractText() {}

    /**
     * A mapper of our own: the library's is shared, and set up anew by who writes other documents.
     */
    @SuppressWarnings("deprecation") // the builder cannot begin with a mapper that is there
    private static ObjectMapper mapper() {
        return Json31.mapper()
                .copy()
                .configure(MapperFeature.SORT_PROPERTIES_ALPHABETICALLY, false)
                .configure(SerializationFeature.ORDER_MAP_ENTRIES_BY_KEYS, false)
                .configure(JsonGenerator.Feature.WRITE_BIGDECIMAL_AS_PLAIN, true);
    }

    static String of(Object contract) {
        try {
            return MAPPER.writerWithDefaultPrettyPrinter().writeValueAsString(contract);
        } catch (JsonProcessingException e) {
            throw new IllegalStateException("A contract could not be written", e);
        }
    }
}
