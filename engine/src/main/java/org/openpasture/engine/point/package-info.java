/** How points are shown with their newest reading. It changes nothing. */
package org.openpasture.engine.point;
