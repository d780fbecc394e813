/**
 * XML as messages have it: read as trees within bounds, written as text. Start at {@link
 * sandpiper.server.soap.xml.XmlTrees} and {@link sandpiper.server.soap.xml.XmlText}.
 */
@NullMarked
package sandpiper.server.soap.xml;

import org.jspecify.annotations.NullMarked;
