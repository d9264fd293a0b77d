/** Packs: files with rules, limit sets, device models and dashboards that leave and arrive. It reads no YAML itself. */
package org.openpasture.service.pack;
