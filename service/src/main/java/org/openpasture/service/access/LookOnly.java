package org.openpasture.service.access;

import jakarta.servlet.http.HttpServletRequest;
import jakarta.servlet.http.HttpServletResponse;
import java.util.Set;
import org.openpasture.core.people.Right;
import org.openpasture.service.problem.Problem;
import org.springframework.context.annotation.Configuration;
import org.springframework.web.servlet.HandlerInterceptor;
import org.springframework.web.servlet.config.annotation.InterceptorRegistry;
import org.springframework.web.servlet.config.annotation.WebMvcConfigurer;

/**
 * An API token that may only look changes nothing, whatever address it is used on and whatever its person may do. This
 * is checked here for all addresses, so that a new one cannot forget it.
 */
@Configuration
class LookOnly implements WebMvcConfigurer, HandlerInterceptor {
    private static final Set<String> READING = Set.of("GET", "HEAD", "OPTIONS");
    /** A request that reads something and changes nothing, and the end of the token itself. */
    private static final Set<String> HARMLESS = Set.of("POST /api/v1/labels/read", "DELETE /api/v1/session");

    private final Reader reader;

    LookOnly(Reader reader) {
        this.reader = reader;
    }

    @Override
    public void addInterceptors(InterceptorRegistry registry) {
        registry.addInterceptor(this).addPathPatterns("/api/**");
    }

    @Override
    public boolean preHandle(HttpServletRequest request, HttpServletResponse response, Object handler) {
        if (reader.scope().most() == Right.LOOK
                && !READING.contains(request.getMethod())
                && !HARMLESS.contains(request.getMethod() + " " + request.getRequestURI())) {
            throw Problem.forbidden("change anything with this API token, which has the permission look");
        }
        return true;
    }
}
