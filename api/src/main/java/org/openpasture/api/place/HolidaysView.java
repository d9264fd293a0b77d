package org.openpasture.api.place;

import java.util.List;
import org.openpasture.core.place.Holiday;

/**
 * The holidays of a site.
 *
 * @param days in the order of their dates
 * @param rules names of rules at this site whose hours leave them out
 */
public record HolidaysView(List<Holiday> days, List<String> rules) {}
