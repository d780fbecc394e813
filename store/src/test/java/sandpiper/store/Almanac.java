package sandpiper.store;

import java.math.BigDecimal;
import java.util.ArrayList;
import java.util.Collections;
import java.util.List;
import java.util.Map;
import java.util.TreeMap;
import java.util.concurrent.CountDownLatch;
import java.util.concurrent.TimeUnit;
import sandpiper.engine.outside.Ask;
import sandpiper.engine.outside.OutsideServices;
import sandpiper.engine.outside.Reply;
import sandpiper.engine.outside.Reply.Entry;

/** A made-up service outside: knows flags and depths, and does as it is told. */
final class Almanac implements OutsideServices {
    /** What it was asked, in the order in which it was. */
    final List<String> asked = Collections.synchronizedList(new ArrayList<>());

    /** By what repeated questions are known. */
    final List<String> repeatKeys = Collections.synchronizedList(new ArrayList<>());

    volatile boolean down;
    volatile Object depth = new BigDecimal("3.14159");
    volatile CountDownLatch held = new CountDownLatch(0);
    private static final Map<String, BigDecimal> RATES =
            Map.of("USD", new BigDecimal("1.25"), "GBP", new BigDecimal("0.8"));
    private final Map<String, String> flags =
            new TreeMap<>(Map.of("A", "Alfa", "B", "Bravo", "K, 2", "Kilo"));

    /** Calls a flag something else from now on. */
    void rename(String code, String label) {
        flags.put(code, label);
    }

    @Override
    public Reply ask(Ask ask, String repeatKey) {
        asked.add(ask.written());
        repeatKeys.add(repeatKey);
        try {
            held.await(30, TimeUnit.SECONDS);
        } catch (InterruptedException e) {
            throw new IllegalStateException(e);
        }
        if (down) {
            return new Reply.Failure("Almanac does not answer: it is down.", true);
        }
        var first = ask.arguments().isEmpty() ? null : ask.arguments().getFirst();
        return switch (ask.kind()) {
            case ENTRY ->
                    new Reply.Answer(
                            flags.containsKey(first)
                                    ? new Entry((String) first, flags.get(first))
                                    : null);
            case ENTRIES ->
                    new Reply.Answer(
                            flags.entrySet().stream()
                                    .map(one -> new Entry(one.getKey(), one.getValue()))
                                    .toList());
            case CALL -> called(ask.name(), String.valueOf(first));
        };
    }

    private Reply called(String name, String first) {
        return switch (name) {
            case "note" -> new Reply.Answer("noted");
            case "rate" ->
                    RATES.containsKey(first)
                            ? new Reply.Answer(RATES.get(first))
                            : new Reply.Failure("Almanac does not know " + first + ".", false);
            default -> new Reply.Answer(depth);
        };
    }

    /** A package with everything the almanac gives, and what uses it. */
    static Map<String, String> files(String objects) {
        var files = new TreeMap<String, String>();
        files.put("port/package.yaml", "package: port\nversion: 1\n");
        files.put(
                "port/connections/almanac.openapi.json",
                """
                {
                  "openapi": "3.1.0",
                  "info": { "title": "Almanac", "version": "1" },
                  "paths": {
                    "/flags": { "get": { "responses": { "200": { "description": "All", "content": {
                      "application/json": { "schema": { "type": "array", "items": { "$ref": "#/components/schemas/Flag" } } } } } } } },
                    "/flags/{code}": { "get": {
                      "parameters": [{ "name": "code", "in": "path", "required": true, "schema": { "type": "string" } }],
                      "responses": { "200": { "description": "One", "content": {
                        "application/json": { "schema": { "$ref": "#/components/schemas/Flag" } } } } } } },
                    "/depths": {
                      "get": {
                        "parameters": [
                          { "name": "place", "in": "query", "required": true, "schema": { "type": "string" } },
                          { "name": "on", "in": "query", "schema": { "type": "string", "format": "date" } }],
                        "responses": { "200": { "description": "One", "content": {
                          "application/json": { "schema": { "type": "number" } } } } } },
                      "post": {
                        "requestBody": { "content": { "application/json": { "schema": {
                          "type": "object", "required": ["place"],
                          "properties": { "place": { "type": "string" }, "metres": { "type": "number" } } } } } },
                        "responses": { "201": { "description": "Noted", "content": {
                          "application/json": { "schema": { "type": "string" } } } } } } }
                  },
                  "components": { "schemas": { "Flag": { "type": "object",
                    "properties": { "code": { "type": "string" }, "name": { "type": ["string", "null"] } } } } }
                }
                """);
        files.put(
                "port/connections/almanac.yaml",
                """
                connection: almanac
                contract: almanac.openapi.json
                lookups:
                  flags: { call: GET /flags, key: code, label: name, keep: PT1H }
                  anyFlag: { call: GET /flags, one: "GET /flags/{code}", key: code, label: name, whenDown: accept }
                calls:
                  depth: { call: GET /depths, parameters: { place: text, on: date }, returns: decimal }
                  depthKept: { call: GET /depths, parameters: { place: text }, returns: decimal, keep: P1D }
                  rate: { call: GET /depths, parameters: { place: text, on: date }, returns: decimal, keep: P365D }
                  note: { call: POST /depths, parameters: { place: text, metres: decimal }, returns: text }
                """);
        files.put("port/objects/signal.yaml", objects);
        return files;
    }
}
