package org.openpasture.core.bacnet;

/**
 * Wants to be told when the present value of an object changes (ASHRAE 135, 13.14), without confirming each time.
 *
 * @param process a number of ours that comes back with each notification
 * @param lifetimeSeconds after which it ends if it is not renewed
 */
public record SubscribeCov(int process, ObjectId object, int lifetimeSeconds) {
    public Apdu apdu(int invokeId) {
        return new Apdu.Confirmed(
                invokeId,
                Apdu.Service.SUBSCRIBE_COV,
                new TagWriter()
                        .unsigned(0, process)
                        .object(1, object)
                        .truth(2, false)
                        .unsigned(3, lifetimeSeconds)
                        .bytes());
    }
}
