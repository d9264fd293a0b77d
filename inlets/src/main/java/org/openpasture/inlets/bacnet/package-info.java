/** The client side of BACnet/IP. It knows no device of ours beyond its address and objects. */
package org.openpasture.inlets.bacnet;
