/** The client side of Modbus, by TCP and by line. It knows no model of a device beyond its registers. */
package org.openpasture.inlets.modbus;
