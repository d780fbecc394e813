package sandpiper.engine.port;

import java.time.Instant;
import java.util.Collection;
import java.util.List;
import java.util.Optional;
import java.util.OptionalLong;
import java.util.UUID;
import org.jspecify.annotations.Nullable;
import sandpiper.engine.event.Delivery;
import sandpiper.engine.event.Event;

/** Events in the order in which they were raised, and their deliveries. */
public interface EventStorage {
    /**
     * Stores an event behind all others. Where many write at a time it has no place in the order
     * before it {@linkplain #arrive arrives}: those that are committed later may have been raised
     * earlier, and would come in behind whoever reads.
     */
    void add(Transaction transaction, Event event);

    /** Whether events are stored that have no place in the order. */
    boolean areArriving(Session session);

    /**
     * Gives events that are stored their place in the order; to be called with a {@linkplain
     * #claimPosition claim}, so that one does it at a time.
     */
    void arrive(Transaction transaction);

    /** Events behind a place in the order, the first of them first. */
    List<Event> after(Session session, long number, int limit);

    /**
     * Published events behind a place in the order, of some names only.
     *
     * @param names {@code null} for any
     */
    List<Event> published(
            Session session, long after, @Nullable Collection<String> names, int limit);

    /**
     * The newest published events.
     *
     * @param search part of the name, the record's key or the object; empty for any
     */
    List<Event> latest(Session session, String search, int limit);

    Optional<Event> find(Session session, long number);

    Optional<Event> find(Session session, UUID id);

    /** The number of the newest event; 0 when there is none. */
    long newest(Session session);

    /** How far a reader of events has come; 0 when it has not begun. */
    long position(Session session, String reader);

    /**
     * Takes the place of a reader for this transaction alone.
     *
     * @return how far it has come; nothing when another process has it now
     */
    OptionalLong claimPosition(Transaction transaction, String reader);

    void setPosition(Transaction transaction, String reader, long number);

    void addDelivery(Transaction transaction, Delivery delivery);

    /**
     * Waiting deliveries to targets of a kind that are due and that nobody holds, oldest events
     * first, those left out that must wait for an earlier one about the same record.
     */
    List<Delivery> due(Session session, Delivery.Target.Kind kind, Instant now, int limit);

    /**
     * What had to wait for a delivery that is done: the next to the same target about the same
     * record. To look for it costs the same however many wait, unlike {@link #due}.
     *
     * @return nothing when none waits, when it is not due or held, or when the one that is done was
     *     about no record
     */
    Optional<Delivery> following(Session session, Delivery done, Instant now);

    /** When the next waiting delivery to targets of a kind is due, or nothing when none waits. */
    Optional<Instant> nextDue(Session session, Delivery.Target.Kind kind);

    Optional<Delivery> delivery(Session session, long number);

    /**
     * Takes a delivery for this transaction alone.
     *
     * @return nothing when there is none, or when another process has it now or holds it
     */
    Optional<Delivery> claim(Transaction transaction, long number, Instant now);

    /**
     * Keeps a delivery from others for a while, since what is done with it takes longer than a
     * transaction may; {@link #update} ends that.
     */
    void hold(Transaction transaction, long number, Instant until);

    /** Puts a delivery in the place of the one with its number. */
    void update(Transaction transaction, Delivery delivery);

    /**
     * What deliveries are asked for.
     *
     * @param target as {@link Delivery.Target#written} has it; empty for any
     * @param state {@code null} for any
     * @param search part of the event's name or of the key of its record; empty for any
     */
    record DeliveryFilter(
            String target, Delivery.@Nullable State state, String search, int limit) {}

    /** Deliveries with their events, newest first. */
    List<Delivered> deliveries(Session session, DeliveryFilter wanted);

    /** A delivery with its event. */
    record Delivered(Delivery delivery, Event event) {}

    /** Waiting deliveries to a target of the events of one unit of work, in their order. */
    List<Delivered> waitingOf(Session session, Delivery.Target target, UUID unit);

    /** How many deliveries of a state there are. */
    long count(Session session, Delivery.State state);

    /** Forgets what nobody waits for any more and is older than a moment. */
    void forgetBefore(Transaction transaction, Instant moment);

    /** Forgets waiting deliveries to a target that is no longer there. */
    void forgetWaiting(Transaction transaction, Delivery.Target target);

    /**
     * One try to deliver over a network.
     *
     * @param delivery its number
     * @param status of the answer, 0 when there was none
     * @param request what was sent, its head
     * @param answer what came back, cut
     * @param said what came of it, in a sentence
     */
    record Try(
            long delivery,
            Instant at,
            long millis,
            int status,
            String request,
            String answer,
            String said) {}

    void addTry(Transaction transaction, Try one);

    /** The tries of a delivery, newest first. */
    List<Try> tries(Session session, long delivery);
}
