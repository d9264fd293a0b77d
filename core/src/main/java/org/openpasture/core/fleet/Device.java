package org.openpasture.core.fleet;

import org.openpasture.core.entity.Entity;

/**
 * What measures. Its keys are not here: they are kept encrypted and never handed out again.
 *
 * @param placeId the site, area or asset that it hangs at
 */
public record Device(String id, String name, String modelId, String placeId, RadioIdentity radio) implements Entity {}
