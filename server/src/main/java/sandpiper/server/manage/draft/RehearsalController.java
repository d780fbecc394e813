package sandpiper.server.manage.draft;

import io.swagger.v3.oas.annotations.Operation;
import java.util.List;
import java.util.Locale;
import org.jspecify.annotations.Nullable;
import org.springframework.http.HttpStatus;
import org.springframework.security.core.annotation.AuthenticationPrincipal;
import org.springframework.web.bind.annotation.DeleteMapping;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestMapping;
import org.springframework.web.bind.annotation.ResponseStatus;
import org.springframework.web.bind.annotation.RestController;
import sandpiper.engine.access.Actor;
import sandpiper.engine.access.Duty;
import sandpiper.engine.definition.ReleasePreview;
import sandpiper.engine.example.ExampleResult;
import sandpiper.engine.rehearsal.RehearsalException;
import sandpiper.engine.rehearsal.RehearsalReport;
import sandpiper.engine.rehearsal.Rehearsals;
import sandpiper.engine.rehearsal.ReplayReport;
import sandpiper.server.manage.DutyCheck;
import sandpiper.server.problem.ProblemException;

/** The draft tried on a copy of the live data. */
@RestController
@RequestMapping("/manage/v1/rehearsal")
public class RehearsalController {
    private final Rehearsals rehearsals;

    RehearsalController(Rehearsals rehearsals) {
        this.rehearsals = rehearsals;
    }

    /** An example that does not hold, and why. */
    record UnprovedExample(String requirement, String label, List<String> problems) {
        static UnprovedExample of(ExampleResult result) {
            return new UnprovedExample(result.requirement(), result.label(), result.problems());
        }

        /** What records say is for those who may see them. */
        static UnprovedExample onRecords(ExampleResult result, boolean seesRecords) {
            return seesRecords
                    ? of(result)
                    : new UnprovedExample(
                            result.requirement(),
                            result.label(),
                            List.of("Who has the duty records sees what is other there."));
        }
    }

    /**
     * Where the copy is served.
     *
     * @param place from the root of the service, without a slash at the end
     * @param until when it is thrown away
     */
    record ServedView(String place, String until) {
        static ServedView of(RehearsalReport.ServedAt served) {
            return new ServedView(served.place(), served.until().toString());
        }
    }

    /**
     * Calls whose answers differ in the same way.
     *
     * @param call what was called, as {@code berth-desk v1 stays create}
     * @param count how many
     * @param of how many of its kind were played
     * @param now how they are answered without the draft; may be empty
     * @param then how they are answered with it
     * @param example one of them
     */
    record ReplayDifference(
            String call, int count, int of, String now, String then, String example) {
        /** What answers say is for those who may see records. */
        static ReplayDifference of(ReplayReport.Difference one, boolean seesRecords) {
            return seesRecords
                    ? new ReplayDifference(
                            one.call(), one.count(), one.of(), one.now(), one.then(), one.example())
                    : new ReplayDifference(
                            one.call(),
                            one.count(),
                            one.of(),
                            "",
                            "Who has the duty records sees what is other.",
                            "");
        }
    }

    /**
     * What recorded calls are answered on the copy, without the draft and with it.
     *
     * @param since when the oldest of them was made, or {@code null} when there are none
     * @param played how many there were
     * @param skipped those that could not be played
     * @param differences the most frequent first
     */
    record ReplayView(
            @Nullable String since, int played, int skipped, List<ReplayDifference> differences) {
        static ReplayView of(ReplayReport report, boolean seesRecords) {
            return new ReplayView(
                    report.since() == null ? null : report.since().toString(),
                    report.played(),
                    report.skipped(),
                    report.differences().stream()
                            .map(one -> ReplayDifference.of(one, seesRecords))
                            .toList());
        }
    }

    /**
     * A rehearsal, as far as it has come.
     *
     * @param stage {@code copying}, {@code releasing}, {@code formulas}, {@code examples}, {@code
     *     serving}, {@code replaying}; at the end {@code done}, {@code refused} as the release
     *     would be, or {@code stopped}
     * @param over whether nothing more comes
     * @param release the one that was live when it began
     * @param bytes of the copy
     * @param copyMillis how long copying took
     * @param releaseMillis how long nothing could be written while it was released
     * @param formulaMillis how long formulas took afterwards, beside which requests are served
     * @param formulas those that were worked out afterwards
     * @param preview what the release does, when that is known
     * @param failing examples that do not hold
     * @param differing examples that hold by themselves, but not on the records there are, where
     *     they hold with what is live or are new
     * @param replay what recorded calls are answered, or {@code null} when none were replayed
     * @param served where the copy is served now, or {@code null} when it is not
     * @param message why it ended so, or {@code null}
     */
    record RehearsalView(
            String stage,
            boolean over,
            String begun,
            String by,
            int release,
            long bytes,
            long copyMillis,
            long releaseMillis,
            long formulaMillis,
            List<String> formulas,
            @Nullable ReleasePreview preview,
            List<UnprovedExample> failing,
            List<UnprovedExample> differing,
            @Nullable ReplayView replay,
            @Nullable ServedView served,
            @Nullable String message) {
        static RehearsalView of(RehearsalReport one, boolean seesRecords) {
            return new RehearsalView(
                    one.stage().name().toLowerCase(Locale.ROOT),
                    one.stage().isOver(),
                    one.begun().toString(),
                    one.by(),
                    one.release(),
                    one.bytes(),
                    one.took().copying().toMillis(),
                    one.took().releasing().toMillis(),
                    one.took().formulas().toMillis(),
                    one.worked(),
                    one.preview(),
                    one.failing().stream().map(UnprovedExample::of).toList(),
                    one.differing().stream()
                            .map(it -> UnprovedExample.onRecords(it, seesRecords))
                            .toList(),
                    one.replay() == null ? null : ReplayView.of(one.replay(), seesRecords),
                    one.served() == null ? null : ServedView.of(one.served()),
                    one.message());
        }
    }

    /**
     * The rehearsal that is under way, or the last one.
     *
     * @param last {@code null} when nothing was rehearsed since the service started
     */
    record LastRehearsal(@Nullable RehearsalView last) {}

    @Operation(summary = "Release the draft on a copy of the live data")
    @PostMapping
    @ResponseStatus(HttpStatus.ACCEPTED)
    RehearsalView begin(@AuthenticationPrincipal Actor actor) {
        DutyCheck.require(actor, Duty.RELEASE);
        try {
            return RehearsalView.of(rehearsals.begin(actor), actor.has(Duty.RECORDS));
        } catch (RehearsalException e) {
            throw new ProblemException(HttpStatus.CONFLICT, String.valueOf(e.getMessage()));
        }
    }

    @Operation(summary = "How far the rehearsal has come, or what the last one came to")
    @GetMapping
    LastRehearsal last(@AuthenticationPrincipal Actor actor) {
        DutyCheck.require(actor, Duty.DESIGN);
        return new LastRehearsal(
                rehearsals
                        .last()
                        .map(one -> RehearsalView.of(one, actor.has(Duty.RECORDS)))
                        .orElse(null));
    }

    @Operation(summary = "End the rehearsal that is under way or served")
    @DeleteMapping
    @ResponseStatus(HttpStatus.NO_CONTENT)
    void end(@AuthenticationPrincipal Actor actor) {
        DutyCheck.require(actor, Duty.RELEASE);
        if (!rehearsals.end()) {
            throw new ProblemException(HttpStatus.CONFLICT, "No rehearsal is under way or served.");
        }
    }
}
