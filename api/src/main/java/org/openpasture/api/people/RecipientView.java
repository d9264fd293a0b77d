package org.openpasture.api.people;

import java.util.List;

/**
 * Somebody who can be notified of what happens at a place.
 *
 * @param recipient as it is written in a rule
 * @param name who it is
 * @param ways "mail", "text"; empty for somebody who has no address
 */
public record RecipientView(String recipient, String name, List<String> ways) {}
