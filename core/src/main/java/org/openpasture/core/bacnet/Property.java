package org.openpasture.core.bacnet;

/** Numbers of the properties that are used here (ASHRAE 135, clause 21, BACnetPropertyIdentifier). */
public final class Property {
    public static final int DESCRIPTION = 28;
    public static final int LOG_BUFFER = 131;
    public static final int LOG_DEVICE_OBJECT_PROPERTY = 132;
    public static final int MODEL_NAME = 70;
    public static final int OBJECT_LIST = 76;
    public static final int OBJECT_NAME = 77;
    public static final int PRESENT_VALUE = 85;
    public static final int STATUS_FLAGS = 111;
    public static final int UNITS = 117;
    public static final int VENDOR_NAME = 121;

    private Property() {}
}
