package org.openpasture.api.people;

import org.jspecify.annotations.Nullable;

/**
 * Sets the second factor up, or removes it.
 *
 * @param password the current one, where it is set up or removed; null where only a code is needed
 * @param code of the authenticator app, where it is switched on or removed; null where it is set up
 */
public record SecondFactorRequest(
        @Nullable String password, @Nullable String code) {
    @Override
    public String toString() {
        return "SecondFactorRequest";
    }
}
