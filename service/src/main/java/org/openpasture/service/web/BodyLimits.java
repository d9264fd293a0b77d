package org.openpasture.service.web;

import jakarta.servlet.FilterChain;
import jakarta.servlet.ReadListener;
import jakarta.servlet.ServletException;
import jakarta.servlet.ServletInputStream;
import jakarta.servlet.http.HttpServletRequest;
import jakarta.servlet.http.HttpServletRequestWrapper;
import jakarta.servlet.http.HttpServletResponse;
import java.io.BufferedReader;
import java.io.IOException;
import java.io.InputStreamReader;
import java.nio.charset.StandardCharsets;
import org.openpasture.service.problem.Problem;
import org.springframework.beans.factory.annotation.Qualifier;
import org.springframework.core.Ordered;
import org.springframework.core.annotation.Order;
import org.springframework.stereotype.Component;
import org.springframework.web.filter.OncePerRequestFilter;
import org.springframework.web.servlet.HandlerExceptionResolver;

/**
 * No door takes more than its purpose needs. A body whose length is said is refused before any of it is read; one whose
 * length is not said, as soon as it is too long. Inboxes have limits of their own, and files of readings are read piece
 * by piece, however long.
 */
@Component
@Order(Ordered.HIGHEST_PRECEDENCE + 10)
class BodyLimits extends OncePerRequestFilter {
    static final int FORM = 4 << 10;
    static final int JSON = 1 << 20;
    /** A million characters, each in up to three bytes, and what JSON puts before line breaks. */
    static final int PACK = 4 << 20;

    static final int LIST = 16 << 20;
    static final int PICTURE = 20 << 20;
    private final HandlerExceptionResolver problems;

    BodyLimits(@Qualifier("handlerExceptionResolver") HandlerExceptionResolver problems) {
        this.problems = problems;
    }

    @Override
    protected boolean shouldNotFilter(HttpServletRequest request) {
        String path = request.getRequestURI();
        return path.startsWith("/in/") || path.equals("/in") || path.equals("/api/v1/readings/import");
    }

    @Override
    protected void doFilterInternal(HttpServletRequest request, HttpServletResponse response, FilterChain chain)
            throws ServletException, IOException {
        int most = most(request.getRequestURI());
        if (request.getContentLengthLong() > most) {
            response.setHeader("Connection", "close");
            problems.resolveException(request, response, null, tooLarge(most));
            return;
        }
        chain.doFilter(new Limited(request, most), response);
    }

    private static int most(String path) {
        if (path.startsWith("/api/v1/setup")
                || path.equals("/api/v1/session")
                || path.startsWith("/api/v1/password-reset")
                || path.equals("/api/v1/invitations/taken-up")) {
            return FORM;
        }
        if (path.equals("/api/v1/points/table") || path.equals("/api/v1/packs") || path.equals("/api/v1/packs/plan")) {
            return PACK;
        }
        if (path.startsWith("/api/v1/places/") && path.endsWith("/picture")) {
            return PICTURE;
        }
        return path.equals("/api/v1/devices/import") || path.equals("/api/v1/keys") ? LIST : JSON;
    }

    private static Problem tooLarge(int most) {
        return Problem.tooLarge(
                "The request is longer than the " + most + " bytes that are taken here.", "Send less at once.");
    }

    /** A request that can be read so far and no further. */
    private static final class Limited extends HttpServletRequestWrapper {
        private final int most;

        Limited(HttpServletRequest request, int most) {
            super(request);
            this.most = most;
        }

        @Override
        public ServletInputStream getInputStream() throws IOException {
            return new Counting(super.getInputStream(), most);
        }

        @Override
        public BufferedReader getReader() throws IOException {
            return new BufferedReader(new InputStreamReader(getInputStream(), StandardCharsets.UTF_8));
        }
    }

    private static final class Counting extends ServletInputStream {
        private final ServletInputStream in;
        private final int most;
        private long read;

        Counting(ServletInputStream in, int most) {
            this.in = in;
            this.most = most;
        }

        private int counted(int bytes) {
            read += Math.max(0, bytes);
            if (read > most) {
                throw tooLarge(most);
            }
            return bytes;
        }

        @Override
        public int read() throws IOException {
            int one = in.read();
            counted(one < 0 ? 0 : 1);
            return one;
        }

        @Override
        public int read(byte[] into, int from, int length) throws IOException {
            return counted(in.read(into, from, length));
        }

        @Override
        public boolean isFinished() {
            return in.isFinished();
        }

        @Override
        public boolean isReady() {
            return in.isReady();
        }

        @Override
        public void setReadListener(ReadListener listener) {
            in.setReadListener(listener);
        }
    }
}
