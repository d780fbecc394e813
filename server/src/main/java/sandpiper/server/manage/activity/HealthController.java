package sandpiper.server.manage.activity;

import io.swagger.v3.oas.annotations.Operation;
import java.time.Duration;
import java.util.concurrent.atomic.AtomicBoolean;
import org.slf4j.Logger;
import org.slf4j.LoggerFactory;
import org.springframework.context.event.ContextClosedEvent;
import org.springframework.context.event.EventListener;
import org.springframework.http.HttpStatus;
import org.springframework.http.ResponseEntity;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.RequestMapping;
import org.springframework.web.bind.annotation.RestController;
import sandpiper.engine.Engine;
import sandpiper.engine.port.OverloadedException;
import sandpiper.engine.port.StorageException;

/** Whether the instance is there, and whether it can do its work; for whoever watches over it. */
@RestController
@RequestMapping("/manage/v1")
public class HealthController {
    private static final Logger LOG = LoggerFactory.getLogger(HealthController.class);

    /** How long what was found is answered again. */
    private static final Duration LOOKED_FOR = Duration.ofSeconds(1);

    private final Engine engine;
    private final AtomicBoolean stopping = new AtomicBoolean();
    private long lookedAt;
    private String found = "";

    HealthController(Engine engine) {
        this.engine = engine;
    }

    /**
     * How it is.
     *
     * @param status {@code up}, {@code ready} or {@code not ready}
     * @param because why it is not ready, in words for an operator; empty otherwise
     */
    record Health(String status, String because) {}

    /** The process answers. */
    @Operation(summary = "The process answers")
    @GetMapping("/health")
    Health health() {
        return new Health("up", "");
    }

    /** Reading and storing work: 200, otherwise 503 with why. */
    @Operation(summary = "Reading and storing work")
    @GetMapping("/ready")
    ResponseEntity<Health> ready() {
        var because = stopping.get() ? "The service is stopping." : looked();
        return because.isEmpty()
                ? ResponseEntity.ok(new Health("ready", ""))
                : ResponseEntity.status(HttpStatus.SERVICE_UNAVAILABLE)
                        .body(new Health("not ready", because));
    }

    /**
     * Why it is not ready, or nothing. Looking writes to the disk and anyone may ask, so it is done
     * once a second at most.
     */
    private synchronized String looked() {
        if (lookedAt == 0 || System.nanoTime() - lookedAt > LOOKED_FOR.toNanos()) {
            found = look();
            lookedAt = System.nanoTime();
        }
        return found;
    }

    private String look() {
        try {
            engine.checkWritable();
            return "";
        } catch (StorageException e) {
            LOG.warn("Not ready", e);
            return e.words();
        } catch (OverloadedException e) {
            LOG.warn("Not ready", e);
            return String.valueOf(e.getMessage());
        }
    }

    @EventListener
    void stopping(ContextClosedEvent event) {
        stopping.set(true);
    }
}
