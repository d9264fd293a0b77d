/** Ways of things that move. It knows no map. */
package org.openpasture.core.geo;
