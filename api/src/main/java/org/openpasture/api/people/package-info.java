/**
 * Requests and answers about people and sign-in. Records alone: no rule and no right is checked here beyond their form.
 */
package org.openpasture.api.people;
