package sandpiper.server.rehearsal;

import io.swagger.v3.oas.annotations.Hidden;
import jakarta.servlet.http.HttpServletRequest;
import java.net.URI;
import org.springframework.http.HttpHeaders;
import org.springframework.http.HttpMethod;
import org.springframework.http.HttpStatus;
import org.springframework.http.MediaType;
import org.springframework.http.ResponseEntity;
import org.springframework.web.bind.annotation.RequestMapping;
import org.springframework.web.bind.annotation.RestController;
import sandpiper.server.problem.ProblemException;
import sandpiper.server.settings.Rehearsed;

/** Answers where a rehearsal would, while none is served. */
@Hidden
@RestController
class NoRehearsalController {
    @RequestMapping({Rehearsed.PLACE, Rehearsed.PLACE + "/**"})
    ResponseEntity<Void> over(HttpServletRequest request) {
        var accepted = String.valueOf(request.getHeader(HttpHeaders.ACCEPT));
        boolean page =
                request.getMethod().equals(HttpMethod.GET.name())
                        && accepted.contains(MediaType.TEXT_HTML_VALUE);
        if (page) {
            // Who has the address open of one that is over begins another where they are begun.
            return ResponseEntity.status(HttpStatus.FOUND)
                    .location(URI.create("/releases"))
                    .build();
        }
        throw new ProblemException(
                HttpStatus.NOT_FOUND,
                "No rehearsal is served; begin one with sandpiper rehearse or on the page"
                        + " Releases.");
    }
}
