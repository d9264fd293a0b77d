package org.openpasture.core.rule;

import java.util.List;
import org.openpasture.core.limit.Severity;
import org.openpasture.core.place.Asset;
import org.openpasture.core.place.Point;
import org.openpasture.core.registry.Entity;
import org.openpasture.core.registry.Registry;

/**
 * A condition over points that becomes an alert.
 *
 * @param deadBand how far the value must come back behind the limit before the alert ends, in the point's unit, so that
 *     it does not flap
 * @param recipients e-mail addresses that are told
 * @param guidance what to do, shown with the alert
 */
public record Rule(String id, String name, Target target, Condition condition, Hold hold, double deadBand,
    Severity severity, boolean enabled, List<String> recipients, String guidance) implements Entity {
  public Rule {
    recipients = List.copyOf(recipients);
    if (!(deadBand >= 0)) {
      throw new IllegalArgumentException("a dead band cannot be negative");
    }
  }

  /** The points that it looks at now. */
  public List<Point> points(Registry registry) {
    return switch (target) {
      case Target.OfPoint of -> registry.find(Point.class, of.pointId()).stream().toList();
      case Target.OfAsset of -> registry.pointsOf(of.assetId()).stream()
          .filter(point -> point.quantity() == of.quantity()).toList();
    };
  }

  /** The place whose rights decide who may see and change the rule; empty text if its target is gone. */
  public String placeId(Registry registry) {
    return switch (target) {
      case Target.OfPoint of -> registry.find(Point.class, of.pointId()).map(Point::placeId).orElse("");
      case Target.OfAsset of -> registry.find(Asset.class, of.assetId()).map(Asset::id).orElse("");
    };
  }
}
