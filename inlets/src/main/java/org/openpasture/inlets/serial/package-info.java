/** Serial ports that come and go. It knows no protocol beyond framing. */
package org.openpasture.inlets.serial;
