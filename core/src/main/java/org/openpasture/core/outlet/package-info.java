/** What an outlet is, and where it passes things on to. It knows no connection. */
package org.openpasture.core.outlet;
