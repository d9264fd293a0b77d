package org.openpasture.core.formula;

/**
 * What follows from the temperature, humidity and pressure of air. Pure; where a formula does not hold it gives NaN.
 */
final class Air {
    /** Height of the scale of ISO 2533 (standard atmosphere) below 11 km, in metres. */
    private static final double SCALE_METRES = 44_330.8;

    private static final double EXPONENT = 0.190263;

    private Air() {}

    /**
     * The temperature at which dew falls, in °C, by the Magnus form of Alduchov and Eskridge (1996), -40 to 50 °C.
     *
     * @param celsius the air's temperature
     * @param percent its relative humidity, above 0 to 100
     */
    static double dewPoint(double celsius, double percent) {
        if (!(percent > 0)) {
            return Double.NaN;
        }
        double exponent = Math.log(percent / 100) + 17.625 * celsius / (243.04 + celsius);
        return 243.04 * exponent / (17.625 - exponent);
    }

    /** How much more vapour pressure the air could hold, in kPa (FAO Irrigation and Drainage Paper 56, equation 11). */
    static double vapourPressureDeficit(double celsius, double percent) {
        return saturation(celsius) * (1 - percent / 100);
    }

    /** The vapour pressure of saturated air in kPa (FAO 56, equation 11). */
    private static double saturation(double celsius) {
        return 0.6108 * Math.exp(17.27 * celsius / (celsius + 237.3));
    }

    /** Water in the air in g/m³, from its vapour pressure by the law of ideal gases. */
    static double absoluteHumidity(double celsius, double percent) {
        double hectopascal = saturation(celsius) * percent / 10;
        return 216.7 * hectopascal / (celsius + 273.15);
    }

    /** The wet-bulb temperature in °C (Stull 2011); NaN outside of 5 to 99 % and -20 to 50 °C, for which it holds. */
    static double wetBulb(double celsius, double percent) {
        if (percent < 5 || percent > 99 || celsius < -20 || celsius > 50) {
            return Double.NaN;
        }
        return celsius * Math.atan(0.151977 * Math.sqrt(percent + 8.313659))
                + Math.atan(celsius + percent)
                - Math.atan(percent - 1.676331)
                + 0.00391838 * Math.pow(percent, 1.5) * Math.atan(0.023101 * percent)
                - 4.686035;
    }

    /** The temperature-humidity index for cattle (National Research Council 1971). */
    static double temperatureHumidityIndex(double celsius, double percent) {
        return (1.8 * celsius + 32) - (0.55 - 0.0055 * percent) * (1.8 * celsius - 26);
    }

    /** The height in metres at which the standard atmosphere has a pressure (ISO 2533). */
    static double altitude(double hectopascal, double atSeaLevel) {
        return SCALE_METRES * (1 - Math.pow(hectopascal / atSeaLevel, EXPONENT));
    }

    /** The pressure in hPa that would be measured at sea level, by the inverse of {@link #altitude}. */
    static double atSeaLevel(double hectopascal, double metres) {
        return hectopascal / Math.pow(1 - metres / SCALE_METRES, 1 / EXPONENT);
    }
}
