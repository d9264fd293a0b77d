package org.openpasture.service.access;

import jakarta.servlet.http.HttpServletRequest;
import java.time.Duration;
import org.springframework.http.HttpHeaders;
import org.springframework.http.ResponseCookie;
import org.springframework.http.ResponseEntity;

/** The cookie by which a browser is recognised. Scripts cannot read it and other sites cannot send it. */
public final class SessionCookie {
    private SessionCookie() {}

    /**
     * An answer that sets the cookie.
     *
     * @param age how long it lasts; zero takes it away
     */
    public static ResponseEntity.BodyBuilder answer(String token, Duration age, HttpServletRequest http) {
        return ResponseEntity.ok()
                .header(
                        HttpHeaders.SET_COOKIE,
                        ResponseCookie.from(TokenFilter.COOKIE, token)
                                .httpOnly(true)
                                .sameSite("Strict")
                                .path("/")
                                .secure(http.isSecure())
                                .maxAge(age)
                                .build()
                                .toString());
    }
}
