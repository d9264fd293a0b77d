/** Writers of readings in open formats. It knows no request. */
package org.openpasture.engine.export;
