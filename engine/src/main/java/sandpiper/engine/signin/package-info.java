/**
 * Sessions of people and the passwords that were tried, kept where every process of the service
 * finds them: {@link sandpiper.engine.signin.OpenSessions} and {@link
 * sandpiper.engine.signin.SharedTries}.
 */
@NullMarked
package sandpiper.engine.signin;

import org.jspecify.annotations.NullMarked;
