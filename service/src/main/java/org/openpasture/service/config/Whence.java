package org.openpasture.service.config;

import org.springframework.web.context.request.RequestContextHolder;
import org.springframework.web.context.request.ServletRequestAttributes;

/** Where the request of this thread comes from, for the trail. */
public final class Whence {
    private Whence() {}

    /** The address that the request comes from; empty where there is no request. */
    public static String address() {
        return RequestContextHolder.getRequestAttributes() instanceof ServletRequestAttributes of
                ? of.getRequest().getRemoteAddr()
                : "";
    }
}
