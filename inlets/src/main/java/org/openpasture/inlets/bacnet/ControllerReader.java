package org.openpasture.inlets.bacnet;

import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.concurrent.ConcurrentHashMap;
import java.util.stream.Stream;
import org.openpasture.core.bacnet.Controller;
import org.openpasture.core.bacnet.Datum;
import org.openpasture.core.bacnet.ObjectId;
import org.openpasture.core.bacnet.ObjectType;
import org.openpasture.core.bacnet.Property;
import org.openpasture.core.bacnet.ReadProperties;
import org.openpasture.core.bacnet.ReadProperty;

/**
 * Reads properties of controllers, many at once where they can do that. What does not fit into one answer is asked for
 * in smaller pieces; a controller that knows only how to read one property at a time is remembered. Any thread may use
 * it.
 */
final class ControllerReader {
    private static final int MOST_OBJECTS = 500;
    private static final int MOST_AT_ONCE = 60;
    private final BacnetPort port;
    private final Map<BacnetPort.Station, Integer> atOnce = new ConcurrentHashMap<>();

    ControllerReader(BacnetPort port) {
        this.port = port;
    }

    /** Reads all that is wanted; what a controller refuses is said with each. */
    List<ReadProperties.Found> read(BacnetPort.Station station, List<ReadProperties.Wanted> wanted)
            throws BacnetPort.NoAnswer, InterruptedException {
        List<ReadProperties.Found> found = new ArrayList<>();
        for (int from = 0; from < wanted.size(); ) {
            int most = atOnce.getOrDefault(station, MOST_AT_ONCE);
            List<ReadProperties.Wanted> piece = wanted.subList(from, Math.min(wanted.size(), from + most));
            try {
                found.addAll(
                        most == 1
                                ? List.of(one(station, piece.getFirst()))
                                : ReadProperties.answer(port.ask(station, new ReadProperties(piece)::apdu)));
                from += piece.size();
            } catch (BacnetPort.NoAnswer e) {
                if (!e.refused || most == 1) {
                    throw e;
                }
                // Whatever the reason, less at a time is what may help; one at a time is the service that every
                // controller has.
                atOnce.put(station, most <= 4 ? 1 : most / 4);
            } catch (IllegalArgumentException e) {
                throw new BacnetPort.NoAnswer("its answer cannot be read: " + e.getMessage(), true);
            }
        }
        return found;
    }

    private ReadProperties.Found one(BacnetPort.Station station, ReadProperties.Wanted wanted)
            throws BacnetPort.NoAnswer, InterruptedException {
        try {
            return new ReadProperties.Found(
                    wanted.object(),
                    wanted.property(),
                    ReadProperty.answer(
                            port.ask(station, new ReadProperty(wanted.object(), wanted.property(), null)::apdu)),
                    null);
        } catch (BacnetPort.NoAnswer e) {
            if (!e.refused) {
                throw e;
            }
            return new ReadProperties.Found(
                    wanted.object(), wanted.property(), List.of(), String.valueOf(e.getMessage()));
        }
    }

    /** What a controller says of itself and its objects. */
    Controller describe(BacnetPort.Station station, int device) throws BacnetPort.NoAnswer, InterruptedException {
        ObjectId self = ObjectId.device(device);
        Map<Integer, String> texts = new HashMap<>();
        read(
                        station,
                        List.of(
                                new ReadProperties.Wanted(self, Property.OBJECT_NAME),
                                new ReadProperties.Wanted(self, Property.VENDOR_NAME),
                                new ReadProperties.Wanted(self, Property.MODEL_NAME)))
                .forEach(found -> texts.put(found.property(), found.text()));
        List<ObjectId> objects = objects(station, self).stream()
                .filter(id -> id.usualType().filter(ObjectType::hasNumber).isPresent())
                .limit(MOST_OBJECTS)
                .toList();
        Map<ObjectId, Map<Integer, ReadProperties.Found>> read = new HashMap<>();
        read(
                        station,
                        objects.stream()
                                .flatMap(id -> Stream.of(Property.OBJECT_NAME, Property.UNITS, Property.PRESENT_VALUE)
                                        .map(property -> new ReadProperties.Wanted(id, property)))
                                .toList())
                .forEach(found -> read.computeIfAbsent(found.object(), id -> new HashMap<>())
                        .put(found.property(), found));
        List<Controller.Holds> holds = objects.stream()
                .map(id -> {
                    Map<Integer, ReadProperties.Found> of = read.getOrDefault(id, Map.of());
                    ReadProperties.Found none = new ReadProperties.Found(id, 0, List.of(), null);
                    return new Controller.Holds(
                            id,
                            of.getOrDefault(Property.OBJECT_NAME, none).text(),
                            of.getOrDefault(Property.UNITS, none)
                                    .number()
                                    .map(Double::intValue)
                                    .orElse(null),
                            of.getOrDefault(Property.PRESENT_VALUE, none)
                                    .number()
                                    .orElse(null));
                })
                .toList();
        return new Controller(
                device,
                texts.getOrDefault(Property.OBJECT_NAME, ""),
                texts.getOrDefault(Property.VENDOR_NAME, ""),
                texts.getOrDefault(Property.MODEL_NAME, ""),
                holds);
    }

    /** The list of all objects; one by one where it does not fit into an answer. */
    private List<ObjectId> objects(BacnetPort.Station station, ObjectId self)
            throws BacnetPort.NoAnswer, InterruptedException {
        try {
            return references(
                    ReadProperty.answer(port.ask(station, new ReadProperty(self, Property.OBJECT_LIST, null)::apdu)));
        } catch (BacnetPort.NoAnswer e) {
            if (!e.refused) {
                throw e;
            }
            List<ObjectId> objects = new ArrayList<>();
            long count = Math.min(
                    4L * MOST_OBJECTS,
                    ReadProperty.answer(port.ask(station, new ReadProperty(self, Property.OBJECT_LIST, 0)::apdu))
                            .stream()
                            .flatMap(datum -> datum.number().stream().boxed())
                            .findFirst()
                            .orElse(0.0)
                            .longValue());
            for (int i = 1; i <= count; i++) {
                objects.addAll(references(
                        ReadProperty.answer(port.ask(station, new ReadProperty(self, Property.OBJECT_LIST, i)::apdu))));
            }
            return objects;
        }
    }

    private static List<ObjectId> references(List<Datum> data) {
        return data.stream()
                .filter(Datum.Reference.class::isInstance)
                .map(datum -> ((Datum.Reference) datum).value())
                .toList();
    }
}
