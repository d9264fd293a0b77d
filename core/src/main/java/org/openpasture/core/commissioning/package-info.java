/** How far a device is on its way in, and where it stops. It looks at frames that are kept, and asks nobody. */
package org.openpasture.core.commissioning;
