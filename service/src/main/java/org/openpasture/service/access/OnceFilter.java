package org.openpasture.service.access;

import jakarta.servlet.FilterChain;
import jakarta.servlet.ReadListener;
import jakarta.servlet.ServletException;
import jakarta.servlet.ServletInputStream;
import jakarta.servlet.http.HttpServletRequest;
import jakarta.servlet.http.HttpServletRequestWrapper;
import jakarta.servlet.http.HttpServletResponse;
import java.io.BufferedReader;
import java.io.ByteArrayInputStream;
import java.io.IOException;
import java.io.InputStreamReader;
import java.nio.charset.StandardCharsets;
import java.time.Clock;
import java.util.Optional;
import java.util.Set;
import java.util.concurrent.ConcurrentHashMap;
import org.openpasture.core.people.Person;
import org.openpasture.engine.secret.Tokens;
import org.openpasture.service.problem.Problem;
import org.openpasture.store.people.AnsweredStore;
import org.openpasture.store.people.AnsweredStore.Answered;
import org.openpasture.store.sqlite.StorageFailed;
import org.slf4j.Logger;
import org.slf4j.LoggerFactory;
import org.springframework.http.HttpHeaders;
import org.springframework.http.HttpStatus;
import org.springframework.http.MediaType;
import org.springframework.security.core.Authentication;
import org.springframework.security.core.context.SecurityContextHolder;
import org.springframework.web.filter.OncePerRequestFilter;
import org.springframework.web.servlet.HandlerExceptionResolver;
import org.springframework.web.util.ContentCachingResponseWrapper;

/**
 * Carries a post with an {@code Idempotency-Key} out once, however often it is sent, over restarts too: who did not
 * hear the answer sends the same again and gets it. A key belongs to a person for a day. A request that was refused
 * changed nothing and may be sent again under its key.
 */
final class OnceFilter extends OncePerRequestFilter {
    private static final Logger LOG = LoggerFactory.getLogger(OnceFilter.class);
    private static final String KEY = "Idempotency-Key";
    private static final int LONGEST_KEY = 255;
    private static final int LONGEST_ANSWER = 64 << 10;

    private final AnsweredStore answers;
    private final HandlerExceptionResolver problems;
    private final Clock clock;
    /** What is being carried out now; what was begun and is not here was cut off by a restart. */
    private final Set<String> running = ConcurrentHashMap.newKeySet();

    OnceFilter(AnsweredStore answers, HandlerExceptionResolver problems, Clock clock) {
        this.answers = answers;
        this.problems = problems;
        this.clock = clock;
    }

    @Override
    protected boolean shouldNotFilter(HttpServletRequest request) {
        // Files of readings are read piece by piece, and the same readings twice are the same readings.
        return !request.getMethod().equals("POST")
                || request.getHeader(KEY) == null
                || request.getRequestURI().equals("/api/v1/readings/import");
    }

    @Override
    protected void doFilterInternal(HttpServletRequest request, HttpServletResponse response, FilterChain chain)
            throws ServletException, IOException {
        Authentication who = SecurityContextHolder.getContext().getAuthentication();
        if (who == null || !(who.getPrincipal() instanceof Person person)) {
            chain.doFilter(request, response);
            return;
        }
        try {
            String key = request.getHeader(KEY).strip();
            if (key.isEmpty()
                    || key.length() > LONGEST_KEY
                    || key.chars().anyMatch(letter -> letter < 0x21 || letter > 0x7e)) {
                throw Problem.invalid("An Idempotency-Key has 1 to " + LONGEST_KEY + " visible ASCII characters.");
            }
            byte[] body = request.getInputStream().readAllBytes();
            once(person.id(), key, new Again(request, body), fingerprint(request, body), response, chain);
        } catch (RuntimeException e) {
            if (problems.resolveException(request, response, null, e) == null) {
                throw e;
            }
        }
    }

    private void once(
            String person,
            String key,
            HttpServletRequest request,
            String fingerprint,
            HttpServletResponse response,
            FilterChain chain)
            throws ServletException, IOException {
        String mine = person + " " + key;
        if (!running.add(mine)) {
            throw Problem.conflict(
                    "A request with this Idempotency-Key is in progress.", "Repeat it with the same key in a moment.");
        }
        ContentCachingResponseWrapper caching = new ContentCachingResponseWrapper(response);
        Optional<Answered> before;
        try {
            before = answers.begin(person, key, fingerprint, clock.instant());
            if (before.isEmpty()) {
                carryOut(person, key, request, caching, chain);
            }
        } finally {
            // Before the answer goes out: who has it may ask again at once.
            running.remove(mine);
        }
        if (before.isPresent()) {
            answerAgain(before.get(), fingerprint, response);
        } else {
            caching.copyBodyToResponse();
        }
    }

    private void carryOut(
            String person,
            String key,
            HttpServletRequest request,
            ContentCachingResponseWrapper caching,
            FilterChain chain)
            throws ServletException, IOException {
        try {
            chain.doFilter(request, caching);
        } catch (ServletException | IOException | RuntimeException e) {
            answers.forget(person, key);
            throw e;
        }
        keep(person, key, caching);
    }

    /** Keeps the answer; who cannot be given it again is told later that it is not known. */
    private void keep(String person, String key, ContentCachingResponseWrapper answer) {
        try {
            if (HttpStatus.valueOf(answer.getStatus()).is2xxSuccessful()) {
                byte[] body = answer.getContentAsByteArray();
                answers.end(
                        person,
                        key,
                        answer.getStatus(),
                        answer.getHeader(HttpHeaders.LOCATION),
                        body.length > LONGEST_ANSWER ? null : body);
            } else {
                answers.forget(person, key);
            }
        } catch (StorageFailed full) {
            LOG.warn("An answer could not be kept for its key: {}", full.getMessage());
        }
    }

    private static void answerAgain(Answered before, String fingerprint, HttpServletResponse response)
            throws IOException {
        if (!before.fingerprint().equals(fingerprint)) {
            throw Problem.unprocessable(
                    "This Idempotency-Key was used for a different request.", "Use a new key for each new request.");
        }
        if (before.status() == null) {
            throw Problem.conflict(
                    "The service stopped during this request. It is not known whether it was completed.",
                    "Check whether the item exists. If not, send the request with a new key.");
        }
        if (before.body() == null) {
            throw Problem.conflict(
                    "The request was completed, but its answer was too long to store.",
                    "Read the current state instead.");
        }
        response.setStatus(before.status());
        if (before.location() != null) {
            response.setHeader(HttpHeaders.LOCATION, before.location());
        }
        if (before.body().length > 0) {
            response.setContentType(MediaType.APPLICATION_JSON_VALUE);
        }
        response.getOutputStream().write(before.body());
    }

    private static String fingerprint(HttpServletRequest request, byte[] body) {
        return Tokens.hash(request.getRequestURI() + "?" + request.getQueryString() + " " + Tokens.hash(body));
    }

    /** A request whose body was read already. */
    private static final class Again extends HttpServletRequestWrapper {
        private final byte[] body;

        private Again(HttpServletRequest request, byte[] body) {
            super(request);
            this.body = body;
        }

        @Override
        public ServletInputStream getInputStream() {
            ByteArrayInputStream in = new ByteArrayInputStream(body);
            return new ServletInputStream() {
                @Override
                public int read() {
                    return in.read();
                }

                @Override
                public int read(byte[] into, int from, int most) {
                    return in.read(into, from, most);
                }

                @Override
                public boolean isFinished() {
                    return in.available() == 0;
                }

                @Override
                public boolean isReady() {
                    return true;
                }

                @Override
                public void setReadListener(ReadListener listener) {
                    throw new UnsupportedOperationException("requests are read by blocking");
                }
            };
        }

        @Override
        public BufferedReader getReader() {
            return new BufferedReader(new InputStreamReader(getInputStream(), StandardCharsets.UTF_8));
        }
    }
}
