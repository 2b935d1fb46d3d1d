package io.mivrel.files.statements;

import java.util.ArrayList;
import java.util.List;
import java.util.regex.Matcher;
import java.util.regex.Pattern;

/**
 * The text of a field {@code :86:}, which banks fill in three ways: freely; with a code and sub-fields of two digits
 * ({@code 166?00PAYMENT?20text?32name}, the sign being the bank's choice); or with words between slashes
 * ({@code /NAME/.../REMI/...}). For one thread.
 */
final class Information {
    private static final Pattern SUB_FIELDS = Pattern.compile("^([0-9]{3})([?<>^~@!|])[0-9]{2}");
    private static final Pattern WORD =
            Pattern.compile("/(ADDR|BENM|BIC|CHGS|CNTP|CSID|EREF|IBAN|ID|ISDT|MARF|NAME|NRTX"
                    + "|OCMT|ORDP|PREF|PURP|REMI|RTRN|SVCL|TRCD|TRTP|ULTB|ULTC|ULTD)/");
    // What European direct debits and transfers put before the parts of their purpose.
    private static final Pattern PURPOSE = Pattern.compile("(EREF|KREF|MREF|CRED|DEBT|SVWZ|ABWA|ABWE|IBAN|BIC)\\+");

    private final List<String> lines = new ArrayList<>();

    void clear() {
        lines.clear();
    }

    void add(String line) {
        lines.add(line);
    }

    /** Puts what it says into the entry. */
    void fill(StatementEntry entry, String supplement) {
        String whole = String.join("", lines);
        Matcher code = SUB_FIELDS.matcher(whole);
        if (code.find()) {
            subFields(entry, whole.substring(3), code.group(2));
        } else if (WORD.matcher(whole).lookingAt()) {
            words(entry, whole);
        } else {
            String text = "";
            for (String line : lines) {
                text = StatementRows.joined(text, line);
            }
            entry.narrative(text.isEmpty() ? supplement : text);
        }
    }

    private static void subFields(StatementEntry entry, String text, String mark) {
        StringBuilder purpose = new StringBuilder();
        String kind = "";
        String payee = "";
        for (String part : text.split(Pattern.quote(mark))) {
            if (part.length() < 2 || !Character.isDigit(part.charAt(0)) || !Character.isDigit(part.charAt(1))) {
                continue;
            }
            int number = (part.charAt(0) - '0') * 10 + part.charAt(1) - '0';
            String value = part.substring(2);
            if (number == 0) {
                kind = value.strip();
            } else if (number >= 20 && number <= 29 || number >= 60 && number <= 63) {
                purpose.append(value);
            } else if (number == 32 || number == 33) {
                payee += value;
            }
        }
        String said = purpose(entry, purpose.toString());
        entry.payee(payee.strip()).narrative(said.isEmpty() ? kind : said);
    }

    private static String purpose(StatementEntry entry, String text) {
        Matcher word = PURPOSE.matcher(text);
        if (!word.find()) {
            return text.strip();
        }
        String said = text.substring(0, word.start()).strip();
        boolean more = true;
        while (more) {
            String name = word.group(1);
            int from = word.end();
            more = word.find();
            String value =
                    text.substring(from, more ? word.start() : text.length()).strip();
            if (name.equals("SVWZ")) {
                said = StatementRows.joined(said, value);
            } else if (name.equals("EREF") && !value.equals("NOTPROVIDED")) {
                entry.reference(value);
            }
        }
        return said;
    }

    private static void words(StatementEntry entry, String text) {
        String narrative = "";
        Matcher word = WORD.matcher(text);
        boolean more = word.find();
        while (more) {
            String name = word.group(1);
            int from = word.end();
            more = word.find();
            String value = text.substring(from, more ? word.start() : text.length());
            switch (name) {
                case "NAME" -> entry.payee(value.strip());
                case "EREF" -> {
                    if (!value.contains("NOTPROVIDED")) {
                        entry.reference(value.replace("/", " ").strip());
                    }
                }
                case "REMI" ->
                    narrative =
                            StatementRows.joined(narrative, value.startsWith("USTD//") ? value.substring(6) : value);
                case "CNTP" -> {
                    // Account, bank, name and town of the other side.
                    String[] parts = value.split("/");
                    entry.payee(parts.length > 2 ? parts[2].strip() : "");
                }
                default -> {
                    // Other parts are for machines.
                }
            }
        }
        entry.narrative(narrative.isEmpty() ? text : strip(narrative));
    }

    private static String strip(String text) {
        return text.endsWith("/") ? text.substring(0, text.length() - 1).strip() : text;
    }
}
