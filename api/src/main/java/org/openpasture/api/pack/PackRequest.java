package org.openpasture.api.pack;

import java.util.List;
import java.util.Map;
import java.util.Set;
import org.jspecify.annotations.Nullable;
import org.openpasture.api.problem.Require;
import org.openpasture.core.yaml.YamlFile;

/**
 * A pack to import, and how.
 *
 * @param file the pack's text; null where {@code shipped} names one
 * @param shipped the id of a pack that ships; null where {@code file} has one
 * @param siteId to which limit sets and device models belong from then on, and who sees the dashboards; null for the
 *     site of the first place, empty for all sites
 * @param places the id of the place here, by the key of the pack's; empty for none. What is left out is proposed
 * @param points the id of the point here, by the key of the pack's, likewise
 * @param leaveOut parts that are not imported ("rule/too-warm")
 * @param replace parts that were changed or removed here and are to be as in the pack again
 * @param recipients whom the new rules notify; null for nobody
 */
public record PackRequest(
        @Nullable String file,
        @Nullable String shipped,
        @Nullable String siteId,
        @Nullable Map<String, String> places,
        @Nullable Map<String, String> points,
        @Nullable Set<String> leaveOut,
        @Nullable Set<String> replace,
        @Nullable List<String> recipients) {
    private static final int MOST = 2_000;

    public PackRequest {
        if ((file == null) == (shipped == null)) {
            throw new IllegalArgumentException(
                    "either the text of a pack ('file') or the id of a shipped one is needed");
        }
        if (file != null && file.length() > YamlFile.LONGEST) {
            throw new IllegalArgumentException("the file has more than " + YamlFile.LONGEST + " characters");
        }
        places = places == null ? Map.of() : checked(places);
        points = points == null ? Map.of() : checked(points);
        leaveOut = leaveOut == null ? Set.of() : Set.copyOf(leaveOut);
        replace = replace == null ? Set.of() : Set.copyOf(replace);
        recipients = recipients == null ? List.of() : Require.recipients(recipients);
        if (leaveOut.size() > MOST || replace.size() > MOST || recipients.size() > 50) {
            throw new IllegalArgumentException("a list in the request is longer than any pack");
        }
    }

    private static Map<String, String> checked(Map<String, String> ids) {
        if (ids.size() > MOST || ids.containsValue(null)) {
            throw new IllegalArgumentException("each place and point of the pack has one that stands for it, or none");
        }
        return Map.copyOf(ids);
    }
}
