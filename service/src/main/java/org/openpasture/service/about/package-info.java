/** What runs here. */
package org.openpasture.service.about;
