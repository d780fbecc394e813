package sandpiper.server.rehearsal;

import jakarta.servlet.FilterChain;
import jakarta.servlet.ServletException;
import jakarta.servlet.http.HttpServletRequest;
import jakarta.servlet.http.HttpServletRequestWrapper;
import jakarta.servlet.http.HttpServletResponse;
import jakarta.servlet.http.HttpServletResponseWrapper;
import java.io.IOException;
import java.util.function.BooleanSupplier;
import org.springframework.http.HttpHeaders;
import org.springframework.http.HttpStatus;
import org.springframework.web.filter.OncePerRequestFilter;
import sandpiper.server.intake.Refusal;
import sandpiper.server.problem.ProblemException;

/**
 * Has a copy see the addresses it is called at as if it stood at the root, so that all who read
 * addresses read them as in the live service.
 */
final class PlaceFilter extends OncePerRequestFilter {
    private final String place;
    private final BooleanSupplier open;

    /** {@code open} tells whether requests are still worked on. */
    PlaceFilter(String place, BooleanSupplier open) {
        this.place = place;
        this.open = open;
    }

    @Override
    protected void doFilterInternal(
            HttpServletRequest request, HttpServletResponse response, FilterChain chain)
            throws ServletException, IOException {
        var asAtRoot = new AtRoot(request);
        if (open.getAsBoolean()) {
            chain.doFilter(asAtRoot, new FromRoot(response));
        } else {
            Refusal.write(
                    asAtRoot,
                    response,
                    new ProblemException(HttpStatus.NOT_FOUND, "The rehearsal is over."));
        }
    }

    private final class AtRoot extends HttpServletRequestWrapper {
        AtRoot(HttpServletRequest request) {
            super(request);
        }

        @Override
        public String getRequestURI() {
            var address = super.getRequestURI();
            if (!address.startsWith(place)) {
                return address;
            }
            var rest = address.substring(place.length());
            return rest.isEmpty() ? "/" : rest;
        }

        @Override
        public String getContextPath() {
            return "";
        }
    }

    /** What was made is found at the copy. */
    private final class FromRoot extends HttpServletResponseWrapper {
        FromRoot(HttpServletResponse response) {
            super(response);
        }

        private String placed(String name, String value) {
            boolean local =
                    name.equalsIgnoreCase(HttpHeaders.LOCATION)
                            && value.startsWith("/")
                            && !value.startsWith(place + "/");
            return local ? place + value : value;
        }

        @Override
        public void setHeader(String name, String value) {
            super.setHeader(name, placed(name, value));
        }

        @Override
        public void addHeader(String name, String value) {
            super.addHeader(name, placed(name, value));
        }
    }
}
