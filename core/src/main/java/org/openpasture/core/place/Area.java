package org.openpasture.core.place;

/** A part of a site: building, room, field. Areas nest. */
public record Area(String id, String name, String parentId) implements Place {}
