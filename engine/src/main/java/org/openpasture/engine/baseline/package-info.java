/** Finds the values of baselines in the record, also of those that are still being recorded. It judges nothing. */
package org.openpasture.engine.baseline;
