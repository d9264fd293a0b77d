package org.openpasture.bench;

import java.nio.file.Path;

/** Runs every measurement once and prints the figures that docs/performance.md records. */
public final class Bench {
  private Bench() {}

  public static void main(String[] args) throws Exception {
    Path app = Path.of(args[0]);
    System.out.printf("JDK %s, %d cores%n%n", Runtime.version(), Runtime.getRuntime().availableProcessors());
    RecordPath.measure();
    RecordQueries.measure();
    CommitRate.measure();
    StartUp.measure(app);
    ExportRate.measure(app);
    UplinkRate.measure(app);
    InletRates.measure(app);
    AlertDelay.measure(app);
    AnswerDelay.measure(app);
    Memory.measure(app);
  }

  static void row(String what, String figure) {
    System.out.printf("%-72s %s%n", what, figure);
  }
}
