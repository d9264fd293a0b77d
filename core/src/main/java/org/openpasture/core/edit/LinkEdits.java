package org.openpasture.core.edit;

import java.util.List;
import java.util.Optional;
import org.openpasture.core.access.Access;
import org.openpasture.core.dashboard.ShareLink;
import org.openpasture.core.edit.Edited.Changes;
import org.openpasture.core.edit.Edited.Refused;
import org.openpasture.core.registry.Change;
import org.openpasture.core.registry.Kind;

/**
 * Links that show a dashboard without an account: handed out by who may change it, withdrawn by who handed them out.
 */
public final class LinkEdits {
    private LinkEdits() {}

    /** Hands out a link. */
    public static Edited make(Access access, ShareLink link) {
        return DashboardEdits.of(access, link.dashboardId(), "share this dashboard", dashboard -> Changes.put(link));
    }

    /** Withdraws a link. */
    public static Edited withdraw(Access access, String id) {
        Optional<ShareLink> link = access.registry().find(ShareLink.class, id);
        if (link.isEmpty()) {
            return Refused.unknown("link");
        }
        return access.mayManageInstance()
                        || link.get().createdBy().equals(access.person().id())
                ? new Changes(List.of(new Change.Remove(Kind.SHARE_LINK, id)))
                : Refused.notAllowed("withdraw somebody else's link");
    }
}
