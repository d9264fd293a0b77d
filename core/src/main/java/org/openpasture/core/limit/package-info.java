/** Limit sets, their zones, and what they say of a value. It knows no point and no rule. */
package org.openpasture.core.limit;
