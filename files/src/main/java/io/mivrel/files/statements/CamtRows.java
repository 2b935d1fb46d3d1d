package io.mivrel.files.statements;

import io.mivrel.files.bytes.SafeXml;
import io.mivrel.model.Rule;
import io.mivrel.rows.UnreadableFileException;
import java.io.IOException;
import java.io.InputStream;
import java.util.ArrayDeque;
import java.util.Deque;
import java.util.Set;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import javax.xml.stream.XMLStreamConstants;
import javax.xml.stream.XMLStreamException;
import javax.xml.stream.XMLStreamReader;

/**
 * Reads ISO 20022 bank-to-customer statements, camt.053.001.02 to .08. A row is a booked entry, or one of its details
 * where an entry stands for many; its number counts entries from 1. For one thread.
 */
public final class CamtRows extends StatementRows {
    private static final Pattern NAMESPACE =
            Pattern.compile("urn:iso:std:iso:20022:tech:xsd:camt\\.053\\.001\\.([0-9]{2})");

    private final InputStream in;
    private final XMLStreamReader xml;
    private final StringBuilder path = new StringBuilder();
    private final Deque<Integer> lengths = new ArrayDeque<>();
    private final StringBuilder text = new StringBuilder();
    private String currency;
    private CamtStatement statement;
    private boolean inEntry;
    private boolean begun;
    /** Rows given so far, over all statements of the file. */
    long rows;

    public CamtRows(InputStream in, String wantedAccount) throws IOException {
        super(wantedAccount);
        this.in = in;
        this.xml = SafeXml.open(in);
    }

    @Override
    boolean advance() throws IOException {
        try {
            if (!xml.hasNext()) {
                return false;
            }
            switch (xml.next()) {
                case XMLStreamConstants.START_ELEMENT -> start(xml.getLocalName());
                case XMLStreamConstants.END_ELEMENT -> end(xml.getLocalName());
                case XMLStreamConstants.CHARACTERS, XMLStreamConstants.CDATA ->
                    text.append(xml.getTextCharacters(), xml.getTextStart(), xml.getTextLength());
                case XMLStreamConstants.DTD -> throw SafeXml.documentType("the file");
                default -> {
                    // Comments and the like.
                }
            }
            return true;
        } catch (XMLStreamException e) {
            throw SafeXml.refused(e, "the file");
        }
    }

    /** What may stand in a statement beside its entries (camt.053.001.08, AccountStatement9). */
    private static final Set<String> OF_STATEMENT = Set.of(
            "Id",
            "StmtPgntn",
            "ElctrncSeqNb",
            "RptgSeq",
            "LglSeqNb",
            "CreDtTm",
            "FrToDt",
            "CpyDplctInd",
            "RptgSrc",
            "Acct",
            "RltdAcct",
            "Intrst",
            "Bal",
            "TxsSummry",
            "AddtlStmtInf");

    private void start(String element) throws IOException {
        text.setLength(0);
        if (!begun) {
            version();
        }
        if (statement == null) {
            if (element.equals("Stmt")) {
                statement = new CamtStatement(this);
                path.setLength(0);
                lengths.clear();
            }
            return;
        }
        if (!inEntry && element.equals("Ntry") && path.isEmpty()) {
            inEntry = true;
            statement.beginEntry();
            return;
        }
        if (lengths.isEmpty() && !inEntry && !OF_STATEMENT.contains(element)) {
            throw new UnreadableFileException(
                    Rule.FILE_DAMAGED,
                    0,
                    "a statement holds <" + element + ">, which camt.053 does not know there",
                    Rule.FILE_DAMAGED.remedy());
        }
        lengths.push(path.length());
        path.append(path.isEmpty() ? "" : "/").append(element);
        currency = element.equals("Amt") || element.equals("TxAmt") ? xml.getAttributeValue(null, "Ccy") : null;
        if (inEntry && path.indexOf("NtryDtls/TxDtls") == 0 && path.length() == "NtryDtls/TxDtls".length()) {
            statement.beginDetail();
        }
    }

    private void version() throws IOException {
        begun = true;
        String namespace = String.valueOf(xml.getNamespaceURI());
        Matcher version = NAMESPACE.matcher(namespace);
        if (!version.matches() || Integer.parseInt(version.group(1)) < 2 || Integer.parseInt(version.group(1)) > 8) {
            throw new UnreadableFileException(
                    Rule.FILE_KIND_DIFFERS,
                    0,
                    "the file is '" + namespace + "'; camt.053.001.02 to camt.053.001.08 are read",
                    "ask the bank for one of these");
        }
    }

    private void end(String element) {
        if (statement == null) {
            return;
        }
        if (lengths.isEmpty()) {
            if (inEntry) {
                inEntry = false;
                statement.endEntry();
            } else {
                statement.end();
                statement = null;
            }
            return;
        }
        // Groups hold blanks only; what counts stands in the leaves.
        String value = text.toString().strip();
        text.setLength(0);
        String place = path.toString();
        if (inEntry) {
            statement.ofEntry(place, value, currency);
        } else {
            statement.ofStatement(place, value, currency);
        }
        path.setLength(lengths.pop());
        currency = null;
    }

    @Override
    public void close() throws IOException {
        try {
            xml.close();
        } catch (XMLStreamException e) {
            // The file itself is closed below.
        }
        in.close();
    }
}
