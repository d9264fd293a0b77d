/**
 * Requests and answers about commands and radio state. Records alone: no rule and no right is checked here beyond their
 * form.
 */
package org.openpasture.api.radio;
