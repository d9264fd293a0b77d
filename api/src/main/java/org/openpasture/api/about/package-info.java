/** What the service says of itself. */
package org.openpasture.api.about;
