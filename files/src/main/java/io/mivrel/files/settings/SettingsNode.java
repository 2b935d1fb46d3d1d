package io.mivrel.files.settings;

import io.mivrel.files.bytes.Readable;
import io.mivrel.files.keys.Key;
import java.io.IOException;
import java.nio.charset.MalformedInputException;
import java.nio.file.Files;
import java.nio.file.NoSuchFileException;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.Collection;
import java.util.HashSet;
import java.util.LinkedHashMap;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import java.util.Optional;
import java.util.Set;
import org.jspecify.annotations.Nullable;
import org.snakeyaml.engine.v2.api.LoadSettings;
import org.snakeyaml.engine.v2.composer.Composer;
import org.snakeyaml.engine.v2.exceptions.Mark;
import org.snakeyaml.engine.v2.exceptions.MarkedYamlEngineException;
import org.snakeyaml.engine.v2.exceptions.YamlEngineException;
import org.snakeyaml.engine.v2.nodes.MappingNode;
import org.snakeyaml.engine.v2.nodes.Node;
import org.snakeyaml.engine.v2.nodes.NodeTuple;
import org.snakeyaml.engine.v2.nodes.ScalarNode;
import org.snakeyaml.engine.v2.nodes.SequenceNode;
import org.snakeyaml.engine.v2.parser.ParserImpl;
import org.snakeyaml.engine.v2.scanner.StreamReader;

/**
 * A block of a YAML file read like a form: each question asks for a key, remembers that the key is allowed, and reports
 * what is missing or of the wrong kind with its place. {@link #done} reports the keys that nobody asked for. Values are
 * taken as the text that stands there, so {@code 1200} and {@code "1200"} are the same.
 */
final class SettingsNode {
    private static final long MOST_BYTES = 1 << 20;
    private static final int MOST_KEYS = 10_000;

    final String file;
    private final Problems problems;
    private final String title;
    private final int line;
    private final int column;
    private final Node node;
    private String whole = "";
    /** Whether it holds the blocks that count as they are said. */
    private boolean isEntry;

    private final Map<String, Node> values = new LinkedHashMap<>();
    private final Map<String, Node> keys = new LinkedHashMap<>();
    private final Set<String> questions = new HashSet<>();
    private final Set<String> asked = new LinkedHashSet<>();

    private final Set<String> inherited = new HashSet<>();
    private final @Nullable SettingsNode base;

    private SettingsNode(String file, Problems problems, String title, Node node) {
        this(file, problems, title, node, null);
    }

    private SettingsNode(String file, Problems problems, String title, Node node, @Nullable SettingsNode base) {
        this.base = base;
        this.file = file;
        this.problems = problems;
        this.title = title;
        this.line = line(node);
        this.column = column(node);
        this.node = node;
        if (base != null) {
            values.putAll(base.values);
            keys.putAll(base.keys);
            inherited.addAll(base.keys.keySet());
        }
        if (node instanceof MappingNode mapping) {
            for (NodeTuple tuple : mapping.getValue()) {
                String key = tuple.getKeyNode() instanceof ScalarNode scalar ? scalar.getValue() : "?";
                if (values.put(key, tuple.getValueNode()) != null && !inherited.remove(key)) {
                    problems.add(
                            file,
                            line(tuple.getKeyNode()),
                            column(tuple.getKeyNode()),
                            "'" + key + "' stands twice",
                            "");
                }
                keys.put(key, tuple.getKeyNode());
                if (keys.size() > MOST_KEYS) {
                    problems.add(file, line, column, title + " has more than " + MOST_KEYS + " keys", "");
                    keys.clear();
                    break;
                }
            }
        } else {
            problems.add(file, line, column, title + " must be a block of 'key: value' lines", "");
        }
    }

    /** Opens a file; answers {@code null}, with the problem reported, when it cannot be read as YAML. */
    static SettingsNode open(Path path, String shown, Problems problems) {
        try {
            if (Files.exists(path) && !Files.isDirectory(path)) {
                Readable.check(path);
                if (Files.size(path) > MOST_BYTES) {
                    problems.add(shown, 0, 0, "is larger than a settings file may be (" + MOST_BYTES + " bytes)", "");
                    return null;
                }
            }
            String text = Files.readString(path);
            LoadSettings how = LoadSettings.builder()
                    .setLabel(shown)
                    .setAllowDuplicateKeys(true)
                    .build();
            Optional<Node> node = new Composer(how, new ParserImpl(how, new StreamReader(how, text))).getSingleNode();
            if (node.isEmpty()) {
                problems.add(shown, 0, 0, "the file is empty", "");
                return null;
            }
            return new SettingsNode(shown, problems, "the file", node.get());
        } catch (NoSuchFileException e) {
            problems.add(shown, 0, 0, "there is no such file", "");
        } catch (MalformedInputException e) {
            problems.add(shown, 0, 0, "the file is not text in UTF-8", "");
        } catch (IOException e) {
            problems.add(
                    shown, 0, 0, Files.isDirectory(path) ? "is a folder, a file was expected" : "cannot be read", "");
        } catch (MarkedYamlEngineException e) {
            Optional<Mark> mark = e.getProblemMark();
            problems.add(
                    shown,
                    mark.map(m -> m.getLine() + 1).orElse(0),
                    mark.map(m -> m.getColumn() + 1).orElse(0),
                    "is not YAML: " + e.getProblem(),
                    "look for a missing quote, colon or space before this place");
        } catch (StackOverflowError tooDeep) {
            problems.add(shown, 0, 0, "is nested too deeply to be a settings file", "");
        } catch (YamlEngineException e) {
            problems.add(
                    shown,
                    0,
                    0,
                    "is not YAML: " + e.getMessage().lines().findFirst().orElse(""),
                    "");
        }
        return null;
    }

    Problems problems() {
        return problems;
    }

    /**
     * The same over another block: what this one does not say is as there, block by block, but for the blocks that stand under
     * {@code whole}, each of which counts as it is said.
     */
    SettingsNode over(SettingsNode other, Key whole) {
        SettingsNode merged = new SettingsNode(file, problems, title, node, other);
        merged.whole = whole.name();
        merged.asked.addAll(asked);
        return merged;
    }

    /** True when a key is not said here but in the block that this one is over. */
    boolean isInherited(Key key) {
        return inherited.contains(key.name());
    }

    private static int line(Node node) {
        return node.getStartMark().map(m -> m.getLine() + 1).orElse(0);
    }

    private static int column(Node node) {
        return node.getStartMark().map(m -> m.getColumn() + 1).orElse(0);
    }

    /** The keys in the order of the file. */
    Collection<String> keys() {
        return keys.keySet();
    }

    /** True when the block has the key. */
    boolean has(Key key) {
        return keys.containsKey(key.name());
    }

    /** True when a key holds a question of a survey, which is reported once it was asked for. */
    boolean isQuestion(Key key) {
        return questions.contains(key.name());
    }

    /** The text of a key, or {@code null} when it is left out or a question that is not answered. */
    String text(Key key) {
        return text(key.name());
    }

    /** The same of a key that the user has named. */
    String text(String key) {
        asked.add(key);
        Node node = values.get(key);
        if (node == null) {
            return null;
        }
        if (node instanceof ScalarNode scalar) {
            if (!scalar.getValue().startsWith("? ")) {
                return scalar.getValue();
            }
            if (questions.add(key)) {
                at(
                        key,
                        "'" + key + "' is a question that is not answered: "
                                + scalar.getValue().substring(2),
                        "");
            }
            return null;
        }
        at(key, "'" + key + "' must be a single text", "");
        return null;
    }

    /** The text of a key, or the other one when it is left out. */
    String text(Key key, String otherwise) {
        String text = text(key);
        return text == null ? otherwise : text;
    }

    /** The text of a key that must be given; {@code null}, with the problem reported, when it is not. */
    String required(Key key) {
        String text = text(key);
        if ((text == null && !has(key)) || (text != null && text.isBlank())) {
            missing(key.name());
            return null;
        }
        return text;
    }

    private void missing(String key) {
        problems.add(file, line, column, title + " lacks '" + key + "'", "");
    }

    /** One of the words of a key; the usual one when it is left out or wrong. */
    String choice(Key key) {
        return choice(key, key.usual());
    }

    /** The same, where something else is usual. */
    String choice(Key key, String otherwise) {
        return choice(key, otherwise, key.words());
    }

    /** The same with other words. */
    String choice(Key key, String otherwise, Collection<String> allowed) {
        String text = text(key);
        if (text == null) {
            return otherwise;
        }
        if (!allowed.contains(text)) {
            notAllowed(key, text, allowed);
            return otherwise;
        }
        return text;
    }

    /** True when a key has its second word, which is not the usual one. */
    boolean isSecond(Key key) {
        return choice(key).equals(key.words().get(1));
    }

    boolean yes(Key key, boolean otherwise) {
        String word = choice(key, otherwise ? "yes" : "no", List.of("yes", "no", "true", "false"));
        return word.equals("yes") || word.equals("true");
    }

    /** A whole number within the bounds of its key; 0 when it is left out or wrong. */
    int number(Key key) {
        String text = text(key);
        if (text == null) {
            return 0;
        }
        try {
            int number = Integer.parseInt(text.strip());
            if (number >= key.least() && number <= key.most()) {
                return number;
            }
        } catch (NumberFormatException notANumber) {
            // Reported below, like a number out of bounds.
        }
        at(
                key,
                "'" + key + "' must be a whole number from " + key.least() + " to " + key.most() + ", not '" + text
                        + "'",
                "");
        return 0;
    }

    /** A list of texts, or a single text as a list of one; empty when left out. */
    List<String> texts(Key of) {
        String key = of.name();
        asked.add(key);
        Node node = values.get(key);
        List<String> texts = new ArrayList<>();
        if (node instanceof SequenceNode sequence) {
            for (Node item : sequence.getValue()) {
                if (item instanceof ScalarNode scalar) {
                    texts.add(scalar.getValue());
                } else {
                    at(key, "'" + key + "' must be a list of texts", "");
                }
            }
        } else if (node != null) {
            String one = text(key);
            if (one != null) {
                texts.add(one);
            }
        }
        return texts;
    }

    /** Rows of texts under a key, each a list or a single text; empty when left out. */
    List<List<String>> rows(Key of) {
        asked.add(of.name());
        Node node = values.get(of.name());
        List<List<String>> rows = new ArrayList<>();
        if (node instanceof SequenceNode sequence) {
            for (Node row : sequence.getValue()) {
                List<Node> cells = row instanceof SequenceNode list ? list.getValue() : List.of(row);
                if (cells.stream().allMatch(ScalarNode.class::isInstance)) {
                    rows.add(cells.stream()
                            .map(cell -> ((ScalarNode) cell).getValue())
                            .toList());
                    continue;
                }
                at(of, "'" + of + "' must be a list of rows, each a list of texts", "");
            }
        } else if (node != null) {
            at(of, "'" + of + "' must be a list of rows: lines that begin with '- '", "- [HDR, \"{run}\"]");
        }
        return rows;
    }

    /** The block under a key; {@code null} when it is left out. */
    SettingsNode block(Key key) {
        return block(key.name());
    }

    /** The same under a key that the user has named. */
    SettingsNode block(String key) {
        Node node = values.get(key);
        if (node instanceof ScalarNode scalar && scalar.getValue().startsWith("? ")) {
            text(key);
            return null;
        }
        asked.add(key);
        if (node == null) {
            return null;
        }
        SettingsNode block = new SettingsNode(file, problems, "'" + key + "'", node, baseOf(key, node));
        block.whole = whole;
        block.isEntry = key.equals(whole);
        return block;
    }

    // What stands under the key in the block that this one is over, where both are blocks.
    private @Nullable SettingsNode baseOf(String key, Node node) {
        Node under = base == null || isEntry || inherited.contains(key) ? null : base.values.get(key);
        return under instanceof MappingNode && node instanceof MappingNode
                ? Objects.requireNonNull(base).block(key)
                : null;
    }

    /** The texts of a block by their keys; those that are questions are left out. */
    Map<String, String> all() {
        Map<String, String> all = new LinkedHashMap<>();
        for (String key : keys()) {
            String text = text(key);
            if (text != null) {
                all.put(key, text);
            }
        }
        return all;
    }

    /** The blocks of a list under a key; empty when it is left out. */
    List<SettingsNode> blocks(Key of) {
        String key = of.name();
        asked.add(key);
        Node node = values.get(key);
        List<SettingsNode> blocks = new ArrayList<>();
        if (node instanceof SequenceNode sequence) {
            for (Node item : sequence.getValue()) {
                blocks.add(new SettingsNode(file, problems, "an entry of '" + key + "'", item));
            }
        } else if (node != null) {
            at(key, "'" + key + "' must be a list: lines that begin with '- '", "");
        }
        return blocks;
    }

    /** Reports a problem at a key. */
    void at(Key key, String message, String suggestion) {
        at(key.name(), message, suggestion);
    }

    /** The same at a key that the user has named. */
    void at(String key, String message, String suggestion) {
        Node node = values.getOrDefault(key, keys.get(key));
        problems.add(file, node == null ? line : line(node), node == null ? column : column(node), message, suggestion);
    }

    /** Reports that the value of a key is not among the allowed words. */
    void notAllowed(Key key, String word, Collection<String> allowed) {
        Node node = values.get(key.name());
        problems.notAllowed(file, line(node), column(node), "'" + key + "':", word, allowed);
    }

    /** Reports that a key itself is not among the allowed words. */
    void keyNotAllowed(String key, Collection<String> allowed) {
        Node node = keys.get(key);
        problems.notAllowed(file, line(node), column(node), "key", key, allowed);
    }

    /** Reports a problem with the block as a whole. */
    void wrong(String message, String suggestion) {
        problems.add(file, line, column, message, suggestion);
    }

    /** Reports the keys that nobody asked for. */
    void done() {
        for (String key : keys.keySet()) {
            if (!asked.contains(key) && !inherited.contains(key)) {
                keyNotAllowed(key, asked);
            }
        }
    }
}
