/** Finding what is registered by what people call it. */
package org.openpasture.core.search;
