package sandpiper.logic.run;

import sandpiper.logic.type.Member;
import sandpiper.logic.value.Nothing;
import sandpiper.logic.value.RecordValue;

/** Stands where there is no record; nothing is in it. */
enum NoRecord implements RecordValue {
    NONE;

    @Override
    public Object read(Member member) {
        return Nothing.NULL;
    }

    @Override
    public Object read(String member) {
        return Nothing.NULL;
    }

    @Override
    public String object() {
        return "";
    }

    @Override
    public String written() {
        return "";
    }

    @Override
    public long number() {
        return -1;
    }
}
