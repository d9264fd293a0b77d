/**
 * One consistent picture of everything that is registered, and changes of it. It knows no database: whoever keeps it
 * replaces the picture.
 */
package org.openpasture.core.registry;
