/**
 * How points behaved while something was known about their machine. It knows no rule, no limit set and no record: it is
 * handed the values.
 */
package org.openpasture.core.baseline;
