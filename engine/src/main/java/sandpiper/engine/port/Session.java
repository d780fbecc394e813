package sandpiper.engine.port;

/** A view of the data on one consistent state. Used by one thread at a time. */
public interface Session extends AutoCloseable {
    @Override
    void close();
}
