package org.openpasture.service.fleet;

import java.util.ArrayList;
import java.util.List;
import org.openpasture.core.fleet.DeviceModel;
import org.openpasture.store.setting.SettingStore;
import org.springframework.stereotype.Component;

/** What device models were before they were changed. Safe for any thread. */
@Component
public class ModelVersions {
    private final SettingStore settings;

    ModelVersions(SettingStore settings) {
        this.settings = settings;
    }

    /** Keeps a model as it was before a change. */
    public void keep(DeviceModel before) {
        settings.save(name(before.id(), number(before)), before);
    }

    /** What a model was before, the newest first. */
    List<DeviceModel> before(DeviceModel now, int most) {
        List<DeviceModel> found = new ArrayList<>();
        for (int number = number(now) - 1; number > 0 && found.size() < most; number--) {
            settings.find(name(now.id(), number), DeviceModel.class).ifPresent(found::add);
        }
        return found;
    }

    private static int number(DeviceModel model) {
        return model.version() == null ? 1 : model.version();
    }

    private static String name(String id, int number) {
        return "model/" + id + "/" + number;
    }
}
