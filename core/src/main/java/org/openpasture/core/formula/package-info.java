/** How readings of one point follow from those of others: prepared and written formulas. It knows no registry. */
package org.openpasture.core.formula;
