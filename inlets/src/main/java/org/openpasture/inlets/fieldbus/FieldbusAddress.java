package org.openpasture.inlets.fieldbus;

import org.openpasture.core.inlet.Source;
import org.openpasture.inlets.bacnet.BacnetAddress;
import org.openpasture.inlets.modbus.ModbusAddress;

/** Addresses of devices that are asked. */
public final class FieldbusAddress {
    private FieldbusAddress() {}

    /**
     * Checks the address of a device that is asked by a source.
     *
     * @throws IllegalArgumentException if it is none, in words
     */
    public static void check(Source.Polled source, String address) {
        switch (source) {
            case Source.ModbusTcp tcp -> ModbusAddress.of(address);
            case Source.ModbusRtuOverTcp rtu -> ModbusAddress.unit(address);
            case Source.ModbusSerial serial -> ModbusAddress.unit(address);
            case Source.BacnetIp bacnet -> BacnetAddress.of(address);
        }
    }

    /** Whether a text is an address there. */
    public static boolean isOne(Source.Polled source, String address) {
        try {
            check(source, address);
            return true;
        } catch (IllegalArgumentException e) {
            return false;
        }
    }
}
