package org.openpasture.engine.picture;

import java.io.ByteArrayInputStream;
import java.io.ByteArrayOutputStream;
import java.nio.charset.StandardCharsets;
import java.util.Locale;
import java.util.Optional;
import java.util.Set;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import javax.xml.stream.XMLInputFactory;
import javax.xml.stream.XMLOutputFactory;
import javax.xml.stream.XMLStreamConstants;
import javax.xml.stream.XMLStreamException;
import javax.xml.stream.XMLStreamReader;
import javax.xml.stream.XMLStreamWriter;

/**
 * Writes an SVG anew with nothing but what draws (SVG 1.1): no scripts, no animation, no foreign content, no entities,
 * and no address other than one within the drawing itself or a picture that is part of it.
 */
final class SvgCleaner {
    private static final String SVG = "http://www.w3.org/2000/svg";
    private static final String XLINK = "http://www.w3.org/1999/xlink";
    private static final Set<String> DRAWING = Set.of(
            "svg",
            "g",
            "defs",
            "symbol",
            "use",
            "title",
            "desc",
            "path",
            "rect",
            "circle",
            "ellipse",
            "line",
            "polyline",
            "polygon",
            "text",
            "tspan",
            "textPath",
            "image",
            "clipPath",
            "mask",
            "marker",
            "pattern",
            "linearGradient",
            "radialGradient",
            "stop",
            "style",
            "switch",
            "filter",
            "feGaussianBlur",
            "feOffset",
            "feBlend",
            "feFlood",
            "feComposite",
            "feMerge",
            "feMergeNode",
            "feColorMatrix");
    private static final Set<String> OF_NAMESPACES = Set.of("lang", "space");
    private static final Pattern ELSEWHERE =
            Pattern.compile("(?i)@import|expression\\s*\\(|url\\s*+\\(\\s*+['\"]?+(?!#)|\\\\|image-set|javascript:");
    private static final Pattern PART_OF_IT = Pattern.compile("(?i)data:image/(png|jpeg);base64,[a-z0-9+/=\\s]*");
    private static final Pattern LENGTH = Pattern.compile("\\s*([0-9.]+)\\s*(px|pt|mm|cm|in)?\\s*");
    private static final int MOST_ELEMENTS = 200_000;
    private static final int DEEPEST = 90;
    private static final int LONGEST = 5 << 20;
    private static final int LONGEST_SIDE = 20_000;

    private SvgCleaner() {}

    static boolean looksLikeSvg(byte[] content) {
        String head = new String(content, 0, Math.min(content.length, 4_096), StandardCharsets.UTF_8);
        return head.toLowerCase(Locale.ROOT).contains("<svg");
    }

    static Cleaned clean(byte[] content) {
        if (content.length > LONGEST) {
            throw new IllegalArgumentException("The drawing is larger than 5 MB. Save it simplified, or as PNG.");
        }
        XMLInputFactory in = XMLInputFactory.newInstance();
        in.setProperty(XMLInputFactory.SUPPORT_DTD, false);
        in.setProperty(XMLInputFactory.IS_SUPPORTING_EXTERNAL_ENTITIES, false);
        in.setProperty(XMLInputFactory.IS_COALESCING, true);
        ByteArrayOutputStream out = new ByteArrayOutputStream();
        try {
            XMLStreamReader reader = in.createXMLStreamReader(new ByteArrayInputStream(content));
            XMLStreamWriter writer = XMLOutputFactory.newInstance().createXMLStreamWriter(out, "UTF-8");
            Size size = copy(reader, writer);
            writer.close();
            return new Cleaned("image/svg+xml", size.width(), size.height(), out.toByteArray());
        } catch (XMLStreamException e) {
            throw new IllegalArgumentException("The drawing cannot be read: it is no well-formed SVG.", e);
        }
    }

    private record Size(int width, int height) {}

    private static Size copy(XMLStreamReader reader, XMLStreamWriter writer) throws XMLStreamException {
        Optional<Size> size = Optional.empty();
        int depth = 0;
        int elements = 0;
        boolean isStyle = false;
        writer.setDefaultNamespace(SVG);
        while (reader.hasNext()) {
            switch (reader.next()) {
                case XMLStreamConstants.START_ELEMENT -> {
                    if (!isDrawing(reader)) {
                        skip(reader);
                        break;
                    }
                    depth++;
                    elements++;
                    if (depth > DEEPEST || elements > MOST_ELEMENTS) {
                        throw new IllegalArgumentException("The drawing is too complex.");
                    }
                    isStyle = reader.getLocalName().equals("style");
                    writer.writeStartElement(SVG, reader.getLocalName());
                    if (size.isEmpty()) {
                        size = Optional.of(size(reader));
                        writer.writeDefaultNamespace(SVG);
                        writer.writeNamespace("xlink", XLINK);
                    }
                    attributes(reader, writer);
                }
                case XMLStreamConstants.END_ELEMENT -> {
                    depth--;
                    isStyle = false;
                    writer.writeEndElement();
                }
                case XMLStreamConstants.CHARACTERS, XMLStreamConstants.CDATA, XMLStreamConstants.SPACE -> {
                    String text = reader.getText();
                    if (depth > 0 && !(isStyle && ELSEWHERE.matcher(text).find())) {
                        writer.writeCharacters(text);
                    }
                }
                default -> {}
            }
        }
        return size.orElseThrow(() -> new IllegalArgumentException("The drawing is empty."));
    }

    private static boolean isDrawing(XMLStreamReader reader) {
        String namespace = reader.getNamespaceURI();
        return (namespace == null || namespace.isEmpty() || namespace.equals(SVG))
                && DRAWING.contains(reader.getLocalName());
    }

    private static void skip(XMLStreamReader reader) throws XMLStreamException {
        for (int depth = 1; depth > 0; ) {
            int event = reader.next();
            depth += event == XMLStreamConstants.START_ELEMENT ? 1 : event == XMLStreamConstants.END_ELEMENT ? -1 : 0;
        }
    }

    private static void attributes(XMLStreamReader reader, XMLStreamWriter writer) throws XMLStreamException {
        for (int i = 0; i < reader.getAttributeCount(); i++) {
            String namespace = reader.getAttributeNamespace(i);
            String name = reader.getAttributeLocalName(i);
            String value = reader.getAttributeValue(i);
            boolean isOwn = namespace == null || namespace.isEmpty();
            if (name.equals("href") && (isOwn || XLINK.equals(namespace))) {
                if (value.startsWith("#") || PART_OF_IT.matcher(value).matches()) {
                    writer.writeAttribute("xlink", XLINK, "href", value);
                }
            } else if (isOwn
                    && !name.toLowerCase(Locale.ROOT).startsWith("on")
                    && !ELSEWHERE.matcher(value).find()) {
                writer.writeAttribute(name, value);
            } else if ("http://www.w3.org/XML/1998/namespace".equals(namespace) && OF_NAMESPACES.contains(name)) {
                writer.writeAttribute("xml", namespace, name, value);
            }
        }
    }

    private static Size size(XMLStreamReader reader) {
        if (!reader.getLocalName().equals("svg")) {
            throw new IllegalArgumentException("The drawing does not begin with 'svg'.");
        }
        String box = reader.getAttributeValue(null, "viewBox");
        double width = length(reader.getAttributeValue(null, "width"));
        double height = length(reader.getAttributeValue(null, "height"));
        if (box != null && !(width > 0 && height > 0)) {
            String[] parts = box.strip().split("[\\s,]+", -1);
            width = parts.length == 4 ? length(parts[2]) : 0;
            height = parts.length == 4 ? length(parts[3]) : 0;
        }
        if (!(width >= 1 && height >= 1 && width <= LONGEST_SIDE && height <= LONGEST_SIDE)) {
            throw new IllegalArgumentException(
                    "The drawing says no size. Give its svg element a width and a height, or a viewBox.");
        }
        return new Size((int) Math.round(width), (int) Math.round(height));
    }

    private static double length(String text) {
        Matcher matcher = LENGTH.matcher(text == null ? "" : text);
        if (!matcher.matches()) {
            return 0;
        }
        double factor =
                switch (Optional.ofNullable(matcher.group(2)).orElse("px")) {
                    case "pt" -> 4.0 / 3;
                    case "mm" -> 96 / 25.4;
                    case "cm" -> 96 / 2.54;
                    case "in" -> 96.0;
                    default -> 1.0;
                };
        try {
            return Double.parseDouble(matcher.group(1)) * factor;
        } catch (NumberFormatException e) {
            return 0;
        }
    }
}
