package io.mivrel.files.workbooks;

import io.mivrel.files.bytes.SafeXml;
import io.mivrel.model.Rule;
import io.mivrel.rows.UnreadableFileException;
import java.io.BufferedInputStream;
import java.io.Closeable;
import java.io.IOException;
import java.util.zip.ZipEntry;
import java.util.zip.ZipFile;
import javax.xml.stream.XMLStreamConstants;
import javax.xml.stream.XMLStreamException;
import javax.xml.stream.XMLStreamReader;

/** An XML part of an archive, read forward; names without their namespaces. For one thread. */
final class XmlPart implements Closeable {
    private final XMLStreamReader xml;

    private XmlPart(XMLStreamReader xml) {
        this.xml = xml;
    }

    static XmlPart open(ZipFile zip, String name) throws IOException {
        ZipEntry entry = zip.getEntry(name);
        if (entry == null) {
            throw new UnreadableFileException(
                    Rule.FILE_DAMAGED, 0, "the workbook lacks its part '" + name + "'", "save it again");
        }
        return new XmlPart(SafeXml.open(new BufferedInputStream(zip.getInputStream(entry), 1 << 16)));
    }

    /** The next event of the parser; damage comes as {@link UnreadableFileException}. */
    int step() throws IOException {
        try {
            int event = xml.next();
            if (event == XMLStreamConstants.DTD) {
                throw SafeXml.documentType("the workbook");
            }
            return event;
        } catch (XMLStreamException e) {
            throw SafeXml.refused(e, "the workbook");
        }
    }

    /** Goes to the next element that begins; false at the end of the part. */
    boolean nextStart() throws IOException {
        while (true) {
            int event = step();
            if (event == XMLStreamConstants.START_ELEMENT) {
                return true;
            }
            if (event == XMLStreamConstants.END_DOCUMENT) {
                return false;
            }
        }
    }

    /** Goes to the next element that begins; false when the one of this name ends before. */
    boolean nextStartWithin(String parent) throws IOException {
        while (true) {
            int event = step();
            if (event == XMLStreamConstants.START_ELEMENT) {
                return true;
            }
            if (event == XMLStreamConstants.END_ELEMENT && is(parent) || event == XMLStreamConstants.END_DOCUMENT) {
                return false;
            }
        }
    }

    boolean is(String element) {
        return xml.getLocalName().equals(element);
    }

    /** The attribute of this name in any namespace; empty when there is none. */
    String attribute(String name) {
        for (int i = 0; i < xml.getAttributeCount(); i++) {
            if (xml.getAttributeLocalName(i).equals(name)) {
                return xml.getAttributeValue(i);
            }
        }
        return "";
    }

    /** All text within the element that has begun. */
    String text() throws IOException {
        StringBuilder text = new StringBuilder();
        for (int depth = 1; depth > 0; ) {
            int event = step();
            depth += event == XMLStreamConstants.START_ELEMENT ? 1 : event == XMLStreamConstants.END_ELEMENT ? -1 : 0;
            append(event, text);
        }
        return text.toString();
    }

    /** The texts of the elements {@code t} within the element that has begun, without phonetic readings. */
    String shownText(String parent) throws IOException {
        StringBuilder text = new StringBuilder();
        boolean shown = false;
        int phonetic = 0;
        while (true) {
            int event = step();
            if (event == XMLStreamConstants.START_ELEMENT) {
                phonetic += is("rPh") ? 1 : 0;
                shown = is("t") && phonetic == 0;
            } else if (event == XMLStreamConstants.END_ELEMENT) {
                phonetic -= is("rPh") ? 1 : 0;
                shown = false;
                if (is(parent)) {
                    return text.toString();
                }
            } else if (shown) {
                append(event, text);
            }
        }
    }

    private void append(int event, StringBuilder text) throws IOException {
        if (event == XMLStreamConstants.CHARACTERS || event == XMLStreamConstants.CDATA) {
            text.append(xml.getTextCharacters(), xml.getTextStart(), xml.getTextLength());
            if (text.length() > 1 << 20) {
                throw new UnreadableFileException(
                        Rule.FILE_BEYOND_CAP, 0, "a cell holds more than 1,048,576 characters", "");
            }
        }
    }

    /** The text of the event that the parser stands at. */
    String characters() {
        return xml.getText();
    }

    @Override
    public void close() throws IOException {
        try {
            xml.close();
        } catch (XMLStreamException e) {
            // The archive itself is closed by its owner.
        }
    }
}
