package org.openpasture.core.formula;

import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Set;
import java.util.TreeSet;
import java.util.stream.Collectors;
import org.openpasture.core.quantity.Interpolation;

/**
 * A formula that somebody wrote, such as {@code (inlet - outlet) * flow * 1.163}: numbers, names, {@code + - * / ^},
 * comparisons that give 1 or 0, and the functions of {@link Function}. Parsed once; a value costs no parsing.
 *
 * <p>Beside the names of its inputs there are {@code previous}, the formula's own value before, and for each input such
 * as {@code a} its value before, {@code a.before}. Both are unknown (NaN) where there was none.
 *
 * <p>What cannot be computed (a division by zero, the root of a negative number) is NaN or infinite. Immutable.
 */
public final class Expression {
    private static final int LONGEST = 1_000;
    private static final int DEEPEST = 50;
    private static final String PREVIOUS = "previous";
    private static final String BEFORE = ".before";

    private enum Function {
        ABS("abs", 1, 1),
        SQRT("sqrt", 1, 1),
        LN("ln", 1, 1),
        EXP("exp", 1, 1),
        ROUND("round", 1, 1),
        MIN("min", 1, 50),
        MAX("max", 1, 50),
        MEAN("mean", 1, 50),
        SUM("sum", 1, 50),
        /** Holds a value between two ends. */
        CLAMP("clamp", 3, 3),
        /** The second where the first is not 0, else the third. */
        WHEN("when", 3, 3),
        /** Straight lines through points: a value, then x and y by turns, x ascending; beyond its ends the end. */
        TABLE("table", 5, 201),
        /** The first, or the second where the first is not known. */
        KNOWN("known", 2, 2),
        /**
         * Sorts a value into levels 0, 1, 2 …: the value, a dead band, then boundaries that ascend. A level is reached
         * at its boundary and left again where the value is below it by the dead band.
         */
        LEVELS("levels", 3, 52);

        private final String word;
        private final int least;
        private final int most;

        Function(String word, int least, int most) {
            this.word = word;
            this.least = least;
            this.most = most;
        }

        double of(double[] in) {
            return switch (this) {
                case ABS -> Math.abs(in[0]);
                case SQRT -> Math.sqrt(in[0]);
                case LN -> Math.log(in[0]);
                case EXP -> Math.exp(in[0]);
                case ROUND -> Math.rint(in[0]);
                case MIN -> Statistic.MINIMUM.of(in);
                case MAX -> Statistic.MAXIMUM.of(in);
                case MEAN -> Statistic.MEAN.of(in);
                case SUM -> Statistic.SUM.of(in);
                case CLAMP -> Math.max(in[1], Math.min(in[2], in[0]));
                case WHEN -> in[0] != 0 ? in[1] : in[2];
                case KNOWN -> Double.isNaN(in[0]) ? in[1] : in[0];
                case LEVELS -> level(in);
                case TABLE -> Interpolation.at(in[0], in.length / 2, i -> in[2 * i + 1], i -> in[2 * i + 2]);
            };
        }
    }

    /** The level of a value; the last of the numbers is the level before. */
    private static double level(double[] in) {
        double value = in[0];
        double before = in[in.length - 1];
        if (Double.isNaN(value)) {
            return Double.NaN;
        }
        int level = 0;
        for (int i = 2; i < in.length - 1; i++) {
            boolean wasReached = level < before;
            if (value < (wasReached ? in[i] - in[1] : in[i])) {
                break;
            }
            level++;
        }
        return level;
    }

    /** A part of a formula. */
    private sealed interface Node {
        record Number(double value) implements Node {}

        record Name(int index) implements Node {}

        record Negative(Node of) implements Node {}

        record Pair(char operator, Node left, Node right) implements Node {}

        record Call(Function function, List<Node> arguments) implements Node {}
    }

    private final Node root;
    private final List<String> names;
    private final boolean looksAtItself;
    private final boolean looksBack;

    private Expression(Node root, List<String> names, boolean looksAtItself, boolean looksBack) {
        this.root = root;
        this.names = names;
        this.looksAtItself = looksAtItself;
        this.looksBack = looksBack;
    }

    /**
     * Reads a formula.
     *
     * @param names that may stand in it
     * @throws IllegalArgumentException saying what is wrong, and where
     */
    public static Expression parse(String text, Set<String> names) {
        if (text.length() > LONGEST) {
            throw new IllegalArgumentException(
                    "the formula has " + text.length() + " characters; the maximum is " + LONGEST);
        }
        List<String> inOrder = names.stream().sorted().toList();
        Parser parser = new Parser(text, inOrder);
        Node root = parser.whole();
        Set<String> unused = new TreeSet<>(names);
        unused.removeAll(parser.used);
        if (!unused.isEmpty()) {
            throw new IllegalArgumentException("the formula does not use " + String.join(", ", unused));
        }
        return new Expression(root, inOrder, parser.looksAtItself, parser.looksAtItself || parser.looksAtBefore);
    }

    /** The names in it, in the order in which values are given. */
    public List<String> names() {
        return names;
    }

    /** Whether its value rests on the one before, and so on all that came earlier. */
    public boolean looksAtItself() {
        return looksAtItself;
    }

    /** Whether its value rests on an earlier one, of its own or of an input. */
    public boolean looksBack() {
        return looksBack;
    }

    /** Its value for values of its names, where there was nothing before. */
    public double value(double[] values) {
        double[] unknown = new double[values.length];
        Arrays.fill(unknown, Double.NaN);
        return value(values, Double.NaN, unknown);
    }

    /**
     * Its value for values of its names.
     *
     * @param previous its own value before; NaN for none
     * @param before the values of its names before; NaN for none
     */
    public double value(double[] values, double previous, double[] before) {
        double[] all = Arrays.copyOf(values, 2 * names.size() + 1);
        all[names.size()] = previous;
        System.arraycopy(before, 0, all, names.size() + 1, before.length);
        return value(root, all);
    }

    /** The same by name. */
    public double value(Map<String, Double> values) {
        return value(names.stream().mapToDouble(values::get).toArray());
    }

    private static double value(Node node, double[] values) {
        return switch (node) {
            case Node.Number number -> number.value();
            case Node.Name name -> values[name.index()];
            case Node.Negative negative -> -value(negative.of(), values);
            case Node.Pair(char operator, Node left, Node right) ->
                pair(operator, value(left, values), value(right, values));
            case Node.Call(Function function, List<Node> arguments) ->
                function.of(arguments.stream()
                        .mapToDouble(argument -> value(argument, values))
                        .toArray());
        };
    }

    private static double pair(char operator, double left, double right) {
        return switch (operator) {
            case '+' -> left + right;
            case '-' -> left - right;
            case '*' -> left * right;
            case '/' -> left / right;
            case '^' -> Math.pow(left, right);
            case '<' -> left < right ? 1 : 0;
            case '>' -> left > right ? 1 : 0;
            case '≤' -> left <= right ? 1 : 0;
            case '≥' -> left >= right ? 1 : 0;
            default -> throw new IllegalArgumentException("no operator '" + operator + "'");
        };
    }

    /** Reads from left to right; each method reads what binds tighter than the one that calls it. */
    private static final class Parser {
        private final String text;
        private final List<String> names;
        private final Set<String> used = new TreeSet<>();
        private int at;
        private int depth;
        private boolean looksAtItself;
        private boolean looksAtBefore;

        Parser(String text, List<String> names) {
            this.text = text;
            this.names = names;
        }

        Node whole() {
            Node node = comparison();
            if (at < text.length()) {
                throw wrong("'" + text.charAt(at) + "' is not expected");
            }
            return node;
        }

        private Node comparison() {
            if (++depth > DEEPEST) {
                throw wrong("brackets are nested too deeply");
            }
            Node left = sum();
            char operator = next("<>≤≥");
            if (operator == 0) {
                depth--;
                return left;
            }
            if (at < text.length() && text.charAt(at) == '=' && (operator == '<' || operator == '>')) {
                at++;
                operator = operator == '<' ? '≤' : '≥';
            }
            Node right = sum();
            depth--;
            return new Node.Pair(operator, left, right);
        }

        private Node sum() {
            Node left = product();
            for (char operator = next("+-"); operator != 0; operator = next("+-")) {
                left = new Node.Pair(operator, left, product());
            }
            return left;
        }

        private Node product() {
            Node left = signed();
            for (char operator = next("*/"); operator != 0; operator = next("*/")) {
                left = new Node.Pair(operator, left, signed());
            }
            return left;
        }

        /** A sign binds less than a power: -2^2 is -4. */
        private Node signed() {
            if (next("-") == 0) {
                return power();
            }
            if (++depth > DEEPEST) {
                throw wrong("there are too many signs");
            }
            Node of = signed();
            depth--;
            return new Node.Negative(of);
        }

        private Node power() {
            Node base = single();
            return next("^") == 0 ? base : new Node.Pair('^', base, signed());
        }

        private Node single() {
            if (next("(") != 0) {
                Node inside = comparison();
                close();
                return inside;
            }
            skip();
            int from = at;
            while (at < text.length() && isOfWord(text.charAt(at))) {
                at++;
            }
            String word = text.substring(from, at);
            if (word.isEmpty()) {
                throw wrong(at < text.length() ? "a value is missing" : "the formula ends too early");
            }
            return Character.isDigit(word.charAt(0)) || word.charAt(0) == '.'
                    ? number(from)
                    : next("(") != 0 ? call(word) : name(word);
        }

        private static boolean isOfWord(char c) {
            return Character.isLetterOrDigit(c) || c == '_' || c == '.';
        }

        private Node number(int from) {
            at = from;
            while (at < text.length() && (isOfWord(text.charAt(at)) || isSignOfExponent(from))) {
                at++;
            }
            String written = text.substring(from, at);
            if (!written.matches("(\\d+\\.?\\d*|\\.\\d+)([eE][+-]?\\d{1,3})?")) {
                throw wrong("'" + written + "' is no number");
            }
            return new Node.Number(Double.parseDouble(written));
        }

        private boolean isSignOfExponent(int from) {
            return (text.charAt(at) == '-' || text.charAt(at) == '+')
                    && at > from
                    && Character.toLowerCase(text.charAt(at - 1)) == 'e'
                    && Character.isDigit(text.charAt(from));
        }

        private Node name(String word) {
            int index = names.indexOf(word);
            if (index < 0 && word.equals(PREVIOUS)) {
                return previous();
            }
            int before = word.endsWith(BEFORE) ? names.indexOf(word.substring(0, word.length() - BEFORE.length())) : -1;
            if (index < 0 && before >= 0) {
                used.add(names.get(before));
                looksAtBefore = true;
                return new Node.Name(names.size() + 1 + before);
            }
            if (index < 0) {
                throw wrong("'" + word + "' is not known; there are "
                        + (names.isEmpty() ? "no points" : String.join(", ", names)));
            }
            used.add(word);
            return new Node.Name(index);
        }

        private Node call(String word) {
            Function function = Arrays.stream(Function.values())
                    .filter(one -> one.word.equals(word.toLowerCase(Locale.ROOT)))
                    .findFirst()
                    .orElseThrow(() -> wrong("there is no function '" + word + "'; there are "
                            + Arrays.stream(Function.values())
                                    .map(one -> one.word)
                                    .collect(Collectors.joining(", "))));
            List<Node> arguments = new ArrayList<>();
            do {
                arguments.add(comparison());
            } while (next(",;") != 0);
            close();
            if (arguments.size() < function.least || arguments.size() > function.most) {
                throw wrong("'" + word + "' takes "
                        + (function.least == function.most ? function.least : function.least + " to " + function.most)
                        + (function.most == 1 ? " value" : " values") + ", not " + arguments.size());
            }
            if (function == Function.TABLE) {
                checkTable(arguments);
            }
            if (function == Function.LEVELS) {
                checkLevels(arguments);
                arguments.add(previous());
            }
            return new Node.Call(function, arguments);
        }

        private Node previous() {
            looksAtItself = true;
            return new Node.Name(names.size());
        }

        private void checkLevels(List<Node> arguments) {
            if (!(constant(arguments.get(1)) >= 0)) {
                throw wrong("the dead band of 'levels' is a number from 0");
            }
            checkAscending(arguments, 2, 1, "the boundaries of 'levels' are numbers that ascend");
        }

        private void checkTable(List<Node> arguments) {
            if (arguments.size() % 2 == 0) {
                throw wrong("'table' takes a value and then pairs of x and y");
            }
            checkAscending(arguments, 1, 2, "the x of a table are numbers that ascend");
        }

        /** Refuses numbers that do not ascend: those from a place on, each so many places further. */
        private void checkAscending(List<Node> nodes, int from, int step, String otherwise) {
            double before = Double.NEGATIVE_INFINITY;
            for (int i = from; i < nodes.size(); i += step) {
                double value = constant(nodes.get(i));
                if (!(value > before)) {
                    throw wrong(otherwise);
                }
                before = value;
            }
        }

        private static double constant(Node node) {
            return switch (node) {
                case Node.Number number -> number.value();
                case Node.Negative(Node.Number number) -> -number.value();
                default -> Double.NaN;
            };
        }

        private void close() {
            if (next(")") == 0) {
                throw wrong("a ')' is missing");
            }
        }

        private void skip() {
            while (at < text.length() && Character.isWhitespace(text.charAt(at))) {
                at++;
            }
        }

        /** The next character if it is one of these, which is then read; else 0. */
        private char next(String of) {
            skip();
            if (at < text.length() && of.indexOf(text.charAt(at)) >= 0) {
                return text.charAt(at++);
            }
            return 0;
        }

        private IllegalArgumentException wrong(String what) {
            return new IllegalArgumentException(what + " (at character " + Math.max(1, at) + ")");
        }
    }
}
