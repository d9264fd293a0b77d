/** What transports of messages have in common. It knows no contents. */
package org.openpasture.inlets.message;
