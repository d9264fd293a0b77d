/**
 * The registry on disk, replaced in the step in which it is written. It checks no rights: whoever changes something has
 * done so.
 */
package org.openpasture.store.registry;
