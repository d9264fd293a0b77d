package org.openpasture.core.judging;

import java.util.Locale;
import java.util.Optional;
import org.jspecify.annotations.Nullable;
import org.openpasture.core.limit.Judgement;
import org.openpasture.core.limit.LimitSet;
import org.openpasture.core.limit.Zone;
import org.openpasture.core.place.Point;
import org.openpasture.core.reading.Reading;
import org.openpasture.core.registry.Registry;
import org.openpasture.core.rule.Condition;
import org.openpasture.core.rule.Rule;

/**
 * Whether a rule's condition holds for one reading of one point.
 *
 * @param clears whether it is over even with the dead band; neither holds nor clears means: stay as it was
 * @param weight orders several points of an asset, the greatest decides
 * @param limit what is crossed, in words
 * @param limitSet title of the limit set that says so; empty for a limit of the rule itself
 */
record Verdict(Point point, double value, boolean holds, boolean clears, double weight, String limit,
    String limitSet) {

  /** Judges a reading; empty where the condition cannot be judged on it (no limit set, or a matter of time). */
  static Optional<Verdict> of(Rule rule, Point point, Reading reading, Registry registry) {
    double value = reading.value();
    double band = rule.deadBand();
    return switch (rule.condition()) {
      case Condition.Above(double limit) -> Optional.of(new Verdict(point, value, value > limit, value <= limit - band,
          value - limit, "above " + text(limit, point), ""));
      case Condition.Below(double limit) -> Optional.of(new Verdict(point, value, value < limit, value >= limit + band,
          limit - value, "below " + text(limit, point), ""));
      case Condition.Outside(double low, double high) -> Optional.of(new Verdict(point, value, value < low || value > high,
          value >= low + band && value <= high - band, Math.max(low - value, value - high),
          "outside " + number(low) + " to " + text(high, point), ""));
      case Condition.InZone zone -> registry.limitsOf(point).map(set -> inZone(set, zone, point, value, band));
      case Condition.Silent silent -> Optional.empty();
    };
  }

  private static Verdict inZone(LimitSet set, Condition.InZone condition, Point point, double value, double band) {
    Judgement judgement = set.judge(value, null);
    Zone zone = set.zoneOf(value);
    boolean holds = judgement.severity().isAtLeast(condition.atLeast());
    boolean clears = !set.zoneOf(value + band).severity().isAtLeast(condition.atLeast())
        && !set.zoneOf(value - band).severity().isAtLeast(condition.atLeast());
    return new Verdict(point, value, holds, clears,
        judgement.severity().ordinal() * 1000.0 - judgement.headroomPercent(),
        "zone " + zone.label() + bounds(zone, point), set.title());
  }

  private static String bounds(Zone zone, Point point) {
    Double from = zone.from();
    Double to = zone.to();
    if (from != null && to != null) {
      return " (" + number(from) + " to " + text(to, point) + ")";
    }
    return from != null ? " (above " + text(from, point) + ")" : to != null ? " (below " + text(to, point) + ")" : "";
  }

  static String text(@Nullable Double value, Point point) {
    if (value == null) {
      return "nothing";
    }
    return number(value) + (point.unit().isEmpty() ? "" : " " + point.unit());
  }

  /** A number as people write it: no more than three decimals, none that are zero. */
  static String number(double value) {
    String text = String.format(Locale.ROOT, "%.3f", value);
    return text.replaceAll("0+$", "").replaceAll("\\.$", "");
  }
}
