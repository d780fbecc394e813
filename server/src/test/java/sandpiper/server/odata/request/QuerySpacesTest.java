package sandpiper.server.odata.request;

import static org.assertj.core.api.Assertions.assertThat;

import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

class QuerySpacesTest {
    @ParameterizedTest
    @CsvSource({
        "$filter=state+eq+'Requested'+and+quantity+ge+5,"
                + " $filter=state%20eq%20'Requested'%20and%20quantity%20ge%205",
        "$filter=changedAt+lt+2026-05-01T08:00:00+02:00,"
                + " $filter=changedAt%20lt%202026-05-01T08:00:00%2B02:00",
        "$filter=length+gt+1.5e+1, $filter=length%20gt%201.5e+1",
        "$filter=length%20gt%205&$orderby=name+desc, $filter=length%20gt%205&$orderby=name%20desc",
        "$search=Sea+Pink, $search=Sea%20Pink",
    })
    void aPlusIsASpaceUnlessItIsASign(String sent, String read) {
        assertThat(QuerySpaces.read(sent)).isEqualTo(read);
    }
}
