/** One message as it came in, and what became of it. It knows no place where frames are kept. */
package org.openpasture.core.frame;
