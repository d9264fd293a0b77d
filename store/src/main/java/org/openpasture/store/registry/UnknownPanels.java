package org.openpasture.store.registry;

import org.jspecify.annotations.Nullable;
import org.openpasture.core.dashboard.Panel;
import tools.jackson.databind.DeserializationContext;
import tools.jackson.databind.JavaType;
import tools.jackson.databind.deser.DeserializationProblemHandler;
import tools.jackson.databind.jsontype.TypeIdResolver;

/**
 * Reads a panel of a kind that this version does not know, such as one that was made before kinds were checked, as an
 * empty text with its title and place: a dashboard does not keep everything else from being read.
 */
final class UnknownPanels extends DeserializationProblemHandler {
    @Override
    public @Nullable JavaType handleUnknownTypeId(
            DeserializationContext context, JavaType base, String kind, TypeIdResolver resolver, String message) {
        return base.hasRawClass(Panel.class) ? context.constructType(Panel.Text.class) : null;
    }
}
