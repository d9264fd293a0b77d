package org.openpasture.service.problem;

import com.fasterxml.jackson.annotation.JsonSubTypes;
import com.fasterxml.jackson.annotation.JsonTypeInfo;
import java.net.URI;
import java.util.Arrays;
import java.util.Optional;
import java.util.concurrent.CompletionException;
import java.util.stream.Collectors;
import org.jspecify.annotations.Nullable;
import org.openpasture.core.text.Text;
import org.openpasture.engine.importing.UnreadableFile;
import org.openpasture.store.sqlite.StorageFailed;
import org.slf4j.Logger;
import org.slf4j.LoggerFactory;
import org.springframework.http.HttpHeaders;
import org.springframework.http.HttpMethod;
import org.springframework.http.HttpStatus;
import org.springframework.http.HttpStatusCode;
import org.springframework.http.ProblemDetail;
import org.springframework.http.ResponseEntity;
import org.springframework.http.converter.HttpMessageNotReadableException;
import org.springframework.web.bind.annotation.ExceptionHandler;
import org.springframework.web.bind.annotation.RestControllerAdvice;
import org.springframework.web.context.request.RequestContextHolder;
import org.springframework.web.context.request.ServletRequestAttributes;
import org.springframework.web.context.request.WebRequest;
import org.springframework.web.method.annotation.MethodArgumentTypeMismatchException;
import org.springframework.web.servlet.mvc.method.annotation.ResponseEntityExceptionHandler;
import tools.jackson.databind.DatabindException;
import tools.jackson.databind.exc.InvalidNullException;
import tools.jackson.databind.exc.InvalidTypeIdException;
import tools.jackson.databind.exc.MismatchedInputException;
import tools.jackson.databind.exc.UnrecognizedPropertyException;

/** Every error leaves as a problem detail with a stable type, a sentence, and what to do. */
@RestControllerAdvice
public class ProblemHandler extends ResponseEntityExceptionHandler {
    private static final Logger LOG = LoggerFactory.getLogger(ProblemHandler.class);

    /** The problem detail for a type, a sentence and what to do. */
    public static ProblemDetail detail(HttpStatus status, String type, String message, String todo) {
        ProblemDetail detail = ProblemDetail.forStatusAndDetail(status, Text.ended(message));
        detail.setType(URI.create("urn:open-pasture:problem:" + type));
        detail.setInstance(instance());
        detail.setTitle(status.getReasonPhrase());
        detail.setProperty("todo", todo);
        return detail;
    }

    @ExceptionHandler
    ResponseEntity<ProblemDetail> onProblem(Problem problem) {
        return answer(detail(problem.status(), problem.type(), String.valueOf(problem.getMessage()), problem.todo()));
    }

    @ExceptionHandler
    ResponseEntity<ProblemDetail> onInvalid(IllegalArgumentException error) {
        return answer(detail(
                HttpStatus.BAD_REQUEST, "invalid", String.valueOf(error.getMessage()), "Correct it and try again."));
    }

    @ExceptionHandler
    ResponseEntity<ProblemDetail> onUnreadable(UnreadableFile error) {
        return answer(detail(
                HttpStatus.BAD_REQUEST, "invalid", String.valueOf(error.getMessage()), "Correct it and try again."));
    }

    @ExceptionHandler
    ResponseEntity<ProblemDetail> onWrongType(MethodArgumentTypeMismatchException error) {
        return answer(detail(
                HttpStatus.BAD_REQUEST,
                "invalid",
                "'" + error.getValue() + "' is no value for " + error.getName() + ".",
                "Correct it and try again."));
    }

    /** Who asked has gone away: nothing to answer, and nothing wrong here. */
    @ExceptionHandler(org.apache.catalina.connector.ClientAbortException.class)
    void onGone() {}

    /** The records cannot be written now: what was sent is not kept, and that is said. */
    @ExceptionHandler
    ResponseEntity<ProblemDetail> onStorageFailed(StorageFailed error) {
        return answer(detail(
                HttpStatus.INSUFFICIENT_STORAGE,
                "not-kept",
                "Nothing can be written: " + error.getMessage() + ".",
                "Nothing of this was kept. Try again when that is put right."));
    }

    @ExceptionHandler
    ResponseEntity<ProblemDetail> onUnexpected(Exception error) {
        Throwable cause = error instanceof CompletionException && error.getCause() != null ? error.getCause() : error;
        if (cause instanceof Problem problem) {
            return onProblem(problem);
        }
        // Whatever wrote: a disk that is full is no mistake of the program.
        Optional<StorageFailed> storage = StorageFailed.find(cause);
        if (storage.isPresent()) {
            return onStorageFailed(storage.get());
        }
        LOG.error("unexpected", error);
        return answer(detail(
                HttpStatus.INTERNAL_SERVER_ERROR,
                "internal",
                "Something went wrong in the service.",
                "Try again; if it stays, the service's log says more."));
    }

    @Override
    protected ResponseEntity<Object> handleHttpMessageNotReadable(
            HttpMessageNotReadableException error, HttpHeaders headers, HttpStatusCode status, WebRequest request) {
        for (Throwable cause = error.getCause(); cause != null; cause = cause.getCause()) {
            if (cause instanceof Problem problem) {
                return ResponseEntity.status(problem.status())
                        .body(detail(
                                problem.status(),
                                problem.type(),
                                String.valueOf(problem.getMessage()),
                                problem.todo()));
            }
        }
        return ResponseEntity.badRequest()
                .body(detail(HttpStatus.BAD_REQUEST, "invalid", readable(error), "Correct it and try again."));
    }

    /** What the framework itself refuses: with a type of ours, what to do, and no token of the address. */
    @Override
    protected ResponseEntity<Object> createResponseEntity(
            @Nullable Object body, HttpHeaders headers, HttpStatusCode code, WebRequest request) {
        if (body instanceof ProblemDetail detail && detail.getType() == null) {
            HttpStatus status = HttpStatus.valueOf(code.value());
            String sentence = detail.getDetail() == null ? status.getReasonPhrase() + "." : detail.getDetail();
            return new ResponseEntity<>(
                    switch (status) {
                        case NOT_FOUND ->
                            detail(
                                    status,
                                    "not-found",
                                    "There is nothing at this address.",
                                    "Look at /api/openapi for what there is.");
                        case METHOD_NOT_ALLOWED ->
                            detail(
                                    status,
                                    "wrong-method",
                                    sentence,
                                    "Use one of: "
                                            + headers.getAllow().stream()
                                                    .map(HttpMethod::name)
                                                    .sorted()
                                                    .collect(Collectors.joining(", "))
                                            + ".");
                        case UNSUPPORTED_MEDIA_TYPE ->
                            detail(
                                    status,
                                    "wrong-content",
                                    sentence,
                                    "Send it as the kind of content that belongs here.");
                        case NOT_ACCEPTABLE -> detail(status, "not-acceptable", sentence, "Ask for application/json.");
                        default -> detail(status, "invalid", sentence, "Correct it and try again.");
                    },
                    headers,
                    status);
        }
        return super.createResponseEntity(body, headers, code, request);
    }

    /** The address of the request, without the token that stands in the addresses of inboxes and shared dashboards. */
    private static URI instance() {
        String path = RequestContextHolder.getRequestAttributes() instanceof ServletRequestAttributes of
                ? of.getRequest().getRequestURI()
                : "/";
        return URI.create(path.replaceFirst("^(/in|/api/v1/shared)/[^/]+", "$1"));
    }

    private static ResponseEntity<ProblemDetail> answer(ProblemDetail detail) {
        return ResponseEntity.status(detail.getStatus()).body(detail);
    }

    /** Our own sentence from a record's check, if that is what went wrong; else what is wrong with the JSON. */
    private static String readable(Throwable error) {
        for (Throwable cause = error; cause != null; cause = cause.getCause()) {
            if (cause instanceof IllegalArgumentException && cause.getMessage() != null) {
                return cause.getMessage();
            }
            if (cause instanceof UnrecognizedPropertyException unknown) {
                return "There is no field '" + unknown.getPropertyName() + "' here. There are: "
                        + unknown.getKnownPropertyIds().stream()
                                .map(String::valueOf)
                                .sorted()
                                .collect(Collectors.joining(", "))
                        + ".";
            }
            if (cause instanceof InvalidTypeIdException kind) {
                return kinds(kind);
            }
            if (cause instanceof tools.jackson.databind.exc.InvalidFormatException wrong) {
                return "'" + wrong.getValue() + "' is no value for "
                        + wrong.getPath().stream()
                                .map(step -> String.valueOf(step.getPropertyName()))
                                .reduce((a, b) -> b)
                                .orElse("this")
                        + ".";
            }
        }
        for (Throwable cause = error; cause != null; cause = cause.getCause()) {
            if (cause instanceof InvalidNullException nothing) {
                return "The list '" + lastOf(nothing) + "' contains null.";
            }
            if (cause instanceof MismatchedInputException wrong
                    && !wrong.getPath().isEmpty()) {
                return "'" + lastOf(wrong) + "' is missing or has a value of the wrong type.";
            }
        }
        return "The request cannot be read as the JSON that belongs here.";
    }

    /** The name of the field that an error is about. */
    private static String lastOf(DatabindException error) {
        return error.getPath().stream()
                .map(step -> step.getPropertyName())
                .filter(name -> name != null)
                .reduce((one, next) -> next)
                .orElse("it");
    }

    /** Which kinds there are, where another was asked for or none was named. */
    private static String kinds(InvalidTypeIdException error) {
        Class<?> type = error.getBaseType().getRawClass();
        JsonTypeInfo named = type.getAnnotation(JsonTypeInfo.class);
        JsonSubTypes known = type.getAnnotation(JsonSubTypes.class);
        String field = named == null ? "kind" : named.property();
        String there = known == null
                ? ""
                : " There are: "
                        + Arrays.stream(known.value())
                                .map(JsonSubTypes.Type::name)
                                .collect(Collectors.joining(", ")) + ".";
        return error.getTypeId() == null
                ? "'" + field + "' is missing." + there
                : "There is no " + field + " '" + error.getTypeId() + "'." + there;
    }
}
