/** The outbox of messages to people. It sends nothing. */
package org.openpasture.store.notice;
