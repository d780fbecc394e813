package sandpiper.bench.control;

import java.security.Principal;
import java.util.List;
import java.util.Map;
import org.springframework.http.ResponseEntity;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestBody;
import org.springframework.web.bind.annotation.RequestMapping;
import org.springframework.web.bind.annotation.RequestParam;
import org.springframework.web.bind.annotation.RestController;
import sandpiper.bench.control.StayRepository.Stay;

/** The same calls as Sandpiper's berth desk, for stays alone. */
@RestController
@RequestMapping("/stays")
public class StayController {
    private final StayRepository stays;

    StayController(StayRepository stays) {
        this.stays = stays;
    }

    @PostMapping
    ResponseEntity<Object> create(@RequestBody Stay stay, Principal who) {
        if (stay.vessel() == null
                || stay.berth() == null
                || stay.arrival() == null
                || stay.departure() == null) {
            return ResponseEntity.unprocessableContent()
                    .body(Map.of("detail", "vessel, berth, arrival and departure are required"));
        }
        var number = stays.create(stay, who.getName());
        return ResponseEntity.status(201).body(stays.read(number));
    }

    @GetMapping("/{number}")
    ResponseEntity<Stay> read(@PathVariable String number) {
        return ResponseEntity.ofNullable(stays.read(number));
    }

    @GetMapping
    Map<String, List<Stay>> query(
            @RequestParam String state, @RequestParam String pier, @RequestParam int limit) {
        return Map.of("items", stays.query(state, pier, limit));
    }
}
