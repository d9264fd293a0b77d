/** Which reports are made by themselves, and for whom. It makes none. */
package org.openpasture.core.report;
