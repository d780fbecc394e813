package sandpiper.server.intake;

import jakarta.servlet.FilterChain;
import jakarta.servlet.ServletException;
import jakarta.servlet.http.HttpServletRequest;
import jakarta.servlet.http.HttpServletResponse;
import java.io.IOException;
import java.nio.ByteBuffer;
import java.nio.charset.CharacterCodingException;
import java.nio.charset.StandardCharsets;
import org.jspecify.annotations.Nullable;
import org.springframework.core.Ordered;
import org.springframework.core.annotation.Order;
import org.springframework.http.HttpStatus;
import org.springframework.stereotype.Component;
import org.springframework.web.filter.OncePerRequestFilter;
import sandpiper.server.problem.ProblemException;

/**
 * Refuses addresses whose escapes stand for no text (RFC 3986 §2.1, UTF-8), before anybody reads
 * parameters out of them.
 */
@Component
@Order(Ordered.HIGHEST_PRECEDENCE + 2)
final class AddressFilter extends OncePerRequestFilter {
    @Override
    protected void doFilterInternal(
            HttpServletRequest request, HttpServletResponse response, FilterChain chain)
            throws ServletException, IOException {
        if (isText(request.getRequestURI()) && isText(request.getQueryString())) {
            chain.doFilter(request, response);
        } else {
            Refusal.write(
                    request,
                    response,
                    new ProblemException(
                            HttpStatus.BAD_REQUEST,
                            "The address holds an escape that is no text: write a percent sign and"
                                    + " two hexadecimal digits for each byte of UTF-8."));
        }
    }

    /** Whether all escapes of an address are whole and come to text in UTF-8. */
    static boolean isText(@Nullable String address) {
        if (address == null || address.indexOf('%') < 0) {
            return true;
        }
        var bytes = new byte[address.length()];
        int length = 0;
        for (int i = 0; i < address.length(); i++) {
            char c = address.charAt(i);
            if (c != '%') {
                // What stands for itself cannot spoil what is escaped beside it.
                bytes[length++] = (byte) (c < 0x80 ? c : '?');
                continue;
            }
            int high = i + 2 < address.length() ? Character.digit(address.charAt(i + 1), 16) : -1;
            int low = i + 2 < address.length() ? Character.digit(address.charAt(i + 2), 16) : -1;
            if (high < 0 || low < 0) {
                return false;
            }
            bytes[length++] = (byte) (high << 4 | low);
            i += 2;
        }
        try {
            StandardCharsets.UTF_8.newDecoder().decode(ByteBuffer.wrap(bytes, 0, length));
            return true;
        } catch (CharacterCodingException _) {
            return false;
        }
    }
}
