package sandpiper.model.check;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.List;
import java.util.Map;
import org.junit.jupiter.api.Test;
import sandpiper.model.change.ReleaseChange;
import sandpiper.model.layout.FormLayout;
import sandpiper.model.layout.FormLayout.Section;
import sandpiper.model.layout.FormLayout.SideList;
import sandpiper.model.layout.ListLayout;

class LayoutTest {
    private static final String JOB =
            """
            object: Job
            key: code
            fields:
              code: { type: text }
              title: { type: text, localised: true }
              follows: { type: reference, to: Job, inverse: followers }
              cost: { type: decimal, scale: 2 }
            lifecycle: { initial: Open, states: [Open, Shut], transitions: { shut: { from: Open, to: Shut } } }
            """;

    private static CheckedDefinitions check(String layout, String extension) {
        return Definitions.check(
                Map.of(
                        "yard/package.yaml",
                        "package: yard\nversion: 1\n",
                        "yard/objects/job.yaml",
                        JOB + layout,
                        "more/package.yaml",
                        "package: more\nversion: 1\ndepends: [yard]\n",
                        "more/extensions/job.yaml",
                        "extend: Job\n"
                                + "fields:\n"
                                + "  colour: { type: text }\n"
                                + "  weight: { type: integer }\n"
                                + extension));
    }

    private static FormLayout form(String layout, String extension) {
        var checked = check(layout, extension);
        assertThat(checked.diagnostics()).isEmpty();
        return checked.release().orElseThrow().object("Job").layout().form();
    }

    private static List<String> said(String layout, String extension) {
        return check(layout, extension).diagnostics().stream()
                .map(one -> "%d:%d %s".formatted(one.line(), one.column(), one.message()))
                .toList();
    }

    @Test
    void anExtensionPutsItsFieldsBehindThoseThereAre() {
        var sections = "form:\n  sections:\n    - { heading: First, fields: [code, cost] }\n";
        assertThat(
                        form(
                                        sections,
                                        "form:\n"
                                                + "  sections:\n"
                                                + "    - { fields: colour, after: code }\n")
                                .sections())
                .containsExactly(new Section("First", List.of("code", "colour", "cost")));
        assertThat(
                        form(
                                        sections,
                                        "form:\n"
                                                + "  sections:\n"
                                                + "    - { heading: Look, fields: 'colour, weight',"
                                                + " after: code }\n")
                                .sections())
                .containsExactly(
                        new Section("First", List.of("code", "cost")),
                        new Section("Look", List.of("colour", "weight")));
    }

    @Test
    void anExtensionPutsItsFieldsBehindThoseThatNobodyHasPlaced() {
        assertThat(
                        form("", "form:\n  sections:\n    - { fields: colour, after: title }\n")
                                .sections())
                .containsExactly(new Section(null, List.of("code", "title", "colour")));
    }

    @Test
    void relatedRecordsAreNamedFromEitherSide() {
        var expected = List.of(new SideList("Job", "follows", List.of("code", "cost")));
        assertThat(
                        form(
                                        "form:\n"
                                                + "  side:\n"
                                                + "    - { records: followers, fields: 'code, cost'"
                                                + " }\n",
                                        "")
                                .side())
                .isEqualTo(expected);
        assertThat(
                        form(
                                        "form:\n"
                                            + "  side:\n"
                                            + "    - { records: Job.follows, fields: [code, cost]"
                                            + " }\n",
                                        "")
                                .side())
                .isEqualTo(expected);
    }

    @Test
    void columnsAndFirstSort() {
        var release =
                check(
                                "list: { columns: [code, cost], sort: -cost }\n",
                                "list: { columns: colour, after: code }\n")
                        .release()
                        .orElseThrow();
        assertThat(release.object("Job").layout().list())
                .isEqualTo(new ListLayout(List.of("code", "colour", "cost"), "-cost"));
    }

    @Test
    void whatIsWrongIsSaidWhereItStands() {
        assertThat(said("form:\n  wide: titel\n", ""))
                .containsExactly("10:9 Job has no field \"titel\".");
        assertThat(said("form:\n  sections:\n    - fields: [code, state, code]\n", ""))
                .hasSize(2)
                .anySatisfy(one -> assertThat(one).contains("state is the state"))
                .anySatisfy(one -> assertThat(one).contains("code stands in a section already"));
        assertThat(said("form:\n  side: [{ records: stays }]\n", ""))
                .singleElement()
                .asString()
                .contains("there are followers, Job.follows");
        assertThat(said("form:\n  details: { cost: code }\n", ""))
                .singleElement()
                .asString()
                .contains("cost refers to no record");
        assertThat(said("list: { sort: title }\n", ""))
                .singleElement()
                .asString()
                .contains("title is in several languages");
        assertThat(said("", "list: { columns: colour, after: code }\n"))
                .singleElement()
                .asString()
                .contains("Job says of no columns");
    }

    @Test
    void aReleaseTellsThatALayoutChanges() {
        var before = check("", "").release().orElseThrow();
        var after =
                check("form: { wide: code }\nlist: { columns: code }\n", "")
                        .release()
                        .orElseThrow();
        assertThat(ReleaseChange.between(before, after).sentences())
                .containsExactly(
                        "Job: its form is laid out anew.", "Job: its list is laid out anew.");
    }
}
