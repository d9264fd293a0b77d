package org.openpasture.api.people;

import java.util.List;
import org.jspecify.annotations.Nullable;
import org.openpasture.core.people.StarredPages;

/**
 * The pages of the console that a person keeps at hand, as a whole.
 *
 * @param pages 60 at most, each once
 * @param start the page that opens first; null for the console's own
 */
public record StarredView(List<StarredPages.Page> pages, StarredPages.@Nullable Page start) {}
