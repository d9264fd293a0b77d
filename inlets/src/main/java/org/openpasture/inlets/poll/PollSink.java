package org.openpasture.inlets.poll;

import java.time.Duration;
import org.openpasture.core.layout.RegisterImage;
import org.openpasture.inlets.message.Condition;

/** Takes what devices answer. Any thread may call it. */
public interface PollSink {
  /**
   * What came of asking a device.
   *
   * @param round how the round went
   */
  void round(String deviceId, Round round);

  /** The way to the devices is in another condition. */
  void condition(Condition condition, String words);

  /**
   * One round of a device.
   *
   * @param image what was read; may lack blocks whose request was refused, and be empty
   * @param problem what went wrong, in words; empty if nothing did
   * @param took how long it lasted
   * @param late whether it ended after the next one should have begun
   */
  record Round(RegisterImage image, String problem, Duration took, boolean late) {}
}
