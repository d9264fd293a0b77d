"""Writes vectors.json: what SciPy makes of a waveform. Run once; the tests read the file."""
import json
import numpy as np
from scipy import signal, stats

rng = np.random.default_rng(7)
rate, n = 5000.0, 600
t = np.arange(n) / rate
x = 3 + 2 * np.sin(2 * np.pi * 61.7 * t) + 0.7 * np.cos(2 * np.pi * 123.4 * t) + rng.normal(0, 0.4, n)
x += (1 + 0.8 * np.sin(2 * np.pi * 83.0 * t)) * np.sin(2 * np.pi * 1700 * t)
x = np.round(x, 4)
f, power = signal.periodogram(x, rate, window="hann", detrend="constant", scaling="spectrum")
low, high = 1001.0, 2303.0
X = np.fft.fft(x - x.mean())
freq = np.fft.fftfreq(n, 1 / rate)
kept = np.where((np.abs(freq) >= low) & (np.abs(freq) <= high), X, 0)
envelope = np.abs(signal.hilbert(np.real(np.fft.ifft(kept))))
_, ofEnvelope = signal.periodogram(envelope, rate, window="hann", detrend="constant", scaling="spectrum")
json.dump({
    "samplesPerSecond": rate,
    "samples": x.tolist(),
    "spectrum": np.round(np.sqrt(power), 9).tolist(),
    "envelopeBand": [low, high],
    "envelope": np.round(np.sqrt(ofEnvelope), 9).tolist(),
    "rms": float(np.std(x)),
    "peak": float(np.max(np.abs(x - x.mean()))),
    "peakToPeak": float(np.ptp(x)),
    "kurtosis": float(stats.kurtosis(x, fisher=False)),
}, open("vectors.json", "w"), separators=(",", ":"))
