/**
 * Requests and answers about bringing devices in. Records alone: no rule and no right is checked here beyond their
 * form.
 */
package org.openpasture.api.commissioning;
