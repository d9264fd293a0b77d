package org.openpasture.service.web;

import jakarta.servlet.http.HttpServletRequest;
import java.net.URI;
import org.openpasture.service.config.PastureProperties;
import org.springframework.stereotype.Component;
import org.springframework.web.servlet.support.ServletUriComponentsBuilder;

/** How links to this instance begin. */
@Component
public class Addresses {
    private final PastureProperties properties;

    public Addresses(PastureProperties properties) {
        this.properties = properties;
    }

    /** As configured, else as the reader reached us. No slash at the end. */
    public String of(HttpServletRequest request) {
        URI configured = properties.address();
        return configured != null
                ? configured.toString().replaceAll("/+$", "")
                : ServletUriComponentsBuilder.fromContextPath(request).build().toUriString();
    }
}
