package sandpiper.demo;

import java.util.List;

/** The names and texts of which the marina's records are made. */
final class DemoWords {
    static final List<String> FIRST_NAMES =
            List.of(
                    "Tilda", "Jorrit", "Wenke", "Arvid", "Maelle", "Ragna", "Ivo", "Sunniva",
                    "Bennet", "Liske", "Osk", "Fenja");
    static final List<String> LAST_NAMES =
            List.of(
                    "Moor", "Sandvik", "Ebbing", "Quell", "Harlund", "Brack", "Seewald", "Torsen",
                    "Wiek", "Dorsch", "Klipp");
    static final List<String> COMPANIES =
            List.of(
                    "Blue Fender Charter",
                    "Tidewise Diving",
                    "Lantern Yacht Club",
                    "Westwind Sailing School",
                    "Mudlark Salvage");
    static final List<String> VESSEL_FIRST =
            List.of(
                    "Sea", "Little", "Grey", "Silver", "North", "Salty", "Quiet", "Golden", "Wild",
                    "Amber", "Old", "Swift");
    static final List<String> VESSEL_SECOND =
            List.of(
                    "Pink",
                    "Holly",
                    "Curlew",
                    "Plover",
                    "Lantern",
                    "Compass",
                    "Breeze",
                    "Thistle",
                    "Otter",
                    "Heron",
                    "Samphire");
    static final List<String> KINDS =
            List.of("sail", "sail", "sail", "motor", "motor", "catamaran", "workboat");
    static final List<String> COUNTRIES = List.of("DE", "DE", "DE", "DK", "NL", "SE", "NO", "PL");
    static final List<String> PIERS = List.of("N", "S", "E", "W", "M", "H");
    static final List<String> PIER_NAMES =
            List.of("North", "South", "East", "West", "Middle", "Harbour");
    static final List<String> PIER_NAMES_GERMAN =
            List.of("Nord", "Süd", "Ost", "West", "Mittel", "Hafen");

    /** Code, description, unit price, VAT in percent, and whether it is charged once per stay. */
    static final List<String> TARIFFS =
            List.of(
                    "POWER|Shore power, per kWh|0.45|19|false",
                    "WATER|Fresh water, per 100 l|1.20|7|false",
                    "ENV|Environment fee|6.50|19|true",
                    "TOURIST|Visitor's tax, per night|2.00|0|false",
                    "CRANE|Crane, in and out|145.00|19|true",
                    "SLIP|Slipway|28.00|19|true",
                    "LAUNDRY|Laundry token|4.50|19|false",
                    "SHOWER|Shower token|1.00|19|false",
                    "WLAN|Wireless network, per day|3.00|19|false",
                    "PUMP|Holding tank pump-out|12.00|19|false",
                    "DIVER|Diver, per half hour|65.00|19|false",
                    "WINTER|Winter storage, per month|180.00|19|false",
                    "WASH|Hull washing, per metre|9.50|19|false",
                    "MAST|Mast crane|75.00|19|true",
                    "TOW|Towing within the harbour|48.00|19|false",
                    "ICE|Bag of ice|3.50|7|false",
                    "BREAD|Breakfast rolls, delivered|5.20|7|false",
                    "FUEL|Diesel, per litre|1.89|19|false",
                    "OIL|Used oil taken back, per litre|0.80|19|false",
                    "PARK|Parking, per day|6.00|19|false",
                    "TRAILER|Trailer space, per week|22.00|19|false",
                    "LOCKER|Locker, per week|9.00|19|false",
                    "KEY|Gate key deposit|20.00|0|true",
                    "GUEST|Guest berth surcharge|8.00|7|false",
                    "FENDER|Fender hire, per day|2.50|19|false");

    static final List<String> JOBS =
            List.of(
                    "Antifouling",
                    "Replace anodes",
                    "Check rigging",
                    "Engine service",
                    "Mend fender rail",
                    "New cleats");

    private DemoWords() {}
}
