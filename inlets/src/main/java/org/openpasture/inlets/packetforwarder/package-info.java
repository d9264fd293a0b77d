/** Gateways that speak the UDP packet-forwarder protocol. It knows no device. */
package org.openpasture.inlets.packetforwarder;
