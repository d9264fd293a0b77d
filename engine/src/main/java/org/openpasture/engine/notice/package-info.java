/** Sends what is in the outbox, and finds the words. It does not know why somebody is told. */
package org.openpasture.engine.notice;
