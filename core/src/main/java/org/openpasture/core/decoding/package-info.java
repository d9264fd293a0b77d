/** From what a device's model reads to readings of points. It knows no script: decoders hand over their values. */
package org.openpasture.core.decoding;
