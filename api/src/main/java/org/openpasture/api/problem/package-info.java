/**
 * Requests and answers about what requests must hold. Records alone: no rule and no right is checked here beyond their
 * form.
 */
package org.openpasture.api.problem;
