package sandpiper.model.release;

import java.util.Arrays;
import java.util.Collection;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import org.jspecify.annotations.Nullable;
import sandpiper.logic.term.FormulaMember;
import sandpiper.logic.type.LogicType;
import sandpiper.logic.type.Member;
import sandpiper.model.logic.Formula;
import sandpiper.model.type.FieldType;
import sandpiper.model.type.MoneyType;
import sandpiper.model.type.NumberType;
import sandpiper.model.type.TextType;
import sandpiper.model.type.TypeKeyword;

/** What a record of the model has by name, as the language sees it. */
public sealed interface ModelMember extends Member {
    /** The member for a field. */
    static ModelMember of(Release release, ObjectType object, Field field) {
        return new OfField(object, field, typeOf(release, field), release);
    }

    /** What the language takes the values of a field for. */
    static LogicType typeOf(Release release, Field field) {
        return switch (field.type()) {
            case FieldType.Reference reference ->
                    release.find(reference.to())
                            .<LogicType>map(
                                    target -> new LogicType.RecordOf(release.recordType(target)))
                            .orElse(LogicType.Simple.ANY);
            case NumberType number when number.keyword() == TypeKeyword.PERCENT ->
                    LogicType.Simple.PERCENT;
            case NumberType number when number.keyword() == TypeKeyword.AMOUNT ->
                    new LogicType.AmountOf(number.currency());
            case MoneyType _ -> new LogicType.AmountOf(null);
            default -> field.type().logicType();
        };
    }

    /** A field, of a record or of a line item. */
    record OfField(ObjectType object, Field field, LogicType type, Release release)
            implements ModelMember, FormulaMember {
        @Override
        public @Nullable Formula formula() {
            return field.onRead() ? release.formula(object, field, type) : null;
        }

        @Override
        public String name() {
            return field.name();
        }

        @Override
        public boolean mayBeEmpty() {
            boolean alwaysFilled =
                    field.required()
                            || field.defaultValue() != null
                            || field.isDerived()
                            || object.key().contains(field.name());
            return !alwaysFilled;
        }

        @Override
        public boolean mustBeGiven(Collection<String> given) {
            var numbering = object.numbering();
            boolean numbered = numbering != null && numbering.field().equals(field.name());
            boolean filled =
                    siblings().stream()
                            .filter(other -> given.contains(other.name()))
                            .anyMatch(other -> other.logic().fill().containsKey(field.name()));
            return (field.required() || (isOfRecord() && object.key().contains(field.name())))
                    && field.defaultValue() == null
                    && !field.isDerived()
                    && !object.isState(field)
                    && !numbered
                    && !filled;
        }

        private boolean isOfRecord() {
            return object.fields().find(field.name()).filter(field::equals).isPresent();
        }

        /** The fields beside it, of the record or of its part. */
        private Fields siblings() {
            return isOfRecord()
                    ? object.fields()
                    : object.parts().stream()
                            .map(Part::fields)
                            .filter(fields ->
                                    fields.find(field.name()).filter(field::equals).isPresent())
                            .findFirst()
                            .orElse(object.fields());
        }

        @Override
        public String describe() {
            return Objects.requireNonNullElse(field.describe(), field.label() + ".");
        }

        @Override
        public Map<String, Member> languages() {
            var languages = new LinkedHashMap<String, Member>();
            if (field.type() instanceof TextType text) {
                text.languages().forEach(one -> languages.put(one, new OfLanguage(this, one)));
            }
            return languages;
        }

        @Override
        public @Nullable String fixed() {
            if (field.isDerived()) {
                return "is worked out by its formula";
            }
            return object.isState(field) ? "is changed by transitions" : null;
        }
    }

    /** A localised text in one of its languages. */
    record OfLanguage(OfField of, String language) implements ModelMember {
        /** Its place among the languages of the field, from 0. */
        public int place() {
            return ((TextType) of.field().type()).languages().indexOf(language);
        }

        /** The name of the field, a point, and the language. */
        @Override
        public String name() {
            return of.name() + "." + language;
        }

        @Override
        public LogicType type() {
            return of.type();
        }

        @Override
        public boolean mayBeEmpty() {
            return true;
        }

        @Override
        public String describe() {
            return "%s In %s.".formatted(of.describe(), language);
        }

        @Override
        public boolean isLanguage() {
            return true;
        }

        @Override
        public @Nullable String fixed() {
            return of.fixed();
        }
    }

    /** The line items of a part. */
    record OfPart(Part part, PartRecordType items) implements ModelMember {
        @Override
        public String name() {
            return part.name();
        }

        @Override
        public LogicType type() {
            return new LogicType.ListOf(new LogicType.RecordOf(items));
        }

        @Override
        public boolean mayBeEmpty() {
            return false;
        }

        @Override
        public String describe() {
            return Objects.requireNonNullElse(part.describe(), "Line items.");
        }
    }

    /**
     * The records of another object that refer to this one.
     *
     * @param from the object whose records refer
     * @param field their reference
     */
    record Related(String name, ObjectType from, Field field, LogicType type)
            implements ModelMember {
        @Override
        public boolean mayBeEmpty() {
            return false;
        }

        @Override
        public String describe() {
            return "%s whose %s is this one.".formatted(from.plural(), field.label());
        }

        @Override
        public String reference() {
            return field.name();
        }
    }

    /** The number of a line item within its part. */
    record Line(LogicType type) implements ModelMember {
        @Override
        public String name() {
            return "line";
        }

        @Override
        public boolean mayBeEmpty() {
            return true;
        }

        @Override
        public String describe() {
            return "Identifies the line item within its record.";
        }

        @Override
        public String fixed() {
            return "is given by the service";
        }
    }

    /** What every record has without saying so. */
    record OfEveryRecord(Kind kind) implements ModelMember {
        /** Which of them. */
        public enum Kind {
            CREATED_AT("createdAt", LogicType.Simple.DATE_TIME, "When the record was created."),
            CREATED_BY("createdBy", LogicType.Simple.TEXT, "Who created the record."),
            CHANGED_AT("changedAt", LogicType.Simple.DATE_TIME, "When it was last changed."),
            CHANGED_BY("changedBy", LogicType.Simple.TEXT, "Who last changed it."),
            RETIRED("retired", LogicType.Simple.BOOLEAN, "Whether it is out of use.");

            private final String memberName;
            private final LogicType type;
            private final String describe;

            Kind(String memberName, LogicType type, String describe) {
                this.memberName = memberName;
                this.type = type;
                this.describe = describe;
            }

            /** As it is named in expressions. */
            public String memberName() {
                return memberName;
            }

            /** All names. */
            public static List<String> names() {
                return Arrays.stream(values()).map(Kind::memberName).toList();
            }
        }

        @Override
        public String name() {
            return kind.memberName;
        }

        @Override
        public LogicType type() {
            return kind.type;
        }

        @Override
        public boolean mayBeEmpty() {
            return false;
        }

        @Override
        public String describe() {
            return kind.describe;
        }

        @Override
        public String fixed() {
            return "is kept by the service";
        }
    }
}
