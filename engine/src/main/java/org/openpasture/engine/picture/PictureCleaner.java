package org.openpasture.engine.picture;

import java.awt.Graphics2D;
import java.awt.RenderingHints;
import java.awt.geom.AffineTransform;
import java.awt.image.BufferedImage;
import java.io.ByteArrayInputStream;
import java.io.ByteArrayOutputStream;
import java.io.IOException;
import java.util.Iterator;
import java.util.Locale;
import javax.imageio.IIOImage;
import javax.imageio.ImageIO;
import javax.imageio.ImageReadParam;
import javax.imageio.ImageReader;
import javax.imageio.ImageWriteParam;
import javax.imageio.ImageWriter;
import javax.imageio.stream.ImageInputStream;
import javax.imageio.stream.MemoryCacheImageOutputStream;

/**
 * Makes pictures that people bring in safe and small: PNG and JPEG are decoded and written anew, so that nothing is
 * left of where and by whom a photograph was taken, turned upright, and scaled down to {@link #LONGEST_SIDE}; SVG is
 * written anew without anything that runs or fetches. The kind is taken from the content, whatever its sender calls it.
 */
public final class PictureCleaner {
    /** The longest side of a cleaned picture, in pixels. */
    public static final int LONGEST_SIDE = 2_560;

    /** A larger one is refused before it is decoded. */
    private static final long MOST_PIXELS = 30_000_000;
    /** So many are decoded at most, of more only each second, third …: three bytes each are held in memory. */
    private static final double MOST_DECODED = 8_000_000;

    private static final float QUALITY = 0.85f;

    /** It would fill the memory; said before it is decoded. */
    private static final class TooLarge extends IllegalArgumentException {
        private static final long serialVersionUID = 1;

        TooLarge(String message) {
            super(message);
        }
    }

    private PictureCleaner() {}

    /**
     * A safe picture.
     *
     * @throws IllegalArgumentException if the content is no picture of a kind that is taken, or is too large; in words
     */
    public static Cleaned clean(byte[] content) {
        if (startsWith(content, 0x89, 'P', 'N', 'G') || startsWith(content, 0xff, 0xd8, 0xff)) {
            try {
                return raster(content);
            } catch (TooLarge e) {
                throw e;
            } catch (IOException | RuntimeException e) {
                throw new IllegalArgumentException("The picture cannot be read; it may be damaged.", e);
            }
        }
        if (SvgCleaner.looksLikeSvg(content)) {
            return SvgCleaner.clean(content);
        }
        throw new IllegalArgumentException("This is no PNG, JPEG or SVG picture.");
    }

    private static boolean startsWith(byte[] content, int... bytes) {
        if (content.length < bytes.length) {
            return false;
        }
        for (int i = 0; i < bytes.length; i++) {
            if ((content[i] & 0xff) != bytes[i]) {
                return false;
            }
        }
        return true;
    }

    private static Cleaned raster(byte[] content) throws IOException {
        try (ImageInputStream in = ImageIO.createImageInputStream(new ByteArrayInputStream(content))) {
            Iterator<ImageReader> readers = ImageIO.getImageReaders(in);
            if (!readers.hasNext()) {
                throw new IOException("no reader takes it");
            }
            ImageReader reader = readers.next();
            try {
                reader.setInput(in, true, true);
                boolean isPhotograph =
                        reader.getFormatName().toLowerCase(Locale.ROOT).startsWith("jp");
                BufferedImage decoded = decoded(reader);
                Orientation orientation = isPhotograph ? Orientation.of(content) : Orientation.UPRIGHT;
                BufferedImage upright = drawn(decoded, orientation, isPhotograph);
                return new Cleaned(
                        isPhotograph ? "image/jpeg" : "image/png",
                        upright.getWidth(),
                        upright.getHeight(),
                        isPhotograph ? jpeg(upright) : png(upright));
            } finally {
                reader.dispose();
            }
        }
    }

    private static BufferedImage decoded(ImageReader reader) throws IOException {
        int width = reader.getWidth(0);
        int height = reader.getHeight(0);
        if ((long) width * height > MOST_PIXELS) {
            throw new TooLarge("The picture has " + width + " x " + height + " pixels; at most "
                    + MOST_PIXELS / 1_000_000 + " million are taken.");
        }
        ImageReadParam param = reader.getDefaultReadParam();
        int every = (int) Math.max(1, Math.ceil(Math.sqrt((double) width * height / MOST_DECODED)));
        param.setSourceSubsampling(every, every, 0, 0);
        return reader.read(0, param);
    }

    private static BufferedImage drawn(BufferedImage from, Orientation orientation, boolean isPhotograph) {
        double scale = Math.min(1, (double) LONGEST_SIDE / Math.max(from.getWidth(), from.getHeight()));
        int width = (int) Math.max(1, Math.round(from.getWidth() * scale));
        int height = (int) Math.max(1, Math.round(from.getHeight() * scale));
        BufferedImage to = new BufferedImage(
                orientation.isOnItsSide() ? height : width,
                orientation.isOnItsSide() ? width : height,
                isPhotograph ? BufferedImage.TYPE_INT_RGB : BufferedImage.TYPE_INT_ARGB);
        Graphics2D graphics = to.createGraphics();
        graphics.setRenderingHint(RenderingHints.KEY_INTERPOLATION, RenderingHints.VALUE_INTERPOLATION_BILINEAR);
        AffineTransform transform = orientation.transform(width, height);
        transform.scale((double) width / from.getWidth(), (double) height / from.getHeight());
        graphics.drawImage(from, transform, null);
        graphics.dispose();
        return to;
    }

    private static byte[] png(BufferedImage image) throws IOException {
        ByteArrayOutputStream out = new ByteArrayOutputStream();
        ImageIO.write(image, "png", out);
        return out.toByteArray();
    }

    private static byte[] jpeg(BufferedImage image) throws IOException {
        ByteArrayOutputStream out = new ByteArrayOutputStream();
        ImageWriter writer = ImageIO.getImageWritersByFormatName("jpeg").next();
        try (MemoryCacheImageOutputStream stream = new MemoryCacheImageOutputStream(out)) {
            ImageWriteParam param = writer.getDefaultWriteParam();
            param.setCompressionMode(ImageWriteParam.MODE_EXPLICIT);
            param.setCompressionQuality(QUALITY);
            writer.setOutput(stream);
            writer.write(null, new IIOImage(image, null, null), param);
        } finally {
            writer.dispose();
        }
        return out.toByteArray();
    }
}
