package org.openpasture.engine.live;

import java.util.function.Supplier;
import org.jspecify.annotations.Nullable;

/**
 * Something that open pages are told at once. What they are told is made when the first page that may know of it asks
 * for it, and then once for all of them.
 */
public final class LiveEvent {
    private final String name;
    private final @Nullable String placeId;
    private final @Nullable String pointId;
    private final Supplier<Object> make;
    private @Nullable Object data;

    /**
     * An event whose content is at hand.
     *
     * @param name reading, alert, frame, gateway, device, news, logbook or changed
     * @param placeId who may look here is told; null for everybody who is signed in
     * @param pointId for readings, the point, which must be visible too; else null
     * @param data becomes JSON
     */
    public LiveEvent(String name, @Nullable String placeId, @Nullable String pointId, Object data) {
        this(name, placeId, pointId, () -> data);
    }

    private LiveEvent(String name, @Nullable String placeId, @Nullable String pointId, Supplier<Object> make) {
        this.name = name;
        this.placeId = placeId;
        this.pointId = pointId;
        this.make = make;
    }

    /** An event at a place whose content takes work to make. */
    public static LiveEvent lazily(String name, String placeId, Supplier<Object> make) {
        return new LiveEvent(name, placeId, null, make);
    }

    /** What happened: reading, alert, frame, gateway, device, news, logbook or changed. */
    public String name() {
        return name;
    }

    /** Who may look at this place is told; null for everybody who is signed in. */
    public @Nullable String placeId() {
        return placeId;
    }

    /** For readings, the point, which must be visible too; else null. */
    public @Nullable String pointId() {
        return pointId;
    }

    /** What becomes JSON; made once. */
    public synchronized Object data() {
        Object made = data;
        if (made == null) {
            made = make.get();
            data = made;
        }
        return made;
    }
}
