/** Gateways that speak the WebSocket station protocol. It knows no device. */
package org.openpasture.inlets.station;
