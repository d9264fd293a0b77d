/**
 * Declarative descriptions of how channels are read out of bytes, text, JSON, registers and objects. It knows no
 * device.
 */
package org.openpasture.core.layout;
