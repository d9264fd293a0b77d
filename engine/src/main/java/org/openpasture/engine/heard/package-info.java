/** How everything was heard last. It decides nothing. */
package org.openpasture.engine.heard;
