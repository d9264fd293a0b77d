package org.openpasture.engine.radio;

import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import java.util.function.IntFunction;
import org.jspecify.annotations.Nullable;
import org.openpasture.core.fleet.Command;
import org.openpasture.core.lorawan.DataRate;
import org.openpasture.core.lorawan.Downlink;
import org.openpasture.core.lorawan.MacCommand;
import org.openpasture.core.lorawan.MacLayer;
import org.openpasture.core.lorawan.MacState;
import org.openpasture.core.lorawan.Region;
import org.openpasture.core.lorawan.Session;
import org.openpasture.inlets.gateway.Order;

/**
 * What goes back to a device after an uplink, and when it listens for it.
 *
 * @param mac the state after it
 * @param command that it carries; null for none
 */
record Answer(
        Downlink downlink,
        List<Order.Window> windows,
        MacState mac,
        @Nullable Command command) {

    /**
     * All that may have to be said.
     *
     * @param answers to what the device asked; these go first
     * @param asks what the network wants to know, if so many bytes are left for it
     */
    record Wishes(
            boolean acknowledges,
            boolean sign,
            MacLayer.Turn answers,
            IntFunction<MacLayer.Turn> asks,
            boolean adaptive,
            Optional<Command> command,
            boolean more) {}

    /**
     * The answer, if anything has to be said. Answers to the device's own questions go first: in the options, or where
     * they are more than those hold, on port 0 in the payload; what does not fit there is left out, and the device asks
     * again. A command that does not fit at this data rate, or would have to share the payload, waits, as do questions.
     */
    static Optional<Answer> to(
            Session session, Region region, DataRate uplink, long uplinkHz, boolean downlinkDwell, Wishes wishes) {
        MacState.Windows windows = wishes.answers().state().windows();
        DataRate first = region.rx1(uplink, windows.rx1Offset(), downlinkDwell);
        DataRate second = region.dataRate(windows.rx2DataRate()).orElseGet(region::rx2);
        int room = first.maxPayload(downlinkDwell);
        List<MacCommand.ToDevice> said = fitting(wishes.answers().commands(), room);
        int answers = MacCommand.toBytes(said).length;
        boolean inPayload = answers > Downlink.MOST_OPTIONS;
        Command command = wishes.command()
                .filter(one -> !inPayload && one.payload().length + answers <= room)
                .orElse(null);
        int payload = command == null ? 0 : command.payload().length;
        int left = Math.min(room - payload - answers, inPayload ? room : Downlink.MOST_OPTIONS - answers);
        MacLayer.Turn asks = wishes.asks().apply(Math.max(0, left));
        said.addAll(asks.commands());
        if (said.isEmpty() && command == null && !wishes.acknowledges() && !wishes.sign()) {
            return Optional.empty();
        }
        byte[] spoken = MacCommand.toBytes(said);
        byte[] nothing = new byte[0];
        Downlink downlink = Downlink.of(
                session,
                new Downlink.Content(
                        command != null && command.confirmed(),
                        wishes.acknowledges(),
                        wishes.adaptive(),
                        command == null ? wishes.command().isPresent() : wishes.more(),
                        inPayload ? nothing : spoken,
                        inPayload ? 0 : command == null ? -1 : command.port(),
                        inPayload ? spoken : command == null ? nothing : command.payload()));
        return Optional.of(new Answer(
                downlink,
                windows(
                        region,
                        windows.rx1DelaySeconds(),
                        wishes.answers().state().downlinksHz().getOrDefault(uplinkHz, region.rx1FrequencyHz(uplinkHz)),
                        first,
                        windows.rx2FrequencyHz(),
                        second,
                        downlinkDwell,
                        payload + spoken.length),
                asks.state(),
                command));
    }

    /** How many bytes a command may have that goes back after an uplink of a data rate. */
    static int room(Region region, DataRate uplink, MacState state, boolean downlinkDwell) {
        return region.rx1(uplink, state.windows().rx1Offset(), downlinkDwell).maxPayload(downlinkDwell);
    }

    private static List<MacCommand.ToDevice> fitting(List<MacCommand.ToDevice> commands, int room) {
        List<MacCommand.ToDevice> fitting = new ArrayList<>();
        int length = 0;
        for (MacCommand.ToDevice command : commands) {
            length += command.bytes().length;
            if (length > room) {
                break;
            }
            fitting.add(command);
        }
        return fitting;
    }

    /** The two windows after an uplink; the second only if what is said is not too long for its data rate. */
    static List<Order.Window> windows(
            Region region,
            int delaySeconds,
            long rx1Hz,
            DataRate first,
            long rx2Hz,
            DataRate second,
            boolean downlinkDwell,
            int length) {
        Order.Window rx1 = new Order.Window("RX1", delaySeconds, rx1Hz, first, region.powerDbm(rx1Hz));
        return length > second.maxPayload(downlinkDwell)
                ? List.of(rx1)
                : List.of(rx1, new Order.Window("RX2", delaySeconds + 1, rx2Hz, second, region.powerDbm(rx2Hz)));
    }
}
