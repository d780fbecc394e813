package sandpiper.server.security;

import jakarta.servlet.http.HttpServletRequest;
import jakarta.servlet.http.HttpServletResponse;
import java.io.IOException;
import java.util.Optional;
import org.springframework.boot.autoconfigure.condition.ConditionalOnMissingBean;
import org.springframework.context.ApplicationContext;
import org.springframework.context.annotation.Bean;
import org.springframework.context.annotation.Configuration;
import org.springframework.http.HttpHeaders;
import org.springframework.http.HttpStatus;
import org.springframework.security.authentication.AuthenticationManager;
import org.springframework.security.authentication.BadCredentialsException;
import org.springframework.security.authentication.LockedException;
import org.springframework.security.config.annotation.web.builders.HttpSecurity;
import org.springframework.security.config.annotation.web.configurers.CsrfConfigurer;
import org.springframework.security.config.annotation.web.configurers.HeadersConfigurer;
import org.springframework.security.core.Authentication;
import org.springframework.security.crypto.password.PasswordEncoder;
import org.springframework.security.web.AuthenticationEntryPoint;
import org.springframework.security.web.SecurityFilterChain;
import org.springframework.security.web.access.intercept.AuthorizationFilter;
import org.springframework.security.web.authentication.WebAuthenticationDetails;
import org.springframework.security.web.authentication.www.BasicAuthenticationFilter;
import org.springframework.security.web.context.NullSecurityContextRepository;
import org.springframework.security.web.context.SecurityContextRepository;
import org.springframework.security.web.csrf.CookieCsrfTokenRepository;
import org.springframework.security.web.csrf.CsrfTokenRequestAttributeHandler;
import org.springframework.security.web.firewall.StrictHttpFirewall;
import org.springframework.security.web.header.writers.ReferrerPolicyHeaderWriter;
import sandpiper.engine.Engine;
import sandpiper.engine.access.Actor;
import sandpiper.engine.signin.OpenSessions;
import sandpiper.server.intake.PublicAddress;
import sandpiper.server.intake.Refusal;
import sandpiper.server.problem.Problem;
import sandpiper.server.problem.ProblemException;
import sandpiper.server.protocol.Protocol;

/**
 * Who may come in where. Services: clients by HTTP Basic, and people signed in to the console, who
 * try them. Manage API: people by session, or by HTTP Basic from the command line. All else is the
 * console's own files, which hold no data.
 *
 * <p>A request that comes with the session's cookie needs the anti-forgery header as well; one that
 * brings its own credentials does not.
 */
@Configuration
class SecurityConfiguration {
    private static final String CONTENT_POLICY =
            "default-src 'self'; style-src 'self' 'unsafe-inline'; img-src 'self' data:; worker-src"
                    + " 'self' blob:; frame-ancestors 'none'; base-uri 'self'; form-action 'self'";

    @Bean
    PasswordEncoder passwordEncoder() {
        return LongPasswords.encoder();
    }

    /** A copy has those of the service it is of: who is signed in there is signed in here. */
    @Bean
    @ConditionalOnMissingBean
    OpenSessions openSessions(Engine engine) {
        return engine.sessions();
    }

    @Bean
    SecurityContextRepository sessions(OpenSessions sessions, Credentials credentials) {
        return new SessionContexts(sessions, credentials);
    }

    @Bean
    @ConditionalOnMissingBean
    SignInFailures signInFailures(Engine engine) {
        return engine.tries().map(SignInFailures::new).orElseGet(SignInFailures::new);
    }

    @Bean
    @ConditionalOnMissingBean
    Admission admission() {
        return Admission.OF_ALL;
    }

    /** Keys may hold any character; they are never used as paths. */
    @Bean
    StrictHttpFirewall firewall() {
        var firewall = new StrictHttpFirewall();
        firewall.setAllowUrlEncodedSlash(true);
        firewall.setAllowUrlEncodedPercent(true);
        firewall.setAllowUrlEncodedPeriod(true);
        firewall.setAllowUrlEncodedDoubleSlash(true);
        firewall.setAllowSemicolon(true);
        firewall.setAllowBackSlash(true);
        // Tomcat refuses what no header may hold.
        firewall.setAllowedHeaderNames(name -> true);
        firewall.setAllowedHeaderValues(value -> true);
        firewall.setAllowedParameterNames(name -> true);
        firewall.setAllowedParameterValues(value -> true);
        return firewall;
    }

    /**
     * Calls of services that bring their own credentials and no session, which is nearly all of
     * them: nothing has to be looked up, kept or guarded but who calls.
     */
    @Bean
    @org.springframework.core.annotation.Order(0)
    SecurityFilterChain callers(
            HttpSecurity http,
            Credentials credentials,
            AccessTokens tokens,
            RateLimits limits,
            Origins origins) {
        var entry = entryPoint(true);
        return http.securityMatcher(SecurityConfiguration::isCallOfItsOwn)
                .cors(origins::allow)
                .csrf(csrf -> csrf.disable())
                .sessionManagement(sessions -> sessions.disable())
                .securityContext(context ->
                        context.securityContextRepository(new NullSecurityContextRepository()))
                .servletApi(api -> api.disable())
                .requestCache(cache -> cache.disable())
                .logout(logout -> logout.disable())
                .exceptionHandling(handling -> handling.authenticationEntryPoint(entry))
                .headers(SecurityConfiguration::headers)
                .addFilterAfter(new RateLimitFilter(limits), AuthorizationFilter.class)
                .addFilterBefore(
                        new BearerFilter(tokens, credentials), BasicAuthenticationFilter.class)
                .addFilterAt(basic(credentials::client, true), BasicAuthenticationFilter.class)
                .authorizeHttpRequests(requests -> requests.anyRequest().authenticated())
                .build();
    }

    private static boolean isCallOfItsOwn(HttpServletRequest request) {
        var path = request.getRequestURI();
        return (Protocol.REST.isAt(path) || Protocol.ODATA.isAt(path))
                && request.getHeader(HttpHeaders.AUTHORIZATION) != null
                && !SessionCookie.isIn(request);
    }

    @Bean
    @org.springframework.core.annotation.Order(1)
    SecurityFilterChain services(
            HttpSecurity http,
            Credentials credentials,
            AccessTokens tokens,
            RateLimits limits,
            Origins origins,
            SecurityContextRepository sessions) {
        http.securityMatcher(Protocol.REST_AT + "**", Protocol.ODATA_AT + "**")
                .cors(origins::allow)
                .addFilterAfter(new RateLimitFilter(limits), AuthorizationFilter.class)
                .addFilterBefore(
                        new BearerFilter(tokens, credentials), BasicAuthenticationFilter.class)
                .addFilterAt(basic(credentials::client, true), BasicAuthenticationFilter.class)
                .authorizeHttpRequests(requests ->
                        requests.requestMatchers(Protocol.ODATA_AT + "vocabularies/*")
                                .permitAll()
                                .anyRequest()
                                .authenticated());
        return withoutSession(common(http, credentials, sessions, true)).build();
    }

    /** Without a session there is nothing that another page could misuse. */
    private static HttpSecurity withoutSession(HttpSecurity http) {
        return http.csrf(
                csrf -> csrf.ignoringRequestMatchers(request -> !SessionCookie.isIn(request)));
    }

    /** A message over SOAP may bring its credentials inside, so it is let in to be read. */
    @Bean
    @org.springframework.core.annotation.Order(1)
    SecurityFilterChain soap(
            HttpSecurity http,
            Credentials credentials,
            AccessTokens tokens,
            SecurityContextRepository sessions) {
        http.securityMatcher(Protocol.SOAP_AT + "**")
                .addFilterBefore(
                        new BearerFilter(tokens, credentials), BasicAuthenticationFilter.class)
                .addFilterAt(basic(credentials::client, true), BasicAuthenticationFilter.class)
                .authorizeHttpRequests(requests -> requests.anyRequest().permitAll());
        return withoutSession(common(http, credentials, sessions, true)).build();
    }

    @Bean
    @org.springframework.core.annotation.Order(2)
    SecurityFilterChain manage(
            HttpSecurity http, Credentials credentials, SecurityContextRepository sessions) {
        http.securityMatcher("/manage/**")
                .addFilterAt(basic(credentials::user, false), BasicAuthenticationFilter.class)
                .authorizeHttpRequests(requests ->
                        requests.requestMatchers(
                                        "/manage/v1/session",
                                        "/manage/v1/health",
                                        "/manage/v1/ready")
                                .permitAll()
                                .anyRequest()
                                .authenticated());
        return common(http, credentials, sessions, false).build();
    }

    /** Tokens are given to whoever brings a secret; no cookie plays a part. */
    @Bean
    @org.springframework.core.annotation.Order(1)
    SecurityFilterChain tokenEndpoint(
            HttpSecurity http,
            Credentials credentials,
            Origins origins,
            SecurityContextRepository sessions) {
        http.securityMatcher("/oauth2/**")
                .cors(origins::allow)
                .authorizeHttpRequests(requests -> requests.anyRequest().permitAll());
        return common(http, credentials, sessions, true).csrf(csrf -> csrf.disable()).build();
    }

    @Bean
    @org.springframework.core.annotation.Order(3)
    SecurityFilterChain console(
            HttpSecurity http, Credentials credentials, SecurityContextRepository sessions) {
        http.authorizeHttpRequests(requests -> requests.anyRequest().permitAll());
        return common(http, credentials, sessions, false).build();
    }

    private static HttpSecurity common(
            HttpSecurity http,
            Credentials credentials,
            SecurityContextRepository sessions,
            boolean challenge) {
        var entry = entryPoint(challenge);
        return http.addFilterAfter(
                        new TemporaryPasswordFilter(credentials), AuthorizationFilter.class)
                .sessionManagement(management -> management.disable())
                .securityContext(context -> context.securityContextRepository(sessions))
                .csrf(csrf -> guard(csrf, !challenge, isSecure(http)))
                .exceptionHandling(handling ->
                        handling.authenticationEntryPoint(entry)
                                .accessDeniedHandler(
                                        (request, response, _) -> forbid(request, response)))
                .requestCache(cache -> cache.disable())
                .logout(logout -> logout.disable())
                .headers(SecurityConfiguration::headers);
    }

    private static void headers(HeadersConfigurer<HttpSecurity> headers) {
        headers.contentSecurityPolicy(policy -> policy.policyDirectives(CONTENT_POLICY))
                .referrerPolicy(referrer ->
                        referrer.policy(ReferrerPolicyHeaderWriter.ReferrerPolicy.NO_REFERRER))
                .permissionsPolicyHeader(permissions ->
                        permissions.policy("camera=(), geolocation=(), microphone=(), payment=()"));
    }

    /** Services hand out no cookie: a page that tries them has it from the manage API. */
    private static void guard(
            CsrfConfigurer<HttpSecurity> csrf, boolean handsOutCookie, boolean secure) {
        if (handsOutCookie) {
            csrf.spa();
            csrf.csrfTokenRepository(tokens(secure));
        } else {
            csrf.csrfTokenRepository(tokens(secure))
                    .csrfTokenRequestHandler(new CsrfTokenRequestAttributeHandler());
        }
        csrf.ignoringRequestMatchers(SecurityConfiguration::bringsCredentials);
    }

    private static CookieCsrfTokenRepository tokens(boolean secure) {
        var tokens = CookieCsrfTokenRepository.withHttpOnlyFalse();
        if (secure) {
            tokens.setCookieCustomizer(cookie -> cookie.secure(true));
        }
        return tokens;
    }

    private static boolean isSecure(HttpSecurity http) {
        return http.getSharedObject(ApplicationContext.class)
                .getBean(PublicAddress.class)
                .isSecure();
    }

    /** A header that nobody looks at must not switch the guard of a session off. */
    private static boolean bringsCredentials(HttpServletRequest request) {
        var header = request.getHeader(HttpHeaders.AUTHORIZATION);
        return header != null
                && (header.regionMatches(true, 0, "Basic ", 0, 6)
                        || header.regionMatches(true, 0, "Bearer ", 0, 7));
    }

    /** Finds out who somebody is from name, secret and address. */
    @FunctionalInterface
    private interface Lookup {
        Optional<Actor> find(String name, String secret, String address);
    }

    private static BasicAuthenticationFilter basic(Lookup lookup, boolean challenge) {
        AuthenticationManager manager =
                attempt ->
                        lookedUp(lookup, attempt)
                                .map(ActorAuthentication::new)
                                .orElseThrow(() ->
                                        new BadCredentialsException(
                                                "Name or secret is not right."));
        return new BasicAuthenticationFilter(manager, entryPoint(challenge));
    }

    private static Optional<Actor> lookedUp(Lookup lookup, Authentication attempt) {
        try {
            var address =
                    attempt.getDetails() instanceof WebAuthenticationDetails web
                            ? web.getRemoteAddress()
                            : "";
            return lookup.find(
                    attempt.getName(), String.valueOf(attempt.getCredentials()), address);
        } catch (ProblemException locked) {
            throw new LockedException(String.valueOf(locked.getMessage()));
        }
    }

    private static AuthenticationEntryPoint entryPoint(boolean challenge) {
        return (request, response, failure) -> {
            boolean tried = request.getHeader(HttpHeaders.AUTHORIZATION) != null;
            if (challenge) {
                response.setHeader(
                        HttpHeaders.WWW_AUTHENTICATE,
                        "Basic realm=\"Sandpiper\", charset=\"UTF-8\"");
            }
            write(
                    request,
                    response,
                    failure instanceof LockedException
                            ? HttpStatus.TOO_MANY_REQUESTS
                            : HttpStatus.UNAUTHORIZED,
                    failure instanceof LockedException
                            ? String.valueOf(failure.getMessage())
                            : tried
                                    ? "The name or the secret is not right."
                                    : "Send the id and secret of a client with HTTP Basic, or a"
                                            + " token of /oauth2/token.");
        };
    }

    /** Answers a caller whose credentials are not right. */
    static void refuse(HttpServletRequest request, HttpServletResponse response, String detail)
            throws IOException {
        write(request, response, HttpStatus.UNAUTHORIZED, detail);
    }

    private static void forbid(HttpServletRequest request, HttpServletResponse response)
            throws IOException {
        write(
                request,
                response,
                HttpStatus.FORBIDDEN,
                "The anti-forgery token is missing; send the cookie XSRF-TOKEN also as the header"
                        + " X-XSRF-TOKEN.");
    }

    private static void write(
            HttpServletRequest request,
            HttpServletResponse response,
            HttpStatus status,
            String detail)
            throws IOException {
        write(request, response, new ProblemException(status, detail).problem());
    }

    /** In the form of the protocol that is spoken at the address. */
    static void write(HttpServletRequest request, HttpServletResponse response, Problem problem)
            throws IOException {
        Refusal.write(request, response, problem);
    }
}
