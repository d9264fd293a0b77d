package org.openpasture.service.web;

import java.net.URI;
import java.util.Map;
import org.jspecify.annotations.Nullable;
import org.springframework.core.MethodParameter;
import org.springframework.core.Ordered;
import org.springframework.core.annotation.Order;
import org.springframework.http.HttpStatus;
import org.springframework.http.MediaType;
import org.springframework.http.converter.HttpMessageConverter;
import org.springframework.http.server.ServerHttpRequest;
import org.springframework.http.server.ServerHttpResponse;
import org.springframework.web.bind.annotation.ResponseStatus;
import org.springframework.web.bind.annotation.RestControllerAdvice;
import org.springframework.web.servlet.mvc.method.annotation.ResponseBodyAdvice;

/**
 * Says where what was just made is found (RFC 9110, 15.3.2), for everything that has an id and an address of its own.
 */
@RestControllerAdvice
@Order(Ordered.HIGHEST_PRECEDENCE)
class Created implements ResponseBodyAdvice<Object> {
    /** Where things are found that are not found where they are made. */
    private static final Map<String, String> FOUND_AT = Map.of(
            "/api/v1/sites", "/api/v1/places", "/api/v1/areas", "/api/v1/places", "/api/v1/assets", "/api/v1/places");

    @Override
    public boolean supports(MethodParameter method, Class<? extends HttpMessageConverter<?>> converter) {
        ResponseStatus status = method.getMethodAnnotation(ResponseStatus.class);
        return status != null && status.value() == HttpStatus.CREATED;
    }

    @Override
    public @Nullable Object beforeBodyWrite(
            @Nullable Object body,
            MethodParameter method,
            MediaType type,
            Class<? extends HttpMessageConverter<?>> converter,
            ServerHttpRequest request,
            ServerHttpResponse response) {
        String path = request.getURI().getPath();
        // What is made of something else, such as a link of a dashboard, has no address of its own.
        if (body != null && path.split("/").length == 4) {
            RecordIds.of(body).ifPresent(id -> response.getHeaders()
                    .setLocation(URI.create(FOUND_AT.getOrDefault(path, path) + "/" + id)));
        }
        return body;
    }
}
