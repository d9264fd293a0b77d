/** What everything that is registered has in common. It knows none of the kinds. */
package org.openpasture.core.entity;
