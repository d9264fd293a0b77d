package org.openpasture.core.layout;

import java.util.ArrayList;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Locale;
import java.util.Optional;
import java.util.Set;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import java.util.stream.Collectors;
import org.openpasture.core.advert.Advert;

/** What beacons call out: numbers at bytes of a company's or a service's data in a Bluetooth LE advert. */
public record AdvertLayout(List<Section> sections) implements Layout {
    public AdvertLayout {
        sections = List.copyOf(sections);
    }

    /**
     * One kind of data.
     *
     * @param of whose it is: "company:ffff" or "service:181a", the number in hex digits as in the Assigned Numbers
     * @param fields bytes are counted after that number
     */
    public record Section(String of, List<Field> fields) {
        private static final Pattern OF = Pattern.compile("(company|service):(?:0x)?([0-9a-fA-F]{1,4})");

        public Section {
            fields = List.copyOf(fields);
            if (!OF.matcher(of).matches()) {
                throw new IllegalArgumentException(
                        "the data of an advert is named 'company:ffff' or 'service:181a', not '" + of + "'");
            }
        }

        private Optional<Advert.Structure> in(Advert advert) {
            Matcher matcher = OF.matcher(of);
            return matcher.matches()
                    ? advert.find(
                            matcher.group(1).equals("company") ? Advert.MANUFACTURER_DATA : Advert.SERVICE_DATA_16,
                            Integer.parseInt(matcher.group(2), 16))
                    : Optional.empty();
        }
    }

    /**
     * Each section that is in the advert is read; one that is too short refuses it, and so does an advert that has none
     * of them.
     */
    @Override
    public Decoding decode(int port, byte[] payload) {
        Advert advert;
        try {
            advert = Advert.of(payload);
        } catch (IllegalArgumentException e) {
            return new Decoding.Refused("it is no advert: " + e.getMessage());
        }
        List<ChannelValue> values = new ArrayList<>();
        boolean met = false;
        for (Section section : sections) {
            Optional<Advert.Structure> structure = section.in(advert);
            if (structure.isPresent()) {
                met = true;
                switch (ByteLayout.decode(section.fields(), structure.get().content())) {
                    case Decoding.Decoded decoded -> values.addAll(decoded.values());
                    case Decoding.Refused refused -> {
                        return refused;
                    }
                }
            }
        }
        return met
                ? new Decoding.Decoded(values)
                : new Decoding.Refused("the advert has no data of "
                        + sections.stream().map(Section::of).collect(Collectors.joining(", ")) + "; it has "
                        + (advert.structures().isEmpty()
                                ? "none"
                                : advert.structures().stream()
                                        .map(AdvertLayout::inWords)
                                        .collect(Collectors.joining(", "))));
    }

    private static String inWords(Advert.Structure structure) {
        return switch (structure.type()) {
            case Advert.MANUFACTURER_DATA -> String.format(Locale.ROOT, "company:%04x", structure.id());
            case Advert.SERVICE_DATA_16 -> String.format(Locale.ROOT, "service:%04x", structure.id());
            default -> String.format(Locale.ROOT, "type %02x", structure.type());
        };
    }

    @Override
    public List<Part> parts(int port, byte[] payload) {
        try {
            Advert advert = Advert.of(payload);
            return sections.stream()
                    .flatMap(section -> section.in(advert).stream()
                            .flatMap(structure ->
                                    ByteLayout.parts(section.fields(), structure.content(), structure.from() + 2)
                                            .stream()))
                    .toList();
        } catch (IllegalArgumentException e) {
            return List.of();
        }
    }

    @Override
    public Set<String> channels() {
        return sections.stream()
                .flatMap(section -> section.fields().stream())
                .map(Field::channel)
                .collect(Collectors.toCollection(LinkedHashSet::new));
    }
}
