/**
 * Requests and answers about devices, gateways and models. Records alone: no rule and no right is checked here beyond
 * their form.
 */
package org.openpasture.api.fleet;
