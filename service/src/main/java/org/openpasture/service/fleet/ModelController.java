package org.openpasture.service.fleet;

import java.util.List;
import org.openpasture.core.access.Access;
import org.openpasture.core.edit.SharedEdits;
import org.openpasture.core.edit.SharedWish;
import org.openpasture.core.fleet.DeviceModel;
import org.openpasture.service.access.Accounts;
import org.openpasture.service.access.Editor;
import org.openpasture.service.access.Reader;
import org.springframework.http.HttpStatus;
import org.springframework.web.bind.annotation.DeleteMapping;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.PutMapping;
import org.springframework.web.bind.annotation.RequestBody;
import org.springframework.web.bind.annotation.ResponseStatus;
import org.springframework.web.bind.annotation.RestController;

/** Device models: data that says how frames are read. */
@RestController
class ModelController {
    private static final int VERSIONS_SHOWN = 20;
    private final ModelVersions versions;
    private final Reader reader;
    private final Editor editor;

    ModelController(ModelVersions versions, Reader reader, Editor editor) {
        this.editor = editor;
        this.versions = versions;
        this.reader = reader;
    }

    @GetMapping("/api/v1/models")
    List<DeviceModel> list() {
        Access access = reader.access();
        return access.registry().all(DeviceModel.class).stream()
                .filter(access::maySee)
                .toList();
    }

    @GetMapping("/api/v1/models/{id}")
    DeviceModel one(@PathVariable String id) {
        return reader.shared(DeviceModel.class, id, "device model");
    }

    /** Adds a model, for a site or (by an owner) for all of them; an id in the request is not used. */
    @PostMapping("/api/v1/models")
    @ResponseStatus(HttpStatus.CREATED)
    DeviceModel make(@RequestBody DeviceModel model) {
        DeviceModel made = model.as(Accounts.newId(), 1, reader.siteForNew(model.siteId()));
        editor.edit(access -> SharedEdits.edit(access, new SharedWish.Make(made)));
        return made;
    }

    /**
     * Changes a model; what it was is kept as a version. Without a siteId it stays whose it is, with an empty one it
     * becomes all sites'.
     */
    @PutMapping("/api/v1/models/{id}")
    DeviceModel change(@PathVariable String id, @RequestBody DeviceModel model) {
        DeviceModel before = reader.shared(DeviceModel.class, id, "device model");
        int number = before.version() == null ? 1 : before.version();
        DeviceModel changed = model.as(id, number + 1, Reader.siteAfter(model.siteId(), before));
        editor.edit(access -> SharedEdits.edit(access, new SharedWish.Change(changed)));
        versions.keep(before);
        return changed;
    }

    /** Removes a model that no device is of. */
    @DeleteMapping("/api/v1/models/{id}")
    @ResponseStatus(HttpStatus.NO_CONTENT)
    void remove(@PathVariable String id) {
        DeviceModel model = reader.shared(DeviceModel.class, id, "device model");
        editor.edit(access -> SharedEdits.edit(access, new SharedWish.Remove(model)));
    }

    /** What the model was before, the newest first. */
    @GetMapping("/api/v1/models/{id}/versions")
    List<DeviceModel> versions(@PathVariable String id) {
        return versions.before(reader.shared(DeviceModel.class, id, "device model"), VERSIONS_SHOWN);
    }
}
