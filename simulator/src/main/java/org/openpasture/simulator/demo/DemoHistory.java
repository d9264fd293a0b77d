package org.openpasture.simulator.demo;

import java.io.ByteArrayInputStream;
import java.nio.charset.StandardCharsets;
import java.time.Duration;
import java.time.Instant;
import java.time.temporal.ChronoUnit;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.function.Function;
import org.jspecify.annotations.Nullable;
import org.openpasture.client.http.ApiClient;
import tools.jackson.databind.JsonNode;

/** Sixty days of back-history, brought in by the public import. */
final class DemoHistory {
    private static final Duration LENGTH = Duration.ofDays(60);
    private static final Duration STEP = Duration.ofMinutes(10);
    /** The gateway in the cellar was unplugged for a night, so there is a gap to be seen. */
    private static final Duration GAP_BEGAN = Duration.ofDays(9);

    private static final Duration GAP_LASTED = Duration.ofHours(14);

    private DemoHistory() {}

    /** Imports the history and returns how many readings it has. */
    static int bringIn(
            ApiClient api, DemoWorld world, CountryWorld country, Map<String, Integer> numbers, Instant start) {
        Map<String, Function<Instant, @Nullable Double>> sources = new LinkedHashMap<>();
        sources.put("pump-axial", time -> world.pump("axial", time));
        sources.put("pump-horizontal", time -> world.pump("horizontal", time));
        sources.put("pump-vertical", time -> world.pump("vertical", time));
        sources.put("pump-temperature", world::pumpTemperature);
        for (int silo = 1; silo <= 3; silo++) {
            int number = silo;
            sources.put("silo" + silo + "-level", time -> world.siloLevel(number, time));
            sources.put("silo" + silo + "-temperature", time -> world.siloTemperature(number, time));
        }
        for (int cellar = 1; cellar <= 3; cellar++) {
            int number = cellar;
            String name = cellar == 1 ? "cellar" : "cellar" + cellar;
            sources.put(name + "-temperature", time -> world.cellarTemperature(number, time));
            sources.put(name + "-humidity", time -> world.cellarHumidity(number, time));
            sources.put(name + "-co2", time -> world.cellarCarbonDioxide(number, time));
            sources.put(name + "-ammonia", time -> world.cellarAmmonia(number, time));
        }
        for (String direction : List.of("axial", "horizontal", "vertical")) {
            sources.put("ice-" + direction, time -> world.compressor(direction, time));
            sources.put("vacuum-" + direction, time -> country.vacuumPump(direction, time));
            sources.put("turbine-" + direction, time -> country.turbine(direction, time));
        }
        sources.put("ice-discharge", world::compressorDischarge);
        sources.put("ice-oil", world::oilPressure);
        sources.put("boiler-co", world::boilerCarbonMonoxide);
        sources.put("whey-surface", world::wheySurface);
        sources.put("whey-boundary", world::wheyBoundary);
        sources.put("plant-power", world::plantPower);
        sources.put("plant-voltage", world::mainsVoltage);
        sources.put("plant-energy", world::plantEnergy);
        sources.put("farm-air", world::airTemperature);
        sources.put("farm-pressure", world::airPressure);
        sources.put("farm-wind", world::wind);
        sources.put("farm-rain", world::rainToday);
        for (int stack = 0; stack < Farm.BEACONS.length; stack++) {
            int number = stack;
            sources.put("hay-" + stack, time -> world.hayTemperature(number, time));
        }

        sources.put("barn-temperature", world::barnTemperature);
        sources.put("barn-humidity", world::barnHumidity);
        sources.put("barn-ammonia", time -> world.barnAmmonia(time, 35));
        sources.put("cold-temperature", world::coldStore);

        country(country, start, sources);

        StringBuilder csv = new StringBuilder("time,point,value\n");
        Instant first = start.minus(LENGTH).truncatedTo(ChronoUnit.MINUTES);
        Instant gapFrom = start.minus(GAP_BEGAN);
        for (Instant time = first; time.isBefore(start.minus(STEP)); time = time.plus(STEP)) {
            boolean gap = !time.isBefore(gapFrom) && time.isBefore(gapFrom.plus(GAP_LASTED));
            for (Map.Entry<String, Function<Instant, Double>> source : sources.entrySet()) {
                Double value = source.getValue().apply(time);
                if (value != null && (!gap || !source.getKey().startsWith("cellar"))) {
                    csv.append(time)
                            .append(',')
                            .append(numbers.get(source.getKey()))
                            .append(',')
                            .append(String.format(Locale.ROOT, "%.2f", value))
                            .append('\n');
                }
            }
        }
        JsonNode report = api.postCsv(
                "api/v1/readings/import",
                new ByteArrayInputStream(csv.toString().getBytes(StandardCharsets.UTF_8)));
        return report.path("accepted").asInt();
    }

    /** What the farm and the spring measured; the sensor at the overflow fell silent days ago. */
    private static void country(
            CountryWorld world, Instant start, Map<String, Function<Instant, @Nullable Double>> sources) {
        Instant silent = start.minus(CountryWorld.OVERFLOW_SILENT);
        sources.put("vacuum-temperature", world::vacuumPumpTemperature);
        sources.put("bulk-milk", world::bulkMilk);
        sources.put("bulk-compressor", time -> world.isMilkCooled(time) ? 1.0 : 0.0);
        sources.put("slurry", world::slurry);
        sources.put("feed", world::feed);
        sources.put("trough", world::trough);
        for (int depth : new int[] {20, 40, 60}) {
            sources.put("soil-" + depth, time -> world.soil(depth, time));
        }
        sources.put("soil-temperature", world::soilTemperature);
        sources.put("intake", world::intake);
        sources.put("reservoir", world::reservoir);
        sources.put("overflow", time -> time.isBefore(silent) ? world.overflow(time) : null);
        sources.put("turbine-temperature", world::turbineTemperature);
        sources.put("turbine-voltage", world::turbineVoltage);
        sources.put("turbine-frequency", world::turbineFrequency);
        sources.put("bank-voltage", world::bankVoltage);
        sources.put("bank-current", world::bankCurrent);
    }
}
