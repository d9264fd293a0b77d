/** Readers of readings in open formats. It knows no request; who brings them is told by an access. */
package org.openpasture.engine.importing;
