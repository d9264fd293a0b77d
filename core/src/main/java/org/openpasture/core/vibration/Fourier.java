package org.openpasture.core.vibration;

/**
 * The discrete Fourier transform of any length: Cooley and Tukey's algorithm (1965) for powers of two, Bluestein's
 * (1970) for all others. Not scaled in either direction.
 */
final class Fourier {
    /** Those of the length that was asked for last, since a sensor's waveforms have one length. */
    private static volatile Turns turns = Turns.of(Waveform.FEWEST);

    private Fourier() {}

    /**
     * The first half of a turn in n steps.
     *
     * @param cos of {@code 2 pi i / n}, i below n / 2; never changed
     * @param sin likewise
     */
    private record Turns(int n, double[] cos, double[] sin) {
        static Turns of(int n) {
            double[] cos = new double[n / 2];
            double[] sin = new double[n / 2];
            for (int i = 0; i < n / 2; i++) {
                cos[i] = Math.cos(2 * Math.PI * i / n);
                sin[i] = Math.sin(2 * Math.PI * i / n);
            }
            return new Turns(n, cos, sin);
        }
    }

    private static Turns turns(int n) {
        Turns found = turns;
        if (found.n() != n) {
            found = Turns.of(n);
            turns = found;
        }
        return found;
    }

    /** Replaces n complex numbers by their transform, {@code X[k] = sum x[i] exp(-2 pi j k i / n)}. */
    static void transform(double[] re, double[] im) {
        if (Integer.bitCount(re.length) == 1) {
            radix2(re, im);
        } else {
            bluestein(re, im);
        }
    }

    /** The inverse, not divided by n: exchanging the parts before and after turns one into the other. */
    static void inverse(double[] re, double[] im) {
        transform(im, re);
    }

    private static void radix2(double[] re, double[] im) {
        int n = re.length;
        int shift = Integer.numberOfLeadingZeros(n) + 1;
        for (int i = 0; i < n; i++) {
            int j = n == 1 ? 0 : Integer.reverse(i) >>> shift;
            if (j > i) {
                swap(re, i, j);
                swap(im, i, j);
            }
        }
        Turns found = turns(n);
        double[] cos = found.cos();
        double[] sin = found.sin();
        for (int size = 2; size <= n; size *= 2) {
            int half = size / 2;
            int stride = n / size;
            for (int start = 0; start < n; start += size) {
                for (int k = 0; k < half; k++) {
                    int low = start + k;
                    int high = low + half;
                    double c = cos[k * stride];
                    double s = sin[k * stride];
                    double turnedRe = re[high] * c + im[high] * s;
                    double turnedIm = im[high] * c - re[high] * s;
                    re[high] = re[low] - turnedRe;
                    im[high] = im[low] - turnedIm;
                    re[low] += turnedRe;
                    im[low] += turnedIm;
                }
            }
        }
    }

    private static void bluestein(double[] re, double[] im) {
        int n = re.length;
        int m = Integer.highestOneBit(2 * n) * 2;
        double[] cos = new double[n];
        double[] sin = new double[n];
        for (int i = 0; i < n; i++) {
            // The square of i, kept small, so that the angle stays exact.
            long square = (long) i * i % (2L * n);
            cos[i] = Math.cos(Math.PI * square / n);
            sin[i] = Math.sin(Math.PI * square / n);
        }
        double[] aRe = new double[m];
        double[] aIm = new double[m];
        double[] bRe = new double[m];
        double[] bIm = new double[m];
        for (int i = 0; i < n; i++) {
            aRe[i] = re[i] * cos[i] + im[i] * sin[i];
            aIm[i] = im[i] * cos[i] - re[i] * sin[i];
            bRe[i] = cos[i];
            bIm[i] = sin[i];
            if (i > 0) {
                bRe[m - i] = cos[i];
                bIm[m - i] = sin[i];
            }
        }
        radix2(aRe, aIm);
        radix2(bRe, bIm);
        for (int i = 0; i < m; i++) {
            double product = aRe[i] * bRe[i] - aIm[i] * bIm[i];
            aIm[i] = aRe[i] * bIm[i] + aIm[i] * bRe[i];
            aRe[i] = product;
        }
        radix2(aIm, aRe);
        for (int i = 0; i < n; i++) {
            double x = aRe[i] / m;
            double y = aIm[i] / m;
            re[i] = x * cos[i] + y * sin[i];
            im[i] = y * cos[i] - x * sin[i];
        }
    }

    private static void swap(double[] of, int i, int j) {
        double kept = of[i];
        of[i] = of[j];
        of[j] = kept;
    }
}
