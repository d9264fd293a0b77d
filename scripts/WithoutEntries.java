import java.io.InputStream;
import java.io.OutputStream;
import java.nio.file.Files;
import java.nio.file.Path;
import java.nio.file.StandardCopyOption;
import java.util.regex.Pattern;
import java.util.zip.ZipEntry;
import java.util.zip.ZipInputStream;
import java.util.zip.ZipOutputStream;

/** Writes a jar anew without the entries whose names begin as a pattern says. */
final class WithoutEntries {
    public static void main(String[] args) throws Exception {
        Path jar = Path.of(args[0]);
        Pattern gone = Pattern.compile(args[1]);
        Path less = jar.resolveSibling(jar.getFileName() + ".less");
        try (InputStream in = Files.newInputStream(jar);
                ZipInputStream from = new ZipInputStream(in);
                OutputStream out = Files.newOutputStream(less);
                ZipOutputStream to = new ZipOutputStream(out)) {
            to.setLevel(9);
            for (ZipEntry entry = from.getNextEntry(); entry != null; entry = from.getNextEntry()) {
                if (gone.matcher(entry.getName()).lookingAt()) {
                    continue;
                }
                ZipEntry kept = new ZipEntry(entry.getName());
                kept.setTime(entry.getTime());
                to.putNextEntry(kept);
                from.transferTo(to);
                to.closeEntry();
            }
        }
        Files.move(less, jar, StandardCopyOption.REPLACE_EXISTING);
    }
}
