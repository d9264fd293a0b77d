/**
 * Requests and answers about places and points. Records alone: no rule and no right is checked here beyond their form.
 */
package org.openpasture.api.place;
