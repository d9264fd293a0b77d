/** The state machine that turns events into alerts. It knows no clock, thread or database: time comes with events. */
package org.openpasture.core.judging;
