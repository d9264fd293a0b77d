/** Alerts and what happened to them, in registry.db. It does not judge. */
package org.openpasture.store.alert;
