/** Devices, gateways, models of devices, and what is sent to them. It knows no transport. */
package org.openpasture.core.fleet;
