package sandpiper.bench.control;

import com.zaxxer.hikari.HikariConfig;
import com.zaxxer.hikari.HikariDataSource;
import java.util.Map;
import javax.sql.DataSource;
import org.jooq.DSLContext;
import org.jooq.SQLDialect;
import org.jooq.conf.Settings;
import org.jooq.impl.DSL;
import org.jspecify.annotations.Nullable;
import org.springframework.boot.SpringApplication;
import org.springframework.boot.autoconfigure.EnableAutoConfiguration;
import org.springframework.boot.web.server.servlet.context.ServletWebServerApplicationContext;
import org.springframework.context.ConfigurableApplicationContext;
import org.springframework.context.annotation.Bean;
import org.springframework.context.annotation.Configuration;
import org.springframework.context.annotation.Import;
import org.springframework.security.config.annotation.web.builders.HttpSecurity;
import org.springframework.security.core.userdetails.User;
import org.springframework.security.core.userdetails.UserDetailsService;
import org.springframework.security.crypto.password.PasswordEncoder;
import org.springframework.security.provisioning.InMemoryUserDetailsManager;
import org.springframework.security.web.SecurityFilterChain;
import org.sqlite.SQLiteConfig;
import org.sqlite.SQLiteDataSource;

/** Starts the control. */
@Configuration
@EnableAutoConfiguration
@Import({StayRepository.class, StayQueries.class, StayController.class})
public class ControlService {
    /** A running control. */
    public record Running(ConfigurableApplicationContext context, String address)
            implements AutoCloseable {
        @Override
        public void close() {
            context.close();
        }
    }

    /** Starts on a file that is made when it is not there, or on a database by its address. */
    public static Running start(String file) {
        System.setProperty("org.jooq.no-logo", "true");
        System.setProperty("org.jooq.no-tips", "true");
        var application = new SpringApplication(ControlService.class);
        Map<String, Object> properties = Map.of("control.file", file, "server.port", 0);
        application.addInitializers(context ->
                context.getEnvironment()
                        .getPropertySources()
                        .addFirst(
                                new org.springframework.core.env.MapPropertySource(
                                        "control", properties)));
        var context = (ServletWebServerApplicationContext) application.run();
        var server = java.util.Objects.requireNonNull(context.getWebServer());
        return new Running(context, "http://127.0.0.1:" + server.getPort());
    }

    @Bean
    DataSource dataSource(
            @org.springframework.beans.factory.annotation.Value("${control.file}") String file) {
        if (isDatabase(file)) {
            var pool = new HikariConfig();
            pool.setJdbcUrl(file);
            pool.setMaximumPoolSize(16);
            return new HikariDataSource(pool);
        }
        var config = new SQLiteConfig();
        config.setJournalMode(SQLiteConfig.JournalMode.WAL);
        config.setSynchronous(SQLiteConfig.SynchronousMode.FULL);
        config.setBusyTimeout(10_000);
        config.enforceForeignKeys(true);
        config.setTransactionMode(SQLiteConfig.TransactionMode.DEFERRED);
        var source = new SQLiteDataSource(config);
        source.setUrl("jdbc:sqlite:" + file);
        var pool = new HikariConfig();
        pool.setDataSource(source);
        pool.setMaximumPoolSize(8);
        return new HikariDataSource(pool);
    }

    private static boolean isDatabase(String place) {
        return place.startsWith("jdbc:postgresql:");
    }

    @Bean
    DSLContext sql(
            DataSource source,
            @org.springframework.beans.factory.annotation.Value("${control.file}") String file) {
        // What a good engineer turns off: text for logs that nobody reads.
        return DSL.using(
                source,
                isDatabase(file) ? SQLDialect.POSTGRES : SQLDialect.SQLITE,
                new Settings().withExecuteLogging(false).withRenderFormatted(false));
    }

    /**
     * A plain comparison, as Sandpiper's clients have secrets that need no slow hash either. The
     * framework's own encoder would turn the password into a slow hash at the first sign-in, and
     * then cost 75 ms a request.
     */
    @Bean
    PasswordEncoder passwords() {
        return new PasswordEncoder() {
            @Override
            public String encode(@Nullable CharSequence raw) {
                return String.valueOf(raw);
            }

            @Override
            public boolean matches(@Nullable CharSequence raw, @Nullable String encoded) {
                return String.valueOf(raw).equals(encoded);
            }
        };
    }

    @Bean
    UserDetailsService users() {
        return new InMemoryUserDetailsManager(
                User.withUsername("booking-site")
                        .password("berths-for-all")
                        .roles("CLIENT")
                        .build());
    }

    @Bean
    SecurityFilterChain security(HttpSecurity http) {
        return http.csrf(csrf -> csrf.disable())
                .sessionManagement(sessions ->
                        sessions.sessionCreationPolicy(
                                org.springframework.security.config.http.SessionCreationPolicy
                                        .STATELESS))
                .httpBasic(basic -> {})
                .authorizeHttpRequests(requests -> requests.anyRequest().authenticated())
                .build();
    }
}
