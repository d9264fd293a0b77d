package org.openpasture.core.edit;

import java.util.Optional;
import org.openpasture.core.inlet.Source;

/** What the protocols of inlets know of addresses: whether a text is one, and whether two are the same. */
public interface Addresses {
    /** Why a text is no address of a device at a source, in words; empty if it is one. */
    Optional<String> problem(Source source, String address);

    /** The one form of an address at a source, however it is spelt. */
    String normal(Source source, String address);
}
