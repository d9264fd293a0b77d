/** Makes packs of what is registered, and finds out what becomes of one here. It writes nothing and knows no files. */
package org.openpasture.core.packing;
