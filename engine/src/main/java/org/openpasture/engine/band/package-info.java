/** The band that the radio network works in. It knows no device. */
package org.openpasture.engine.band;
