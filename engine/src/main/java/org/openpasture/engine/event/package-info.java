/**
 * The list of events: everything that happened to alerts, devices, the record and what is registered, read backwards in
 * time from where each is kept. It keeps nothing itself, and does not know who asks.
 */
@NullMarked
package org.openpasture.engine.event;

import org.jspecify.annotations.NullMarked;
