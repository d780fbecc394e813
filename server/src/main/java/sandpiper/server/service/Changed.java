package sandpiper.server.service;

import java.util.Optional;
import org.jspecify.annotations.Nullable;
import org.springframework.http.HttpStatus;
import sandpiper.engine.command.Outcome;
import sandpiper.engine.port.Session;
import sandpiper.engine.record.RecordView;
import sandpiper.engine.release.LiveRelease;
import sandpiper.model.release.FieldTree;
import sandpiper.model.release.ResourceType;
import sandpiper.server.problem.ProblemException;

/**
 * What a change led to, read in the transaction that made it: nobody else's change is seen. Only to
 * be used while it is being answered.
 */
public final class Changed {
    private final ServiceCall call;
    private final LiveRelease live;
    private final Session session;
    private final Outcome.Success success;

    Changed(ServiceCall call, LiveRelease live, Session session, Outcome.Success success) {
        this.call = call;
        this.live = live;
        this.session = session;
        this.success = success;
    }

    public Outcome.Success success() {
        return success;
    }

    /** What a function gave back, or {@code null} when none was called. */
    public Outcome.@Nullable Result result() {
        var result = success.result();
        return result == null
                ? null
                : new Outcome.Result(
                        result.called(), call.narrowed(live, result.called(), result.value()));
    }

    /** The record that was changed; nothing for a function of the service. */
    public Optional<Outcome.Done> record() {
        return success instanceof Outcome.Done done ? Optional.of(done) : Optional.empty();
    }

    /** The resource that was called. */
    public ResourceType resource() {
        return call.shown(live);
    }

    /** What of a record the caller may be answered with. */
    public FieldTree tree(Outcome.Done done) {
        return call.answerTree(live, session, done);
    }

    /**
     * Some fields of a record as it is now.
     *
     * @throws ProblemException when the change has removed it
     */
    public RecordView view(Outcome.Done done, FieldTree tree) {
        return call.engine()
                .records()
                .view(live, session, done.object(), done.number(), tree)
                .orElseThrow(() ->
                        new ProblemException(
                                HttpStatus.NOT_FOUND, "The record was removed meanwhile."));
    }

    /** How a record is written in full, each writer made once. */
    public RecordWriter writer(RecordWriters writers, Outcome.Done done, FieldTree tree) {
        return writers.of(live, done.object(), tree);
    }

    /** The key of a record that was read with some of its fields, or its id where it has none. */
    public String key(Outcome.Done done, FieldTree tree, RecordView record) {
        return call.engine()
                .records()
                .keyOf(live, session, done.object(), tree, record)
                .orElse(done.id().toString());
    }
}
