/** Requests and answers about inlets. Records alone: no rule and no right is checked here beyond their form. */
package org.openpasture.api.inlet;
