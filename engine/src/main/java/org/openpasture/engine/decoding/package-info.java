/** Chooses between layouts and scripts. It knows no transport. */
package org.openpasture.engine.decoding;
