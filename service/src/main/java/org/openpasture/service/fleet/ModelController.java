package org.openpasture.service.fleet;

import java.util.Collection;
import java.util.List;
import org.openpasture.core.fleet.DeviceModel;
import org.openpasture.core.access.Access;
import org.openpasture.core.people.Right;
import org.openpasture.core.place.Site;
import org.openpasture.core.registry.Change;
import org.openpasture.service.access.Accounts;
import org.openpasture.service.access.Reader;
import org.openpasture.service.problem.Problem;
import org.openpasture.store.registry.RegistryStore;
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
  private final Reader reader;

  ModelController(RegistryStore registry, Reader reader) {
    this.registry = registry;
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
    return save(Accounts.newId(), model);
  }

  @PutMapping("/api/v1/models/{id}")
  DeviceModel change(@PathVariable String id, @RequestBody DeviceModel model) {
    reader.find(DeviceModel.class, id, "device model");
    return save(id, model);
  }

  private DeviceModel save(String id, DeviceModel model) {
    Access access = reader.access();
    if (access.registry().all(Site.class).stream().noneMatch(site -> access.may(Right.EDIT, site.id()))) {
      throw Problem.forbidden("change device models");
    }
    model.channels().forEach(channel -> {
      if (model.layout().messages().stream().flatMap(message -> message.fields().stream())
          .noneMatch(field -> field.channel().equals(channel.name()))) {
        throw Problem.invalid("the layout has no field for the channel '" + channel.name() + "'");
      }
    });
    DeviceModel saved = new DeviceModel(id, model.name(), model.description(), model.intervalSeconds(), model.batteryChannel(),
        model.layout(), model.channels());
    registry.change(reader.person().name(), List.of(new Change.Put(saved)));
    return saved;
  }
}
