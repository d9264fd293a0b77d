package org.openpasture.core.bacnet;

/** Asks controllers to say that they are there (ASHRAE 135, 16.10). */
public record WhoIs(int lowest, int highest) {
    /** Whoever is there. */
    public static WhoIs anybody() {
        return new WhoIs(0, ObjectId.HIGHEST);
    }

    public static WhoIs device(int instance) {
        return new WhoIs(instance, instance);
    }

    public Apdu apdu() {
        boolean all = lowest == 0 && highest >= ObjectId.HIGHEST;
        return new Apdu.Unconfirmed(
                Apdu.Announcement.WHO_IS,
                all
                        ? new byte[0]
                        : new TagWriter()
                                .unsigned(0, lowest)
                                .unsigned(1, highest)
                                .bytes());
    }
}
