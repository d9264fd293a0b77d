package org.openpasture.api.people;

import java.util.List;
import org.jspecify.annotations.Nullable;

/**
 * A person's second factor.
 *
 * @param on whether sign-ins ask for a code
 * @param recoveryCodesLeft how many recovery codes were not used yet
 * @param secret for typing into an authenticator app, in Base32; only when it is set up
 * @param uri the same for scanning; only when it is set up
 * @param recoveryCodes each works once; only when it was switched on, and never again
 */
public record SecondFactorView(
        boolean on,
        int recoveryCodesLeft,
        @Nullable String secret,
        @Nullable String uri,
        List<String> recoveryCodes) {
    @Override
    public String toString() {
        return "SecondFactorView";
    }
}
