/** What an alert is, and the states of its life. It does not decide when one is raised: that is judging. */
package org.openpasture.core.alert;
