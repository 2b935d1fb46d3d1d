package io.mivrel.model;

import java.util.Arrays;
import java.util.Objects;

/**
 * A rule of a program's own. Throws {@link IllegalArgumentException} when the name is one of Mivrel's, or has other signs
 * than small letters, digits and hyphens.
 *
 * @param severity {@link Severity#BLOCKER} holds the document
 */
public record OwnRule(String id, Severity severity, String meaning, String remedy) implements FindingRule {
    public OwnRule {
        Objects.requireNonNull(severity);
        Objects.requireNonNull(meaning);
        Objects.requireNonNull(remedy);
        if (!id.matches("[a-z0-9]+(-[a-z0-9]+)*")) {
            throw new IllegalArgumentException("'" + id + "': a rule is named with small letters, digits and hyphens");
        }
        String taken = id;
        if (Arrays.stream(Rule.values()).anyMatch(rule -> rule.id().equals(taken))) {
            throw new IllegalArgumentException("'" + id + "' is a rule of Mivrel; choose another name");
        }
    }
}
