package org.openpasture.api.radio;

import java.util.List;
import org.openpasture.api.problem.Require;

/** One value of a setting for several devices. */
public record SettingForMany(List<String> deviceIds, String setting, double value) {
    public SettingForMany {
        deviceIds = Require.present(deviceIds, "the devices");
        setting = Require.text(setting, "the setting", 80);
    }
}
