/** Passes on what outlets want. It knows no inlet. */
package org.openpasture.engine.outlet;
