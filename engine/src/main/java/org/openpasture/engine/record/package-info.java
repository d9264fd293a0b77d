/** Erases what is too old and writes the files of the day. It knows no reading by itself. */
package org.openpasture.engine.record;
