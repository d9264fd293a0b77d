package org.openpasture.core.bacnet;

/** Why a controller did not do something, in words (ASHRAE 135, clause 18). */
final class Refusal {
    private Refusal() {}

    /** An error: its class and code, with application tags; some services wrap them. */
    static String error(TagReader in) {
        boolean wrapped = in.isOpening(0);
        if (wrapped) {
            in.open(0);
        }
        long kind = number(in.datum());
        long code = number(in.datum());
        return switch ((int) code) {
            case 9 -> "the type of the value is not the one it takes";
            case 31 -> "it has no such object";
            case 32 -> "the object has no such property";
            case 37 -> "the value is out of its range";
            case 40 -> "it cannot be written";
            case 42 -> "the list has no such entry";
            case 43 -> "it cannot tell of changes of this object";
            case 44 -> "it cannot tell of changes of this property";
            case 45 -> "it cannot take another subscriber for changes";
            case 50 -> "the property is no list";
            case 29, 30 -> "it does not allow that";
            case 19 -> "it has no room left for that";
            case 3, 25 -> "it is busy or not yet set up";
            default -> "it refuses with error class " + kind + ", code " + code;
        };
    }

    private static long number(Datum datum) {
        if (datum.number().isEmpty()) {
            throw new IllegalArgumentException("an error consists of two numbers");
        }
        return (long) datum.number().getAsDouble();
    }

    static String reject(int reason) {
        return switch (reason) {
            case 1 -> "it has no room for the request";
            case 3, 4, 5, 7, 8 -> "it does not understand the request";
            case 6 -> "a parameter is out of its range";
            case 9 -> "it does not know this service";
            default -> "it rejects the request with reason " + reason;
        };
    }

    static String abort(int reason) {
        return switch (reason) {
            case 1, 11 -> "the answer does not fit into one packet";
            case 4 -> "the answer is segmented, which is not supported";
            case 9 -> "it has no room for the request";
            case 10 -> "it ran out of time";
            default -> "it breaks off with reason " + reason;
        };
    }
}
