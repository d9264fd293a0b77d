/** Keeps inlets running, and takes what they bring. It knows no HTTP: the inbox is a door of the service. */
package org.openpasture.engine.inlet;
