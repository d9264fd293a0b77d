/** Packets of BACnet/IP (ASHRAE 135), read and written. It knows no socket. */
package org.openpasture.core.bacnet;
