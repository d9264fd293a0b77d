package org.openpasture.core.formula;

/**
 * How much is in a tank up to a height. Lengths are in metres, volumes in cubic metres; heights below the bottom or
 * above the top count as those.
 */
final class Tank {
    private Tank() {}

    /** Of a tank with upright walls. */
    static double upright(double level, double area, double height) {
        return area * Math.clamp(level, 0, height);
    }

    /** The area of a circle. */
    static double circle(double diameter) {
        return Math.PI * diameter * diameter / 4;
    }

    /**
     * Of a lying cylinder with two equal ends: flat, or half ellipsoids of some depth. The cross-section is a segment
     * of a circle; of an ellipsoid, the part up to a height is that of a sphere, scaled by depth over radius.
     *
     * @param length of the cylinder between its ends
     * @param endDepth how far each end bulges; 0 for flat
     */
    static double lying(double level, double diameter, double length, double endDepth) {
        double radius = diameter / 2;
        double height = Math.clamp(level, 0, diameter);
        double segment = radius * radius * Math.acos((radius - height) / radius)
                - (radius - height) * Math.sqrt(Math.max(0, 2 * radius * height - height * height));
        return segment * length + endDepth / radius * cap(height, radius);
    }

    /** The part of a sphere up to a height. */
    private static double cap(double height, double radius) {
        return Math.PI * height * height * (3 * radius - height) / 3;
    }

    /** Of a sphere. */
    static double sphere(double level, double diameter) {
        return cap(Math.clamp(level, 0, diameter), diameter / 2);
    }

    /**
     * Of an upright cylinder that ends in a cone below.
     *
     * @param cone how high the cone is; its tip is where the level is 0
     * @param height of the whole
     */
    static double coneBottom(double level, double diameter, double cone, double height) {
        double inside = Math.clamp(level, 0, height);
        if (inside >= cone) {
            return circle(diameter) * (cone / 3 + inside - cone);
        }
        double share = inside / cone;
        return circle(diameter) * share * share * inside / 3;
    }
}
