/** Sites, areas, assets and points. It knows nothing of what is measured there. */
package org.openpasture.core.place;
