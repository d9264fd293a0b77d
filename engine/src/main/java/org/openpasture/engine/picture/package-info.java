/** Pictures that people bring in, made harmless. It knows no place. */
package org.openpasture.engine.picture;
