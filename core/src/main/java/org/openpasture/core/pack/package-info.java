/** Packs: files with rules, limit sets, device models and dashboards for a colleague. It knows no registry. */
package org.openpasture.core.pack;
