package sandpiper.client;

import tools.jackson.databind.JsonNode;

/**
 * What the service answered.
 *
 * @param value as this client reads it
 * @param json word for word, for those who pass it on; it may say more than this client knows
 */
public record Answer<T>(T value, JsonNode json) {}
