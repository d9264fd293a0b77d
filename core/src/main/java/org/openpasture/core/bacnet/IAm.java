package org.openpasture.core.bacnet;

/**
 * A controller says that it is there (ASHRAE 135, 16.10).
 *
 * @param device its device object's instance
 * @param longest bytes of an application part that it takes
 * @param vendor its maker's number
 */
public record IAm(int device, int longest, int vendor) {
    /**
     * Reads the content of an announcement.
     *
     * @throws IllegalArgumentException if it is malformed
     */
    public static IAm of(byte[] content) {
        TagReader in = new TagReader(content, 0);
        if (!(in.datum() instanceof Datum.Reference(ObjectId id)) || id.type() != ObjectType.DEVICE.code()) {
            throw new IllegalArgumentException("who says that it is there names no device");
        }
        int longest = small(in.datum());
        in.datum();
        return new IAm(id.instance(), longest, small(in.datum()));
    }

    private static int small(Datum datum) {
        if (!(datum instanceof Datum.Unsigned(long value)) || value > 65_535) {
            throw new IllegalArgumentException("who says that it is there gives no number where one is wanted");
        }
        return (int) value;
    }
}
