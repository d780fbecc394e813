package sandpiper.server.soap.xml;

import java.io.IOException;
import java.util.concurrent.ConcurrentLinkedQueue;
import java.util.function.Supplier;
import org.xml.sax.SAXException;

/**
 * Things that are costly to make and serve one thread at a time. There are never more of them than
 * were used at once. Safe for many threads.
 */
public final class Pool<T> {
    private final ConcurrentLinkedQueue<T> idle = new ConcurrentLinkedQueue<>();
    private final Supplier<T> maker;

    /** With what makes one where none is idle. */
    public Pool(Supplier<T> maker) {
        this.maker = maker;
    }

    /** What is done with one of them. */
    @FunctionalInterface
    public interface Work<T, R> {
        R run(T one) throws SAXException, IOException;
    }

    /** Does something with one of them; one whose work failed is not used again. */
    public <R> R with(Work<T, R> work) throws SAXException, IOException {
        var there = idle.poll();
        var one = there == null ? maker.get() : there;
        var result = work.run(one);
        idle.add(one);
        return result;
    }
}
