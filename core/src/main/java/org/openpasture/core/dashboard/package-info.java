/** Dashboards, their panels, and links that share them. It knows no drawing. */
package org.openpasture.core.dashboard;
