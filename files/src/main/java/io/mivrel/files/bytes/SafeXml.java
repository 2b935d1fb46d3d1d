package io.mivrel.files.bytes;

import com.ctc.wstx.api.WstxInputProperties;
import com.ctc.wstx.stax.WstxInputFactory;
import io.mivrel.model.Rule;
import io.mivrel.rows.UnreadableFileException;
import java.io.InputStream;
import javax.xml.stream.XMLInputFactory;
import javax.xml.stream.XMLStreamException;
import javax.xml.stream.XMLStreamReader;

/** XML without document types, external entities or unbounded parts. */
public final class SafeXml {
    private static final int DEEPEST = 100;
    private static final int LONGEST_TEXT = 1 << 20;

    private static final XMLInputFactory FACTORY = factory();

    private SafeXml() {}

    private static XMLInputFactory factory() {
        WstxInputFactory factory = new WstxInputFactory();
        factory.setProperty(XMLInputFactory.SUPPORT_DTD, false);
        factory.setProperty(XMLInputFactory.IS_SUPPORTING_EXTERNAL_ENTITIES, false);
        factory.setProperty(XMLInputFactory.IS_COALESCING, true);
        // Else what is damaged in a text comes as another exception, when the text is asked for.
        factory.setProperty(WstxInputProperties.P_LAZY_PARSING, false);
        factory.setProperty(WstxInputProperties.P_MAX_ELEMENT_DEPTH, DEEPEST);
        factory.setProperty(WstxInputProperties.P_MAX_TEXT_LENGTH, LONGEST_TEXT);
        factory.setProperty(WstxInputProperties.P_MAX_ATTRIBUTE_SIZE, LONGEST_TEXT);
        factory.setProperty(WstxInputProperties.P_MAX_ATTRIBUTES_PER_ELEMENT, 200);
        factory.setProperty(WstxInputProperties.P_MAX_ENTITY_COUNT, 1);
        return factory;
    }

    /** A reader; the encoding is the one that the XML declares. */
    public static XMLStreamReader open(InputStream in) throws UnreadableFileException {
        try {
            return FACTORY.createXMLStreamReader(in);
        } catch (XMLStreamException e) {
            throw refused(e, "the file");
        }
    }

    /** What an error of the reader means for the file or the part of it. */
    public static UnreadableFileException refused(Exception e, String what) {
        int line = e instanceof XMLStreamException x && x.getLocation() != null
                ? x.getLocation().getLineNumber()
                : 0;
        String message = String.valueOf(e.getMessage()).lines().findFirst().orElse("");
        boolean cap = message.contains("limit");
        return new UnreadableFileException(
                cap ? Rule.FILE_BEYOND_CAP : Rule.FILE_DAMAGED,
                0,
                what + " is not sound XML" + (line > 0 ? " at line " + line : "") + ": " + message,
                cap ? Rule.FILE_BEYOND_CAP.remedy() : Rule.FILE_DAMAGED.remedy());
    }

    /** Refuses a document type, which no file of ours needs and which can make entities grow without end. */
    public static UnreadableFileException documentType(String what) {
        return new UnreadableFileException(
                Rule.FILE_DAMAGED,
                0,
                what + " declares a document type of its own, which is not read",
                "ask the source for a plain file");
    }
}
