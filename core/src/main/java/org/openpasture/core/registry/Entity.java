package org.openpasture.core.registry;

/** Something that people register: it has an id for life and is replaced as a whole when it changes. */
public interface Entity {
  String id();
}
