/** What an inlet is, how its messages are opened, and which moment they belong to. It knows no socket. */
package org.openpasture.core.inlet;
