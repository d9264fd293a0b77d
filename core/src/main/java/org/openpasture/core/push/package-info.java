/**
 * Messages to browsers: sealed for one of them, with a voucher of who sends them. It knows of no connection and of no
 * alert.
 */
package org.openpasture.core.push;
