package org.openpasture.core.edit;

import java.util.List;
import java.util.Optional;
import org.openpasture.core.access.Access;
import org.openpasture.core.camera.Camera;
import org.openpasture.core.dashboard.Dashboard;
import org.openpasture.core.dashboard.Panel;
import org.openpasture.core.edit.Edited.Changes;
import org.openpasture.core.edit.Edited.Refused;
import org.openpasture.core.people.Right;
import org.openpasture.core.registry.Change;
import org.openpasture.core.registry.Kind;

/**
 * Changes of cameras. Their addresses lie in the networks around the service, which it calls for everybody who may see
 * the picture: only who manages the instance lets it.
 */
public final class CameraEdits {
    private static final int MOST = 200;

    private CameraEdits() {}

    /**
     * What becomes of a wish.
     *
     * @param access what is registered, and what the person who wishes may do
     */
    public static Edited edit(Access access, CameraWish wish) {
        return switch (wish) {
            case CameraWish.Save(Camera camera) ->
                Edited.unless(
                        Rights.on(access, Right.LOOK, camera.placeId(), "see this place")
                                .or(() -> managing(access))
                                .or(() -> name(access, camera))
                                .or(() -> tooMany(access, camera)),
                        () -> Changes.put(camera));
            case CameraWish.Remove(String id) ->
                find(access, id)
                        .<Edited>map(camera -> Edited.unless(
                                managing(access).or(() -> inUse(access, camera)),
                                () -> new Changes(List.of(new Change.Remove(Kind.CAMERA, id)))))
                        .orElse(Refused.unknown("camera"));
        };
    }

    /** A camera whose place somebody may look at. */
    public static Optional<Camera> find(Access access, String id) {
        return access.registry().find(Camera.class, id).filter(camera -> access.may(Right.LOOK, camera.placeId()));
    }

    private static Optional<Refused> managing(Access access) {
        return access.mayManageInstance()
                ? Optional.empty()
                : Optional.of(Refused.notAllowed("set up cameras, whose addresses this service calls for everybody"));
    }

    /** Two of one name could not be told apart in a list. */
    private static Optional<Refused> name(Access access, Camera camera) {
        return access.registry().all(Camera.class).stream()
                        .anyMatch(other ->
                                !other.id().equals(camera.id()) && other.name().equalsIgnoreCase(camera.name()))
                ? Optional.of(Refused.clash(
                        "There is a camera called '" + camera.name() + "' already.", "Give this one another name."))
                : Optional.empty();
    }

    private static Optional<Refused> tooMany(Access access, Camera camera) {
        return access.registry().find(Camera.class, camera.id()).isEmpty()
                        && access.registry().all(Camera.class).size() >= MOST
                ? Optional.of(Refused.clash("There are " + MOST + " cameras.", "Remove one first."))
                : Optional.empty();
    }

    private static Optional<Refused> inUse(Access access, Camera camera) {
        return new Uses()
                .count("dashboard", access.registry().all(Dashboard.class), board -> board.panels().stream()
                        .anyMatch(panel -> panel instanceof Panel.FromCamera of
                                && camera.id().equals(of.cameraId())))
                .refusal(camera.name());
    }
}
