package org.openpasture.service.fleet;

import java.util.ArrayList;
import java.util.Collection;
import java.util.List;
import org.openpasture.core.fleet.Channel;
import org.openpasture.core.fleet.DeviceModel;
import org.openpasture.core.people.Right;
import org.openpasture.core.registry.Change;
import org.openpasture.service.access.Accounts;
import org.openpasture.service.access.Reader;
import org.openpasture.service.problem.Problem;
import org.openpasture.store.registry.RegistryStore;
import org.openpasture.store.setting.SettingStore;
import org.springframework.http.HttpStatus;
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
    private final RegistryStore registry;
    private static final int VERSIONS_SHOWN = 20;
    private final SettingStore settings;
    private final Reader reader;

    ModelController(RegistryStore registry, SettingStore settings, Reader reader) {
        this.registry = registry;
        this.settings = settings;
        this.reader = reader;
    }

    @GetMapping("/api/v1/models")
    Collection<DeviceModel> list() {
        return reader.access().registry().all(DeviceModel.class);
    }

    /** Adds a model; an id in the request is not used. */
    @PostMapping("/api/v1/models")
    @ResponseStatus(HttpStatus.CREATED)
    DeviceModel make(@RequestBody DeviceModel model) {
        return save(Accounts.newId(), model, 1);
    }

    /** Changes a model; what it was is kept as a version. */
    @PutMapping("/api/v1/models/{id}")
    DeviceModel change(@PathVariable String id, @RequestBody DeviceModel model) {
        DeviceModel before = reader.find(DeviceModel.class, id, "device model");
        int number = before.version() == null ? 1 : before.version();
        DeviceModel saved = save(id, model, number + 1);
        settings.save(versionName(id, number), before);
        return saved;
    }

    /** What the model was before, the newest first. */
    @GetMapping("/api/v1/models/{id}/versions")
    List<DeviceModel> versions(@PathVariable String id) {
        DeviceModel now = reader.find(DeviceModel.class, id, "device model");
        List<DeviceModel> found = new ArrayList<>();
        for (int number = (now.version() == null ? 1 : now.version()) - 1;
                number > 0 && found.size() < VERSIONS_SHOWN;
                number--) {
            settings.find(versionName(id, number), DeviceModel.class).ifPresent(found::add);
        }
        return found;
    }

    private static String versionName(String id, int number) {
        return "model/" + id + "/" + number;
    }

    private DeviceModel save(String id, DeviceModel model, int version) {
        reader.requireAnywhere(Right.EDIT, "change device models");
        model.channels().forEach(channel -> {
            if (model.script() == null
                    && !channel.name().equals(Channel.SIGNAL)
                    && !model.layout().channels().contains(channel.name())) {
                throw Problem.invalid("the layout has no field for the channel '" + channel.name() + "'");
            }
        });
        DeviceModel saved = model.as(id, version);
        registry.change(reader.person().name(), List.of(new Change.Put(saved)));
        return saved;
    }
}
