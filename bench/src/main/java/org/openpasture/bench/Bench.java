package org.openpasture.bench;

import java.nio.file.Path;
import java.util.LinkedHashMap;
import java.util.Map;

/**
 * Runs every measurement once, or those whose name holds the second argument, and prints the figures that
 * docs/performance.md records.
 */
public final class Bench {
    private static final Map<String, Measurement> ALL = new LinkedHashMap<>();

    static {
        ALL.put("record-path", app -> RecordPath.measure());
        ALL.put("record-queries", app -> RecordQueries.measure());
        ALL.put("judging", app -> JudgingRate.measure());
        ALL.put("deriving", app -> DerivingRate.measure());
        ALL.put("means", app -> RunningMeans.measure());
        ALL.put("waveforms", app -> WaveformRate.measure());
        ALL.put("commits", app -> CommitRate.measure());
        ALL.put("start", StartUp::measure);
        ALL.put("export", ExportRate::measure);
        ALL.put("uplinks", UplinkRate::measure);
        ALL.put("inlets", InletRates::measure);
        ALL.put("alert", AlertDelay::measure);
        ALL.put("answer", AnswerDelay::measure);
        ALL.put("memory", Memory::measure);
    }

    private Bench() {}

    /** One of the things that are measured. */
    private interface Measurement {
        void measure(Path app) throws Exception;
    }

    public static void main(String[] args) throws Exception {
        Path app = Path.of(args[0]);
        System.out.printf(
                "JDK %s, %d cores%n%n", Runtime.version(), Runtime.getRuntime().availableProcessors());
        String wanted = args.length > 1 ? args[1] : "";
        for (Map.Entry<String, Measurement> one : ALL.entrySet()) {
            if (one.getKey().contains(wanted)) {
                one.getValue().measure(app);
            }
        }
        // Threads of clients' libraries outlive what they were for.
        System.exit(0);
    }

    static void row(String what, String figure) {
        System.out.printf("%-72s %s%n", what, figure);
    }
}
