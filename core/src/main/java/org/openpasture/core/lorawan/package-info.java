/** The network layer of LoRaWAN: frames, keys, sessions, MAC commands, regions. It knows no gateway, clock or disk. */
package org.openpasture.core.lorawan;
