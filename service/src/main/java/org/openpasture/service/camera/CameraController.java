package org.openpasture.service.camera;

import java.util.Comparator;
import java.util.List;
import java.util.Map;
import org.jspecify.annotations.Nullable;
import org.openpasture.api.camera.CameraRequest;
import org.openpasture.api.camera.CameraView;
import org.openpasture.core.access.Access;
import org.openpasture.core.camera.Camera;
import org.openpasture.core.edit.CameraEdits;
import org.openpasture.core.edit.CameraWish;
import org.openpasture.core.people.Right;
import org.openpasture.core.place.Place;
import org.openpasture.engine.camera.CameraDesk;
import org.openpasture.engine.inlet.InletSecrets;
import org.openpasture.service.access.Accounts;
import org.openpasture.service.access.Editor;
import org.openpasture.service.access.Reader;
import org.openpasture.service.problem.Problem;
import org.springframework.http.HttpStatus;
import org.springframework.http.ResponseEntity;
import org.springframework.web.bind.annotation.DeleteMapping;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.PutMapping;
import org.springframework.web.bind.annotation.RequestBody;
import org.springframework.web.bind.annotation.ResponseStatus;
import org.springframework.web.bind.annotation.RestController;

/** Cameras: set up by who manages the instance, looked at by who may see their places. */
@RestController
class CameraController {
    private final CameraDesk desk;
    private final CameraPictures pictures;
    private final InletSecrets secrets;
    private final Reader reader;
    private final Editor editor;

    CameraController(CameraDesk desk, CameraPictures pictures, InletSecrets secrets, Reader reader, Editor editor) {
        this.desk = desk;
        this.pictures = pictures;
        this.secrets = secrets;
        this.reader = reader;
        this.editor = editor;
    }

    /** Cameras whose places the reader may see. */
    @GetMapping("/api/v1/cameras")
    List<CameraView> list() {
        Access access = reader.access();
        return access.registry().all(Camera.class).stream()
                .filter(camera -> access.may(Right.LOOK, camera.placeId()))
                .sorted(Comparator.comparing(Camera::name))
                .map(camera -> view(access, camera))
                .toList();
    }

    @GetMapping("/api/v1/cameras/{id}")
    CameraView one(@PathVariable String id) {
        return view(reader.access(), camera(id));
    }

    /**
     * The newest picture, no older than the camera's interval, decoded and written anew; its time is in
     * {@code Last-Modified}. 503 in words if the camera gives none.
     */
    @GetMapping("/api/v1/cameras/{id}/picture")
    ResponseEntity<byte[]> picture(@PathVariable String id) throws InterruptedException {
        return pictures.picture(camera(id));
    }

    @PostMapping("/api/v1/cameras")
    @ResponseStatus(HttpStatus.CREATED)
    CameraView make(@RequestBody CameraRequest request) {
        Camera made = request.camera(Accounts.newId());
        editor.edit(
                access -> CameraEdits.edit(access, new CameraWish.Save(made)),
                () -> save(made.id(), request.password()),
                () -> secrets.forget(made.id()));
        return one(made.id());
    }

    @PutMapping("/api/v1/cameras/{id}")
    CameraView change(@PathVariable String id, @RequestBody CameraRequest request) {
        Camera before = camera(id);
        Camera changed = request.camera(id);
        CameraWish wish = new CameraWish.Save(changed);
        editor.check(access -> CameraEdits.edit(access, wish));
        if (!before.address().equals(changed.address())) {
            // A password is for the address that it was entered for, and gone before another is called.
            secrets.forget(id);
        }
        editor.edit(access -> CameraEdits.edit(access, wish));
        save(id, request.password());
        desk.forget(id);
        return one(id);
    }

    @DeleteMapping("/api/v1/cameras/{id}")
    @ResponseStatus(HttpStatus.NO_CONTENT)
    void remove(@PathVariable String id) {
        editor.edit(access -> CameraEdits.edit(access, new CameraWish.Remove(id)));
        secrets.forget(id);
        desk.forget(id);
    }

    /** @param password null to leave the one that there is, empty for none */
    private void save(String id, @Nullable String password) {
        if (password != null && password.isEmpty()) {
            secrets.forget(id);
        } else if (password != null) {
            secrets.save(id, Map.of(CameraDesk.PASSWORD, password));
        }
    }

    private Camera camera(String id) {
        return CameraEdits.find(reader.access(), id).orElseThrow(() -> Problem.notFound("camera"));
    }

    private CameraView view(Access access, Camera camera) {
        boolean manages = access.mayManageInstance();
        return new CameraView(
                camera.id(),
                camera.name(),
                camera.placeId(),
                access.registry().place(camera.placeId()).map(Place::name).orElse(""),
                manages ? camera.address().toString() : null,
                manages ? camera.user() : null,
                !secrets.of(camera.id()).isEmpty(),
                camera.everySeconds(),
                desk.problem(camera).orElse(null));
    }
}
