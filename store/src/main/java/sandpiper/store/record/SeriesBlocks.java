package sandpiper.store.record;

import java.time.Duration;
import java.util.Map;
import java.util.Objects;
import java.util.concurrent.ConcurrentHashMap;
import java.util.function.Function;
import java.util.function.Supplier;
import sandpiper.model.release.ObjectType;
import sandpiper.store.sql.SqlSession;

/**
 * Counts that are drawn in blocks, in transactions of their own, so that those who create at the
 * same time do not wait for each other. What is drawn and not used is left out. Where few create a
 * block is one number; the more do, the larger it is. A series without gaps is not drawn from here.
 */
public final class SeriesBlocks implements Series {
    private static final int LARGEST = 64;

    /** Who draws again within this time gets twice as many. */
    private static final long SOON_NANOS = Duration.ofSeconds(1).toNanos();

    private final Supplier<SqlSession> drawing;
    private final Supplier<SqlSession> glancing;
    private final Series gapless = new StoredSeries();
    private final Map<Key, Block> blocks = new ConcurrentHashMap<>();

    private record Key(String object, String series) {}

    /** For one thread at a time. */
    private static final class Block {
        private long next = 1;
        private long last;
        private int size = 1;
        private long drawn;
    }

    /**
     * @param drawing begins a transaction in which nothing but a block is drawn
     * @param glancing begins to read what is committed
     */
    public SeriesBlocks(Supplier<SqlSession> drawing, Supplier<SqlSession> glancing) {
        this.drawing = drawing;
        this.glancing = glancing;
    }

    @Override
    public long next(SqlSession session, ObjectType object, String series) {
        if (Objects.requireNonNull(object.numbering()).gapless()) {
            return gapless.next(session, object, series);
        }
        var key = new Key(object.name(), series);
        var block = blocks.computeIfAbsent(key, _ -> new Block());
        synchronized (block) {
            if (block.next > block.last) {
                draw(key, block);
            }
            return block.next++;
        }
    }

    private void draw(Key key, Block block) {
        long now = System.nanoTime();
        boolean soon = block.drawn != 0 && now - block.drawn < SOON_NANOS;
        block.size = soon ? Math.min(2 * block.size, LARGEST) : 1;
        block.drawn = now;
        try (var session = drawing.get()) {
            block.last =
                    session.insert(
                            StoredSeries.DRAW, key.object(), key.series(), (long) block.size);
            session.commit();
        }
        block.next = block.last - block.size + 1;
    }

    @Override
    public <T> T beside(SqlSession session, Function<SqlSession, T> reading) {
        try (var other = glancing.get()) {
            return reading.apply(other);
        }
    }
}
