package org.openpasture.engine.radio;

import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
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

    /** All that may have to be said. */
    record Wishes(
            boolean acknowledges,
            boolean sign,
            MacLayer.Turn answers,
            MacLayer.Turn asks,
            boolean adaptive,
            Optional<Command> command,
            boolean more) {}

    /**
     * The answer, if anything has to be said. What does not fit at this data rate is left for another time: first
     * questions, then the command.
     */
    static Optional<Answer> to(Session session, Region region, DataRate uplink, long uplinkHz, Wishes wishes) {
        MacState.Windows windows = wishes.answers().state().windows();
        DataRate first = region.rx1(uplink, windows.rx1Offset());
        DataRate second = region.dataRate(windows.rx2DataRate()).orElseGet(region::rx2);
        int room = first.maxPayload(region.uplinkDwellTime());
        int answers = MacCommand.toBytes(wishes.answers().commands()).length;
        Command command = wishes.command()
                .filter(one -> one.payload().length + answers <= room)
                .orElse(null);
        int payload = command == null ? 0 : command.payload().length;
        List<MacCommand.ToDevice> said = new ArrayList<>(wishes.answers().commands());
        boolean asks = false;
        int asked = MacCommand.toBytes(wishes.asks().commands()).length;
        if (asked > 0 && answers + asked <= Downlink.MOST_OPTIONS && payload + answers + asked <= room) {
            said.addAll(wishes.asks().commands());
            asks = true;
        }
        if (said.isEmpty() && command == null && !wishes.acknowledges() && !wishes.sign()) {
            return Optional.empty();
        }
        byte[] options = MacCommand.toBytes(said);
        Downlink downlink = Downlink.of(
                session,
                new Downlink.Content(
                        command != null && command.confirmed(),
                        wishes.acknowledges(),
                        wishes.adaptive(),
                        command == null ? wishes.command().isPresent() : wishes.more(),
                        options,
                        command == null ? -1 : command.port(),
                        command == null ? new byte[0] : command.payload()));
        return Optional.of(new Answer(
                downlink,
                windows(
                        region,
                        windows.rx1DelaySeconds(),
                        uplinkHz,
                        first,
                        windows.rx2FrequencyHz(),
                        second,
                        payload + options.length),
                asks ? wishes.asks().state() : wishes.answers().state(),
                command));
    }

    /** The two windows after an uplink; the second only if what is said is not too long for its data rate. */
    static List<Order.Window> windows(
            Region region, int delaySeconds, long uplinkHz, DataRate first, long rx2Hz, DataRate second, int length) {
        long rx1Hz = region.rx1FrequencyHz(uplinkHz);
        Order.Window rx1 = new Order.Window("RX1", delaySeconds, rx1Hz, first, region.powerDbm(rx1Hz));
        return length > second.maxPayload(region.uplinkDwellTime())
                ? List.of(rx1)
                : List.of(rx1, new Order.Window("RX2", delaySeconds + 1, rx2Hz, second, region.powerDbm(rx2Hz)));
    }
}
