package org.openpasture.acceptance;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import org.assertj.core.api.ThrowableAssert.ThrowingCallable;
import org.openpasture.client.http.ServiceProblem;

/** What the service refuses. */
public final class Refusals {
    private Refusals() {}

    /** A call is refused with a status, in a sentence that holds some words. */
    public static void refused(int status, String words, ThrowingCallable call) {
        assertThatThrownBy(call).isInstanceOfSatisfying(ServiceProblem.class, problem -> {
            assertThat(problem.status()).as(problem.getMessage()).isEqualTo(status);
            assertThat(problem.getMessage()).contains(words);
        });
    }
}
