package org.openpasture.core.bacnet;

import java.util.Optional;
import org.openpasture.core.entity.Ids;

/** The types of objects that are met in controllers (ASHRAE 135, clause 21, BACnetObjectType), by their names there. */
public enum ObjectType {
    ANALOG_INPUT(0, "analog-input"),
    ANALOG_OUTPUT(1, "analog-output"),
    ANALOG_VALUE(2, "analog-value"),
    BINARY_INPUT(3, "binary-input"),
    BINARY_OUTPUT(4, "binary-output"),
    BINARY_VALUE(5, "binary-value"),
    DEVICE(8, "device"),
    LOOP(12, "loop"),
    MULTI_STATE_INPUT(13, "multi-state-input"),
    MULTI_STATE_OUTPUT(14, "multi-state-output"),
    MULTI_STATE_VALUE(19, "multi-state-value"),
    TREND_LOG(20, "trend-log"),
    ACCUMULATOR(23, "accumulator"),
    PULSE_CONVERTER(24, "pulse-converter"),
    INTEGER_VALUE(45, "integer-value"),
    LARGE_ANALOG_VALUE(46, "large-analog-value"),
    POSITIVE_INTEGER_VALUE(48, "positive-integer-value");

    private final int code;
    private final String id;

    ObjectType(int code, String id) {
        this.code = code;
        this.id = id;
    }

    public int code() {
        return code;
    }

    /** The standard's name for it. */
    public String id() {
        return id;
    }

    static Optional<ObjectType> ofCode(int code) {
        return Ids.find(values(), one -> one.code, code);
    }

    static Optional<ObjectType> ofId(String id) {
        return Ids.find(values(), ObjectType::id, id);
    }

    /** Whether its present value is a number that can be followed. */
    public boolean hasNumber() {
        return this != DEVICE && this != TREND_LOG;
    }

    /** Whether its present value is on or off. */
    public boolean isBinary() {
        return this == BINARY_INPUT || this == BINARY_OUTPUT || this == BINARY_VALUE;
    }
}
