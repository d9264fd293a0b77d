/** Feeds the judging core with what is on disk. It decides nothing: the core does. */
package org.openpasture.engine.judging;
