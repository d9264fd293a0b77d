package org.openpasture.simulator.demo;

import java.io.IOException;
import java.time.Clock;
import java.util.List;
import org.openpasture.simulator.building.SimulatedController;
import org.openpasture.simulator.building.SimulatedController.Thing;

/** The controller of the calf barn at the farm, and one in the parlour that nobody has brought in yet. */
final class DemoBarn implements AutoCloseable {
    static final int BARN = 2_101;
    private static final int PARLOUR = 2_102;
    private static final int CELSIUS = 62;
    private static final int HUMIDITY = 29;
    private static final int PPM = 96;
    private static final int PERCENT = 98;
    private final SimulatedController barn;
    private final SimulatedController parlour;

    DemoBarn(DemoWorld world, Clock clock) throws IOException {
        barn = new SimulatedController(
                0,
                BARN,
                "Calf barn",
                DemoWorld.ZONE,
                List.of(
                        new Thing(0, 1, "Barn temperature", CELSIUS, 0.3, world::barnTemperature),
                        new Thing(0, 2, "Barn humidity", HUMIDITY, 2, world::barnHumidity),
                        new Thing(0, 3, "Ammonia", PPM, 1, time -> world.barnAmmonia(time, ventilation())),
                        new Thing(1, 1, "Ventilation", PERCENT, 1, time -> 35),
                        new Thing(4, 1, "Curtain", -1, 1, time -> world.airTemperature(time) > 8 ? 1 : 0)),
                clock);
        parlour = new SimulatedController(
                0,
                PARLOUR,
                "Milking parlour",
                DemoWorld.ZONE,
                List.of(
                        new Thing(0, 1, "Parlour temperature", CELSIUS, 0.3, world::barnTemperature),
                        new Thing(0, 2, "Wash water", CELSIUS, 1, time -> 58 + world.airTemperature(time) / 10)),
                clock);
    }

    /** Until somebody sets it otherwise it runs at 35 %. */
    private double ventilation() {
        return barn.written(1, 1).orElse(35.0);
    }

    /** Where it is asked who is there. */
    List<String> lookAt() {
        return List.of("127.0.0.1:" + barn.port(), "127.0.0.1:" + parlour.port());
    }

    @Override
    public void close() {
        barn.close();
        parlour.close();
    }
}
