/** What the engine has to know before it starts. It does not know where that is configured. */
package org.openpasture.engine.config;
