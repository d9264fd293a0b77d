package org.openpasture.inlets.station;

import java.util.List;
import java.util.Map;
import java.util.stream.Stream;
import org.openpasture.core.lorawan.DataRate;
import org.openpasture.core.lorawan.Region;
import tools.jackson.databind.json.JsonMapper;
import tools.jackson.databind.node.ArrayNode;
import tools.jackson.databind.node.ObjectNode;

/** What a station is told when it has said its version: region, data rates, and which channels its radios listen on. */
final class StationConfig {
    private static final JsonMapper MAPPER = JsonMapper.builder().build();
    private static final int DATA_RATES = 16;
    private static final int MOST_CHANNELS = 8;

    private record Band(String name, long lowestHz, long highestHz) {}

    private static final Map<String, Band> BANDS = Map.of(
            "eu868", new Band("EU863", 863_000_000, 870_000_000),
            "us915", new Band("US902", 902_000_000, 928_000_000),
            "au915", new Band("AU915", 915_000_000, 928_000_000),
            "as923-1", new Band("AS923-1", 915_000_000, 928_000_000),
            "in865", new Band("IN865", 865_000_000, 867_000_000));

    private StationConfig() {}

    static ObjectNode of(Region region, int subBand) {
        Band band = BANDS.getOrDefault(region.id(), new Band(region.id(), 400_000_000, 1_000_000_000));
        ObjectNode root = MAPPER.createObjectNode()
                .put("msgtype", "router_config")
                .put("region", band.name())
                .put("hwspec", "sx1301/1");
        root.putNull("NetID").putNull("JoinEui");
        root.putArray("freq_range").add(band.lowestHz()).add(band.highestHz());
        ArrayNode rates = root.putArray("DRs");
        for (int i = 0; i < DATA_RATES; i++) {
            DataRate rate = region.dataRate(i).orElse(null);
            ArrayNode one = rates.addArray();
            if (rate == null) {
                one.add(-1).add(0).add(0);
            } else {
                one.add(rate.spreadingFactor())
                        .add(rate.bandwidthKhz())
                        .add(Boolean.TRUE.equals(rate.downlinkOnly()) ? 1 : 0);
            }
        }
        radios(root.putArray("sx1301_conf").addObject(), channels(region, subBand));
        return root.put("nocca", true).put("nodc", true).put("nodwell", true);
    }

    /** The channels that a gateway of eight listens on, from low to high. */
    static List<Long> channels(Region region, int subBand) {
        List<Long> all = region.channelsHz();
        Stream<Long> chosen = region.isFixed()
                ? region.channelsOfSubBand(Math.max(1, subBand)).stream()
                        .limit(MOST_CHANNELS)
                        .map(all::get)
                : Stream.concat(all.stream(), region.extraChannelsHz().stream());
        return chosen.limit(MOST_CHANNELS).sorted().toList();
    }

    /** Two radios, each in the middle of its half of the channels. */
    private static void radios(ObjectNode board, List<Long> channels) {
        int half = (channels.size() + 1) / 2;
        long[] centre = {
            middle(channels.subList(0, half)),
            middle(channels.subList(Math.min(half, channels.size() - 1), channels.size()))
        };
        for (int radio = 0; radio < 2; radio++) {
            board.putObject("radio_" + radio).put("enable", true).put("freq", centre[radio]);
        }
        for (int i = 0; i < channels.size(); i++) {
            int radio = i < half ? 0 : 1;
            board.putObject("chan_multiSF_" + i)
                    .put("enable", true)
                    .put("radio", radio)
                    .put("if", channels.get(i) - centre[radio]);
        }
    }

    private static long middle(List<Long> channels) {
        return (channels.getFirst() + channels.getLast()) / 2;
    }
}
