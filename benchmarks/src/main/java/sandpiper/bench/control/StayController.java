package sandpiper.bench.control;

import java.security.Principal;
import java.util.List;
import java.util.Map;
import org.jspecify.annotations.Nullable;
import org.springframework.http.ResponseEntity;
import org.springframework.web.bind.annotation.ExceptionHandler;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestBody;
import org.springframework.web.bind.annotation.RequestMapping;
import org.springframework.web.bind.annotation.RequestParam;
import org.springframework.web.bind.annotation.RestController;

/** The same calls as Sandpiper's berth desk, for stays alone. */
@RestController
@RequestMapping("/stays")
class StayController {
    private final StayRepository stays;
    private final StayQueries queries;

    StayController(StayRepository stays, StayQueries queries) {
        this.stays = stays;
        this.queries = queries;
    }

    @PostMapping
    ResponseEntity<@Nullable Stay> create(@RequestBody NewStay stay, Principal who) {
        return ResponseEntity.status(201).body(queries.read(stays.create(stay, who.getName())));
    }

    @GetMapping("/{number}")
    ResponseEntity<Stay> read(@PathVariable String number) {
        return ResponseEntity.ofNullable(queries.read(number));
    }

    @GetMapping
    Map<String, List<Stay.Line>> query(
            @RequestParam String state, @RequestParam String pier, @RequestParam int limit) {
        return Map.of("items", queries.query(state, pier, limit));
    }

    @ExceptionHandler
    ResponseEntity<Map<String, @Nullable String>> refused(RefusedException e) {
        return ResponseEntity.unprocessableContent().body(Map.of("detail", e.getMessage()));
    }
}
