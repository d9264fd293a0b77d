package org.openpasture.service.version;

import jakarta.servlet.http.HttpServletRequest;
import jakarta.servlet.http.HttpServletResponse;
import java.net.URI;
import java.util.Arrays;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import org.jspecify.annotations.Nullable;
import org.openpasture.core.registry.Kind;
import org.openpasture.core.registry.Registry;
import org.openpasture.engine.secret.Tokens;
import org.openpasture.service.problem.Problem;
import org.openpasture.service.trail.Differences;
import org.openpasture.store.registry.RegistryStore;
import org.springframework.core.MethodParameter;
import org.springframework.http.HttpHeaders;
import org.springframework.http.MediaType;
import org.springframework.http.converter.HttpMessageConverter;
import org.springframework.http.server.ServerHttpRequest;
import org.springframework.http.server.ServerHttpResponse;
import org.springframework.web.bind.annotation.RestControllerAdvice;
import org.springframework.web.context.request.RequestAttributes;
import org.springframework.web.context.request.RequestContextHolder;
import org.springframework.web.context.request.ServletRequestAttributes;
import org.springframework.web.servlet.HandlerInterceptor;
import org.springframework.web.servlet.config.annotation.InterceptorRegistry;
import org.springframework.web.servlet.config.annotation.WebMvcConfigurer;
import org.springframework.web.servlet.mvc.method.annotation.ResponseBodyAdvice;

/**
 * Two people who edit one thing at once do not overwrite each other (RFC 9110, 13.1.1). What is registered is answered
 * with an {@code ETag} of how it is registered, which what is measured meanwhile does not change. A change or removal
 * with {@code If-Match} is refused with 412 if the thing is another by then. It is looked at before the request is
 * carried out and again inside the registry's lock.
 */
@RestControllerAdvice
class Versions implements ResponseBodyAdvice<Object>, HandlerInterceptor, WebMvcConfigurer {
    private static final List<Kind> PLACES = List.of(Kind.SITE, Kind.AREA, Kind.ASSET);
    /** What stands in an address, and what it may be. */
    private static final Map<String, List<Kind>> KINDS = Map.ofEntries(
            Map.entry("places", PLACES),
            Map.entry("sites", PLACES),
            Map.entry("areas", PLACES),
            Map.entry("assets", PLACES),
            Map.entry("points", List.of(Kind.POINT)),
            Map.entry("devices", List.of(Kind.DEVICE)),
            Map.entry("gateways", List.of(Kind.GATEWAY)),
            Map.entry("models", List.of(Kind.DEVICE_MODEL)),
            Map.entry("inlets", List.of(Kind.INLET)),
            Map.entry("outlets", List.of(Kind.OUTLET)),
            Map.entry("rules", List.of(Kind.RULE)),
            Map.entry("groups", List.of(Kind.GROUP)),
            Map.entry("limits", List.of(Kind.LIMIT_SET)),
            Map.entry("dashboards", List.of(Kind.DASHBOARD)));

    private static final String SEEN = Versions.class.getName();
    private static final int LOOKED_BACK = 100;

    private final RegistryStore registry;

    Versions(RegistryStore registry) {
        this.registry = registry;
        registry.guard(this::guard);
    }

    @Override
    public void addInterceptors(InterceptorRegistry interceptors) {
        interceptors.addInterceptor(this).addPathPatterns("/api/**");
    }

    @Override
    public boolean preHandle(HttpServletRequest request, HttpServletResponse response, Object handler) {
        require(request, registry.now());
        return true;
    }

    private void guard(Registry now) {
        if (RequestContextHolder.getRequestAttributes() instanceof ServletRequestAttributes of) {
            if (of.getAttribute(SEEN, RequestAttributes.SCOPE_REQUEST) == null) {
                require(of.getRequest(), now);
                // The rest of what this request does is behind its own first change.
                of.setAttribute(SEEN, true, RequestAttributes.SCOPE_REQUEST);
            }
        }
    }

    /** Refuses a request that expects the thing as it is not any more. */
    private void require(HttpServletRequest request, Registry now) {
        String expected = request.getHeader(HttpHeaders.IF_MATCH);
        if (expected == null || request.getMethod().equals("GET")) {
            return;
        }
        Optional<Thing> thing = thing(request.getRequestURI(), now);
        if (thing.isEmpty() || expected.strip().equals("*")) {
            return;
        }
        String is = thing.get().tag();
        if (Arrays.stream(expected.split(",")).map(String::strip).noneMatch(is::equals)) {
            throw Problem.changedMeanwhile(
                    "Another change was saved" + lately(thing.get(), expected) + ".",
                    "Load it again, compare, and repeat your change.");
        }
    }

    /** Who changed it last, and what is different from the state that was expected, if that is remembered. */
    private String lately(Thing thing, String expected) {
        List<RegistryStore.TrailEntry> trail = registry.trail(
                new RegistryStore.TrailQuery(null, thing.kind().id(), thing.id(), null, null, null, LOOKED_BACK));
        String parts = trail.stream()
                .filter(entry -> entry.after() != null && expected.contains(tag(entry.after())))
                .findFirst()
                .map(entry ->
                        Differences.between(entry.after(), thing.written()).keySet())
                .filter(names -> !names.isEmpty())
                .map(names -> " (fields: " + String.join(", ", names) + ")")
                .orElse("");
        return trail.stream()
                .findFirst()
                .map(last -> " by " + last.person() + " at " + last.at() + parts)
                .orElse("");
    }

    private static String tag(String written) {
        return '"' + Tokens.hash(written).substring(0, 32) + '"';
    }

    private record Thing(Kind kind, String id, String written) {
        String tag() {
            return Versions.tag(written);
        }
    }

    private Optional<Thing> thing(String path, Registry now) {
        String[] parts = path.split("/");
        if (parts.length < 5 || !parts[1].equals("api")) {
            return Optional.empty();
        }
        return KINDS.getOrDefault(parts[3], List.of()).stream()
                .flatMap(kind ->
                        registry.written(now, kind, parts[4]).map(text -> new Thing(kind, parts[4], text)).stream())
                .findFirst();
    }

    @Override
    public boolean supports(MethodParameter method, Class<? extends HttpMessageConverter<?>> converter) {
        return true;
    }

    @Override
    public @Nullable Object beforeBodyWrite(
            @Nullable Object body,
            MethodParameter method,
            MediaType type,
            Class<? extends HttpMessageConverter<?>> converter,
            ServerHttpRequest request,
            ServerHttpResponse response) {
        URI made = response.getHeaders().getLocation();
        String path = made == null ? request.getURI().getPath() : made.getPath();
        if (path.split("/").length == 5 && !(body instanceof org.springframework.http.ProblemDetail)) {
            thing(path, registry.now()).ifPresent(thing -> response.getHeaders().setETag(thing.tag()));
        }
        return body;
    }
}
