package marvek.server.account;

import jakarta.persistence.Entity;
import jakarta.persistence.EnumType;
import jakarta.persistence.Enumerated;
import jakarta.persistence.Id;
import java.nio.charset.StandardCharsets;
import java.security.MessageDigest;
import java.security.NoSuchAlgorithmException;
import java.time.Duration;
import java.time.Instant;
import java.util.HexFormat;
import java.util.UUID;
import org.jspecify.annotations.Nullable;

/**
 * A link that works once. The launcher's {@code invite} and {@code password} write rows of the same
 * kind.
 */
@Entity
class OneTimeLink {
  static final Duration LASTS = Duration.ofDays(7);

  /** What it is for. */
  enum Purpose {
    /** To make an account; the owner is who invited, null the operator. */
    INVITE,
    /** To set a password anew; the owner is whose. */
    PASSWORD
  }

  @Id private UUID id;

  @Enumerated(EnumType.STRING)
  private Purpose purpose;

  private String digest;
  private @Nullable UUID ownerId;
  private Instant expiresAt;
  private @Nullable Instant usedAt;

  @SuppressWarnings("NullAway.Init")
  protected OneTimeLink() {}

  OneTimeLink(Purpose purpose, String token, @Nullable UUID ownerId, Instant now) {
    this.id = UUID.randomUUID();
    this.purpose = purpose;
    this.digest = digest(token);
    this.ownerId = ownerId;
    this.expiresAt = now.plus(LASTS);
  }

  /** SHA-256 of a token, hexadecimal; tokens are long and random, so nothing slower is needed. */
  static String digest(String token) {
    try {
      return HexFormat.of()
          .formatHex(
              MessageDigest.getInstance("SHA-256").digest(token.getBytes(StandardCharsets.UTF_8)));
    } catch (NoSuchAlgorithmException e) {
      throw new IllegalStateException(e);
    }
  }

  UUID id() {
    return id;
  }

  @Nullable UUID ownerId() {
    return ownerId;
  }
}
