/**
 * What people change, as pure functions: what somebody wishes, by what is registered and what they may do, becomes
 * changes or a refusal with its reason. Every door goes through the same ones, inside the registry's lock.
 */
@NullMarked
package org.openpasture.core.edit;

import org.jspecify.annotations.NullMarked;
