package sandpiper.cli.supply;

import java.util.ArrayList;
import java.util.List;
import org.apache.maven.artifact.versioning.ComparableVersion;
import tools.jackson.databind.JsonNode;

/**
 * One advisory in the OSV schema.
 *
 * @param id such as {@code GHSA-…} or {@code CVE-…}
 * @param summary what it is about; may be empty
 * @param affected what it is about, by package
 */
public record Advisory(String id, String summary, List<Affected> affected) {
    /** What is affected of one package: versions one by one, and ranges of them. */
    record Affected(String ecosystem, String name, List<String> versions, List<Span> spans) {
        boolean covers(Component component) {
            return ecosystem.equalsIgnoreCase(component.ecosystem())
                    && name.equals(component.name())
                    && (versions.contains(component.version())
                            || spans.stream().anyMatch(span -> span.has(component.version())));
        }
    }

    /**
     * From a version on, to before another or up to a last one; the end is empty when there is no
     * better version yet.
     */
    record Span(String from, String before, String last) {
        boolean has(String version) {
            var asked = new ComparableVersion(version);
            boolean begun = from.equals("0") || asked.compareTo(new ComparableVersion(from)) >= 0;
            boolean over =
                    (!before.isEmpty() && asked.compareTo(new ComparableVersion(before)) >= 0)
                            || (!last.isEmpty()
                                    && asked.compareTo(new ComparableVersion(last)) > 0);
            return begun && !over;
        }
    }

    /** Whether a component is affected. */
    public boolean covers(Component component) {
        return affected.stream().anyMatch(one -> one.covers(component));
    }

    /** Reads one. */
    static Advisory of(JsonNode json) {
        var affected = new ArrayList<Affected>();
        for (var one : json.path("affected")) {
            var versions = new ArrayList<String>();
            one.path("versions").forEach(version -> versions.add(version.asString("")));
            var spans = new ArrayList<Span>();
            one.path("ranges")
                    .forEach(range -> {
                        // Ranges of commits say nothing of versions.
                        if (!range.path("type").asString("").equals("GIT")) {
                            spans.addAll(spans(range.path("events")));
                        }
                    });
            affected.add(
                    new Affected(
                            one.path("package").path("ecosystem").asString(""),
                            one.path("package").path("name").asString(""),
                            versions,
                            spans));
        }
        return new Advisory(
                json.path("id").asString(""), json.path("summary").asString(""), affected);
    }

    private static List<Span> spans(JsonNode events) {
        var spans = new ArrayList<Span>();
        String from = "";
        for (var event : events) {
            if (event.has("introduced")) {
                if (!from.isEmpty()) {
                    spans.add(new Span(from, "", ""));
                }
                from = event.path("introduced").asString("0");
            } else if (event.has("fixed") || event.has("last_affected")) {
                spans.add(
                        new Span(
                                from.isEmpty() ? "0" : from,
                                event.path("fixed").asString(""),
                                event.path("last_affected").asString("")));
                from = "";
            }
        }
        if (!from.isEmpty()) {
            spans.add(new Span(from, "", ""));
        }
        return spans;
    }
}
