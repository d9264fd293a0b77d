package org.openpasture.core.registry;

import java.util.Arrays;
import java.util.Map;
import java.util.Optional;
import java.util.stream.Collectors;
import org.openpasture.core.baseline.Baseline;
import org.openpasture.core.camera.Camera;
import org.openpasture.core.dashboard.Dashboard;
import org.openpasture.core.dashboard.ShareLink;
import org.openpasture.core.entity.Entity;
import org.openpasture.core.entity.Ids;
import org.openpasture.core.fleet.Assignment;
import org.openpasture.core.fleet.Device;
import org.openpasture.core.fleet.DeviceModel;
import org.openpasture.core.fleet.Gateway;
import org.openpasture.core.fleet.ResponseCheck;
import org.openpasture.core.inlet.Inlet;
import org.openpasture.core.limit.LimitSet;
import org.openpasture.core.notice.NotifiedBrowser;
import org.openpasture.core.notice.Ways;
import org.openpasture.core.outlet.Outlet;
import org.openpasture.core.pack.ImportedPack;
import org.openpasture.core.people.DisplayUnits;
import org.openpasture.core.people.Grant;
import org.openpasture.core.people.Group;
import org.openpasture.core.people.Person;
import org.openpasture.core.people.StarredPages;
import org.openpasture.core.place.Area;
import org.openpasture.core.place.Asset;
import org.openpasture.core.place.Holidays;
import org.openpasture.core.place.Plan;
import org.openpasture.core.place.Point;
import org.openpasture.core.place.Site;
import org.openpasture.core.report.ReportSchedule;
import org.openpasture.core.rule.Rule;

/** The kinds of entity, with the stable name under which each is stored. */
public enum Kind {
    SITE("site", Site.class),
    AREA("area", Area.class),
    ASSET("asset", Asset.class),
    POINT("point", Point.class),
    PLAN("plan", Plan.class),
    CAMERA("camera", Camera.class),
    HOLIDAYS("holidays", Holidays.class),
    LIMIT_SET("limit-set", LimitSet.class),
    DEVICE_MODEL("device-model", DeviceModel.class),
    GATEWAY("gateway", Gateway.class),
    INLET("inlet", Inlet.class),
    OUTLET("outlet", Outlet.class),
    DEVICE("device", Device.class),
    ASSIGNMENT("assignment", Assignment.class),
    RESPONSE_CHECK("response-check", ResponseCheck.class),
    BASELINE("baseline", Baseline.class),
    RULE("rule", Rule.class),
    DASHBOARD("dashboard", Dashboard.class),
    REPORT_SCHEDULE("report-schedule", ReportSchedule.class),
    SHARE_LINK("share-link", ShareLink.class),
    PACK("pack", ImportedPack.class),
    PERSON("person", Person.class),
    GROUP("group", Group.class),
    GRANT("grant", Grant.class),
    NOTICE_WAYS("notice-ways", Ways.class),
    NOTIFIED_BROWSER("notified-browser", NotifiedBrowser.class),
    DISPLAY_UNITS("display-units", DisplayUnits.class),
    STARRED_PAGES("starred-pages", StarredPages.class);

    private final String id;
    private final Class<? extends Entity> type;

    Kind(String id, Class<? extends Entity> type) {
        this.id = id;
        this.type = type;
    }

    private static final Map<Class<?>, Kind> BY_TYPE =
            Arrays.stream(values()).collect(Collectors.toMap(Kind::type, kind -> kind));

    public String id() {
        return id;
    }

    public Class<? extends Entity> type() {
        return type;
    }

    public static Kind of(Entity entity) {
        return of(entity.getClass());
    }

    static Kind of(Class<?> type) {
        Kind kind = BY_TYPE.get(type);
        if (kind == null) {
            throw new IllegalArgumentException("not a kind of entity: " + type.getName());
        }
        return kind;
    }

    /** The kind of a name; empty for what is none, such as the sign-ins in the trail. */
    public static Optional<Kind> known(String id) {
        return Arrays.stream(values()).filter(kind -> kind.id.equals(id)).findFirst();
    }

    /** The kind of a stored name. */
    public static Kind ofId(String id) {
        return Ids.of(values(), Kind::id, "kind of entity", id);
    }
}
