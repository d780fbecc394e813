/**
 * Services over SOAP 1.1 and 1.2: WSDL 1.1 with its schema, document/literal wrapped, and the
 * calls. Start at {@link sandpiper.server.soap.SoapCalls}.
 */
@NullMarked
package sandpiper.server.soap;

import org.jspecify.annotations.NullMarked;
