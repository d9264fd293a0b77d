package org.openpasture.core.push;

import java.math.BigInteger;
import java.security.AlgorithmParameters;
import java.security.GeneralSecurityException;
import java.security.KeyFactory;
import java.security.KeyPair;
import java.security.KeyPairGenerator;
import java.security.interfaces.ECPublicKey;
import java.security.spec.ECFieldFp;
import java.security.spec.ECGenParameterSpec;
import java.security.spec.ECParameterSpec;
import java.security.spec.ECPoint;
import java.security.spec.ECPublicKeySpec;
import java.util.Arrays;

/**
 * Keys on the curve P-256 (FIPS 186-5), as browsers hand them out: 65 bytes, 4 and the two coordinates (SEC 1, 2.3.3).
 */
public final class PushKey {
    /** The length of a public key in bytes. */
    public static final int LENGTH = 65;

    private static final int COORDINATE = 32;
    private static final byte UNCOMPRESSED = 4;
    private static final ECParameterSpec CURVE = curve();

    private PushKey() {}

    /** A fresh pair. */
    public static KeyPair fresh() {
        try {
            KeyPairGenerator generator = KeyPairGenerator.getInstance("EC");
            generator.initialize(CURVE);
            return generator.generateKeyPair();
        } catch (GeneralSecurityException e) {
            throw missing(e);
        }
    }

    /**
     * Reads a public key.
     *
     * @throws IllegalArgumentException if the bytes are no point of the curve, in a sentence for people
     */
    public static ECPublicKey read(byte[] bytes) {
        if (bytes.length != LENGTH || bytes[0] != UNCOMPRESSED) {
            throw new IllegalArgumentException("the browser's key is no point of the curve P-256 in 65 bytes");
        }
        BigInteger x = new BigInteger(1, Arrays.copyOfRange(bytes, 1, 1 + COORDINATE));
        BigInteger y = new BigInteger(1, Arrays.copyOfRange(bytes, 1 + COORDINATE, LENGTH));
        BigInteger p = ((ECFieldFp) CURVE.getCurve().getField()).getP();
        BigInteger right = x.pow(3)
                .add(CURVE.getCurve().getA().multiply(x))
                .add(CURVE.getCurve().getB())
                .mod(p);
        if (x.compareTo(p) >= 0 || y.compareTo(p) >= 0 || !y.multiply(y).mod(p).equals(right)) {
            throw new IllegalArgumentException("the browser's key is no point of the curve P-256");
        }
        try {
            return (ECPublicKey)
                    KeyFactory.getInstance("EC").generatePublic(new ECPublicKeySpec(new ECPoint(x, y), CURVE));
        } catch (GeneralSecurityException e) {
            throw missing(e);
        }
    }

    /** The inverse of {@link #read}. */
    public static byte[] write(ECPublicKey key) {
        byte[] bytes = new byte[LENGTH];
        bytes[0] = UNCOMPRESSED;
        put(key.getW().getAffineX(), bytes, 1);
        put(key.getW().getAffineY(), bytes, 1 + COORDINATE);
        return bytes;
    }

    private static void put(BigInteger coordinate, byte[] bytes, int offset) {
        byte[] digits = coordinate.toByteArray();
        int length = Math.min(digits.length, COORDINATE);
        System.arraycopy(digits, digits.length - length, bytes, offset + COORDINATE - length, length);
    }

    private static ECParameterSpec curve() {
        try {
            AlgorithmParameters parameters = AlgorithmParameters.getInstance("EC");
            parameters.init(new ECGenParameterSpec("secp256r1"));
            return parameters.getParameterSpec(ECParameterSpec.class);
        } catch (GeneralSecurityException e) {
            throw missing(e);
        }
    }

    static IllegalStateException missing(GeneralSecurityException e) {
        return new IllegalStateException("this Java platform lacks what messages to browsers are sealed with", e);
    }
}
