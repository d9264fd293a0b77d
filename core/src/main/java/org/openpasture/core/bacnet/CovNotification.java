package org.openpasture.core.bacnet;

import java.util.ArrayList;
import java.util.List;

/**
 * A controller tells that an object changed (ASHRAE 135, 13.1), confirmed or not.
 *
 * @param process the number given with the subscription
 * @param device the instance of the controller's device object
 */
public record CovNotification(int process, int device, ObjectId object, List<ReadProperties.Found> values) {
    public CovNotification {
        values = List.copyOf(values);
    }

    /**
     * Reads the content of a notification.
     *
     * @throws IllegalArgumentException if it is malformed
     */
    public static CovNotification of(byte[] content) {
        TagReader in = new TagReader(content, 0);
        int process = (int) in.unsigned(0);
        ObjectId device = in.object(1);
        ObjectId object = in.object(2);
        in.unsigned(3);
        in.open(4);
        List<ReadProperties.Found> values = new ArrayList<>();
        while (!in.isClosing(4)) {
            int property = (int) in.unsigned(0);
            in.skip(1);
            in.open(2);
            values.add(new ReadProperties.Found(object, property, in.dataUntilClosing(2), null));
            in.skip(3);
        }
        in.close(4);
        return new CovNotification(process, device.instance(), object, values);
    }
}
