package sandpiper.client;

import static sandpiper.client.ManageClient.escape;

import com.fasterxml.jackson.annotation.JsonInclude;
import java.nio.file.Path;
import java.util.List;
import java.util.Map;
import org.jspecify.annotations.Nullable;
import tools.jackson.databind.JsonNode;

/** Definitions: the draft, what it would change, releases, examples, contracts and trials. */
public final class DraftCalls {
    private static final String RELEASES = "/manage/v1/releases";
    private static final String REHEARSAL = "/manage/v1/rehearsal";
    private static final String PACKAGES = "/manage/v1/packages";
    private static final String KEPT = "/manage/v1/kept-values";

    private final ManageClient http;

    DraftCalls(ManageClient http) {
        this.http = http;
    }

    /** The files of the draft. */
    public record Draft(List<DraftFile> files) {}

    /** A file; its path begins with the package's folder. */
    public record DraftFile(String path, String text) {}

    /** What there is to say about a place in a file; lines and columns count from 1. */
    public record Finding(
            String file, int line, int column, String code, String message, String severity) {
        public boolean isError() {
            return severity.equals("ERROR");
        }
    }

    /** Paths of files that differ from the draft before, and what there is to say of all. */
    public record Pushed(
            List<String> added,
            List<String> changed,
            List<String> removed,
            List<Finding> diagnostics) {
        public int errors() {
            return (int) diagnostics.stream().filter(Finding::isError).count();
        }
    }

    /** What a release of the draft would do, in sentences. */
    public record Preview(
            List<Finding> diagnostics,
            List<FileChange> files,
            List<String> changes,
            List<String> losses,
            List<String> breaks,
            List<String> obstacles,
            @Nullable List<String> follows,
            @Nullable List<String> leftBehind) {
        /** What is done along with it; a service before this one tells none. */
        public List<String> following() {
            return follows == null ? List.of() : follows;
        }

        /** Grants and views that name what is removed; a service before this one tells none. */
        public List<String> left() {
            return leftBehind == null ? List.of() : leftBehind;
        }
    }

    /** A file of the draft that differs from the live one. */
    public record FileChange(String path) {}

    /**
     * What is wanted of a release, and what is accepted with it.
     *
     * @param forget whether values of what is removed are dropped at once, and not kept aside
     */
    public record Wanted(
            String note,
            boolean acceptLosses,
            boolean acceptBreaks,
            boolean acceptFailing,
            boolean forget) {}

    /** Values kept aside since a release removed them; {@code what} is {@code Stay.remark}. */
    public record Kept(long number, String what, long rows, int release, String until) {}

    /**
     * A package that is live.
     *
     * @param content what tells its files from any others
     * @param origin from where it came, or {@code null} when it was made or pushed there
     * @param altered files that differ from those that came
     */
    public record LivePackage(
            String name,
            String version,
            boolean sealed,
            List<String> depends,
            String content,
            @Nullable Origin origin,
            List<String> altered) {}

    /** From where a package came; an empty instance is one without a name, or a folder. */
    public record Origin(
            String instance,
            @Nullable Integer release,
            @Nullable String signer,
            String at,
            String by) {}

    /** A package that came into the draft; {@code before} is the version that was there. */
    public record Unpacked(
            String name,
            String version,
            @Nullable String before,
            @Nullable String signer,
            List<String> added,
            List<String> changed,
            List<String> removed,
            List<Finding> diagnostics) {}

    /** An example that does not hold, and why. */
    public record Unproved(String requirement, String label, List<String> problems) {}

    /**
     * A rehearsal, as far as it has come; see the manage API for its stages.
     *
     * @param differing examples that hold by themselves, but not on the records there are
     * @param replay what recorded calls are answered, or {@code null} when none were replayed
     * @param served where the copy is served now, or {@code null} when it is not
     */
    public record Rehearsed(
            String stage,
            boolean over,
            int release,
            long bytes,
            long copyMillis,
            long releaseMillis,
            long formulaMillis,
            List<String> formulas,
            @Nullable Preview preview,
            List<Unproved> failing,
            List<Unproved> differing,
            @Nullable Replayed replay,
            @Nullable ServedCopy served,
            @Nullable String message) {}

    /** Where a copy is served, from the root of the service, and until when. */
    public record ServedCopy(String place, String until) {}

    /** Recorded calls that were played, and what is answered otherwise. */
    public record Replayed(
            @Nullable String since, int played, int skipped, List<AnsweredOtherwise> differences) {}

    /** Of how many calls of a kind how many are answered otherwise in the same way. */
    public record AnsweredOtherwise(
            String call, int count, int of, String now, String then, String example) {}

    /** A release that is live now. */
    public record Released(int number, List<String> changes) {}

    /** How many requirements are proved, failing and open, and each of them. */
    public record Requirements(int proved, int failing, int open, List<Requirement> requirements) {}

    /** A requirement with its examples; {@code proof} is PROVED, FAILING or OPEN. */
    public record Requirement(String id, String text, String proof, List<Example> examples) {}

    /** An example, whether it holds and else why not. */
    public record Example(
            String label, String file, int line, boolean holds, List<String> problems) {}

    /** A service of the live release. */
    public record Service(String name, int version) {}

    /** Logic to be tried on a record: its key, or {@code null}, and values put over its own. */
    @JsonInclude(JsonInclude.Include.NON_NULL)
    public record Trial(Logic logic, @Nullable String key, Map<String, Object> values) {}

    /** A text in a place of a definition; {@code role} says in which. */
    public record Logic(String role, String object, String text) {}

    /** What came of a trial; there is a value or a record when it ran. */
    public record Tried(
            List<LogicFinding> findings,
            List<Fault> faults,
            List<String> notes,
            List<ActivityCalls.Step> steps,
            @Nullable String value,
            @Nullable RecordAfter record) {}

    /** What there is to say about a stretch of the text, counted from 0. */
    public record LogicFinding(
            int start,
            int end,
            String code,
            String message,
            boolean warning,
            @Nullable String suggestion) {}

    /** What is wrong with a value. */
    public record Fault(String message) {}

    /** The record as it would be. */
    public record RecordAfter(JsonNode values, List<Fault> warnings) {}

    /** An object of the live release. */
    public record ObjectType(String name, List<String> key, List<Field> fields, List<Part> parts) {}

    /** Line items of an object. */
    public record Part(String name, List<Field> fields) {}

    /**
     * A field.
     *
     * @param languages of a localised one; else empty
     * @param to the object it refers to, or {@code null}
     */
    public record Field(String name, List<String> languages, @Nullable String to) {}

    private record Model(List<ObjectType> objects) {}

    private record Routes(List<Route> routes) {}

    /** A route, with the fields that travel along it and the services that show them. */
    public record Route(
            String name, String label, List<String> services, List<Traveller> travellers) {}

    /** A field that travels, and the objects and parts that get it. */
    public record Traveller(String object, String field, boolean follows, List<String> reaches) {}

    public Draft draft() {
        return http.read("/manage/v1/draft", Draft.class).value();
    }

    /** Puts files into the draft; other packages there stay. */
    public Answer<Pushed> push(Map<String, String> files) {
        return http.send("POST", "/manage/v1/draft/push", Map.of("files", files), Pushed.class);
    }

    /** What a release of the draft would do. */
    public Answer<Preview> preview() {
        return preview(false);
    }

    /**
     * The same.
     *
     * @param forget whether values of what is removed would be dropped at once
     */
    public Answer<Preview> preview(boolean forget) {
        return http.read(RELEASES + "/preview" + forgetting(forget), Preview.class);
    }

    public Answer<Released> release(Wanted wanted) {
        return http.send("POST", RELEASES, wanted, Released.class);
    }

    /** What going back to an earlier release would do. */
    public Answer<Preview> previewOfTakingBack(int number, boolean forget) {
        return http.read(
                "%s/%d/take-back%s".formatted(RELEASES, number, forgetting(forget)), Preview.class);
    }

    /** Makes an earlier release live again, as a new one. */
    public Answer<Released> takeBack(int number, Wanted wanted) {
        return http.send(
                "POST", "%s/%d/take-back".formatted(RELEASES, number), wanted, Released.class);
    }

    private static String forgetting(boolean forget) {
        return forget ? "?forget=true" : "";
    }

    /** Begins to release the draft on a copy of the live data. */
    public Answer<Rehearsed> rehearse() {
        return http.send("POST", REHEARSAL, Map.of(), Rehearsed.class);
    }

    /** How far the one has come that was begun. */
    public Answer<Rehearsed> rehearsal() {
        return ManageClient.typed(http.get(REHEARSAL).path("last"), Rehearsed.class);
    }

    /** Ends it. */
    public void endRehearsal() {
        http.delete(REHEARSAL);
    }

    /** The packages that are live. */
    public Answer<List<LivePackage>> packages() {
        return http.list(PACKAGES, LivePackage.class);
    }

    /** Writes a live package to a file, as it goes to other instances. */
    public void pack(String name, Path to) {
        http.download("%s/%s/archive".formatted(PACKAGES, escape(name)), to);
    }

    /** Takes a packed package into the draft. */
    public Answer<Unpacked> unpack(byte[] archive) {
        return http.upload(PACKAGES + "/unpack", "application/zip", archive, Unpacked.class);
    }

    /** What is kept aside, newest first. */
    public Answer<List<Kept>> kept() {
        return http.list(KEPT, Kept.class);
    }

    /** Drops values that are kept aside, for good. */
    public void forget(long number) {
        http.delete("%s/%d".formatted(KEPT, number));
    }

    /** Plays the examples of files that need not be in the draft. */
    public Answer<Requirements> play(Map<String, String> files) {
        return http.send(
                "POST", "/manage/v1/requirements", Map.of("files", files), Requirements.class);
    }

    /** Tries logic; nothing of it is kept. */
    public Answer<Tried> tryOut(Trial trial) {
        return http.send("POST", "/manage/v1/trials", trial, Tried.class);
    }

    /** The objects of the live release. */
    public List<ObjectType> objects() {
        return http.read("/manage/v1/model", Model.class).value().objects();
    }

    /**
     * Routes, with all else that the model has in the answer's JSON.
     *
     * @param of LIVE or DRAFT
     */
    public Answer<List<Route>> routes(String of) {
        var model = http.read("/manage/v1/model?of=" + of, Routes.class);
        return new Answer<>(model.value().routes(), model.json().path("routes"));
    }

    /** The services of the live release. */
    public List<Service> services() {
        return http.list("/manage/v1/model/services", Service.class).value();
    }

    /** A contract as text; {@code form} is the last part of its address. */
    public String contract(Service service, String form) {
        return http.text(
                "/manage/v1/contracts/%s/v%d/%s"
                        .formatted(escape(service.name()), service.version(), form));
    }
}
