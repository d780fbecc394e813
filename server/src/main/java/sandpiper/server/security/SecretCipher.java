package sandpiper.server.security;

import java.io.IOException;
import java.io.UncheckedIOException;
import java.nio.charset.StandardCharsets;
import java.nio.file.FileAlreadyExistsException;
import java.nio.file.FileSystems;
import java.nio.file.Files;
import java.nio.file.Path;
import java.nio.file.StandardOpenOption;
import java.nio.file.attribute.FileAttribute;
import java.nio.file.attribute.PosixFilePermissions;
import java.security.GeneralSecurityException;
import java.util.Base64;
import java.util.Optional;
import javax.crypto.KDF;
import javax.crypto.SecretKey;
import javax.crypto.spec.HKDFParameterSpec;
import javax.crypto.spec.SecretKeySpec;
import org.jspecify.annotations.Nullable;
import org.slf4j.Logger;
import org.slf4j.LoggerFactory;
import org.springframework.beans.factory.annotation.Autowired;
import org.springframework.security.crypto.encrypt.AesGcmBytesEncryptor;
import org.springframework.security.crypto.encrypt.BytesEncryptor;
import org.springframework.security.crypto.keygen.KeyGenerators;
import org.springframework.stereotype.Component;
import sandpiper.server.settings.Settings;

/**
 * Seals the few secrets that have to be known again later, with AES-256-GCM. The key stands in a
 * file of its own beside the data, so that a copy of the data alone gives nothing away; it is made
 * when it is first needed.
 */
@Component
public class SecretCipher {
    private static final Logger LOG = LoggerFactory.getLogger(SecretCipher.class);
    private static final int KEY_BYTES = 32;

    private final Path file;
    private @Nullable BytesEncryptor encryptor;

    @Autowired
    SecretCipher(Settings settings) {
        this(settings.key());
    }

    SecretCipher(Path file) {
        this.file = file;
    }

    /** A text that only this instance can open. */
    public String seal(String secret) {
        return Base64.getEncoder()
                .encodeToString(encryptor().encrypt(secret.getBytes(StandardCharsets.UTF_8)));
    }

    /** The secret in a sealed text, or nothing when it was sealed with another key. */
    public Optional<String> open(String sealed) {
        try {
            var opened = encryptor().decrypt(Base64.getDecoder().decode(sealed));
            return Optional.of(new String(opened, StandardCharsets.UTF_8));
        } catch (IllegalStateException e) {
            LOG.error(
                    "A secret cannot be opened with the key in {}; bring back the key file that"
                            + " belongs to the data, or make new secrets",
                    file,
                    e);
            return Optional.empty();
        }
    }

    /**
     * A key for one purpose, of the key in the file (HKDF, RFC 5869): a copy of the data alone does
     * not hold it.
     *
     * @param purpose what it is for, with the generation of keys
     */
    public SecretKey derived(String purpose) {
        try {
            var hkdf = KDF.getInstance("HKDF-SHA256");
            return hkdf.deriveKey(
                    "HmacSHA256",
                    HKDFParameterSpec.ofExtract()
                            .addIKM(Base64.getDecoder().decode(key()))
                            .thenExpand(purpose.getBytes(StandardCharsets.UTF_8), KEY_BYTES));
        } catch (GeneralSecurityException e) {
            throw new IllegalStateException(e);
        }
    }

    private synchronized BytesEncryptor encryptor() {
        var made = encryptor;
        if (made == null) {
            var key = new SecretKeySpec(Base64.getDecoder().decode(key()), "AES");
            made = AesGcmBytesEncryptor.withSecretKey(key).build();
            encryptor = made;
        }
        return made;
    }

    private String key() {
        try {
            make();
            return Files.readString(file).strip();
        } catch (IOException e) {
            throw new UncheckedIOException("The key file %s cannot be used".formatted(file), e);
        }
    }

    private void make() throws IOException {
        var folder = file.toAbsolutePath().getParent();
        if (folder != null) {
            Files.createDirectories(folder, ownersOnly("rwx------"));
        }
        var key =
                Base64.getEncoder()
                        .encodeToString(KeyGenerators.secureRandom(KEY_BYTES).generateKey());
        try (var channel =
                Files.newByteChannel(
                        file,
                        java.util.Set.of(StandardOpenOption.CREATE_NEW, StandardOpenOption.WRITE),
                        ownersOnly("rw-------"))) {
            channel.write(java.nio.ByteBuffer.wrap(key.getBytes(StandardCharsets.US_ASCII)));
        } catch (FileAlreadyExistsException _) {
            // The key made before is the one to use.
        }
    }

    private static FileAttribute<?>[] ownersOnly(String permissions) {
        return FileSystems.getDefault().supportedFileAttributeViews().contains("posix")
                ? new FileAttribute<?>[] {
                    PosixFilePermissions.asFileAttribute(
                            PosixFilePermissions.fromString(permissions))
                }
                : new FileAttribute<?>[0];
    }
}
