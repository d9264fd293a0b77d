package org.openpasture.core.bacnet;

import com.fasterxml.jackson.annotation.JsonCreator;
import com.fasterxml.jackson.annotation.JsonValue;
import java.util.Optional;
import java.util.regex.Matcher;
import java.util.regex.Pattern;

/**
 * One object of a controller. As text it is {@code analog-input:3}, and {@code 130:3} for a type that the standard
 * gives no name.
 *
 * @param type 0 to 1,023
 * @param instance 0 to 4,194,303; the highest is a wildcard and names no object
 */
public record ObjectId(int type, int instance) {
    /** The highest instance that a device or object can have. */
    public static final int HIGHEST = 4_194_302;

    private static final Pattern FORM = Pattern.compile("([a-z-]+|\\d{1,4}):(\\d{1,7})");

    public ObjectId {
        if (type < 0 || type > 1_023 || instance < 0 || instance > HIGHEST + 1) {
            throw new IllegalArgumentException("an object has a type of 0 to 1023 and an instance of 0 to " + HIGHEST
                    + ", not " + type + " and " + instance);
        }
    }

    public static ObjectId of(ObjectType type, int instance) {
        return new ObjectId(type.code(), instance);
    }

    /** The device object of a controller. */
    public static ObjectId device(int instance) {
        return of(ObjectType.DEVICE, instance);
    }

    /** Reads the text. */
    @JsonCreator
    public static ObjectId of(String text) {
        Matcher matcher = FORM.matcher(text.strip());
        if (!matcher.matches()) {
            throw wrong(text);
        }
        String type = matcher.group(1);
        int code = Character.isDigit(type.charAt(0))
                ? Integer.parseInt(type)
                : ObjectType.ofId(type).orElseThrow(() -> wrong(text)).code();
        return new ObjectId(code, Integer.parseInt(matcher.group(2)));
    }

    private static IllegalArgumentException wrong(String text) {
        return new IllegalArgumentException(
                "'" + text + "' names no object, such as analog-input:3, binary-output:1 or multi-state-value:2");
    }

    /** Its type, if that is a usual one. */
    public Optional<ObjectType> usualType() {
        return ObjectType.ofCode(type);
    }

    static ObjectId ofBits(int bits) {
        return new ObjectId(bits >>> 22, bits & 0x3FFFFF);
    }

    int bits() {
        return type << 22 | instance;
    }

    /** The text. */
    @JsonValue
    public String text() {
        return usualType().map(ObjectType::id).orElse(Integer.toString(type)) + ":" + instance;
    }

    @Override
    public String toString() {
        return text();
    }
}
