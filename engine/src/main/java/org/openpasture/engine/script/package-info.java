/** The sandbox in which decoders of makers run. It knows no device. */
package org.openpasture.engine.script;
