package org.openpasture.engine.notice;

import java.util.regex.Pattern;

/** A notice as simple HTML: its first line as a heading, its facts in lines, its addresses as links. */
final class MailHtml {
    private static final Pattern ADDRESS = Pattern.compile("https?://[^\\s<>\"]+");

    private MailHtml() {}

    static String of(String text) {
        StringBuilder html = new StringBuilder("<!doctype html><html lang=\"en\"><body style=\"margin:0;padding:16px;"
                + "font:16px/1.5 sans-serif;color:#1d2420;background:#ffffff\">");
        boolean heading = true;
        for (String paragraph : text.strip().split("\n{2,}")) {
            String lines = linked(paragraph.strip()).replace("\n", "<br>");
            html.append(heading ? "<p style=\"font-size:18px;font-weight:bold\">" : "<p>")
                    .append(lines)
                    .append("</p>");
            heading = false;
        }
        return html.append("</body></html>").toString();
    }

    private static String linked(String text) {
        return ADDRESS.matcher(escaped(text)).replaceAll("<a href=\"$0\">$0</a>");
    }

    private static String escaped(String text) {
        return text.replace("&", "&amp;")
                .replace("<", "&lt;")
                .replace(">", "&gt;")
                .replace("\"", "&quot;");
    }
}
