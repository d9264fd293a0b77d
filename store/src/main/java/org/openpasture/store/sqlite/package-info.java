/** SQLite files: opening, migrating, and what is wrong when they cannot be written. It knows no table. */
package org.openpasture.store.sqlite;
