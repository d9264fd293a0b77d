/** Settings and secrets by name. It knows nothing of what they mean. */
package org.openpasture.store.setting;
