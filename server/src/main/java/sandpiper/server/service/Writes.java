package sandpiper.server.service;

import java.nio.charset.StandardCharsets;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import java.util.function.Function;
import org.jspecify.annotations.Nullable;
import sandpiper.engine.Engine;
import sandpiper.engine.command.Grouping;
import sandpiper.engine.command.Outcome;
import sandpiper.engine.command.RecordCommand;
import sandpiper.engine.command.Request;
import sandpiper.engine.release.LiveRelease;
import sandpiper.server.security.Secrets;

/** Changes by way of a service, whatever its protocol: done once, accounted for, and answered. */
public final class Writes {
    private Writes() {}

    /**
     * A change that is asked for.
     *
     * @param <A> the answer in the form of the protocol
     * @param command makes the command for a release
     * @param traced whether an account of it is wanted
     * @param once makes sure that a repeated request is done once, or {@code null}
     */
    public record Asked<A>(
            ServiceCall call,
            Function<LiveRelease, RecordCommand> command,
            boolean traced,
            @Nullable Once once,
            AnswerForm<A> form) {

        /** The request of the engine's; refused when it is not granted or not offered. */
        Request request(LiveRelease live) {
            var repeatable =
                    once == null
                            ? null
                            : new Request.Once(
                                    once.key(),
                                    once.fingerprint(),
                                    (session, done) ->
                                            form.write(
                                                    form.of(
                                                            new Changed(
                                                                    call,
                                                                    call.engine().live(),
                                                                    session,
                                                                    done))));
            return call.request(live, command.apply(live), traced, repeatable);
        }

        /**
         * Lets only those go on to whom it is granted, where it is offered. Nothing is done.
         *
         * @throws sandpiper.engine.service.DeniedException for all others
         */
        public void require() {
            request(call.engine().live());
        }
    }

    /**
     * By what a repeated request is known.
     *
     * @param key chosen by the caller
     * @param fingerprint of all that was asked
     */
    public record Once(String key, String fingerprint) {
        /** Known by all that came over HTTP; what is in a body may be any bytes. */
        public static Once of(String key, String method, String address, byte[] body) {
            return new Once(
                    key,
                    Secrets.hash(
                            "%s %s\n%s"
                                    .formatted(
                                            method,
                                            address,
                                            new String(body, StandardCharsets.ISO_8859_1))));
        }
    }

    /** Carries a change out and waits until it is durable. */
    public static <A> Performed<A> perform(Asked<A> asked) {
        var answered =
                asked.call()
                        .engine()
                        .records()
                        .write(
                                asked::request,
                                (live, session, done) ->
                                        asked.form()
                                                .of(
                                                        new Changed(
                                                                asked.call(),
                                                                live,
                                                                session,
                                                                done)));
        return performed(asked, answered.outcome(), answered.answer());
    }

    /**
     * Carries out all or none, and waits until they are durable.
     *
     * @return one for each; or up to the one for whose sake nothing was done
     */
    public static <A> List<Performed<A>> together(Engine engine, List<Asked<A>> all) {
        Map<Integer, A> answers = new HashMap<>();
        var requests = new ArrayList<Function<LiveRelease, Request>>();
        all.forEach(asked -> requests.add(asked::request));
        var outcomes =
                engine.records()
                        .write(
                                requests,
                                Grouping.ALL_OR_NONE,
                                (place, live, session, done) -> {
                                    var asked = all.get(place);
                                    answers.put(
                                            place,
                                            asked.form()
                                                    .of(
                                                            new Changed(
                                                                    asked.call(),
                                                                    live,
                                                                    session,
                                                                    done)));
                                });
        var performed = new ArrayList<Performed<A>>();
        for (int i = 0; i < outcomes.size(); i++) {
            performed.add(performed(all.get(i), outcomes.get(i), answers.get(i)));
        }
        return performed;
    }

    private static <A> Performed<A> performed(Asked<A> asked, Outcome outcome, @Nullable A answer) {
        return switch (outcome) {
            case Outcome.Refused refused -> new Performed.Refused<>(refused);
            case Outcome.Repeated(var kept) -> new Performed.Again<>(asked.form().read(kept));
            case Outcome.Success done -> new Performed.Done<>(done, Objects.requireNonNull(answer));
        };
    }
}
