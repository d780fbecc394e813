package sandpiper.server.odata;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.net.URLEncoder;
import java.nio.charset.StandardCharsets;
import java.util.List;
import java.util.Map;
import org.apache.olingo.commons.api.ex.ODataException;
import org.apache.olingo.server.api.OData;
import org.apache.olingo.server.api.uri.UriInfo;
import org.apache.olingo.server.core.uri.parser.Parser;
import org.junit.jupiter.api.Nested;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import org.junit.jupiter.params.provider.ValueSource;
import sandpiper.model.check.Definitions;
import sandpiper.model.release.Release;
import sandpiper.model.release.ResourceType.Operation;
import sandpiper.server.odata.metadata.EntityShape;
import sandpiper.server.odata.metadata.ServiceModel;
import sandpiper.server.odata.query.FilterText;
import sandpiper.server.problem.ProblemException;

/** What options of an address become: a condition in FEEL, and what of an entity is answered. */
class QueryTextTest {
    private static final Release RELEASE =
            Definitions.check(
                            Map.of(
                                    "yard/package.yaml",
                                    "package: yard\nversion: 1.0\n",
                                    "yard/objects/job.yaml",
                                    """
                                    object: Job
                                    key: code
                                    fields:
                                      code: { type: text }
                                      size: { type: integer }
                                      price: { type: decimal, scale: 2 }
                                      due: { type: date }
                                      urgent: { type: boolean }
                                      crane: { type: reference, to: Crane }
                                      before: { type: reference, to: Job }
                                    parts:
                                      steps:
                                        fields:
                                          what: { type: text }
                                          minutes: { type: integer }
                                    """,
                                    "yard/objects/crane.yaml",
                                    """
                                    object: Crane
                                    key: code
                                    fields:
                                      code: { type: text }
                                      reach: { type: integer }
                                    """,
                                    "yard/services/desk.yaml",
                                    """
                                    service: desk
                                    version: 1
                                    protocols: [odata]
                                    resources:
                                      jobs:
                                        object: Job
                                        read: { fields: [all, crane.code, crane.reach, before.size, before.before.size] }
                                        query:
                                          fields: [all, crane.code, crane.reach, before.size, before.before.size]
                                          filter: [all, crane.reach]
                                    """))
                    .release()
                    .orElseThrow();

    private static final ServiceModel MODEL =
            new ServiceModel(RELEASE, RELEASE.service("desk", 1).orElseThrow());
    private static final EntityShape JOBS = MODEL.shape("jobs");

    private static UriInfo uri(String options) {
        var odata = OData.newInstance();
        var edm = odata.createServiceMetadata(MODEL, List.of()).getEdm();
        try {
            return new Parser(edm, odata).parseUri("jobs", options, null, "http://127.0.0.1/");
        } catch (ODataException e) {
            throw new IllegalArgumentException(e);
        }
    }

    private static String encoded(String text) {
        return URLEncoder.encode(text, StandardCharsets.UTF_8).replace("+", "%20");
    }

    private static String feel(String filter) {
        return feel(filter, "");
    }

    /** {@code aliases} stand behind the filter, as in {@code &@a=1}. */
    private static String feel(String filter, String aliases) {
        var uri = uri("$filter=" + encoded(filter) + aliases);
        return FilterText.of(JOBS, uri, uri.getFilterOption().getExpression());
    }

    @Nested
    class Filters {
        @ParameterizedTest
        @CsvSource(
                delimiter = '|',
                quoteCharacter = '~',
                textBlock =
                        """
                        code eq 'A'                      | (code = "A")
                        code ne 'A'                      | (code != "A")
                        size lt 5                        | (size < 5)
                        size le 5 and size gt 1          | ((size <= 5) and (size > 1))
                        size ge 1 or urgent eq true      | ((size >= 1) or (urgent = true))
                        not (size eq 1)                  | not((size = 1))
                        size eq null                     | (size = null)
                        -size lt 0                       | ((-size) < 0)
                        size add 1 gt 2                  | ((size + 1) > 2)
                        size sub 1 mul 2 gt 2            | ((size - (1 * 2)) > 2)
                        price eq 1.50                    | (price = 1.50)
                        contains(code,'A')               | contains(code, "A")
                        startswith(code,'A')             | starts with(code, "A")
                        endswith(code,'A')               | ends with(code, "A")
                        tolower(code) eq 'a'             | (lower case(code) = "a")
                        toupper(code) eq 'A'             | (upper case(code) = "A")
                        length(code) gt 3                | (string length(code) > 3)
                        trim(code) eq 'A'                | (trim(code) = "A")
                        concat(code,'x') eq 'Ax'         | ((code + "x") = "Ax")
                        substring(code,1) eq 'B'         | (substring(code, 1 + 1) = "B")
                        substring(code,1,2) eq 'B'       | (substring(code, 1 + 1, 2) = "B")
                        year(due) eq 2026                | (due.year = 2026)
                        month(due) eq 5                  | (due.month = 5)
                        day(due) eq 1                    | (due.day = 1)
                        round(price) eq 2                | (round half up(price, 0) = 2)
                        floor(price) eq 2                | (floor(price) = 2)
                        ceiling(price) eq 2              | (ceiling(price) = 2)
                        steps/any(s:s/minutes gt 5)      | (some lineItem in steps satisfies (lineItem.minutes > 5))
                        steps/all(in:in/what eq 'x')     | (every lineItem in steps satisfies (lineItem.what = "x"))
                        steps/any()                      | (some lineItem in steps satisfies true)
                        not steps/any(s:s/minutes gt 5)  | not((some lineItem in steps satisfies (lineItem.minutes != null and (lineItem.minutes > 5))))
                        """)
        void areWrittenInTheLanguage(String filter, String text) {
            assertThat(feel(filter)).isEqualTo(text);
        }

        /** An order does not hold for what is empty, so what is negated is true of it. */
        @ParameterizedTest
        @CsvSource(
                delimiter = '|',
                quoteCharacter = '~',
                textBlock =
                        """
                        not (size gt 3)                  | not((size != null and (size > 3)))
                        not (3 gt size)                  | not((size != null and (3 > size)))
                        not (size gt 3 and price lt 1)   | not(((size != null and (size > 3)) and (price != null and (price < 1))))
                        not (size lt price)              | not((size != null and price != null and (size < price)))
                        not (length(code) ge 2)          | not((code != null and (string length(code) >= 2)))
                        not (size add price le 2)        | not((size != null and price != null and ((size + price) <= 2)))
                        not (crane/reach gt 3)           | not((crane.reach != null and (crane.reach > 3)))
                        size gt 3 or not (size eq 1)     | ((size != null and (size > 3)) or not((size = 1)))
                        not (1 gt 2)                     | not((1 > 2))
                        """)
        void saysOfWhatIsNegatedWhetherItIsThere(String filter, String text) {
            assertThat(feel(filter)).isEqualTo(text);
        }

        @Test
        void anAliasIsItsValue() {
            assertThat(feel("code eq @c and size gt @s", "&@c='A'&@s=5"))
                    .isEqualTo("((code = \"A\") and (size > 5))");
            assertThatThrownBy(() -> feel("code eq @c", ""))
                    .hasMessageContaining("@c has no value; add &@c=");
        }

        @Test
        void whetherThereIsARecordBehindAReferenceCanBeAsked() {
            assertThat(feel("crane eq null")).isEqualTo("(crane = null)");
            assertThat(feel("not (crane ne null)")).isEqualTo("not((crane != null))");
        }

        @Test
        void keepQuotesAndBackslashesOfTexts() {
            assertThat(feel("code eq 'O''Neil \"x\" \\'"))
                    .isEqualTo("(code = \"O'Neil \\\"x\\\" \\\\\")");
        }

        @Test
        void bindAsTheStandardSays() {
            assertThat(feel("size eq 1 or size eq 2 and urgent eq true"))
                    .isEqualTo("((size = 1) or ((size = 2) and (urgent = true)))");
            assertThat(feel("(size eq 1 or size eq 2) and urgent eq true"))
                    .isEqualTo("(((size = 1) or (size = 2)) and (urgent = true))");
        }

        @Test
        void doNotNestDeepForALongChain() {
            var chain = "size eq 0" + " or size eq 1".repeat(50);

            assertThat(feel(chain)).doesNotContain("(((").startsWith("((size = 0) or");
        }

        @Test
        void askForOneOfSeveral() {
            assertThat(feel("size in (1,2,3)")).isEqualTo("(size = 1 or size = 2 or size = 3)");
        }

        @Test
        void lookBehindReferences() {
            assertThat(feel("crane/reach gt 5")).isEqualTo("(crane.reach > 5)");
        }

        @ParameterizedTest
        @ValueSource(strings = {"size mod 2 eq 0", "size div 2 eq 1", "hour(now()) eq 1"})
        void refuseWhatTheyDoNotFollow(String filter) {
            assertThatThrownBy(() -> feel(filter))
                    .isInstanceOf(ProblemException.class)
                    .hasMessageContaining("is not offered in a filter");
        }
    }

    @Nested
    class Answers {
        private Projection projection(String options) {
            var uri = uri(options);
            var tree = MODEL.resource("jobs").tree(Operation.QUERY).orElseThrow();
            return Projection.of(JOBS, tree, uri.getSelectOption(), uri.getExpandOption());
        }

        private List<String> names(Projection projection) {
            return projection.values().stream().map(EntityShape.Value::name).toList();
        }

        @Test
        void haveAllThatIsShownWhenNothingIsSelected() {
            var all = projection("");

            assertThat(names(all)).contains("code", "size", "price", "due", "urgent");
            assertThat(all.id()).isTrue();
            assertThat(all.version()).isTrue();
            assertThat(all.references()).isEmpty();
        }

        @Test
        void haveWhatIsSelectedAndNoMore() {
            var some = projection("$select=size,code");

            assertThat(names(some)).containsExactlyInAnyOrder("code", "size");
            assertThat(some.id()).isFalse();
            assertThat(some.narrowed()).isTrue();
        }

        @Test
        void haveAllForAStar() {
            assertThat(names(projection("$select=*"))).isEqualTo(names(projection("")));
        }

        @Test
        void haveReferencesThatAreExpanded() {
            var expanded = projection("$expand=crane($select=reach)");

            assertThat(expanded.references())
                    .singleElement()
                    .satisfies(one -> assertThat(names(one.inside())).containsExactly("reach"));
        }

        @Test
        void haveLineItemsThatAreExpandedWithinTheirBounds() {
            var expanded = projection("$expand=steps($top=2;$skip=1;$count=true)");

            assertThat(expanded.items())
                    .singleElement()
                    .satisfies(one -> {
                        assertThat(one.top()).isEqualTo(2);
                        assertThat(one.skip()).isEqualTo(1);
                        assertThat(one.counted()).isTrue();
                        assertThat(names(one.inside())).contains("what", "minutes");
                    });
        }

        @Test
        void haveTheNumberOfLineItemsAloneWhereThatIsAskedFor() {
            var expanded = projection("$expand=steps/$count");

            assertThat(expanded.items())
                    .singleElement()
                    .satisfies(one -> {
                        assertThat(one.counted()).isTrue();
                        assertThat(one.listed()).isFalse();
                    });
            assertThat(expanded.contextList()).doesNotContain("steps");
        }

        @ParameterizedTest
        @CsvSource({
            "$levels=1, (before(size))",
            "$levels=2, '(before(size,before(size)))'",
            "$levels=max, '(before(size,before(size)))'"
        })
        void goAlongAReferenceToTheSameObject(String levels, String context) {
            var expanded = projection("$expand=before($select=size;%s)".formatted(levels));

            assertThat(expanded.contextList()).isEqualTo(context);
        }

        @ParameterizedTest
        @CsvSource(
                delimiter = '|',
                value = {
                    "$expand=before($levels=3)                | before is shown 2 deep, so $levels"
                            + " may be 2 or max",
                    "$expand=crane($levels=2)                 | crane is shown 1 deep, so $levels"
                            + " may be 1 or max",
                    "$expand=steps($levels=2)                 | $levels is for references; steps"
                            + " are line items",
                    "$expand=before($levels=2;$expand=before) | expanded by $levels and by $expand",
                    "$expand=crane/$count                     | crane is a single record; only"
                            + " lists are counted",
                    "$expand=*($levels=2)                     | not offered with *",
                    "$expand=steps/$ref                       | $ref is not offered inside $expand",
                    "$expand=steps($filter=minutes gt 3)      | filter and sort what you were given"
                })
        void goNoFurtherThanIsShown(String options, String said) {
            assertThatThrownBy(() -> projection(options))
                    .isInstanceOf(ProblemException.class)
                    .hasMessageContaining(said);
        }
    }
}
