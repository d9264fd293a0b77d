/**
 * Requests and answers about retention and corrections. Records alone: no rule and no right is checked here beyond
 * their form.
 */
package org.openpasture.api.record;
