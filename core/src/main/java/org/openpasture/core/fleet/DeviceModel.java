package org.openpasture.core.fleet;

import com.fasterxml.jackson.annotation.JsonIgnoreProperties;
import java.util.List;
import java.util.Optional;
import org.jspecify.annotations.Nullable;
import org.openpasture.core.entity.Shareable;
import org.openpasture.core.layout.Layout;
import org.openpasture.core.lorawan.LorawanVersion;

/**
 * A kind of device: how its frames are read and what its channels mean. What is set here holds for all its devices.
 *
 * @param intervalSeconds how often such a device usually reports
 * @param batteryChannel the channel that holds the battery voltage; null if mains powered
 * @param script a payload codec by LoRa Alliance TS013, which takes the layout's place; null for none
 * @param listensAlways whether it can be reached at any time (class C), not only after it has sent; null for no
 * @param power what it runs on; null if nothing is known
 * @param settings what can be changed in it from here; null for nothing
 * @param labelProfile vendor and profile of its labels' codes, eight hex digits, so that a scan finds the model; null
 *     if not known
 * @param version counted from 1, one more with each change; null for the first
 * @param configurationMode null if it has none
 * @param lorawan version of the link layer that it speaks; null if that is not known, or for what is no LoRaWAN device
 * @param siteId the site that it belongs to; null if all sites share it
 */
@JsonIgnoreProperties({"alwaysListening"})
public record DeviceModel(
        String id,
        String name,
        String description,
        int intervalSeconds,
        @Nullable String batteryChannel,
        Layout layout,
        List<Channel> channels,
        @Nullable String script,
        @Nullable Boolean listensAlways,
        @Nullable Power power,
        @Nullable List<DeviceSetting> settings,
        @Nullable String labelProfile,
        @Nullable Integer version,
        @Nullable ConfigurationMode configurationMode,
        @Nullable LorawanVersion lorawan,
        @Nullable String siteId)
        implements Shareable {
    private static final int LONGEST_SCRIPT = 200_000;

    public DeviceModel {
        description = description == null ? "" : description;
        channels = List.copyOf(channels);
        settings = settings == null ? List.of() : List.copyOf(settings);
        if (intervalSeconds < 1) {
            throw new IllegalArgumentException("the usual interval is at least one second");
        }
        if (labelProfile != null && !labelProfile.matches("[0-9A-Fa-f]{8}")) {
            throw new IllegalArgumentException(
                    "the profile of labels has eight hex digits, not '" + labelProfile + "'");
        }
        if (script != null && script.length() > LONGEST_SCRIPT) {
            throw new IllegalArgumentException("the script is longer than " + LONGEST_SCRIPT + " characters");
        }
    }

    /** A model that is read by a layout, listens only after it has sent, and has no settings. */
    public static DeviceModel of(
            String id,
            String name,
            int intervalSeconds,
            @Nullable String batteryChannel,
            Layout layout,
            List<Channel> channels) {
        return new DeviceModel(
                id,
                name,
                "",
                intervalSeconds,
                batteryChannel,
                layout,
                channels,
                null,
                null,
                null,
                null,
                null,
                null,
                null,
                null,
                null);
    }

    /** The same under an id, as a version, for a site or, with null, for all of them. */
    public DeviceModel as(String otherId, int number, @Nullable String site) {
        return new DeviceModel(
                otherId,
                name,
                description,
                intervalSeconds,
                batteryChannel,
                layout,
                channels,
                script,
                listensAlways,
                power,
                settings,
                labelProfile,
                number,
                configurationMode,
                lorawan,
                site);
    }

    /** The same, with its frames read by another layout or script. */
    public DeviceModel readBy(Layout otherLayout, @Nullable String otherScript) {
        return new DeviceModel(
                id,
                name,
                description,
                intervalSeconds,
                batteryChannel,
                otherLayout,
                channels,
                otherScript,
                listensAlways,
                power,
                settings,
                labelProfile,
                version,
                configurationMode,
                lorawan,
                siteId);
    }

    public Optional<Channel> channel(String channelName) {
        return channels.stream()
                .filter(channel -> channel.name().equals(channelName))
                .findFirst();
    }

    public Optional<DeviceSetting> setting(String settingName) {
        return settings == null
                ? Optional.empty()
                : settings.stream()
                        .filter(setting -> setting.name().equals(settingName))
                        .findFirst();
    }

    /** Whether it can be reached at any time. */
    public boolean isAlwaysListening() {
        return Boolean.TRUE.equals(listensAlways);
    }
}
