package org.openpasture.service.access;

import jakarta.servlet.DispatcherType;
import java.time.Clock;
import org.openpasture.service.config.PastureProperties;
import org.openpasture.service.problem.ProblemHandler;
import org.openpasture.store.people.AnsweredStore;
import org.openpasture.store.people.CredentialStore;
import org.openpasture.store.registry.RegistryStore;
import org.springframework.beans.factory.annotation.Qualifier;
import org.springframework.context.annotation.Bean;
import org.springframework.context.annotation.Configuration;
import org.springframework.core.annotation.Order;
import org.springframework.http.HttpStatus;
import org.springframework.http.MediaType;
import org.springframework.security.config.annotation.web.builders.HttpSecurity;
import org.springframework.security.config.annotation.web.configurers.AbstractHttpConfigurer;
import org.springframework.security.config.http.SessionCreationPolicy;
import org.springframework.security.config.observation.SecurityObservationSettings;
import org.springframework.security.web.DefaultSecurityFilterChain;
import org.springframework.security.web.SecurityFilterChain;
import org.springframework.security.web.access.intercept.AuthorizationFilter;
import org.springframework.security.web.authentication.UsernamePasswordAuthenticationFilter;
import org.springframework.security.web.servlet.util.matcher.PathPatternRequestMatcher;
import org.springframework.security.web.util.matcher.OrRequestMatcher;
import org.springframework.web.servlet.HandlerExceptionResolver;
import tools.jackson.databind.json.JsonMapper;

/** Which addresses are open, and what the others need. */
@Configuration
class SecurityRules {
    private static final String[] OPEN = {
        "/api/v1/setup/**",
        "/api/v1/session",
        "/api/v1/shared/**",
        "/api/v1/invitations/taken-up",
        "/api/v1/password-reset/**",
        "/api/v1/notices/alert",
        "/api/v1/notices/acknowledgement",
        "/api/openapi",
        "/actuator/health"
    };

    /** Inboxes check tokens of their own; whose cookie or token somebody else has says nothing there. */
    @Bean
    @Order(0)
    SecurityFilterChain inboxes() {
        PathPatternRequestMatcher.Builder paths = PathPatternRequestMatcher.withDefaults();
        return new DefaultSecurityFilterChain(new OrRequestMatcher(paths.matcher("/in"), paths.matcher("/in/*")));
    }

    /** Nobody looks at how long each of the filters takes, and telling it took longer than the filters. */
    @Bean
    SecurityObservationSettings observations() {
        return SecurityObservationSettings.noObservations();
    }

    @Bean
    @Order(1)
    SecurityFilterChain security(
            HttpSecurity http,
            CredentialStore credentials,
            AnsweredStore answers,
            RegistryStore registry,
            Clock clock,
            JsonMapper mapper,
            PastureProperties properties,
            @Qualifier("handlerExceptionResolver") HandlerExceptionResolver problems)
            throws Exception {
        return http.csrf(AbstractHttpConfigurer::disable) // see TokenFilter: a header takes its place
                .sessionManagement(session -> session.sessionCreationPolicy(SessionCreationPolicy.STATELESS))
                .requestCache(AbstractHttpConfigurer::disable)
                .logout(AbstractHttpConfigurer::disable)
                .addFilterBefore(
                        new TokenFilter(
                                credentials,
                                registry,
                                clock,
                                properties.sessions().idle()),
                        UsernamePasswordAuthenticationFilter.class)
                .addFilterAfter(new OnceFilter(answers, problems, clock), AuthorizationFilter.class)
                .authorizeHttpRequests(
                        requests -> requests.dispatcherTypeMatchers(DispatcherType.ASYNC, DispatcherType.ERROR)
                                .permitAll()
                                .requestMatchers(OPEN)
                                .permitAll()
                                .requestMatchers("/api/**", "/actuator/**")
                                .authenticated()
                                .anyRequest()
                                .permitAll())
                .headers(headers -> headers.contentSecurityPolicy(
                                policy -> policy.policyDirectives(
                                        "default-src 'self'; style-src 'self' 'unsafe-inline'; img-src 'self' data: blob:; object-src 'none'; base-uri 'self'; form-action 'self'; frame-ancestors 'self'"))
                        .referrerPolicy(policy -> policy.policy(
                                org.springframework.security.web.header.writers.ReferrerPolicyHeaderWriter
                                        .ReferrerPolicy.SAME_ORIGIN)))
                .exceptionHandling(errors -> errors.authenticationEntryPoint((request, response, error) -> {
                    response.setStatus(HttpStatus.UNAUTHORIZED.value());
                    response.setContentType(MediaType.APPLICATION_PROBLEM_JSON_VALUE);
                    response.setCharacterEncoding("UTF-8");
                    mapper.writeValue(
                            response.getOutputStream(),
                            ProblemHandler.detail(
                                    HttpStatus.UNAUTHORIZED,
                                    "sign-in",
                                    "You are not signed in, or your sign-in has ended.",
                                    "Sign in."));
                }))
                .build();
    }
}
