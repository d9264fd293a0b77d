/** What a rule watches, and when it applies. It does not judge: that is judging. */
package org.openpasture.core.rule;
