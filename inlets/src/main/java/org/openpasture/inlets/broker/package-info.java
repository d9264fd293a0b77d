/** The MQTT broker inside. It knows no inlet: who may do what is asked of a guard. */
package org.openpasture.inlets.broker;
