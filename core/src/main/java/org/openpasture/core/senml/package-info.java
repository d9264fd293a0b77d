/** SenML packs (RFC 8428), their units, and the way from these to ours. It knows no point. */
package org.openpasture.core.senml;
