package org.openpasture.service.web;

import java.lang.reflect.InvocationTargetException;
import java.lang.reflect.RecordComponent;
import java.lang.reflect.Type;
import java.util.Collection;
import java.util.Map;
import org.jspecify.annotations.Nullable;
import org.openpasture.service.problem.Problem;
import org.springframework.core.MethodParameter;
import org.springframework.http.HttpInputMessage;
import org.springframework.http.converter.HttpMessageConverter;
import org.springframework.web.bind.annotation.ControllerAdvice;
import org.springframework.web.servlet.mvc.method.annotation.RequestBodyAdviceAdapter;

/**
 * Refuses a request in which something is left out that its record does not call {@link Nullable}, so that no door has
 * to look for it, and none can forget to.
 */
@ControllerAdvice
class CompleteBodies extends RequestBodyAdviceAdapter {
    @Override
    public boolean supports(
            MethodParameter parameter, Type type, Class<? extends HttpMessageConverter<?>> converterType) {
        return type instanceof Class<?> body && body.isRecord();
    }

    @Override
    public Object afterBodyRead(
            Object body,
            HttpInputMessage message,
            MethodParameter parameter,
            Type type,
            Class<? extends HttpMessageConverter<?>> converterType) {
        check(body);
        return body;
    }

    private static void check(@Nullable Object value) {
        if (value instanceof Collection<?> many) {
            many.forEach(CompleteBodies::check);
        } else if (value instanceof Map<?, ?> many) {
            many.values().forEach(CompleteBodies::check);
        } else if (value instanceof Record one && isOurs(one)) {
            for (RecordComponent component : one.getClass().getRecordComponents()) {
                Object part = part(one, component);
                // The address, or the service, says which id a thing has.
                if (part == null
                        && !component.getName().equals("id")
                        && !component.getAnnotatedType().isAnnotationPresent(Nullable.class)) {
                    throw Problem.invalid("'" + component.getName() + "' is missing.");
                }
                check(part);
            }
        }
    }

    private static boolean isOurs(Record value) {
        return value.getClass().getPackageName().startsWith("org.openpasture.");
    }

    private static @Nullable Object part(Record value, RecordComponent component) {
        try {
            return component.getAccessor().invoke(value);
        } catch (IllegalAccessException | InvocationTargetException e) {
            throw new IllegalStateException("a record does not say what it holds", e);
        }
    }
}
