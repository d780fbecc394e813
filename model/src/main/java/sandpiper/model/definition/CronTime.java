package sandpiper.model.definition;

import com.cronutils.model.CronType;
import com.cronutils.model.definition.CronDefinitionBuilder;
import com.cronutils.model.time.ExecutionTime;
import com.cronutils.parser.CronParser;
import java.time.ZonedDateTime;
import java.util.Optional;
import org.jspecify.annotations.Nullable;

/** Times as cron has them, in five fields (POSIX crontab). Two are equal when their texts are. */
public final class CronTime {
    private static final CronParser PARSER =
            new CronParser(CronDefinitionBuilder.instanceDefinitionFor(CronType.UNIX));

    private final String written;
    private final ExecutionTime times;

    private CronTime(String written, ExecutionTime times) {
        this.written = written;
        this.times = times;
    }

    /**
     * Reads them.
     *
     * @throws IllegalArgumentException when the text has none, saying why
     */
    public static CronTime read(String text) {
        return new CronTime(text, ExecutionTime.forCron(PARSER.parse(text).validate()));
    }

    /** The first time after another, or nothing when there is none any more. */
    public Optional<ZonedDateTime> after(ZonedDateTime moment) {
        return times.nextExecution(moment);
    }

    @Override
    public boolean equals(@Nullable Object other) {
        return other instanceof CronTime that && written.equals(that.written);
    }

    @Override
    public int hashCode() {
        return written.hashCode();
    }

    @Override
    public String toString() {
        return written;
    }
}
