package sandpiper.server.odata.query;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.net.URLEncoder;
import java.nio.charset.StandardCharsets;
import java.util.List;
import java.util.Map;
import org.apache.olingo.commons.api.ex.ODataException;
import org.apache.olingo.server.api.OData;
import org.apache.olingo.server.core.uri.parser.Parser;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import sandpiper.engine.record.Aggregation.Order;
import sandpiper.model.check.Definitions;
import sandpiper.model.release.Release;
import sandpiper.model.release.ResourceType.Operation;
import sandpiper.server.odata.metadata.ServiceModel;
import sandpiper.server.problem.ProblemException;

class AppliedGroupsTest {
    private static final Release RELEASE =
            Definitions.check(
                            Map.of(
                                    "yard/package.yaml",
                                    "package: yard\nversion: 1.0\n",
                                    "yard/objects/job.yaml",
                                    """
                                    object: Job
                                    key: [code, size]
                                    fields:
                                      code: { type: text }
                                      size: { type: integer }
                                      price: { type: decimal, scale: 2 }
                                      hidden: { type: integer }
                                      due: { type: date }
                                      paper: { type: file }
                                      late: { type: boolean, formula: 'due != null and due < today()' }
                                      before: { type: reference, to: Job }
                                    parts:
                                      steps:
                                        fields:
                                          minutes: { type: integer }
                                    """,
                                    "yard/services/desk.yaml",
                                    """
                                    service: desk
                                    version: 1
                                    protocols: [odata]
                                    resources:
                                      jobs:
                                        object: Job
                                        query:
                                          fields: [code, size, price, due, paper, late, before, before.price, steps]
                                          filter: [size]
                                        update: { fields: [hidden] }
                                    """))
                    .release()
                    .orElseThrow();

    private static final ServiceModel MODEL =
            new ServiceModel(RELEASE, RELEASE.service("desk", 1).orElseThrow());

    private static AppliedGroups groups(String apply, String more) {
        var odata = OData.newInstance();
        var edm = odata.createServiceMetadata(MODEL, List.of()).getEdm();
        var encoded = URLEncoder.encode(apply, StandardCharsets.UTF_8).replace("+", "%20");
        try {
            var uri =
                    new Parser(edm, odata)
                            .parseUri("jobs", "$apply=" + encoded + more, null, "http://x/");
            var shown = MODEL.resource("jobs").tree(Operation.QUERY).orElseThrow();
            return AppliedGroups.of(MODEL.shape("jobs"), shown, uri);
        } catch (ODataException e) {
            throw new IllegalArgumentException(e);
        }
    }

    private static String text(AppliedGroups groups) {
        return "%s | %s | %s"
                .formatted(
                        groups.filter(),
                        groups.keys().stream().map(key -> key.path().written()).toList(),
                        groups.measures().stream()
                                .map(one ->
                                        one.name()
                                                + "="
                                                + one.measure().function()
                                                + "("
                                                + one.measure().of()
                                                + ")")
                                .toList());
    }

    @ParameterizedTest
    @CsvSource(
            delimiter = ';',
            textBlock =
                    """
                    aggregate($count as n) ; null | [] | [n=COUNT(null)]
                    groupby((code)) ; null | [code] | []
                    groupby((code,before/price),aggregate(price with sum as s)) ; null | [code, before.price] | [s=SUM(price)]
                    filter(size gt 1)/filter(size lt 9)/aggregate(due with max as d) ; ((size > 1)) and ((size < 9)) | [] | [d=MAX(due)]
                    aggregate(price with average as a,beforeKey with countdistinct as b) ; null | [] | [a=AVERAGE(price), b=DISTINCT(before)]
                    """)
    void filtersThenOneGrouping(String apply, String meant) {
        assertThat(text(groups(apply, ""))).isEqualTo(meant);
    }

    @Test
    void groupsAreSortedByWhatTheyHave() {
        var apply = "groupby((code,before/price),aggregate($count as n))";
        assertThat(groups(apply, "&$orderby=n%20desc,before/price").orders())
                .containsExactly(new Order(2, true), new Order(1, false));
        assertThat(groups(apply, "").contextList()).isEqualTo("(code,before(price),n)");
    }

    @ParameterizedTest
    @CsvSource(
            delimiter = ';',
            textBlock =
                    """
                    filter(size gt 1)                             ; 501 ; needs groupby or aggregate
                    groupby((code))/filter(code eq 'A')           ; 501 ; nothing more is offered
                    topcount(2,size)                              ; 501 ; topcount is not offered
                    compute(size mul 2 as d)                      ; 501 ; compute is not offered
                    groupby((rollup(code,size)))                  ; 501 ; rollup
                    groupby((code),groupby((size)))               ; 501 ; only aggregate
                    aggregate(size mul 2 with sum as d)           ; 501 ; properties, not expressions
                    aggregate(size with my.own as d)              ; 501 ; countdistinct are offered
                    aggregate(code with sum as d)                 ; 501 ; code has no sum: that is offered of numbers.
                    aggregate(code with max as d)                 ; 501 ; numbers, dates and times
                    groupby((late))                               ; 501 ; each time it is read
                    groupby((paper))                              ; 501 ; is a file
                    groupby((steps/minutes))                      ; 501 ; steps
                    groupby((hidden))                             ; 400 ; hidden is not shown
                    aggregate(hidden with max as d)               ; 400 ; hidden is not shown
                    """)
    void restIsRefused(String apply, int status, String said) {
        assertThatThrownBy(() -> groups(apply, ""))
                .isInstanceOfSatisfying(
                        ProblemException.class,
                        problem -> assertThat(problem.problem().status()).isEqualTo(status))
                .hasMessageContaining(said);
    }

    @ParameterizedTest
    @CsvSource({
        "$filter=size%20gt%201",
        "$select=code",
        "$count=true",
        "$expand=before",
        "$search=a"
    })
    void besideItOnlyOrderAndPages(String option) {
        assertThatThrownBy(() -> groups("groupby((code))", "&" + option))
                .isInstanceOf(ProblemException.class)
                .hasMessageContaining("$orderby, $top and $skip");
    }
}
