/** How a raw number of a channel becomes a value in a point's unit. It knows no device and no point. */
package org.openpasture.core.calibration;
