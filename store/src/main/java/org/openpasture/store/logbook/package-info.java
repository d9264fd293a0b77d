/** The logbook in registry.db. It checks no rights. */
package org.openpasture.store.logbook;
