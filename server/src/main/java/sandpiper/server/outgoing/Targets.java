package sandpiper.server.outgoing;

import java.net.InetAddress;
import java.net.URI;
import java.net.URISyntaxException;
import java.net.UnknownHostException;
import java.util.List;
import java.util.Locale;
import org.apache.hc.client5.http.DnsResolver;
import org.apache.hc.client5.http.SystemDefaultDnsResolver;

/**
 * Which addresses may be called: public ones over https, and those of the instance's own network
 * that the operator lists. The check is made where names are resolved for the connection itself, so
 * that no name can lead elsewhere afterwards.
 */
public final class Targets implements DnsResolver {
    private final List<String> allowed;
    private final String setting;

    /**
     * Rules with exceptions.
     *
     * @param allowed {@code host} or {@code host:port}, as in {@code 127.0.0.1:8090}
     * @param setting the setting in which they are listed, for messages
     */
    public Targets(List<String> allowed, String setting) {
        this.allowed = List.copyOf(allowed);
        this.setting = setting;
    }

    /**
     * The address, when it may be called as far as it tells by itself.
     *
     * @throws IllegalArgumentException when it may not, saying why
     */
    public URI check(String address) {
        URI uri;
        try {
            uri = new URI(address);
        } catch (URISyntaxException e) {
            throw new IllegalArgumentException("This is no address: " + e.getReason() + ".", e);
        }
        var host = uri.getHost();
        var scheme = String.valueOf(uri.getScheme()).toLowerCase(Locale.ROOT);
        if (host == null || !(scheme.equals("https") || scheme.equals("http"))) {
            throw new IllegalArgumentException(
                    "The address must begin with https:// and name a host.");
        }
        if (uri.getUserInfo() != null) {
            throw new IllegalArgumentException("The address must not hold a name and password.");
        }
        if (!isAllowed(host, uri.getPort())) {
            if (isListed(host)) {
                throw new IllegalArgumentException(
                        "%s is listed in the setting %s with another port."
                                .formatted(host, setting));
            }
            if (scheme.equals("http")) {
                throw new IllegalArgumentException(
                        ("The address must begin with https://; without encryption only addresses"
                                        + " listed in the setting %s are called.")
                                .formatted(setting));
            }
            checkLiteral(host);
        }
        return uri;
    }

    private void checkLiteral(String host) {
        boolean isLiteral = host.startsWith("[") || host.matches("[0-9.]+");
        if (isLiteral) {
            try {
                require(host, InetAddress.getByName(host));
            } catch (UnknownHostException e) {
                throw new IllegalArgumentException("There is no host " + host + ".", e);
            }
        } else if (host.equalsIgnoreCase("localhost") || host.endsWith(".localhost")) {
            throw new IllegalArgumentException(inside(host));
        }
    }

    private boolean isAllowed(String host, int port) {
        return allowed.stream()
                .anyMatch(one ->
                        one.equalsIgnoreCase(host) || one.equalsIgnoreCase(host + ":" + port));
    }

    /** Whether a host is listed at all; with which port was looked at before. */
    private boolean isListed(String host) {
        return allowed.stream()
                .anyMatch(one ->
                        one.equalsIgnoreCase(host)
                                || one.toLowerCase(Locale.ROOT)
                                        .startsWith(host.toLowerCase(Locale.ROOT) + ":"));
    }

    @Override
    public InetAddress[] resolve(String host) throws UnknownHostException {
        var addresses = SystemDefaultDnsResolver.INSTANCE.resolve(host);
        if (!isListed(host)) {
            for (var address : addresses) {
                require(host, address);
            }
        }
        return addresses;
    }

    @Override
    public String resolveCanonicalHostname(String host) throws UnknownHostException {
        return SystemDefaultDnsResolver.INSTANCE.resolveCanonicalHostname(host);
    }

    private void require(String host, InetAddress address) {
        boolean isInside =
                address.isAnyLocalAddress()
                        || address.isLoopbackAddress()
                        || address.isLinkLocalAddress()
                        || address.isSiteLocalAddress()
                        || address.isMulticastAddress()
                        || isUniqueLocal(address)
                        || isShared(address)
                        || isTranslated(address);
        if (isInside) {
            throw new IllegalArgumentException(inside(host));
        }
    }

    private String inside(String host) {
        return "%s is inside the service's own network; list it in the setting %s to call it."
                .formatted(host, setting);
    }

    /** Addresses of private networks in IPv6 (RFC 4193). */
    private static boolean isUniqueLocal(InetAddress address) {
        var bytes = address.getAddress();
        return bytes.length == 16 && (bytes[0] & 0xfe) == 0xfc;
    }

    /** 100.64.0.0/10 of carriers (RFC 6598), and 0.0.0.0/8. */
    private static boolean isShared(InetAddress address) {
        var bytes = address.getAddress();
        return bytes.length == 4
                && (bytes[0] == 0
                        || ((bytes[0] & 0xff) == 100 && (bytes[1] & 0xc0) == 64)
                        // IETF protocol assignments, benchmarks, and what is reserved (RFC 6890)
                        || ((bytes[0] & 0xff) == 192 && bytes[1] == 0 && bytes[2] == 0)
                        || ((bytes[0] & 0xff) == 198 && (bytes[1] & 0xfe) == 18)
                        || (bytes[0] & 0xf0) == 0xf0);
    }

    /** Addresses of IPv6 that stand for others: of NAT64, 6to4, and those of IPv4 itself. */
    private static boolean isTranslated(InetAddress address) {
        var bytes = address.getAddress();
        if (bytes.length != 16) {
            return false;
        }
        boolean nat64 =
                bytes[0] == 0
                        && bytes[1] == 0x64
                        && (bytes[2] & 0xff) == 0xff
                        && (bytes[3] & 0xff) == 0x9b;
        boolean sixToFour = bytes[0] == 0x20 && bytes[1] == 0x02;
        boolean ofIpv4 = true;
        for (int i = 0; i < 12; i++) {
            ofIpv4 &= bytes[i] == 0;
        }
        return nat64 || sixToFour || ofIpv4;
    }
}
