/** Requests and answers about baselines. Records alone: no rule and no right is checked here beyond their form. */
package org.openpasture.api.baseline;
