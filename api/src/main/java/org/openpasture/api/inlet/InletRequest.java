package org.openpasture.api.inlet;

import java.util.Map;
import java.util.Objects;
import org.jspecify.annotations.Nullable;
import org.openpasture.api.problem.Require;
import org.openpasture.core.framing.Framing;
import org.openpasture.core.inlet.Contents;
import org.openpasture.core.inlet.Source;

/**
 * An inlet to make or to change.
 *
 * @param siteId whose rights decide who may see it
 * @param framing null for lines where it is a stream of text, and else for each message by itself
 * @param contents how its messages are opened; null where devices are asked
 * @param keepEverySeconds null to keep every frame
 * @param secrets what nobody is shown again: for a fetched address headers by their names, for a broker its password
 *     under "password"; null to leave them as they are
 */
public record InletRequest(
        String name,
        String siteId,
        Source source,
        @Nullable Framing framing,
        @Nullable Contents contents,
        @Nullable Integer keepEverySeconds,
        @Nullable Map<String, String> secrets) {
    public InletRequest {
        name = Require.text(name, "the inlet's name", 80);
        siteId = Require.text(siteId, "the inlet's site", 80);
        source = Require.present(source, "where the inlet gets its messages from (source)");
        if (!(source instanceof Source.Polled)) {
            contents = Require.present(contents, "how its messages are opened (contents)");
        }
    }

    /** One without secrets. */
    public InletRequest(
            String name,
            String siteId,
            Source source,
            @Nullable Framing framing,
            @Nullable Contents contents,
            @Nullable Integer keepEverySeconds) {
        this(name, siteId, source, framing, contents, keepEverySeconds, null);
    }

    @Override
    public String toString() {
        return "InletRequest " + name;
    }

    /** How frames follow one another in what comes. */
    public Framing effectiveFraming() {
        return Objects.requireNonNullElseGet(
                framing,
                () -> contents != null && contents.form() == Contents.Form.TEXT
                        ? new Framing.Lines(null, null)
                        : new Framing.Whole());
    }
}
