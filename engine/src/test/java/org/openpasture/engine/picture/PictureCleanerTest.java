package org.openpasture.engine.picture;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatIllegalArgumentException;

import java.awt.Color;
import java.awt.Graphics2D;
import java.awt.image.BufferedImage;
import java.io.ByteArrayInputStream;
import java.io.ByteArrayOutputStream;
import java.io.IOException;
import java.nio.ByteBuffer;
import java.nio.charset.StandardCharsets;
import java.util.zip.CRC32;
import javax.imageio.ImageIO;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import org.junit.jupiter.params.provider.ValueSource;

/** What comes out shows what came in, and does nothing else. */
class PictureCleanerTest {
    /** White, with a dark field at the upper left. */
    private static byte[] picture(String format, int width, int height) throws IOException {
        BufferedImage image = new BufferedImage(width, height, BufferedImage.TYPE_INT_RGB);
        Graphics2D graphics = image.createGraphics();
        graphics.setColor(Color.WHITE);
        graphics.fillRect(0, 0, width, height);
        graphics.setColor(Color.BLACK);
        graphics.fillRect(0, 0, width / 2, height / 2);
        graphics.dispose();
        ByteArrayOutputStream out = new ByteArrayOutputStream();
        ImageIO.write(image, format, out);
        return out.toByteArray();
    }

    /** Puts an Exif part behind the start of a JPEG, with an orientation and a place where it was taken. */
    private static byte[] taken(byte[] jpeg, int orientation) {
        byte[] secret = "GPS 54.1N 2.2W".getBytes(StandardCharsets.US_ASCII);
        ByteBuffer tiff = ByteBuffer.allocate(26 + secret.length);
        tiff.putShort((short) 0x4d4d).putShort((short) 42).putInt(8).putShort((short) 1);
        tiff.putShort((short) 274)
                .putShort((short) 3)
                .putInt(1)
                .putShort((short) orientation)
                .putShort((short) 0);
        tiff.putInt(0).put(secret);
        ByteBuffer all = ByteBuffer.allocate(jpeg.length + 10 + tiff.capacity());
        all.put(jpeg, 0, 2).putShort((short) 0xffe1).putShort((short) (8 + tiff.capacity()));
        all.put(new byte[] {'E', 'x', 'i', 'f', 0, 0}).put(tiff.array()).put(jpeg, 2, jpeg.length - 2);
        return all.array();
    }

    private static BufferedImage read(Cleaned cleaned) throws IOException {
        return ImageIO.read(new ByteArrayInputStream(cleaned.content()));
    }

    private static boolean isDark(BufferedImage image, double x, double y) {
        return (image.getRGB((int) (x * image.getWidth()), (int) (y * image.getHeight())) & 0xff) < 90;
    }

    /** The dark corner of what the camera stored, and where it is when the picture is upright (Exif 2.32, 4.6.4). */
    @ParameterizedTest
    @CsvSource({
        "1, .25, .25, 200, 100", "2, .75, .25, 200, 100", "3, .75, .75, 200, 100", "4, .25, .75, 200, 100",
        "5, .25, .25, 100, 200", "6, .75, .25, 100, 200", "7, .75, .75, 100, 200", "8, .25, .75, 100, 200",
        "0, .25, .25, 200, 100", "99, .25, .25, 200, 100"
    })
    void aPhotographIsTurnedUprightAndForgetsWhereItWasTaken(int orientation, double x, double y, int width, int height)
            throws IOException {
        Cleaned cleaned = PictureCleaner.clean(taken(picture("jpg", 200, 100), orientation));
        assertThat(cleaned.type()).isEqualTo("image/jpeg");
        assertThat(cleaned.width()).isEqualTo(width);
        assertThat(cleaned.height()).isEqualTo(height);
        BufferedImage image = read(cleaned);
        assertThat(isDark(image, x, y)).isTrue();
        assertThat(isDark(image, 1 - x, 1 - y)).isFalse();
        assertThat(new String(cleaned.content(), StandardCharsets.ISO_8859_1)).doesNotContain("GPS", "Exif");
    }

    @Test
    void aLargeOneIsScaledDown() throws IOException {
        Cleaned cleaned = PictureCleaner.clean(picture("png", 6_000, 4_800));
        assertThat(cleaned.width()).isEqualTo(PictureCleaner.LONGEST_SIDE);
        assertThat(cleaned.height()).isEqualTo(2_048);
        assertThat(isDark(read(cleaned), .25, .25)).isTrue();
        assertThat(isDark(read(cleaned), .75, .75)).isFalse();
    }

    /** A few bytes that say they are a hundred thousand pixels wide and high. */
    @Test
    void oneThatWouldFillTheMemoryIsRefusedBeforeItIsDecoded() throws IOException {
        byte[] bomb = picture("png", 2, 2);
        ByteBuffer header = ByteBuffer.wrap(bomb);
        header.putInt(16, 100_000).putInt(20, 100_000);
        CRC32 crc = new CRC32();
        crc.update(bomb, 12, 17);
        header.putInt(29, (int) crc.getValue());
        assertThatIllegalArgumentException()
                .isThrownBy(() -> PictureCleaner.clean(bomb))
                .withMessageContaining("million");
    }

    @ParameterizedTest
    @ValueSource(strings = {"", "GIF89a", "<html><body>x</body></html>", "%PDF-1.7", "\u0089PNG", "<svg", "<svg/>"})
    void whatIsNoPictureIsRefused(String content) {
        assertThatIllegalArgumentException()
                .isThrownBy(() -> PictureCleaner.clean(content.getBytes(StandardCharsets.ISO_8859_1)));
    }

    @Test
    void aDamagedOneIsRefused() throws IOException {
        byte[] jpeg = picture("jpg", 200, 100);
        byte[] half = java.util.Arrays.copyOf(jpeg, 40);
        assertThatIllegalArgumentException().isThrownBy(() -> PictureCleaner.clean(half));
    }

    private static String svg(String inside) {
        String whole = "<?xml version='1.0'?><svg xmlns='http://www.w3.org/2000/svg' "
                + "xmlns:xlink='http://www.w3.org/1999/xlink' viewBox='0 0 300 200'>" + inside + "</svg>";
        Cleaned cleaned = PictureCleaner.clean(whole.getBytes(StandardCharsets.UTF_8));
        assertThat(cleaned.width()).isEqualTo(300);
        assertThat(cleaned.height()).isEqualTo(200);
        return new String(cleaned.content(), StandardCharsets.UTF_8);
    }

    @Test
    void aDrawingKeepsWhatDraws() {
        assertThat(svg("<defs><linearGradient id='g'/></defs><rect width='10' height='5' fill='url(#g)'/>"
                        + "<use xlink:href='#g'/><text x='1'>Hall &lt;1&gt;</text>"
                        + "<style>.a { fill: url( \"#g\" ) }</style>"
                        + "<image href='data:image/png;base64,AAAA'/>"))
                .contains("linearGradient", "url(#g)", "#g", "Hall &lt;1&gt;", ".a { fill", "data:image/png");
    }

    @ParameterizedTest
    @ValueSource(
            strings = {
                "<script>evil()</script>",
                "<script xlink:href='evil.js'/>",
                "<rect onload='evil()' width='1'/>",
                "<a xlink:href='javascript:evil()'><rect/></a>",
                "<use xlink:href='http://evil/x.svg#a'/>",
                "<use href='//evil/x'/>",
                "<image href='http://evil/x.png'/>",
                "<image href='data:image/svg+xml;base64,evil'/>",
                "<foreignObject><body xmlns='http://www.w3.org/1999/xhtml'>evil</body></foreignObject>",
                "<rect style='fill: url(http://evil/x)'/>",
                "<rect fill='u\\72l(evil)'/>",
                "<style>@import url(http://evil/x.css);</style>",
                "<style>rect { background: url('//evil') }</style>",
                "<set attributeName='href' to='evil'/>",
                "<animate attributeName='href' values='evil'/>",
                "<x:script xmlns:x='http://www.w3.org/2000/svg'>evil</x:script>",
                "<iframe src='evil'/>"
            })
    void aDrawingLosesWhatRunsAndWhatFetches(String inside) {
        assertThat(svg(inside + "<circle r='1'/>")).doesNotContain("evil").contains("circle");
    }

    @Test
    void entitiesAndDepthDoNotStopTheService() {
        String laughs = "<!DOCTYPE svg [<!ENTITY a 'evil'><!ENTITY b SYSTEM 'file:///etc/passwd'>]>"
                + "<svg xmlns='http://www.w3.org/2000/svg' viewBox='0 0 3 2'><text>&a;&b;</text></svg>";
        assertThatIllegalArgumentException()
                .isThrownBy(() -> PictureCleaner.clean(laughs.getBytes(StandardCharsets.UTF_8)));
        String deep = "<svg xmlns='http://www.w3.org/2000/svg' viewBox='0 0 3 2'>" + "<g>".repeat(5_000);
        assertThatIllegalArgumentException()
                .isThrownBy(() -> PictureCleaner.clean(deep.getBytes(StandardCharsets.UTF_8)))
                .withMessageContaining("complex");
    }
}
