/** The port to whoever watches. It does not know who that is. */
package org.openpasture.engine.live;
