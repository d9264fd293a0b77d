package org.openpasture.service.problem;

import java.net.URI;
import java.util.concurrent.CompletionException;
import org.openpasture.engine.importing.UnreadableFile;
import org.openpasture.store.telemetry.StorageFailed;
import org.slf4j.Logger;
import org.slf4j.LoggerFactory;
import org.springframework.http.HttpStatus;
import org.springframework.http.ProblemDetail;
import org.springframework.http.ResponseEntity;
import org.springframework.http.converter.HttpMessageNotReadableException;
import org.springframework.web.bind.annotation.ExceptionHandler;
import org.springframework.web.bind.annotation.RestControllerAdvice;
import org.springframework.web.method.annotation.MethodArgumentTypeMismatchException;
import org.springframework.web.servlet.mvc.method.annotation.ResponseEntityExceptionHandler;

/** Every error leaves as a problem detail with a stable type, a sentence, and what to do. */
@RestControllerAdvice
public class ProblemHandler extends ResponseEntityExceptionHandler {
    private static final Logger LOG = LoggerFactory.getLogger(ProblemHandler.class);

    /** The problem detail for a type, a sentence and what to do. */
    public static ProblemDetail detail(HttpStatus status, String type, String message, String todo) {
        ProblemDetail detail = ProblemDetail.forStatusAndDetail(status, message);
        detail.setType(URI.create("urn:open-pasture:problem:" + type));
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
        if (error instanceof CompletionException) {
            switch (error.getCause()) {
                case StorageFailed failed -> {
                    return onStorageFailed(failed);
                }
                case Problem problem -> {
                    return onProblem(problem);
                }
                case null, default -> {}
            }
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
            HttpMessageNotReadableException error,
            org.springframework.http.HttpHeaders headers,
            org.springframework.http.HttpStatusCode status,
            org.springframework.web.context.request.WebRequest request) {
        return ResponseEntity.badRequest()
                .body(detail(HttpStatus.BAD_REQUEST, "invalid", readable(error), "Correct it and try again."));
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
            if (cause instanceof tools.jackson.databind.exc.InvalidFormatException wrong) {
                return "'" + wrong.getValue() + "' is no value for "
                        + wrong.getPath().stream()
                                .map(step -> String.valueOf(step.getPropertyName()))
                                .reduce((a, b) -> b)
                                .orElse("this")
                        + ".";
            }
        }
        return "The request cannot be read as the JSON that belongs here.";
    }
}
