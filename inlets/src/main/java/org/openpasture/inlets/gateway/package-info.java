/** What all gateway ports have in common. It knows no LoRaWAN beyond bytes. */
package org.openpasture.inlets.gateway;
