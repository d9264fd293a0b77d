/** Requests and answers about dashboards. Records alone: no rule and no right is checked here beyond their form. */
package org.openpasture.api.dashboard;
