/** Who is notified, how and when. It sends nothing. */
package org.openpasture.core.notice;
