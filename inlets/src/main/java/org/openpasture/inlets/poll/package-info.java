/** Whose turn it is among devices that are asked. It knows no protocol. */
package org.openpasture.inlets.poll;
