/** The network's side of LoRaWAN at work: joins, answers, commands, downlinks. It knows no request and no page. */
package org.openpasture.engine.radio;
