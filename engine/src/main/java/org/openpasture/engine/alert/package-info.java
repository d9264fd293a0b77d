/** Carries out what judging decided. It does not judge, and tells people by the outbox only. */
package org.openpasture.engine.alert;
