/**
 * Requests and answers about alerts and rules. Records alone: no rule and no right is checked here beyond their form.
 */
package org.openpasture.api.alert;
