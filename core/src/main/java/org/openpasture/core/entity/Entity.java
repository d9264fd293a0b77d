package org.openpasture.core.entity;

/** Something that people register: it has an id for life and is replaced as a whole when it changes. */
public interface Entity {
    String id();
}
