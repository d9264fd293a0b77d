/** Packs: what is handed to a colleague as a file. */
package org.openpasture.api.pack;
