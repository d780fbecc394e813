package sandpiper.server.config;

import jakarta.servlet.FilterChain;
import jakarta.servlet.ServletException;
import jakarta.servlet.http.HttpServletRequest;
import jakarta.servlet.http.HttpServletResponse;
import java.io.IOException;
import org.springframework.core.Ordered;
import org.springframework.core.annotation.Order;
import org.springframework.http.HttpHeaders;
import org.springframework.stereotype.Component;
import org.springframework.web.filter.OncePerRequestFilter;
import sandpiper.model.type.AskedLanguages;

/** Binds the languages a caller asks for to the work done for it. */
@Component
@Order(Ordered.HIGHEST_PRECEDENCE + 1)
final class LanguageFilter extends OncePerRequestFilter {
    @Override
    protected void doFilterInternal(
            HttpServletRequest request, HttpServletResponse response, FilterChain chain)
            throws ServletException, IOException {
        var languages = AskedLanguages.of(request.getHeader(HttpHeaders.ACCEPT_LANGUAGE));
        try {
            languages.in(() -> {
                chain.doFilter(request, response);
                return true;
            });
        } catch (IOException | ServletException | RuntimeException e) {
            throw e;
        } catch (Exception e) {
            throw new ServletException(e);
        }
    }
}
