/** Brokers elsewhere. It knows nothing of what is in a message. */
package org.openpasture.inlets.mqtt;
