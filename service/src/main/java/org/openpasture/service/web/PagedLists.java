package org.openpasture.service.web;

import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import java.util.Optional;
import org.jspecify.annotations.Nullable;
import org.openpasture.service.problem.Problem;
import org.springframework.core.MethodParameter;
import org.springframework.http.HttpHeaders;
import org.springframework.http.MediaType;
import org.springframework.http.converter.HttpMessageConverter;
import org.springframework.http.server.ServerHttpRequest;
import org.springframework.http.server.ServerHttpResponse;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.RestControllerAdvice;
import org.springframework.web.servlet.mvc.method.annotation.ResponseBodyAdvice;
import org.springframework.web.util.UriComponentsBuilder;

/**
 * Gives every list in pages to who asks for that with {@code limit} and {@code after}, the id of the last one that is
 * known already. A request without them gets all. Lists that the disk keeps page by themselves.
 */
@RestControllerAdvice
class PagedLists implements ResponseBodyAdvice<Object> {
    @Override
    public boolean supports(MethodParameter method, Class<? extends HttpMessageConverter<?>> converter) {
        return List.class.isAssignableFrom(method.getParameterType())
                && method.hasMethodAnnotation(GetMapping.class)
                && Arrays.stream(java.util.Objects.requireNonNull(method.getMethod())
                                .getParameters())
                        .noneMatch(parameter -> parameter.getName().equals("limit"));
    }

    @Override
    public @Nullable Object beforeBodyWrite(
            @Nullable Object body,
            MethodParameter method,
            MediaType type,
            Class<? extends HttpMessageConverter<?>> converter,
            ServerHttpRequest request,
            ServerHttpResponse response) {
        var asked = UriComponentsBuilder.fromUri(request.getURI()).build().getQueryParams();
        String limit = asked.getFirst("limit");
        String after = asked.getFirst("after");
        if (!(body instanceof List<?> all) || limit == null && after == null) {
            return body;
        }
        List<?> rest = after == null ? all : behind(all, after);
        int most = limit == null ? rest.size() : number(limit);
        if (rest.size() <= most) {
            return rest;
        }
        List<?> page = new ArrayList<>(rest.subList(0, most));
        RecordIds.of(page.getLast()).ifPresent(last -> response.getHeaders().add(HttpHeaders.LINK, Paging.next(last)));
        return page;
    }

    private static List<?> behind(List<?> all, String after) {
        for (int i = 0; i < all.size(); i++) {
            if (RecordIds.of(all.get(i)).equals(Optional.of(after))) {
                return all.subList(i + 1, all.size());
            }
        }
        throw Problem.gone("The list no longer contains the item named in 'after'.", "Start again without 'after'.");
    }

    private static int number(String limit) {
        try {
            return Math.clamp(Integer.parseInt(limit), 1, 10_000);
        } catch (NumberFormatException e) {
            throw Problem.invalid("'" + limit + "' is no number of things for 'limit'.");
        }
    }
}
