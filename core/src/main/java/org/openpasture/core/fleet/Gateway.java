package org.openpasture.core.fleet;

import org.openpasture.core.entity.Entity;
import org.openpasture.core.lorawan.Eui64;

/** What relays frames of other devices, as registered by its EUI. */
public record Gateway(String id, String name, Eui64 eui, String siteId) implements Entity {}
